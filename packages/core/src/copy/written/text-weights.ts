/** Weights of `TEXT_FEATURES` for sentences of texts, in order. Written by `npm run bench -- words --write`. */
export const TEXT_WEIGHTS: readonly number[] = [
  0.0626, // is question
  -0.0078, // is advice
  -0.1265, // is why
  -0.1257, // is when
  0.0000, // is how
  0.0397, // is contrast
  0.0246, // long
  0.0020, // very long
  -0.0904, // very short
  0.0367, // whole sentence
  -0.0406, // pronoun resolved
  0.0201, // leans on what was before
  -0.0181, // open pronouns
  -0.0280, // says I
  -0.0033, // says you
  -0.0085, // says we
  0.0034, // a figure
  -0.0034, // a name
  0.0198, // a negation
  0.0523, // place
  0.0091, // first sentence
  -0.0246, // last sentence
  0.0340, // content words
  0.0250, // tells of the passage
  0.0436, // tells of the recording
  0.0215, // nouns
  0.0071, // begins with a noun
  0.0075, // begins with a verb
  -0.0169, // begins with an adverb
  -0.0400, // no clause
  0.0304, // ends open
  0.0126, // commas
  -0.0218, // vague
  0.0434, // was dropped
  0.0001, // opinion
  -0.0299, // surprise
  0.0148, // promise
  0.0017, // feeling
  -0.0324, // superlative
  -0.1250, // broken
  -0.0327, // leans on what nobody hears
  -0.0462, // calls first
  -0.0397, // brings somebody in
  -0.0100, // says twice
  -0.3348, // housekeeping
  0.0112, // begins with it
  0.0089, // begins with they
  -0.0254, // begins with that
  0.0171, // begins with this
  0.0149, // begins beside the point
  -0.0134, // begins with you
  0.0154, // begins with what
  -0.0416, // a question
  -0.0123, // one comma
  -0.0185, // several commas
  0.0000, // few words
  -0.0279, // some words
];
