/** Weights of `TOPIC_FEATURES`, in order. Written by `npm run bench -- topics --write`. */
export const TOPIC_WEIGHTS: readonly number[] = [
  0.0486, // is compound
  0.1303, // is titled
  0.5311, // is pair
  -0.1503, // is single
  -0.0252, // is field
  1.3887, // said here
  0.6038, // more than once
  0.9214, // sentences
  0.2964, // in the first sentence
  -0.3364, // in the last sentence
  0.2756, // rare
  0.4999, // rarest
  1.8605, // said in all
  -0.2496, // of the passage
  0.9259, // of the title
  0.6312, // of the field
  0.2557, // of the subject
  0.3594, // together
  0.0756, // plural
  -0.0219, // said in the whole recording here alone
];
