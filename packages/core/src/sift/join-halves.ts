import type { SiftContext } from './context.js';
import { rowsBy, type RunTable, type ScoredRun } from './run-table.js';
import type { Run } from './types.js';

/** What lies between two halves of one thing is short. */
const MOST_BETWEEN_MS = 6_000;
/** A whole may score this much below its better half: it is longer, and its rates are means. */
const MAY_LOSE = 2;

/**
 * Two chosen runs beside each other may be the halves of one story, one without its end and the other without its
 * beginning; together they are worth more to the choice than the whole. They are made one where the whole is a candidate
 * itself, scores about as well as the better half, and stands alone better than either.
 * @param chosen by start, without overlaps
 * @param runs every scored run
 * @param standsAlone of a run, 0 to 100
 * @returns by start, without overlaps
 */
export function joinHalves(context: SiftContext, chosen: readonly ScoredRun[], runs: RunTable, standsAlone: (run: Run) => number): ScoredRun[] {
  const scoreOf = scoresByPlace(context.sentences.length, runs);
  const joined: ScoredRun[] = [];
  for (const run of chosen) {
    let last = run;
    for (;;) {
      const before = joined.at(-1);
      const whole = before === undefined ? null : wholeOf(context, before, last, scoreOf, standsAlone);
      if (whole === null) break;
      joined.pop();
      last = whole;
    }
    joined.push(last);
  }
  return joined;
}

function wholeOf(
  { sentences }: SiftContext,
  a: ScoredRun,
  b: ScoredRun,
  scoreOf: (run: Run) => number | undefined,
  standsAlone: (run: Run) => number,
): ScoredRun | null {
  if (sentences[b.first]!.startMs - sentences[a.end - 1]!.endMs > MOST_BETWEEN_MS) return null;
  const run = { first: a.first, end: b.end };
  const score = scoreOf(run);
  if (score === undefined || score < Math.max(a.score, b.score) - MAY_LOSE) return null;
  return standsAlone(run) > Math.max(standsAlone(a), standsAlone(b)) ? { ...run, score } : null;
}

/** Scores looked up by where a run begins and ends. */
function scoresByPlace(sentences: number, { first, end, score }: RunTable): (run: Run) => number | undefined {
  const { rows, starts } = rowsBy(first, sentences);
  return (run) => {
    for (let k = starts[run.first]!; k < starts[run.first + 1]!; k += 1) if (end[rows[k]!] === run.end) return score[rows[k]!];
    return undefined;
  };
}
