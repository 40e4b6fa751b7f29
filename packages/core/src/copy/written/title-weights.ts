/** Weights of `TITLE_FEATURES`, in order. Written by `npm run bench -- words --write`. */
export const TITLE_WEIGHTS: readonly number[] = [
  0.0384, // is question
  -0.0095, // is advice
  0.0042, // is why
  -0.0463, // is when
  0.0000, // is how
  0.0442, // is contrast
  0.0087, // long
  -0.0103, // very long
  -0.0439, // very short
  0.0535, // whole sentence
  0.0574, // pronoun resolved
  -0.0054, // leans on what was before
  -0.0509, // open pronouns
  0.0047, // says I
  -0.0069, // says you
  0.0204, // says we
  0.0197, // a figure
  0.0164, // a name
  0.0356, // a negation
  0.0073, // place
  0.0090, // first sentence
  -0.0011, // last sentence
  0.0377, // content words
  0.1297, // tells of the passage
  0.1759, // tells of the recording
  0.0751, // nouns
  0.0123, // begins with a noun
  0.0399, // begins with a verb
  0.0077, // begins with an adverb
  -0.0259, // no clause
  0.0074, // ends open
  -0.0172, // commas
  -0.0072, // vague
  0.0567, // was dropped
  -0.0082, // opinion
  -0.0653, // surprise
  0.0204, // promise
  -0.0245, // feeling
  0.0390, // superlative
];
