/** Weights of `TITLE_FEATURES` for sentences of texts, in order. Written by `npm run bench -- words --write`. */
export const TEXT_WEIGHTS: readonly number[] = [
  0.0441, // is question
  -0.0068, // is advice
  -0.1098, // is why
  -0.1057, // is when
  0.0000, // is how
  0.0302, // is contrast
  0.0299, // long
  0.0024, // very long
  -0.0636, // very short
  0.0330, // whole sentence
  -0.0243, // pronoun resolved
  -0.0002, // leans on what was before
  -0.0196, // open pronouns
  -0.0330, // says I
  -0.0045, // says you
  -0.0033, // says we
  0.0062, // a figure
  -0.0047, // a name
  0.0193, // a negation
  0.0514, // place
  0.0099, // first sentence
  -0.0197, // last sentence
  0.0230, // content words
  0.0352, // tells of the passage
  0.0515, // tells of the recording
  -0.0000, // nouns
  0.0078, // begins with a noun
  0.0105, // begins with a verb
  -0.0192, // begins with an adverb
  -0.0400, // no clause
  0.0326, // ends open
  0.0110, // commas
  -0.0186, // vague
  0.0292, // was dropped
  -0.0070, // opinion
  -0.0463, // surprise
  0.0183, // promise
  0.0016, // feeling
  -0.0256, // superlative
  -0.1250, // broken
  -0.0175, // leans on what nobody hears
  -0.0416, // calls first
  -0.0339, // brings somebody in
  -0.0100, // says twice
  -0.3013, // housekeeping
  0.0137, // begins with it
  -0.0016, // begins with they
  -0.0247, // begins with that
  0.0116, // begins with this
  0.0135, // begins beside the point
  -0.0132, // begins with you
  0.0065, // begins with what
  -0.0304, // a question
  -0.0109, // one comma
  -0.0152, // several commas
  0.0000, // few words
  -0.0280, // some words
];
