/** Weights of `TITLE_FEATURES`, in order. Written by `npm run bench -- words --write`. */
export const TITLE_WEIGHTS: readonly number[] = [
  0.0329, // is question
  -0.0092, // is advice
  -0.0004, // is why
  -0.0462, // is when
  0.0000, // is how
  0.0434, // is contrast
  0.0081, // long
  -0.0099, // very long
  -0.0483, // very short
  0.0548, // whole sentence
  0.0648, // pronoun resolved
  -0.0062, // leans on what was before
  -0.0521, // open pronouns
  0.0032, // says I
  -0.0071, // says you
  0.0196, // says we
  0.0201, // a figure
  0.0146, // a name
  0.0352, // a negation
  0.0073, // place
  0.0089, // first sentence
  -0.0008, // last sentence
  0.0372, // content words
  0.1261, // tells of the passage
  0.1756, // tells of the recording
  0.0747, // nouns
  0.0112, // begins with a noun
  0.0414, // begins with a verb
  0.0069, // begins with an adverb
  -0.0260, // no clause
  0.0084, // ends open
  -0.0172, // commas
  -0.0090, // vague
  0.0419, // was dropped
  -0.0065, // opinion
  -0.0660, // surprise
  0.0195, // promise
  -0.0246, // feeling
  0.0374, // superlative
];
