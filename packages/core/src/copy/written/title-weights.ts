/** Weights of `TITLE_FEATURES`, in order. Written by `npm run bench -- words --write`. */
export const TITLE_WEIGHTS: readonly number[] = [
  0.0384, // is question
  -0.0125, // is advice
  -0.0993, // is why
  -0.1034, // is when
  0.0000, // is how
  0.0509, // is contrast
  0.1569, // long
  -0.0148, // very long
  -0.0634, // very short
  0.0689, // whole sentence
  -0.0526, // pronoun resolved
  0.0022, // leans on what was before
  -0.0359, // open pronouns
  -0.0142, // says I
  -0.0062, // says you
  -0.0060, // says we
  0.0087, // a figure
  -0.0117, // a name
  0.0391, // a negation
  0.0323, // place
  0.0182, // first sentence
  -0.0108, // last sentence
  0.0607, // content words
  0.0433, // tells of the passage
  0.0766, // tells of the recording
  0.0036, // nouns
  0.0167, // begins with a noun
  0.0209, // begins with a verb
  -0.0108, // begins with an adverb
  -0.0400, // no clause
  0.0702, // ends open
  -0.1155, // commas
  -0.0276, // vague
  -0.0072, // was dropped
  0.0058, // opinion
  -0.0258, // surprise
  0.0367, // promise
  -0.0026, // feeling
  -0.0349, // superlative
  -0.1250, // broken
  -0.0358, // leans on what nobody hears
  -0.0359, // calls first
  -0.1292, // brings somebody in
  -0.0200, // says twice
  -0.3012, // housekeeping
  0.0054, // begins with it
  -0.0028, // begins with they
  -0.0458, // begins with that
  0.0165, // begins with this
  0.0155, // begins beside the point
  -0.0180, // begins with you
  0.0205, // begins with what
  -0.0266, // a question
  -0.0308, // one comma
  -0.0327, // several commas
  -0.0073, // few words
  0.0086, // some words
];
