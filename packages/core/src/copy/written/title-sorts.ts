import { SUBJECT_PRONOUNS } from '../../text/lists/talk.js';
import { isCommon } from '../../text/spoken-words.js';
import type { Passage } from '../phrases.js';
import { asAdvice } from './advice.js';
import { withoutCleft } from './clefts.js';
import { compress } from './compress.js';
import { withoutOpenings } from './openings.js';
import { resolved } from './stands-for.js';
import { hasComma, type Line, lineText, lowered, type WrittenWord } from './written-word.js';

/** What a title does, by how it was made of what was said. */
export const TITLE_SORTS = ['said', 'question', 'advice', 'why', 'when', 'how', 'contrast'] as const;
export type TitleSort = (typeof TITLE_SORTS)[number];

/** A title that may be: its words, what sort it is, and where it was made. */
export interface TitleDraft {
  readonly text: string;
  readonly sort: TitleSort;
  readonly line: Line;
  /** Sentence of the passage it comes from, and whether it is all of it. */
  readonly sentence: number;
  readonly whole: boolean;
  /** True where a pronoun was replaced by what it stands for. */
  readonly resolved: boolean;
  /** True where the sentence goes on behind it. */
  readonly cut: boolean;
}

const [LEAST_WORDS, MOST_WORDS] = [3, 13];
/** Clauses of a sentence that one title may take up. */
const MOST_PIECES = 3;

/**
 * Titles that a passage may have: its sentences and clauses as one would write them, and what can be made of them without a
 * word that was not said, but for the frame (Why, What happens when, Don't).
 * @param limit characters
 */
export function titleDrafts(passage: Passage, limit: number, mostWords = MOST_WORDS): TitleDraft[] {
  const lines = sentenceLines(passage);
  const found = new Map<string, TitleDraft>();
  lines.forEach((sentence, s) => {
    const pieces = clausesOf(sentence);
    for (const { sort: made, line, whole = false, resolved: named = false, cut = false } of draftsOf(
      sentence,
      pieces,
      lines[s + 1] ?? [],
      lines[s - 1] ?? [],
    )) {
      if (line.length < LEAST_WORDS || line.length > mostWords || isForeign(line)) continue;
      const open = ASKED.test(lineText(line)) && !/\?/.test(line.at(-1)!.text);
      const [text, sort] = open ? [`${lineText(line)}?`, 'question' as const] : [lineText(line), made];
      if (text.length > limit || text.length < 8) continue;
      const key = text.toLowerCase().replace(/[^\p{L}\p{N} ]/gu, '');
      if (!found.has(key)) found.set(key, { text, sort, line, sentence: s, whole, resolved: named, cut });
    }
  });
  return [...found.values()];
}

/** No word of it is English: "isso é para cortar", in a talk that is. Short words are of many languages. */
function isForeign(line: Line): boolean {
  const long = line.map(({ norm }) => norm.split("'")[0]!).filter((norm) => norm.length > 2);
  return long.length > 1 && !long.some(isCommon);
}

/** A question, whether whoever wrote the talk down gave it its mark or not. */
const ASKED = /^(?:What if|How about|What about) /;

function sentenceLines(passage: Passage): Line[] {
  const lines: Line[] = [];
  for (let s = passage.first; s < passage.end; s += 1) {
    const { firstWord, endWord } = passage.sentences[s]!;
    lines.push(compress(passage, Math.max(firstWord, passage.firstWord), Math.min(endWord, passage.endWord)));
  }
  return lines;
}

type Made = Pick<TitleDraft, 'sort' | 'line'> & Partial<Pick<TitleDraft, 'whole' | 'resolved' | 'cut'>>;

function* draftsOf(sentence: Line, pieces: readonly Line[], next: Line, before: Line): Generator<Made> {
  for (let a = 0; a < pieces.length; a += 1)
    for (let n = 1; n <= MOST_PIECES && a + n <= pieces.length; n += 1)
      yield* draftsOfClauses(trimmed(pieces.slice(a, a + n).flat()), before, {
        whole: n === pieces.length,
        cut: a + n < pieces.length,
        because: FOR_A_REASON.has((pieces[a + n] ?? next)[0]?.norm ?? ''),
      });
  const how = sentence.findIndex((word, i) => word.norm === 'how' && sentence[i + 1]?.norm === 'to' && sentence[i + 2]?.tag === 'VERB');
  if (how >= 0) yield { sort: 'how', line: trimmed(clausesOf(sentence.slice(how))[0]!), cut: true };
  for (const [first, ...rest] of pieces)
    if ((first!.norm === 'if' || first!.norm === 'when') && hasSubject(rest) && !beginsAnother(rest))
      yield { sort: 'when', line: [...words(first!, 'What', 'happens'), { ...first!, text: first!.norm }, ...trimmed(rest)], cut: true };
}

/** What can be made of clauses that follow one another. */
function* draftsOfClauses(line: Line, before: Line, { whole, cut, because }: { whole: boolean; cut: boolean; because: boolean }): Generator<Made> {
  if (line.length < LEAST_WORDS) return;
  const asks = /\?/.test(line.at(-1)!.text);
  yield { sort: asks ? 'question' : contrasts(line) ? 'contrast' : 'said', line, whole, cut };
  const named = resolved(line, before);
  if (named !== null) yield { sort: 'said', line: named, whole, cut, resolved: true };
  const advice = asAdvice(line);
  if (advice !== null) yield { sort: 'advice', line: advice, whole, cut };
  if (because && !asks && hasSubject(line) && !line.slice(0, -1).some(hasComma) && !goesOn(line)) yield { sort: 'why', line: framed(line, 'Why'), whole };
}
const FOR_A_REASON = new Set(['because', "'cause"]);

/** "I went to move a strap and it started": another thing happens, and the reason is of that. */
const goesOn = (line: Line): boolean => line.some(({ norm }, i) => norm === 'and' && SUBJECT_PRONOUNS.has(line[i + 1]?.norm ?? ''));

/** Somebody else begins in the middle of it, with no comma before: the other half is in there, too. */
const beginsAnother = (line: Line): boolean =>
  line.some(
    ({ norm, tag }, i) =>
      i > 1 && tag === 'PRON' && SUBJECT_PRONOUNS.has(norm) && !/^(?:it|this|that|these|those|you)$/.test(norm) && line[i - 1]!.tag !== 'SCONJ',
  ) || line.filter(({ norm }) => /^(?:you|i|we|it)(?:$|')/.test(norm)).length > 1;

const contrasts = (line: Line): boolean =>
  line.some(({ norm }, i) => norm === 'not' && i > 0 && (hasComma(line[i - 1]) || line[i - 1]!.norm === 'and' || line[i - 1]!.norm === 'but'));

/** Words of the frame: said nowhere, so they point at the word they frame. */
const words = (at: WrittenWord, ...texts: readonly string[]): WrittenWord[] =>
  texts.map((text) => ({ text, norm: text.toLowerCase(), tag: 'ADV', first: at.first, end: at.first }));

const framed = (line: Line, ...frame: readonly string[]): Line => [...words(line[0]!, ...frame), lowered(line[0]!), ...line.slice(1)];

/** Something is said of somebody: a subject right at the start, and no question. */
const hasSubject = (line: Line): boolean =>
  line.length > 1 &&
  !/^(?:which|what|whose|who)$/.test(line[0]!.norm) &&
  (SUBJECT_PRONOUNS.has(line[0]!.norm) || ['DET', 'NOUN', 'PROPN', 'PRON', 'NUM', 'ADJ'].includes(line[0]!.tag)) &&
  line.slice(1).some(({ tag, norm }) => tag === 'VERB' || tag === 'AUX' || norm.includes("'"));

/** A sentence at its commas, and where a new subject begins after "and", "but", "because", "which", "if" and the like. */
export function clausesOf(sentence: Line): Line[] {
  const pieces: Line[] = [];
  let from = 0;
  for (let i = 1; i < sentence.length; i += 1)
    if (
      (hasComma(sentence[i - 1]) || (BEGINS.has(sentence[i]!.norm) && (SUBJECT_PRONOUNS.has(sentence[i + 1]?.norm ?? '') || sentence[i + 1]?.tag === 'DET'))) &&
      i - from > 0
    ) {
      // "even if you are a vegan" is one piece.
      const begins = sentence[i - 1]!.norm === 'even' && !hasComma(sentence[i - 1]) ? i - 1 : i;
      if (begins > from) pieces.push(sentence.slice(from, begins));
      from = begins;
    }
  if (from < sentence.length) pieces.push(sentence.slice(from));
  return pieces;
}
const BEGINS = new Set('and but so because which if when unless until while whereas where since although then or'.split(' '));
const FALLS_AT_START = new Set('and but so then or which because'.split(' '));

/** "which port it took": part of what is said. */
const isWhichOne = (line: Line, at: number): boolean => line[at]!.norm === 'which' && line[at + 1]?.tag === 'NOUN';

/** Without what joins it to what stands around it. */
function trimmed(line: Line): Line {
  let from = 0;
  while (from < line.length - 1 && FALLS_AT_START.has(line[from]!.norm) && !isWhichOne(line, from)) from += 1;
  let end = line.length;
  while (end > from + 1 && BEGINS.has(line[end - 1]!.norm)) end -= 1;
  const rest = line.slice(from, end);
  // What opens or announces a sentence does so in its middle, too: "because what happens is the boiler breaks".
  return from === 0 ? rest : withoutCleft(withoutOpenings(rest));
}
