/** Weights of `TITLE_FEATURES` for sentences of texts, in order. Written by `npm run bench -- words --write`. */
export const TEXT_WEIGHTS: readonly number[] = [
  0.0447, // is question
  -0.0065, // is advice
  -0.1075, // is why
  -0.1030, // is when
  0.0000, // is how
  0.0281, // is contrast
  0.0304, // long
  0.0023, // very long
  -0.0692, // very short
  0.0336, // whole sentence
  -0.0256, // pronoun resolved
  0.0177, // leans on what was before
  -0.0213, // open pronouns
  -0.0295, // says I
  -0.0042, // says you
  -0.0039, // says we
  0.0067, // a figure
  -0.0038, // a name
  0.0196, // a negation
  0.0512, // place
  0.0107, // first sentence
  -0.0201, // last sentence
  0.0250, // content words
  0.0372, // tells of the passage
  0.0520, // tells of the recording
  -0.0024, // nouns
  0.0083, // begins with a noun
  0.0107, // begins with a verb
  -0.0164, // begins with an adverb
  -0.0400, // no clause
  0.0330, // ends open
  0.0122, // commas
  -0.0199, // vague
  0.0343, // was dropped
  -0.0048, // opinion
  -0.0424, // surprise
  0.0191, // promise
  -0.0119, // feeling
  -0.0325, // superlative
  -0.1250, // broken
  -0.0176, // leans on what nobody hears
  -0.0430, // calls first
  -0.0330, // brings somebody in
  -0.0100, // says twice
  -0.3015, // housekeeping
  0.0048, // begins with it
  -0.0015, // begins with they
  -0.0248, // begins with that
  0.0104, // begins with this
  0.0163, // begins beside the point
  -0.0110, // begins with you
  0.0062, // begins with what
  -0.0306, // a question
  -0.0116, // one comma
  -0.0164, // several commas
  0.0000, // few words
  -0.0283, // some words
];
