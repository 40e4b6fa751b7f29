import type { GapReading } from './gap-model.js';

/** Upper ends of the classes that pauses are counted in, in ms. */
const CLASSES = [40, 80, 120, 160, 200, 260, 330, 420, 550, 750, 1_100, Infinity] as const;

/**
 * How pauses fall at the ends of sentences, at the commas inside and elsewhere, as far as is known before a recording was
 * heard: shares of the classes. Common practice, from memory: most words follow each other at once; a pause of a quarter
 * second and more is heard at most ends, at some commas and before few other words; one end in six has none.
 */
const BEFORE = {
  end: [0.17, 0.05, 0.04, 0.04, 0.05, 0.08, 0.1, 0.12, 0.12, 0.11, 0.07, 0.05],
  clause: [0.45, 0.06, 0.06, 0.06, 0.07, 0.08, 0.07, 0.06, 0.04, 0.03, 0.01, 0.01],
  other: [0.87, 0.03, 0.02, 0.02, 0.015, 0.012, 0.01, 0.008, 0.006, 0.005, 0.002, 0.002],
} as const;
type Sort = keyof typeof BEFORE;
type Shares = Readonly<Record<Sort, readonly number[]>>;

/** How many gaps of each sort that knowledge counts as. */
const KNOWN = 24;
const ROUNDS = 5;
const MOST = 4;

/** Log-odds of an end that the pause in a gap adds to those of the words, -4 to 4; `clause` as the words have it. */
export type PauseOdds = (pauseMs: number, clause: number) => number;

/**
 * Learns from a recording itself how much its pauses tell of the ends of sentences: speakers and recognisers differ in how
 * long they are, and in how many fall elsewhere. Expectation and maximisation over gaps that are ends, commas or neither
 * (Dempster, Laird & Rubin 1977): what the words say of each gap tells which pauses go with what, and what the pauses say
 * corrects the words. A longer pause never tells less of an end than a shorter one.
 * @param readings what the words say of each gap, @param pausesMs the pause in each; below 0 counts as none
 */
export function learnPauses(readings: readonly GapReading[], pausesMs: ArrayLike<number>): PauseOdds {
  const classes = Uint8Array.from(pausesMs, classOf);
  const chances = { end: new Float64Array(classes.length), clause: new Float64Array(classes.length) };
  readings.forEach(({ end, clause }, i) => {
    chances.end[i] = chanceOf(end);
    chances.clause[i] = (1 - chances.end[i]!) * chanceOf(clause);
  });
  let shares: Shares = BEFORE;
  for (let round = 0; round < ROUNDS; round += 1) {
    const counts = known();
    classes.forEach((c, i) => {
      const ends = chances.end[i]! * shares.end[c]!;
      const clauses = chances.clause[i]! * shares.clause[c]!;
      const others = (1 - chances.end[i]! - chances.clause[i]!) * shares.other[c]!;
      const all = ends + clauses + others;
      counts.end[c]! += ends / all;
      counts.clause[c]! += clauses / all;
      counts.other[c]! += others / all;
    });
    shares = { end: shared(counts.end), clause: shared(counts.clause), other: shared(counts.other) };
  }
  return oddsBy(shares);
}

/** The same where the ends are known, and commas are as likely as the words say. */
export function tellPauses(readings: readonly { readonly isEnd: boolean; readonly pauseMs: number }[]): PauseOdds {
  const counts = known();
  for (const { isEnd, pauseMs } of readings) counts[isEnd ? 'end' : 'other'][classOf(pauseMs)]! += 1;
  return oddsBy({ end: shared(counts.end), clause: shared(counts.other), other: shared(counts.other) });
}

const known = (): Record<Sort, number[]> => ({ end: spread('end'), clause: spread('clause'), other: spread('other') });
const spread = (sort: Sort): number[] => BEFORE[sort].map((share) => KNOWN * share);

function shared(counts: readonly number[]): number[] {
  const all = counts.reduce((sum, count) => sum + count, 0);
  return counts.map((count) => count / all);
}

const chanceOf = (odds: number): number => 1 / (1 + Math.exp(-odds));
const classOf = (pauseMs: number): number => CLASSES.findIndex((to) => pauseMs < to);

function oddsBy(shares: Shares): PauseOdds {
  const [overClause, overOther] = [rising(shares.end, shares.clause), rising(shares.end, shares.other)];
  return (pauseMs, clause) => {
    const c = classOf(pauseMs);
    const ofClause = chanceOf(clause);
    return Math.max(-MOST, Math.min(MOST, -Math.log(ofClause / overClause[c]! + (1 - ofClause) / overOther[c]!)));
  };
}

/** Ratios of two lists of shares by class, made to rise by pooling neighbours that fall (isotonic regression). */
function rising(above: readonly number[], below: readonly number[]): number[] {
  const pools: { above: number; below: number; classes: number }[] = [];
  above.forEach((share, c) => {
    pools.push({ above: share, below: below[c]!, classes: 1 });
    while (pools.length > 1 && pools.at(-1)!.above * pools.at(-2)!.below < pools.at(-2)!.above * pools.at(-1)!.below) {
      const last = pools.pop()!;
      const into = pools.at(-1)!;
      into.above += last.above;
      into.below += last.below;
      into.classes += last.classes;
    }
  });
  return pools.flatMap((pool) => Array<number>(pool.classes).fill(pool.above / pool.below));
}
