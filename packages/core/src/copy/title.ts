import { FILLER_SOUNDS, LEADING_FILLERS, SUBJECT_PRONOUNS } from '../text/lists/talk.js';
import type { Passage } from './phrases.js';
import { lineWorth, type Tell } from './title-worth.js';
import { BREAKS_OFF, JOINING } from '../text/lists/titles.js';

/**
 * A title in the speaker's own words: of the sentences and clauses of the passage that fit into `limit` characters, the
 * one that says most; near the start counts a little more. Nothing is added; fillers at its start and the full stop fall
 * away.
 */
export function bestTitle(passage: Passage, tells: readonly Tell[], limit: number): string {
  const inside = tells.filter((tell) => tell.firstWord >= passage.firstWord && tell.endWord <= passage.endWord);
  let best = { text: '', worth: -Infinity };
  for (const [from, end] of clauses(passage)) {
    const to = JOINING.has(passage.texts[end - 1]!) ? end - 1 : end;
    if (to - from < 3) continue;
    const worth = lineWorth(passage, inside, afterFillers(passage, from, to), to);
    // Writing it out can only lower it.
    if (worth <= best.worth) continue;
    const text = cleanLine(passage, from, to);
    const n = text.split(' ').length;
    if (text.length > limit || n < 3) continue;
    const sized = worth + (n < 5 ? -0.6 : n > 12 ? -0.2 : 0);
    if (sized > best.worth) best = { text, worth: sized };
  }
  return best.text !== '' ? best.text : shorten(cleanLine(passage, passage.firstWord, passage.endWord), limit);
}

/** Sentences, and the clauses that commas and dashes part them into, or, where there are none, "and she", "because I"; as word ranges. */
function* clauses(passage: Passage): Generator<[number, number]> {
  for (let s = passage.first; s < passage.end; s += 1) {
    const sentence = passage.sentences[s]!;
    const from = Math.max(sentence.firstWord, passage.firstWord);
    const to = Math.min(sentence.endWord, passage.endWord);
    yield [from, to];
    const cuts = cutsWithin(passage, from, to, comesBefore);
    const places = cuts.length > 0 ? cuts : cutsWithin(passage, from, to, beginsClause);
    let start = from;
    for (const cut of places) {
      yield [start, cut];
      start = cut;
    }
    if (start > from) yield [start, to];
  }
}

type Cuts = (passage: Passage, i: number) => boolean;

const cutsWithin = (passage: Passage, from: number, to: number, cuts: Cuts): number[] => {
  const places: number[] = [];
  for (let i = from + 1; i < to; i += 1) if (cuts(passage, i)) places.push(i);
  return places;
};

const comesBefore: Cuts = ({ words }, i) => {
  const { text } = words[i - 1]!;
  if (/[a-z]$/.test(text)) return false; // most words, by one look
  return /[,;:—–]["'”’)]*$/.test(text) || /^[—–-]$/.test(text);
};

const beginsClause: Cuts = ({ texts }, i) => JOINING.has(texts[i]!) && SUBJECT_PRONOUNS.has((texts[i + 1] ?? '').split("'")[0]!);

/** Where a range begins once marks, leading fillers and a "because" are left out, and a start that is begun again. */
function afterFillers({ words, texts }: Pick<Passage, 'words' | 'texts'>, from: number, to: number): number {
  const falls = (i: number): boolean => words[i]!.kind === 'mark' || LEADING_FILLERS.has(texts[i]!) || (texts[i] === 'because' && texts[i + 1] !== 'of');
  for (let first = from; ;) {
    while (first < to - 1 && falls(first)) first += 1;
    const again = begunAgain(texts, first, to);
    if (again === first) return first;
    first = again;
  }
}

/** A start is begun again within this many words, or not at all. */
const AGAIN_WITHIN = 4;

/** Where a line is begun again that broke off: "that's the, that's why", "I didn't I never"; else where it begins. */
function begunAgain(texts: readonly string[], first: number, to: number): number {
  for (let i = first + 2; i <= first + AGAIN_WITHIN && i < to - 1; i += 1) {
    const broken = BREAKS_OFF.has(texts[i - 1]!) || texts[i - 1]!.endsWith("n't");
    if (texts[i] === texts[first] && broken && SUBJECTS.has(texts[i]!.split("'")[0]!)) return i;
  }
  return first;
}
const SUBJECTS = new Set([...SUBJECT_PRONOUNS, 'that', 'there', 'this']);

/** Words of a range as a line: without marks, filler sounds, leading fillers and closing punctuation; a question keeps its mark. */
export function cleanLine(passage: Pick<Passage, 'words' | 'texts'>, from: number, to: number): string {
  const first = afterFillers(passage, from, to);
  const kept: string[] = [];
  for (let i = first; i < to; i += 1) {
    if (passage.words[i]!.kind === 'mark' || FILLER_SOUNDS.has(passage.texts[i]!)) continue;
    if (i > first && passage.texts[i] === passage.texts[i - 1] && i + 1 < to) continue; // "the the"
    kept.push(passage.words[i]!.text.replace(/^i(?=$|['’,.?!])/, 'I'));
  }
  const line = kept
    .join(' ')
    .replace(/[\s,.;:—–-]+$/, '')
    .replace(/^["'“‘\s,.;:—–-]+/, '')
    .replace(/["”]$/, '');
  return line.charAt(0).toUpperCase() + line.slice(1);
}

/** Cuts at a word so that the line with its ellipsis fits. @param limit characters, >= 4 */
export function shorten(line: string, limit: number): string {
  if (line.length <= limit) return line;
  const cut = line.slice(0, limit - 1);
  const atWord = cut.lastIndexOf(' ');
  return `${(atWord > limit / 3 ? cut.slice(0, atWord) : cut).replace(/[\s,.;:—–-]+$/, '')}…`;
}
