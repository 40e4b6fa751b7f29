import { FILLER_SOUNDS, LEADING_FILLERS } from '../text/lexicon.js';
import type { Passage } from './phrases.js';

/** A tell at its place, as far as wording needs to know it. */
interface Tell {
  readonly tell: string;
  readonly firstWord: number;
  readonly endWord: number;
}

const WORTH: Record<string, number> = {
  question: 0.9,
  promise: 0.8,
  figure: 0.7,
  surprise: 0.8,
  opinion: 0.8,
  feeling: 0.6,
  superlative: 0.5,
  advice: 0.6,
  contrast: 0.3,
  name: 0.2,
  address: 0.2,
};

/**
 * A title in the speaker's own words: of the sentences and clauses of the passage that fit into `limit` characters, the
 * one that says most; near the start counts a little more. Nothing is added; fillers at its start and the full stop fall
 * away.
 */
export function bestTitle(passage: Passage, tells: readonly Tell[], limit: number): string {
  const inside = tells.filter((tell) => tell.firstWord >= passage.firstWord && tell.endWord <= passage.endWord);
  let best = { text: '', worth: -Infinity };
  for (const [from, to] of clauses(passage)) {
    if (to - from < 3) continue;
    const most = bestPossible(passage, inside, from, to);
    if (most <= best.worth) continue;
    const text = cleanLine(passage, from, to);
    const n = text.split(' ').length;
    if (text.length > limit || n < 3) continue;
    let worth = most + (n < 5 ? -0.6 : n > 12 ? -0.2 : 0);
    if (/^(?:it|he|she|they|that|this|which|and|or|because|them)\b/i.test(text)) worth -= 0.8;
    if (worth > best.worth) best = { text, worth };
  }
  return best.text !== '' ? best.text : shorten(cleanLine(passage, passage.firstWord, passage.endWord), limit);
}

/** Worth of a clause before it is written out, which can only lower it. */
function bestPossible(passage: Passage, inside: readonly Tell[], from: number, to: number): number {
  let worth = nouns(passage, from, to) * 0.22 - (0.5 * (from - passage.firstWord)) / (passage.endWord - passage.firstWord);
  for (const tell of inside) if (tell.firstWord >= from && tell.endWord <= to) worth += WORTH[tell.tell] ?? 0;
  return worth;
}

function nouns(passage: Passage, from: number, to: number): number {
  let n = 0;
  for (let i = from; i < to; i += 1) if (passage.tags[i] === 'NOUN' || passage.tags[i] === 'PROPN') n += 1;
  return Math.min(4, n);
}

/** Sentences, and the clauses that commas and dashes part them into, as word ranges. */
function* clauses(passage: Passage): Generator<[number, number]> {
  for (let s = passage.first; s < passage.end; s += 1) {
    const sentence = passage.sentences[s]!;
    const from = Math.max(sentence.firstWord, passage.firstWord);
    yield [from, sentence.endWord];
    let start = from;
    for (let i = from; i < sentence.endWord - 1; i += 1) {
      if (/[,;:—–]["'”’)]*$/.test(passage.words[i]!.text) || /^[—–-]$/.test(passage.words[i]!.text)) {
        if (start > from) yield [start, i + 1];
        start = i + 1;
      }
    }
    if (start > from && start < sentence.endWord) yield [start, sentence.endWord];
  }
}

/** Words of a range as a line: without marks, filler sounds, leading fillers and closing punctuation; a question keeps its mark. */
export function cleanLine(passage: Pick<Passage, 'words' | 'texts'>, from: number, to: number): string {
  let first = from;
  while (first < to - 1 && (passage.words[first]!.kind === 'mark' || LEADING_FILLERS.has(passage.texts[first]!))) first += 1;
  const kept: string[] = [];
  for (let i = first; i < to; i += 1) {
    if (passage.words[i]!.kind === 'mark' || FILLER_SOUNDS.has(passage.texts[i]!)) continue;
    if (i > first && passage.texts[i] === passage.texts[i - 1] && i + 1 < to) continue; // "the the"
    kept.push(passage.words[i]!.text);
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
