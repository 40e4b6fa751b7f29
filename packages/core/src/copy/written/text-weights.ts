/** Weights of `TITLE_FEATURES` for sentences of texts, in order. Written by `npm run bench -- words --write`. */
export const TEXT_WEIGHTS: readonly number[] = [
  0.0445, // is question
  -0.0102, // is advice
  -0.1144, // is why
  -0.1166, // is when
  0.0000, // is how
  0.0415, // is contrast
  0.0294, // long
  0.0030, // very long
  -0.0690, // very short
  0.0342, // whole sentence
  -0.0139, // pronoun resolved
  0.0165, // leans on what was before
  -0.0205, // open pronouns
  -0.0285, // says I
  -0.0026, // says you
  -0.0065, // says we
  0.0060, // a figure
  -0.0037, // a name
  0.0187, // a negation
  0.0494, // place
  0.0085, // first sentence
  -0.0211, // last sentence
  0.0307, // content words
  0.0323, // tells of the passage
  0.0487, // tells of the recording
  -0.0007, // nouns
  0.0086, // begins with a noun
  0.0106, // begins with a verb
  -0.0181, // begins with an adverb
  -0.0400, // no clause
  0.0308, // ends open
  0.0135, // commas
  -0.0202, // vague
  -0.0069, // was dropped
  0.0062, // opinion
  -0.0295, // surprise
  0.0146, // promise
  -0.0110, // feeling
  -0.0314, // superlative
  -0.1250, // broken
  -0.0192, // leans on what nobody hears
  -0.0456, // calls first
  -0.0371, // brings somebody in
  -0.0100, // says twice
  -0.3015, // housekeeping
  0.0076, // begins with it
  0.0018, // begins with they
  -0.0265, // begins with that
  0.0130, // begins with this
  0.0195, // begins beside the point
  -0.0130, // begins with you
  0.0102, // begins with what
  -0.0282, // a question
  -0.0115, // one comma
  -0.0198, // several commas
  0.0000, // few words
  -0.0281, // some words
];
