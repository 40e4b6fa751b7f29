import { SUBJECT_PRONOUNS } from '../../text/lists/talk.js';
import { STATES } from '../../text/lists/written.js';
import type { Passage } from '../phrases.js';
import { compress } from './compress.js';
import { hasComma, type Line, lineText, rewritten, standsAt, withMark, type WrittenWord } from './written-word.js';

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
export function titleDrafts(passage: Passage, limit: number): TitleDraft[] {
  const lines = sentenceLines(passage);
  const found = new Map<string, TitleDraft>();
  lines.forEach((sentence, s) => {
    const pieces = clausesOf(sentence);
    for (const [sort, line, whole, resolved, cut] of draftsOf(sentence, pieces, lines[s + 1] ?? [], lines[s - 1] ?? [])) {
      if (line.length < LEAST_WORDS || line.length > MOST_WORDS) continue;
      const text = lineText(line);
      if (text.length > limit || text.length < 8) continue;
      const key = text.toLowerCase().replace(/[^\p{L}\p{N} ]/gu, '');
      if (!found.has(key)) found.set(key, { text, sort, line, sentence: s, whole, resolved, cut });
    }
  });
  return [...found.values()];
}

function sentenceLines(passage: Passage): Line[] {
  const lines: Line[] = [];
  for (let s = passage.first; s < passage.end; s += 1) {
    const { firstWord, endWord } = passage.sentences[s]!;
    lines.push(compress(passage, Math.max(firstWord, passage.firstWord), Math.min(endWord, passage.endWord)));
  }
  return lines;
}

type Made = [sort: TitleSort, line: Line, whole: boolean, resolved: boolean, cut: boolean];

function* draftsOf(sentence: Line, pieces: readonly Line[], next: Line, before: Line): Generator<Made> {
  for (let a = 0; a < pieces.length; a += 1)
    for (let n = 1; n <= MOST_PIECES && a + n <= pieces.length; n += 1) {
      const line = trimmed(pieces.slice(a, a + n).flat());
      const whole = n === pieces.length;
      const cut = a + n < pieces.length;
      if (line.length < LEAST_WORDS) continue;
      const asks = /\?/.test(line.at(-1)!.text);
      yield [asks ? 'question' : contrasts(line) ? 'contrast' : 'said', line, whole, false, cut];
      const named = resolved(line, before);
      if (named !== null) yield ['said', named, whole, true, cut];
      const advice = asAdvice(line);
      if (advice !== null) yield ['advice', advice, whole, false, cut];
      const because = n + a < pieces.length ? pieces[a + n]![0] : next[0];
      if (!asks && (because?.norm === 'because' || because?.norm === "'cause") && hasSubject(line) && !line.slice(0, -1).some(hasComma))
        yield ['why', framed(line, 'Why'), whole, false, false];
    }
  const how = sentence.findIndex((word, i) => word.norm === 'how' && sentence[i + 1]?.norm === 'to' && sentence[i + 2]?.tag === 'VERB');
  if (how >= 0) yield ['how', upToClause(sentence.slice(how)), false, false, true];
  for (const piece of pieces)
    if ((piece[0]?.norm === 'if' || piece[0]?.norm === 'when') && hasSubject(piece.slice(1)) && !beginsAnother(piece.slice(1)))
      yield ['when', [...words(piece[0], 'What', 'happens'), { ...piece[0], text: piece[0].norm }, ...trimmed(piece.slice(1))], false, false, true];
}

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

/** A first word that no longer stands first. Names and "I" keep their capital. */
const lowered = (word: WrittenWord): WrittenWord =>
  word.tag === 'PROPN' || /^I(?:$|[',])/.test(word.text) ? word : { ...word, text: word.text.charAt(0).toLowerCase() + word.text.slice(1) };

/** Something is said of somebody: a subject right at the start, and no question. */
const hasSubject = (line: Line): boolean =>
  line.length > 1 &&
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
      pieces.push(sentence.slice(from, i));
      from = i;
    }
  if (from < sentence.length) pieces.push(sentence.slice(from));
  return pieces;
}
const BEGINS = new Set('and but so because which if when unless until while whereas where since although then or'.split(' '));
const FALLS_AT_START = new Set('and but so then or which because'.split(' '));

function upToClause(line: Line): Line {
  return trimmed(clausesOf(line)[0] ?? []);
}

/** Without what joins it to what stands around it. */
function trimmed(line: Line): Line {
  let from = 0;
  while (from < line.length - 1 && FALLS_AT_START.has(line[from]!.norm)) from += 1;
  let end = line.length;
  while (end > from + 1 && BEGINS.has(line[end - 1]!.norm)) end -= 1;
  return line.slice(from, end);
}

/** "you have to", "you should", "you want to": what follows is what to do. */
const MUST: readonly (readonly string[])[] = [
  'have to',
  'need to',
  'should',
  'must',
  'want to',
  "'ve got to",
  'had better',
  'can just',
  'could just',
  'just',
  'always',
].map((one) => one.split(' '));
const MUST_NOT: readonly (readonly string[])[] = [
  "don't",
  "shouldn't",
  "mustn't",
  "don't want to",
  'do not',
  'should not',
  'must not',
  "can't just",
  "wouldn't want to",
].map((one) => one.split(' '));

/** What "you should do", "you don't do" or "I'd do" advises, said as advice; also after "when …,". Null where it advises nothing. */
export function asAdvice(line: Line): Line | null {
  const advice = adviceOf(line);
  return advice === null ? null : withoutYou(advice);
}

/** "stop, and you wait": what is advised first is advised to the end. */
const withoutYou = (line: Line): Line =>
  line.filter((word, i) => !(word.norm === 'you' && (line[i - 1]?.norm === 'and' || hasComma(line[i - 1])) && advises(line[i + 1])));

function adviceOf(line: Line): Line | null {
  const comma = line.findIndex((word, i) => hasComma(word) && i >= 2);
  if ((line[0]?.norm === 'if' || line[0]?.norm === 'when' || line[0]?.norm === 'before') && comma >= 0 && comma < line.length - 2) {
    const rest = adviceOf(line.slice(line[comma + 1]!.norm === 'then' ? comma + 2 : comma + 1));
    return rest === null ? null : [...line.slice(0, comma + 1), lowered(rest[0]!), ...rest.slice(1)];
  }
  const [first, second] = line;
  if (first === undefined || second === undefined) return null;
  if (first.norm === "i'd" && advises(second)) return [raised(second), ...line.slice(2)];
  if (first.norm !== 'you' && first.norm !== "you've" && first.norm !== "you'd" && first.norm !== "you'll") return null;
  const rest = first.norm === 'you' ? line.slice(1) : [rewritten(first, first.norm.slice(3)), ...line.slice(1)];
  for (const phrase of [...MUST_NOT].sort((a, b) => b.length - a.length))
    if (standsAt(rest, 0, phrase) && advises(rest[phrase.length])) return [{ ...rest[0]!, text: "Don't", norm: "don't" }, ...rest.slice(phrase.length)];
  if (rest[0]?.norm === 'never' && advises(rest[1])) return [raised(rest[0]), ...rest.slice(1)];
  for (const phrase of MUST) {
    const has = phrase[0] === "'ve" ? first.norm === "you've" && standsAt(rest, 1, phrase.slice(1)) : standsAt(rest, 0, phrase);
    const at = phrase.length;
    if (has && advises(rest[at])) return [raised(rest[at]!), ...rest.slice(at + 1)];
  }
  return first.norm === 'you' && second.tag === 'VERB' && advises(second) ? [raised(second), ...line.slice(2)] : null;
}
const raised = (word: WrittenWord): WrittenWord => ({ ...word, text: word.text.charAt(0).toUpperCase() + word.text.slice(1) });
const advises = (word: WrittenWord | undefined): word is WrittenWord =>
  word !== undefined && (word.tag === 'VERB' || word.norm === 'be') && !STATES.has(word.norm) && !/(?:ed|ing)$/.test(word.norm) && !word.norm.includes("'");

const STANDS_FOR: Readonly<Record<string, readonly [number: 'one' | 'many', after: string]>> = {
  it: ['one', ''],
  "it's": ['one', 'is'],
  they: ['many', ''],
  "they're": ['many', 'are'],
};

/** A line whose "it" or "they" is replaced by what the sentence before speaks of first, or null where that is not plain. */
export function resolved(line: Line, before: Line): Line | null {
  const [number, after] = STANDS_FOR[line[0]?.norm ?? ''] ?? [];
  if (number === undefined) return null;
  const phrase = subjectOf(before);
  const noun = phrase?.at(-1);
  if (phrase === undefined || noun === undefined || (number === 'many') !== isPlural(noun.norm)) return null;
  const verb = after === '' ? [] : [{ ...line[0]!, text: after!, norm: after! }];
  return [raised(phrase[0]!), ...phrase.slice(1, -1), ...(phrase.length > 1 ? [withMark(noun, '')] : []), ...verb, ...line.slice(1)];
}
const isPlural = (norm: string): boolean => /[^s]s$/.test(norm);

/** What a sentence speaks of: article, adjectives and noun at its very start, with its verb right behind. */
function subjectOf(line: Line): Line | undefined {
  if (line[0]?.tag !== 'DET' || line[1]?.norm === 'bit' || line[1]?.norm === 'lot') return undefined;
  let end = 1;
  while (end < line.length && ['NOUN', 'PROPN', 'ADJ'].includes(line[end]!.tag) && !hasComma(line[end - 1])) end += 1;
  const says = line[end]?.tag === 'VERB' || line[end]?.tag === 'AUX';
  return says && end > 1 && end <= 4 && line[end - 1]!.tag === 'NOUN' ? line.slice(0, end) : undefined;
}
