/** Weights of `TITLE_FEATURES`, in order. Written by `npm run bench -- words --write`. */
export const TITLE_WEIGHTS: readonly number[] = [
  0.0447, // is question
  -0.0131, // is advice
  -0.1075, // is why
  -0.1030, // is when
  0.0000, // is how
  0.0562, // is contrast
  0.1565, // long
  -0.0144, // very long
  -0.0702, // very short
  0.0671, // whole sentence
  -0.0512, // pronoun resolved
  0.0014, // leans on what was before
  -0.0413, // open pronouns
  -0.0147, // says I
  -0.0084, // says you
  -0.0077, // says we
  0.0071, // a figure
  -0.0076, // a name
  0.0393, // a negation
  0.0336, // place
  0.0214, // first sentence
  -0.0140, // last sentence
  0.0484, // content words
  0.0623, // tells of the passage
  0.0767, // tells of the recording
  -0.0048, // nouns
  0.0166, // begins with a noun
  0.0215, // begins with a verb
  -0.0094, // begins with an adverb
  -0.0400, // no clause
  0.0661, // ends open
  -0.1150, // commas
  -0.0272, // vague
  0.0078, // was dropped
  -0.0040, // opinion
  -0.0336, // surprise
  0.0382, // promise
  -0.0027, // feeling
  -0.0651, // superlative
  -0.1250, // broken
  -0.0350, // leans on what nobody hears
  -0.0430, // calls first
  -0.0660, // brings somebody in
  -0.0200, // says twice
  -0.3015, // housekeeping
  0.0074, // begins with it
  -0.0030, // begins with they
  -0.0496, // begins with that
  0.0207, // begins with this
  0.0204, // begins beside the point
  -0.0220, // begins with you
  0.0125, // begins with what
  -0.0306, // a question
  -0.0321, // one comma
  -0.0329, // several commas
  -0.0043, // few words
  0.0063, // some words
];
