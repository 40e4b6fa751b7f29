/** Weights of `SEARCH_FEATURES`, in order. Written by `npm run bench -- searches --write`. */
export const SEARCH_WEIGHTS: readonly number[] = [
  1.2648, // is compound
  1.7201, // is titled
  0.1636, // is title word
  -1.5120, // is subject
  0.5080, // is field
  -0.7938, // is single
  1.9059, // least said here
  1.9813, // most said here
  0.1379, // least rare
  -1.3300, // most rare
  0.5269, // least said in all
  0.9363, // most said in all
  0.8720, // least of the passage
  -0.7781, // most of the passage
  0.9503, // of the title
  1.3854, // of the field
  0.8286, // said together
  2.5508, // words
  0.0427, // of the subject
];
