/** Weights of `TITLE_FEATURES`, in order. Written by `npm run bench -- words --write`. */
export const TITLE_WEIGHTS: readonly number[] = [
  0.0441, // is question
  -0.0137, // is advice
  -0.1098, // is why
  -0.1057, // is when
  0.0000, // is how
  0.0605, // is contrast
  0.1525, // long
  -0.0161, // very long
  -0.0676, // very short
  0.0659, // whole sentence
  -0.0487, // pronoun resolved
  -0.0003, // leans on what was before
  -0.0391, // open pronouns
  -0.0151, // says I
  -0.0060, // says you
  -0.0065, // says we
  0.0070, // a figure
  -0.0093, // a name
  0.0387, // a negation
  0.0337, // place
  0.0199, // first sentence
  -0.0166, // last sentence
  0.0440, // content words
  0.0600, // tells of the passage
  0.0817, // tells of the recording
  -0.0000, // nouns
  0.0156, // begins with a noun
  0.0211, // begins with a verb
  -0.0103, // begins with an adverb
  -0.0400, // no clause
  0.0652, // ends open
  -0.1144, // commas
  -0.0245, // vague
  0.0045, // was dropped
  -0.0031, // opinion
  -0.0425, // surprise
  0.0365, // promise
  0.0033, // feeling
  -0.0511, // superlative
  -0.1250, // broken
  -0.0350, // leans on what nobody hears
  -0.0416, // calls first
  -0.0678, // brings somebody in
  -0.0200, // says twice
  -0.3013, // housekeeping
  0.0056, // begins with it
  -0.0033, // begins with they
  -0.0495, // begins with that
  0.0233, // begins with this
  0.0171, // begins beside the point
  -0.0263, // begins with you
  0.0130, // begins with what
  -0.0304, // a question
  -0.0317, // one comma
  -0.0304, // several commas
  -0.0060, // few words
  0.0080, // some words
];
