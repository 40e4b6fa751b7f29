/** Weights of `TITLE_FEATURES`, in order. Written by `npm run bench -- words --write`. */
export const TITLE_WEIGHTS: readonly number[] = [
  0.0384, // is question
  -0.0119, // is advice
  0.0039, // is why
  -0.0464, // is when
  0.0000, // is how
  0.0442, // is contrast
  0.0089, // long
  -0.0106, // very long
  -0.0440, // very short
  0.0533, // whole sentence
  0.0581, // pronoun resolved
  -0.0053, // leans on what was before
  -0.0510, // open pronouns
  0.0049, // says I
  -0.0067, // says you
  0.0205, // says we
  0.0198, // a figure
  0.0163, // a name
  0.0357, // a negation
  0.0070, // place
  0.0090, // first sentence
  -0.0008, // last sentence
  0.0382, // content words
  0.1292, // tells of the passage
  0.1750, // tells of the recording
  0.0748, // nouns
  0.0125, // begins with a noun
  0.0396, // begins with a verb
  0.0079, // begins with an adverb
  -0.0259, // no clause
  0.0074, // ends open
  -0.0173, // commas
  -0.0072, // vague
  0.0557, // was dropped
  -0.0082, // opinion
  -0.0654, // surprise
  0.0204, // promise
  -0.0245, // feeling
  0.0389, // superlative
];
