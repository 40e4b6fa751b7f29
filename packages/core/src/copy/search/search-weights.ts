/** Weights of `SEARCH_FEATURES`, in order. Written by `npm run bench -- searches --write`. */
export const SEARCH_WEIGHTS: readonly number[] = [
  1.0671, // is compound
  1.9287, // is titled
  0.2541, // is title word
  -1.5335, // is subject
  0.4695, // is field
  -0.7838, // is single
  1.8103, // least said here
  2.0176, // most said here
  0.3100, // least rare
  -1.5037, // most rare
  0.4479, // least said in all
  0.8350, // most said in all
  1.1929, // least of the passage
  -0.8610, // most of the passage
  0.8253, // of the title
  1.3273, // of the field
  1.0167, // said together
  2.9117, // words
  0.0967, // of the subject
];
