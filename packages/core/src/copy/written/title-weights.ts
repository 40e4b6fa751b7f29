/** Weights of `TITLE_FEATURES`, in order. Written by `npm run bench -- words --write`. */
export const TITLE_WEIGHTS: readonly number[] = [
  0.0418, // is question
  -0.0153, // is advice
  -0.0022, // is why
  -0.0231, // is when
  0.0000, // is how
  0.0427, // is contrast
  0.0081, // long
  -0.0059, // very long
  -0.0453, // very short
  0.0498, // whole sentence
  0.0577, // pronoun resolved
  -0.0054, // leans on what was before
  -0.0480, // open pronouns
  0.0062, // says I
  -0.0069, // says you
  0.0220, // says we
  0.0199, // a figure
  0.0176, // a name
  0.0358, // a negation
  0.0067, // place
  0.0109, // first sentence
  0.0001, // last sentence
  0.0377, // content words
  0.1301, // tells of the passage
  0.1730, // tells of the recording
  0.0727, // nouns
  0.0125, // begins with a noun
  0.0396, // begins with a verb
  0.0078, // begins with an adverb
  -0.0262, // no clause
  0.0079, // ends open
  -0.0208, // commas
  -0.0067, // vague
  0.0626, // was dropped
  -0.0055, // opinion
  -0.0533, // surprise
  0.0198, // promise
  -0.0235, // feeling
  0.0413, // superlative
];
