/** Weights of `TOPIC_FEATURES`, in order. Written by `npm run bench -- topics --write`. */
export const TOPIC_WEIGHTS: readonly number[] = [
  0.0929, // is compound
  0.1153, // is titled
  0.5303, // is pair
  -0.1676, // is single
  -0.0038, // is field
  1.3902, // said here
  0.5757, // more than once
  0.9676, // sentences
  0.2850, // in the first sentence
  -0.3223, // in the last sentence
  0.2618, // rare
  0.5180, // rarest
  1.8322, // said in all
  -0.2435, // of the passage
  0.9611, // of the title
  0.6050, // of the field
  0.2851, // of the subject
  0.3902, // together
  0.0563, // plural
  -0.0269, // said in the whole recording here alone
];
