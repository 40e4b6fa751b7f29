/** Weights of `TITLE_FEATURES`, in order. Written by `npm run bench -- words --write`. */
export const TITLE_WEIGHTS: readonly number[] = [
  0.0412, // is question
  -0.0133, // is advice
  0.0042, // is why
  -0.0466, // is when
  0.0000, // is how
  0.0439, // is contrast
  0.0085, // long
  -0.0104, // very long
  -0.0444, // very short
  0.0496, // whole sentence
  0.0566, // pronoun resolved
  -0.0049, // leans on what was before
  -0.0511, // open pronouns
  0.0052, // says I
  -0.0065, // says you
  0.0200, // says we
  0.0195, // a figure
  0.0165, // a name
  0.0360, // a negation
  0.0070, // place
  0.0092, // first sentence
  0.0003, // last sentence
  0.0375, // content words
  0.1286, // tells of the passage
  0.1759, // tells of the recording
  0.0742, // nouns
  0.0120, // begins with a noun
  0.0401, // begins with a verb
  0.0075, // begins with an adverb
  -0.0258, // no clause
  0.0075, // ends open
  -0.0166, // commas
  -0.0074, // vague
  0.0590, // was dropped
  -0.0091, // opinion
  -0.0654, // surprise
  0.0206, // promise
  -0.0244, // feeling
  0.0383, // superlative
];
