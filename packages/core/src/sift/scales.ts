// Written by `npm run bench -- stand-out --write` from the marked talks in bench/editors that are for fitting. Do not edit.

/**
 * Raw measure of an ordinary passage (50) and of a rare one (90): the median and the 97th percentile of all runs of those
 * talks, each judged by what was fitted on other kinds; for the score, of the weighted mean of the signals.
 */
export const SCALES = {
  opening: { ordinary: 0.199, rare: 0.982 },
  standsAlone: { ordinary: -1.01, rare: 2.55 },
  substance: { ordinary: 1.3, rare: 4.61 },
  charge: { ordinary: 1.31, rare: 5.42 },
  score: { ordinary: 49.9, rare: 81.2 },
} as const;
