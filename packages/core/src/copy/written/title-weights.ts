/** Weights of `TITLE_FEATURES`, in order. Written by `npm run bench -- words --write`. */
export const TITLE_WEIGHTS: readonly number[] = [
  0.0445, // is question
  -0.0204, // is advice
  -0.1144, // is why
  -0.1166, // is when
  0.0000, // is how
  0.0831, // is contrast
  0.1540, // long
  -0.0218, // very long
  -0.0660, // very short
  0.0683, // whole sentence
  -0.0278, // pronoun resolved
  0.0008, // leans on what was before
  -0.0324, // open pronouns
  -0.0107, // says I
  -0.0026, // says you
  -0.0130, // says we
  0.0078, // a figure
  -0.0074, // a name
  0.0374, // a negation
  0.0370, // place
  0.0171, // first sentence
  -0.0198, // last sentence
  0.0405, // content words
  0.0685, // tells of the passage
  0.0850, // tells of the recording
  -0.0015, // nouns
  0.0172, // begins with a noun
  0.0212, // begins with a verb
  -0.0093, // begins with an adverb
  -0.0400, // no clause
  0.0616, // ends open
  -0.1161, // commas
  -0.0225, // vague
  -0.0138, // was dropped
  0.0063, // opinion
  -0.0589, // surprise
  0.0292, // promise
  -0.0013, // feeling
  -0.0628, // superlative
  -0.1250, // broken
  -0.0380, // leans on what nobody hears
  -0.0456, // calls first
  -0.0742, // brings somebody in
  -0.0200, // says twice
  -0.3015, // housekeeping
  0.0099, // begins with it
  0.0037, // begins with they
  -0.0530, // begins with that
  0.0260, // begins with this
  0.0188, // begins beside the point
  -0.0260, // begins with you
  0.0203, // begins with what
  -0.0282, // a question
  -0.0310, // one comma
  -0.0395, // several commas
  -0.0014, // few words
  0.0060, // some words
];
