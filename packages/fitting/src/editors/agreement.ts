import { seededChance } from '../math/chance.js';
import { gradesOf, type Mark, meanOver, neverOf } from './marks.js';
import type { Talk } from './talk.js';

export interface Passage {
  readonly startMs: number;
  readonly endMs: number;
}

/** A talk with what each reader says of it, ready to judge passages by. */
export interface MarkedTalk {
  readonly talk: Talk;
  /** One list a reader. */
  readonly marks: readonly (readonly Mark[])[];
}

interface Judgement {
  /** 0 is a random passage, 1 is one reader judged by the others; NaN when readers do no better than chance. */
  readonly agreement: number;
  /** Järvelin & Kekäläinen (2002), discount log2(rank + 1), gain = the readers' mean grade over the passage. */
  readonly ndcg: number;
  /** Share of the time of the passages that at least two readers say nobody should post, 0 to 1. */
  readonly never: number;
  /** How well the edges meet the readers' own, 0 to 1: see `meetingOf`. */
  readonly edges: number;
  /** The same of each reader's best passages, met by the others'. */
  readonly edgesOfReaders: number;
  /** Share of the passages that a reader would keep as they are, 0 to 1: at least half of it and of one they marked lie in both. */
  readonly kept: number;
  /** The same of each reader's best passages by the others. */
  readonly keptOfReaders: number;
}

/** How many of the best count, for a talk of some ten minutes. */
export const TOP = 5;
const RANDOM_PASSAGES = 400;

/** Judges the first `count` of ranked passages of one talk, beside as many of each reader's best. */
export function judge(marked: MarkedTalk, ranked: readonly Passage[], count = TOP): Judgement {
  const { talk } = marked;
  const grades = marked.marks.map((marks) => gradesOf(talk, marks));
  const never = marked.marks.map((marks) => neverOf(talk, marks));
  const value = (passage: Passage, by: readonly Float64Array[]): number => mean(by.map((grade) => meanOver(talk, grade, passage.startMs, passage.endMs)));
  const spans = marked.marks.map((marks) => marks.filter((mark) => mark.grade > 0).map((mark) => spanOf(talk, mark)));
  const top = ranked.slice(0, count);
  const chance = mean(randomPassages(talk).map((passage) => value(passage, grades)));
  const human = mean(
    marked.marks.map((marks, r) =>
      mean(
        bestOf(talk, marks, count).map((passage) =>
          value(
            passage,
            grades.filter((_, k) => k !== r),
          ),
        ),
      ),
    ),
  );
  const found = top.length === 0 ? 0 : mean(top.map((passage) => value(passage, grades)));
  const ofReaders = (figure: (own: Passage[], others: Passage[][]) => number): number =>
    mean(
      marked.marks.map((marks, r) =>
        figure(
          bestOf(talk, marks, count),
          spans.filter((_, k) => k !== r),
        ),
      ),
    );
  const agreedNever = Float64Array.from(talk.sentences, (_, s) => (never.filter((reader) => reader[s] === 1).length >= 2 ? 1 : 0));
  return {
    agreement: human > chance ? (found - chance) / (human - chance) : Number.NaN,
    ndcg: ndcg(
      top.map((passage) => value(passage, grades)),
      idealGains(marked, grades, value, count),
    ),
    never: mean(top.map((passage) => meanOver(talk, agreedNever, passage.startMs, passage.endMs))),
    edges: meetingOf(top, spans),
    edgesOfReaders: ofReaders((own, others) => meetingOf(own, others)),
    kept: keptOf(top, spans),
    keptOfReaders: ofReaders((own, others) => keptOf(own, others)),
  };
}

/** What one more reader says of ranked passages, and of the best passages of the readers before. */
interface LaterJudgement {
  /** 0 is a random passage, 1 is one of the earlier readers, by the later one's grades. */
  readonly agreement: number;
  /** Share of the time that the later reader says nobody should post. */
  readonly never: number;
  readonly edges: number;
  readonly edgesOfReaders: number;
  readonly kept: number;
  readonly keptOfReaders: number;
}

/** Judges the first `count` of ranked passages by a reader who came later; the earlier readers are judged beside them. */
export function judgeByLater({ talk, marks }: MarkedTalk, later: readonly Mark[], ranked: readonly Passage[], count = TOP): LaterJudgement {
  const grades = gradesOf(talk, later);
  const never = neverOf(talk, later);
  const spans = [later.filter((mark) => mark.grade > 0).map((mark) => spanOf(talk, mark))];
  const top = ranked.slice(0, count);
  const gradeOf = (passages: readonly Passage[]): number => mean(passages.map(({ startMs, endMs }) => meanOver(talk, grades, startMs, endMs)));
  const earlier = marks.map((list) => bestOf(talk, list, count));
  const [chance, human] = [gradeOf(randomPassages(talk)), mean(earlier.map(gradeOf))];
  return {
    agreement: human > chance ? (gradeOf(top) - chance) / (human - chance) : Number.NaN,
    never: mean(top.map(({ startMs, endMs }) => meanOver(talk, never, startMs, endMs))),
    edges: meetingOf(top, spans),
    edgesOfReaders: mean(earlier.map((own) => meetingOf(own, spans))),
    kept: keptOf(top, spans),
    keptOfReaders: mean(earlier.map((own) => keptOf(own, spans))),
  };
}

/** From this overlap on a passage is the one that a reader marked, give or take its edges. */
const KEPT_FROM = 0.5;

function keptOf(passages: readonly Passage[], spans: readonly (readonly Passage[])[]): number {
  return mean(passages.map((passage) => mean(spans.map((list) => (list.some((span) => overlap(passage, span) >= KEPT_FROM) ? 1 : 0)))));
}

/** Mean over passages and readers of the best overlap (intersection over union) with a passage that the reader marked. */
function meetingOf(passages: readonly Passage[], spans: readonly (readonly Passage[])[]): number {
  return mean(passages.map((passage) => mean(spans.map((list) => list.reduce((best, span) => Math.max(best, overlap(passage, span)), 0)))));
}

/** Intersection over union of two spans of time, 0 to 1. */
export function overlap(a: Passage, b: Passage): number {
  const shared = Math.max(0, Math.min(a.endMs, b.endMs) - Math.max(a.startMs, b.startMs));
  return shared / (Math.max(a.endMs, b.endMs) - Math.min(a.startMs, b.startMs));
}

const spanOf = (talk: Talk, mark: Mark): Passage => ({
  startMs: talk.sentences[mark.first]!.startMs,
  endMs: talk.sentences[Math.min(mark.end, talk.sentences.length) - 1]!.endMs,
});

/** A reader's best passages: by grade, earlier first. */
function bestOf(talk: Talk, marks: readonly Mark[], count: number): Passage[] {
  return marks
    .filter((mark) => mark.grade > 0)
    .sort((a, b) => b.grade - a.grade || a.first - b.first)
    .slice(0, count)
    .map((mark) => spanOf(talk, mark));
}

/** Passages of 30 to 60 s that start on a sentence, drawn evenly over the talk. */
export function randomPassages(talk: Talk, count = RANDOM_PASSAGES, seed = 7): Passage[] {
  const random = seededChance(seed);
  return Array.from({ length: count }, () => {
    const startMs = talk.sentences[Math.floor(random() * talk.sentences.length)]!.startMs;
    return { startMs, endMs: Math.min(talk.durationMs, startMs + 30_000 + 30_000 * random()) };
  });
}

/** The best that could be had: the readers' own passages, best first, leaving out what overlaps. */
function idealGains(
  marked: MarkedTalk,
  grades: readonly Float64Array[],
  value: (passage: Passage, by: readonly Float64Array[]) => number,
  count: number,
): number[] {
  const all = marked.marks.flatMap((marks) => bestOf(marked.talk, marks, count).map((passage) => ({ passage, gain: value(passage, grades) })));
  all.sort((a, b) => b.gain - a.gain);
  const kept: { passage: Passage; gain: number }[] = [];
  for (const one of all) {
    if (kept.length < count && kept.every(({ passage }) => passage.endMs <= one.passage.startMs || one.passage.endMs <= passage.startMs)) kept.push(one);
  }
  return kept.map(({ gain }) => gain);
}

/**
 * Normalised discounted cumulative gain of gains in ranked order, 0 to 1 where `ideal` holds the best gains possible.
 * Järvelin & Kekäläinen (2002), with the discount log2(rank + 1).
 */
export function ndcg(gains: readonly number[], ideal: readonly number[]): number {
  const best = discountedGain([...ideal].sort((a, b) => b - a));
  return best === 0 ? 0 : discountedGain(gains) / best;
}

export function discountedGain(gains: readonly number[]): number {
  return gains.reduce((sum, gain, i) => sum + gain / Math.log2(i + 2), 0);
}

export function mean(values: readonly number[]): number {
  return values.length === 0 ? 0 : values.reduce((sum, value) => sum + value, 0) / values.length;
}
