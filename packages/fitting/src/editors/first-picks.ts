import { type MarkedTalk, mean, overlap, type Passage } from './agreement.js';
import type { Mark } from './marks.js';
import type { Talk } from './talk.js';

/** From this overlap on a pick is one that a reader marked, give or take its edges; more than this of one on a never passage is a bad pick. */
const HALF = 0.5;

interface FirstPicks {
  /** 0 is the mean over whole talks (a random passage), 1 is a reader's own first picks judged by the others. */
  readonly agreement: number;
  /** Share of the picks that a reader marked. */
  readonly kept: number;
  /** Picks that lie for more than half in what some reader says nobody should post. */
  readonly never: number;
  readonly picks: number;
  /** How many were asked for: one for two minutes of talk, 2 to 8. One that is missing counts nothing. */
  readonly wanted: number;
}

/**
 * How good the first picks of some talks are by the second: as bench/editors/README.md says of the flat talks, whose readers
 * also put their own passages in order.
 * @param picks for each talk, best first
 */
export function judgeFirstPicks(talks: readonly MarkedTalk[], picks: readonly (readonly Passage[])[]): FirstPicks {
  const rows = talks.map(({ talk, marks }, i) => {
    const wanted = Math.min(8, Math.max(2, Math.round(talk.durationMs / 120_000)));
    const grades = marks.map((own) => bySecond(talk, own));
    const byOthers = (r: number, passage: Passage): number => mean(grades.filter((_, k) => k !== r).map((one) => meanOfSeconds(one, passage)));
    const first = picks[i]!.slice(0, wanted);
    const spansOf = (own: readonly Mark[], good: boolean): Passage[] => own.filter(({ grade }) => grade > 0 === good).map((mark) => spanOf(talk, mark));
    const never = marks.flatMap((own) => spansOf(own, false));
    const lies = (pick: Passage, span: Passage): boolean =>
      Math.min(pick.endMs, span.endMs) - Math.max(pick.startMs, span.startMs) > HALF * (pick.endMs - pick.startMs);
    return {
      found: mean(marks.map((_, r) => first.reduce((sum, one) => sum + byOthers(r, one), 0) / wanted)),
      reader: mean(
        marks.map((own, r) =>
          mean(
            spansOf(own, true)
              .slice(0, wanted)
              .map((span) => byOthers(r, span)),
          ),
        ),
      ),
      random: mean(grades.map((one) => mean([...one]))),
      kept: mean(first.map((pick) => mean(marks.map((own) => (spansOf(own, true).some((span) => overlap(pick, span) >= HALF) ? 1 : 0))))),
      never: first.filter((pick) => never.some((span) => lies(pick, span))).length,
      picks: first.length,
      wanted,
    };
  });
  const of = (key: keyof (typeof rows)[number]): number => mean(rows.map((one) => one[key]));
  const total = (key: keyof (typeof rows)[number]): number => rows.reduce((sum, one) => sum + one[key], 0);
  return {
    agreement: (of('found') - of('random')) / (of('reader') - of('random')),
    kept: of('kept'),
    never: total('never'),
    picks: total('picks'),
    wanted: total('wanted'),
  };
}

const spanOf = (talk: Talk, { first, end }: Mark): Passage => ({ startMs: talk.sentences[first]!.startMs, endMs: talk.sentences[end - 1]!.endMs });

/** Grade of each second by one reader, 0 to 1: the best passage that holds it. */
function bySecond(talk: Talk, marks: readonly Mark[]): Float32Array {
  const grades = new Float32Array(Math.ceil(talk.durationMs / 1_000) + 1);
  for (const mark of marks) {
    const { startMs, endMs } = spanOf(talk, mark);
    for (let t = Math.floor(startMs / 1_000); t < endMs / 1_000; t += 1) grades[t] = Math.max(grades[t]!, mark.grade / 5);
  }
  return grades;
}

function meanOfSeconds(grades: Float32Array, { startMs, endMs }: Passage): number {
  const from = Math.floor(startMs / 1_000);
  const to = Math.max(from + 1, Math.ceil(endMs / 1_000));
  let sum = 0;
  for (let t = from; t < to; t += 1) sum += grades[t] ?? 0;
  return sum / (to - from);
}

const SHORTEST_MS = 15_000;
const LONGEST_MS = 75_000;

/** The best passages of whole sentences, by the mean of a number of each sentence over its time; none over another. */
export function bestPassages(sentences: readonly Passage[], worth: ArrayLike<number>, most = 8): Passage[] {
  const all: (Passage & { score: number })[] = [];
  sentences.forEach(({ startMs }, first) => {
    let [sum, time] = [0, 0];
    for (let s = first; s < sentences.length && sentences[s]!.endMs - startMs <= LONGEST_MS; s += 1) {
      const ms = sentences[s]!.endMs - sentences[s]!.startMs;
      sum += worth[s]! * ms;
      time += ms;
      if (sentences[s]!.endMs - startMs >= SHORTEST_MS) all.push({ startMs, endMs: sentences[s]!.endMs, score: sum / time });
    }
  });
  all.sort((a, b) => b.score - a.score);
  const kept: Passage[] = [];
  for (const one of all) if (kept.length < most && kept.every((other) => other.endMs <= one.startMs || one.endMs <= other.startMs)) kept.push(one);
  return kept;
}
