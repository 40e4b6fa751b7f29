import { bareText, type LabelledSentence } from './labelled.js';

/** A piece of talk as a recogniser gives it, with the role of the sentence that most of it comes from. */
interface HeardSentence extends LabelledSentence {
  /** Share of its words that come from that sentence, above 0 and up to 1. */
  readonly share: number;
}

const FILLERS = ['um', 'uh', 'like', 'you know', 'I mean', 'sort of', 'er', 'well'];
const FILLER = 0.05;
const TWICE = 0.03;
/** How often an end of a sentence is missed, and how often a longer sentence is cut in two. */
const END_MISSED = 0.2;
const CUT_IN_TWO = 0.3;
const LONG = 8;
const LEAST_PIECE = 3;

/**
 * Sentences with fillers and words said twice, as people speak them; punctuation stays. bench/lib/roughen.mjs does it in a
 * way of its own on purpose: what is asked there must not be what was learned here.
 */
export function roughened(sentences: readonly LabelledSentence[], chance: () => number): LabelledSentence[] {
  return sentences.map((sentence) => ({ ...sentence, text: roughWords(sentence.text.split(/\s+/), chance, ',').join(' ') }));
}

/**
 * Sentences as they come out of a transcript without punctuation: spoken roughly, in small letters, with some ends missed
 * and some sentences cut in two. Ends between stretches and between voices are always found.
 */
export function asHeard(sentences: readonly LabelledSentence[], chance: () => number): HeardSentence[] {
  const heard: HeardSentence[] = [];
  let piece: Piece | null = null;
  const close = (): void => {
    if (piece !== null) heard.push(toSentence(piece));
    piece = null;
  };
  for (const sentence of sentences) {
    if (sentence.opens || sentence.newVoice || chance() >= END_MISSED) close();
    const words = roughWords(bareText(sentence.text).split(' '), chance, '');
    const cut = words.length >= LONG && chance() < CUT_IN_TWO ? LEAST_PIECE + Math.floor(chance() * (words.length - 2 * LEAST_PIECE + 1)) : words.length;
    piece ??= { opens: sentence.opens, newVoice: sentence.newVoice, words: [], from: [] };
    addTo(piece, words.slice(0, cut), sentence.role);
    if (cut === words.length) continue;
    close();
    piece = { opens: false, newVoice: false, words: [], from: [] };
    addTo(piece, words.slice(cut), sentence.role);
  }
  close();
  return heard;
}

interface Piece {
  readonly opens: boolean;
  readonly newVoice: boolean;
  readonly words: string[];
  readonly from: { role: number; words: number }[];
}

function addTo(piece: Piece, words: readonly string[], role: number): void {
  piece.words.push(...words);
  piece.from.push({ role, words: words.length });
}

function toSentence({ opens, newVoice, words, from }: Piece): HeardSentence {
  const most = from.reduce((best, one) => (one.words > best.words ? one : best));
  return { text: words.join(' '), role: most.role, newVoice, opens, share: most.words / from.reduce((sum, one) => sum + one.words, 0) };
}

function roughWords(words: readonly string[], chance: () => number, comma: string): string[] {
  return words.flatMap((word, i) => {
    const filler = i > 0 && chance() < FILLER ? [FILLERS[Math.floor(chance() * FILLERS.length)]! + comma] : [];
    return [...filler, word, ...(/^[a-z]{1,4}$/.test(word) && chance() < TWICE ? [word] : [])];
  });
}
