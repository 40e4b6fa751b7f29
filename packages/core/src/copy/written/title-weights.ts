/** Weights of `TITLE_FEATURES`, in order. Written by `npm run bench -- words --write`. */
export const TITLE_WEIGHTS: readonly number[] = [
  0.0446, // is question
  -0.0179, // is advice
  -0.1178, // is why
  -0.1201, // is when
  0.0000, // is how
  0.0818, // is contrast
  0.1547, // long
  -0.0225, // very long
  -0.0656, // very short
  0.0691, // whole sentence
  -0.0251, // pronoun resolved
  -0.0001, // leans on what was before
  -0.0319, // open pronouns
  -0.0115, // says I
  -0.0027, // says you
  -0.0137, // says we
  0.0075, // a figure
  -0.0065, // a name
  0.0383, // a negation
  0.0358, // place
  0.0174, // first sentence
  -0.0189, // last sentence
  0.0416, // content words
  0.0673, // tells of the passage
  0.0852, // tells of the recording
  -0.0004, // nouns
  0.0154, // begins with a noun
  0.0173, // begins with a verb
  -0.0085, // begins with an adverb
  -0.0400, // no clause
  0.0624, // ends open
  -0.1160, // commas
  -0.0217, // vague
  -0.0172, // was dropped
  0.0046, // opinion
  -0.0603, // surprise
  0.0273, // promise
  0.0025, // feeling
  -0.0628, // superlative
  -0.1250, // broken
  -0.0387, // leans on what nobody hears
  -0.0456, // calls first
  -0.0729, // brings somebody in
  -0.0200, // says twice
  -0.3016, // housekeeping
  0.0100, // begins with it
  0.0042, // begins with they
  -0.0534, // begins with that
  0.0281, // begins with this
  0.0170, // begins beside the point
  -0.0272, // begins with you
  0.0212, // begins with what
  -0.0280, // a question
  -0.0309, // one comma
  -0.0401, // several commas
  -0.0017, // few words
  0.0067, // some words
];
