/** Weights of `TOPIC_FEATURES`, in order. Written by `npm run bench -- topics --write`. */
export const TOPIC_WEIGHTS: readonly number[] = [
  -0.2584, // is compound
  0.1027, // is titled
  0.5178, // is pair
  -0.1050, // is single
  0.0378, // is field
  1.2998, // said here
  0.6324, // more than once
  0.7057, // sentences
  0.3477, // in the first sentence
  -0.2588, // in the last sentence
  0.0454, // rare
  0.5808, // rarest
  1.9008, // said in all
  -0.0499, // of the passage
  0.9924, // of the title
  0.6712, // of the field
  0.1654, // of the subject
  0.4478, // together
  0.1565, // plural
  -0.1163, // said in the whole recording here alone
];
