/** Weights of `TITLE_FEATURES`, in order. Written by `npm run bench -- words --write`. */
export const TITLE_WEIGHTS: readonly number[] = [
  0.0078, // is question
  -0.0063, // is advice
  -0.0716, // is why
  -0.0384, // is when
  0.0000, // is how
  0.0690, // is contrast
  0.0456, // long
  -0.0068, // very long
  -0.0392, // very short
  0.0315, // whole sentence
  -0.0311, // pronoun resolved
  0.0074, // leans on what was before
  -0.0103, // open pronouns
  -0.0082, // says I
  -0.0044, // says you
  -0.0121, // says we
  0.0098, // a figure
  0.0074, // a name
  0.0104, // a negation
  0.0098, // place
  -0.0012, // first sentence
  -0.0105, // last sentence
  0.0368, // content words
  0.0410, // tells of the passage
  0.0310, // tells of the recording
  0.0305, // nouns
  -0.0015, // begins with a noun
  -0.0005, // begins with a verb
  -0.0022, // begins with an adverb
  -0.0462, // no clause
  0.0369, // ends open
  -0.0636, // commas
  -0.0179, // vague
  -0.0060, // was dropped
  0.0001, // opinion
  -0.0186, // surprise
  0.0102, // promise
  -0.0011, // feeling
  -0.0410, // superlative
  -0.1250, // broken
  -0.0589, // leans on what nobody hears
  -0.0579, // calls first
  -0.0508, // brings somebody in
  -0.0200, // says twice
  -0.3052, // housekeeping
  0.0098, // begins with it
  0.0043, // begins with they
  -0.0296, // begins with that
  0.0151, // begins with this
  0.0159, // begins beside the point
  -0.0182, // begins with you
  -0.0029, // begins with what
  -0.0109, // a question
  -0.0267, // one comma
  -0.0282, // several commas
  -0.0137, // few words
  0.0066, // some words
  -0.0076, // tells of the past
  -0.0132, // I did
  0.0060, // they did
  -0.0072, // reports
  0.0075, // I report
  -0.0281, // there is
  0.0145, // one of them
  0.0065, // says my
  -0.0157, // I do
  -0.0177, // you do
  0.0687, // firm
  -0.0125, // points
  -0.0001, // ends in when or where
  -0.0112, // ends in a pronoun
  0.0243, // ends in a verb
  -0.0005, // ends in an adverb
  -0.0362, // ends in a figure
  -0.0144, // ends in a noun
  -0.0041, // an and
  -0.0434, // several ands
  0.0155, // a but
  -0.0461, // an if
  0.0350, // a because
  -0.0024, // an or
  0.0463, // verbs
  0.0144, // adjectives
  0.0093, // pronouns
  0.0002, // begins with a figure
  0.0399, // begins with a name
  0.0139, // begins with the
  -0.0033, // a reason follows
  0.0098, // more of it follows
  -0.0117, // answers a question
  0.0280, // is part of a question
  0.0129, // concludes
  0.0152, // goes on
  0.0084, // of a long sentence
  0.0224, // of a short sentence
  0.0227, // share of its sentence
  0.0073, // late
  0.0356, // said most often
  0.0164, // said again
  -0.0067, // no noun
  -0.0038, // it and no noun
  0.0218, // runs on
];
