/** Weights of `TITLE_FEATURES` for sentences of texts, in order. Written by `npm run bench -- words --write`. */
export const TEXT_WEIGHTS: readonly number[] = [
  0.0446, // is question
  -0.0090, // is advice
  -0.1178, // is why
  -0.1201, // is when
  0.0000, // is how
  0.0409, // is contrast
  0.0294, // long
  0.0028, // very long
  -0.0649, // very short
  0.0346, // whole sentence
  -0.0126, // pronoun resolved
  -0.0000, // leans on what was before
  -0.0169, // open pronouns
  -0.0303, // says I
  -0.0031, // says you
  -0.0069, // says we
  0.0074, // a figure
  -0.0032, // a name
  0.0191, // a negation
  0.0501, // place
  0.0087, // first sentence
  -0.0204, // last sentence
  0.0353, // content words
  0.0311, // tells of the passage
  0.0456, // tells of the recording
  -0.0002, // nouns
  0.0077, // begins with a noun
  0.0087, // begins with a verb
  -0.0170, // begins with an adverb
  -0.0400, // no clause
  0.0312, // ends open
  0.0133, // commas
  -0.0195, // vague
  -0.0086, // was dropped
  0.0023, // opinion
  -0.0303, // surprise
  0.0137, // promise
  0.0012, // feeling
  -0.0314, // superlative
  -0.1250, // broken
  -0.0194, // leans on what nobody hears
  -0.0456, // calls first
  -0.0365, // brings somebody in
  -0.0100, // says twice
  -0.3016, // housekeeping
  0.0160, // begins with it
  0.0082, // begins with they
  -0.0267, // begins with that
  0.0140, // begins with this
  0.0135, // begins beside the point
  -0.0136, // begins with you
  0.0106, // begins with what
  -0.0280, // a question
  -0.0120, // one comma
  -0.0200, // several commas
  0.0000, // few words
  -0.0286, // some words
];
