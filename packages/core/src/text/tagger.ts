import winkNLP from 'wink-nlp';
import model from 'wink-eng-lite-web-model';

/** Universal part-of-speech tags (Universal Dependencies v2), as far as the tagger tells them apart. */
export type PartOfSpeech =
  'ADJ' | 'ADP' | 'ADV' | 'AUX' | 'CCONJ' | 'DET' | 'INTJ' | 'NOUN' | 'NUM' | 'PART' | 'PRON' | 'PROPN' | 'PUNCT' | 'SCONJ' | 'SYM' | 'VERB' | 'X';

/** One tag for each text handed in, in order. A seam: tests and later engines may bring another tagger. */
export type PosTagger = (texts: readonly string[]) => PartOfSpeech[];

let nlp: ReturnType<typeof winkNLP> | undefined;

/** Long texts are tagged in pieces: the tagger's own memory grows with the document. */
const CHUNK_WORDS = 4_000;

/**
 * Tags words with wink-nlp's English lite model. The tagger splits "don't" in two; each of our words takes the tag of
 * its first token that is not punctuation.
 */
export const winkTagger: PosTagger = (texts) => {
  nlp ??= winkNLP(model, ['pos']);
  const tags: PartOfSpeech[] = [];
  for (let from = 0; from < texts.length; from += CHUNK_WORDS) tagChunk(texts.slice(from, from + CHUNK_WORDS), tags);
  return tags;
};

/** No word is as long; the tagger's time grows with the square of a word's length. */
const LONGEST_WORD = 200;

/** A mark such as "[dog barks]" is one word. */
const asOneWord = (text: string): string => text.slice(0, LONGEST_WORD).replaceAll(' ', '_') || '_';

function tagChunk(texts: readonly string[], into: PartOfSpeech[]): void {
  const its = nlp!.its;
  const doc = nlp!.readDoc(texts.map(asOneWord).join(' '));
  const spaces = doc.tokens().out(its.precedingSpaces);
  const pos = doc.tokens().out(its.pos) as unknown as PartOfSpeech[];
  const chunk: PartOfSpeech[] = [];
  pos.forEach((tag, k) => {
    if (k === 0 || spaces[k] !== '') chunk.push(tag);
    else if (chunk.at(-1) === 'PUNCT') chunk[chunk.length - 1] = tag;
  });
  for (let i = 0; i < texts.length; i += 1) into.push(chunk[i] ?? 'X');
}
