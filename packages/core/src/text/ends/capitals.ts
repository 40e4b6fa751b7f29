import type { Word } from '../../transcript/types.js';
import { STOPWORDS } from '../lists/talk.js';
import type { GapReading } from './gap-model.js';
import { normalise } from '../normalise.js';

/** How the word after a gap is written. `told` by nothing: a figure, a mark, "I", letters said one by one ("BBC"). */
export const SHAPES = ['small', 'capital', 'capital-at-line', 'name', 'told-by-nothing'] as const;
export type Shape = (typeof SHAPES)[number];

/** Log-odds of an end before a word that is written so, -5 to 5, beside what the words themselves say. */
type CapitalOdds = (shape: Shape) => number;

const ROUNDS = 10;
/** Gaps of each sort that are taken as seen before, with the shapes that the recording has: few gaps tell nothing. */
const KNOWN = 8;
const MOST = 5;

/**
 * Learns from a recording itself what a capital tells of the ends of sentences: a file may have lost its full stops and kept
 * its capitals, begin each of its lines with one, or write all small. Expectation and maximisation, as with pauses (see
 * pauses.ts): what the words say of each gap tells how words are written that begin a sentence, and how others are.
 * @param readings what the words say of each gap, @param shapes how the word after each is written
 */
export function learnCapitals(readings: readonly GapReading[], shapes: readonly Shape[]): CapitalOdds {
  const rows = Uint8Array.from(shapes, (shape) => SHAPES.indexOf(shape));
  const chances = new Float64Array(rows.length);
  let odds = new Float64Array(SHAPES.length);
  for (let round = 0; round < ROUNDS; round += 1) {
    for (let i = 0; i < rows.length; i += 1) chances[i] = 1 / (1 + Math.exp(-readings[i]!.end - odds[rows[i]!]!));
    odds = oddsBy(rows, chances);
  }
  return (shape) => odds[SHAPES.indexOf(shape)]!;
}

/** The same where the ends are known. */
export function tellCapitals(isEnd: readonly boolean[], shapes: readonly Shape[]): CapitalOdds {
  const odds = oddsBy(
    Uint8Array.from(shapes, (shape) => SHAPES.indexOf(shape)),
    Float64Array.from(isEnd, Number),
  );
  return (shape) => odds[SHAPES.indexOf(shape)]!;
}

function oddsBy(rows: Uint8Array, chances: Float64Array): Float64Array<ArrayBuffer> {
  const nothing = SHAPES.indexOf('told-by-nothing');
  const all = new Float64Array(SHAPES.length);
  const ends = new Float64Array(SHAPES.length);
  rows.forEach((row, i) => {
    all[row]! += 1;
    ends[row]! += chances[i]!;
  });
  all[nothing] = ends[nothing] = 0;
  const [sumAll, sumEnds] = [all.reduce((a, b) => a + b, 0), ends.reduce((a, b) => a + b, 0)];
  return all.map((count, row) => {
    if (count === 0) return 0;
    const before = (KNOWN * count) / sumAll;
    const ofEnds = (ends[row]! + before) / (sumEnds + KNOWN);
    const ofOthers = (count - ends[row]! + before) / (sumAll - sumEnds + KNOWN);
    return Math.max(-MOST, Math.min(MOST, Math.log(ofEnds / ofOthers)));
  });
}

/** Whether capitals may tell anything: all small, as most recognisers write, they do not. */
export const hasCapitals = (shapes: readonly Shape[]): boolean => shapes.some((shape) => shape !== 'small' && shape !== 'told-by-nothing');

/**
 * How words are written. A capital tells of a sentence where the same word is written small elsewhere, or is a function word; else it may
 * be a name.
 * @param lineStarts words that begin a line or a cue of the file: some tools write all of those large
 */
export function shapesOf(words: readonly Word[], lineStarts: ReadonlySet<number>): Shape[] {
  const small = new Set<string>();
  for (const { text } of words) if (/^[^\p{L}]*\p{Ll}/u.test(text)) small.add(normalise(text));
  return words.map(({ text, kind }, i) => {
    const letters = /\p{L}[\p{L}’']*/u.exec(text)?.[0];
    if (kind === 'mark' || letters === undefined || /^\P{L}*\p{N}/u.test(text) || /^I(?:['’]|$)/.test(letters)) return 'told-by-nothing';
    if (/^\p{Ll}/u.test(letters)) return 'small';
    if (/^\p{Lu}[\p{Lu}’']+$/u.test(letters) || !/^\p{Lu}/u.test(letters)) return 'told-by-nothing';
    const word = normalise(text);
    if (!small.has(word) && !STOPWORDS.has(word) && !STOPWORDS.has(word.split("'")[0]!)) return 'name';
    return lineStarts.has(i) ? 'capital-at-line' : 'capital';
  });
}
