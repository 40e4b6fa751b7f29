/** Weights of `TITLE_FEATURES` for sentences of texts, in order. Written by `npm run bench -- words --write`. */
export const TEXT_WEIGHTS: readonly number[] = [
  0.0384, // is question
  -0.0062, // is advice
  -0.0993, // is why
  -0.1034, // is when
  0.0000, // is how
  0.0254, // is contrast
  0.0250, // long
  0.0026, // very long
  -0.0379, // very short
  0.0345, // whole sentence
  -0.0263, // pronoun resolved
  0.0183, // leans on what was before
  -0.0179, // open pronouns
  -0.0297, // says I
  -0.0031, // says you
  -0.0030, // says we
  0.0061, // a figure
  -0.0059, // a name
  0.0195, // a negation
  0.0532, // place
  0.0091, // first sentence
  -0.0202, // last sentence
  0.0262, // content words
  0.0297, // tells of the passage
  0.0522, // tells of the recording
  0.0278, // nouns
  0.0083, // begins with a noun
  0.0105, // begins with a verb
  -0.0180, // begins with an adverb
  -0.0400, // no clause
  0.0351, // ends open
  0.0119, // commas
  -0.0171, // vague
  -0.0036, // was dropped
  0.0029, // opinion
  -0.0360, // surprise
  0.0184, // promise
  -0.0070, // feeling
  -0.0174, // superlative
  -0.1250, // broken
  -0.0179, // leans on what nobody hears
  -0.0359, // calls first
  -0.0646, // brings somebody in
  -0.0100, // says twice
  -0.3012, // housekeeping
  0.0042, // begins with it
  -0.0014, // begins with they
  -0.0229, // begins with that
  0.0083, // begins with this
  0.0178, // begins beside the point
  -0.0090, // begins with you
  0.0102, // begins with what
  -0.0266, // a question
  -0.0118, // one comma
  -0.0164, // several commas
  0.0000, // few words
  -0.0203, // some words
];
