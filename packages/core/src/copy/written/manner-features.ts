import { DID, EARLIER_THAN_NOW, FIRM, POINTS, REPORTS, WHEN_AND_WHERE } from '../../text/lists/titles.js';
import { stem } from '../../text/stem.js';
import type { Passage } from '../phrases.js';
import { isContent, stemCounts } from './content.js';
import type { TitleDraft } from './title-sorts.js';
import { breaksIn } from './wholeness.js';
import type { Line } from './written-word.js';

/** How a line is said, how it ends, and what stands around it: claims and advice make titles, what happened one day rarely does. Each 0 to 1. */
export const MANNER_FEATURES = [
  'tells of the past',
  'I did',
  'they did',
  'reports',
  'I report',
  'there is',
  'one of them',
  'says my',
  'I do',
  'you do',
  'firm',
  'points',
  'ends in when or where',
  'ends in a pronoun',
  'ends in a verb',
  'ends in an adverb',
  'ends in a figure',
  'ends in a noun',
  'an and',
  'several ands',
  'a but',
  'an if',
  'a because',
  'an or',
  'verbs',
  'adjectives',
  'pronouns',
  'begins with a figure',
  'begins with a name',
  'begins with the',
  'a reason follows',
  'more of it follows',
  'answers a question',
  'is part of a question',
  'concludes',
  'goes on',
  'of a long sentence',
  'of a short sentence',
  'share of its sentence',
  'late',
  'said most often',
  'said again',
  'no noun',
  'it and no noun',
  'runs on',
] as const;
type MannerFeature = (typeof MANNER_FEATURES)[number];

/** What of a passage is the same for all its lines. */
export interface Surroundings {
  readonly passage: Passage;
  /** How often each stem is said in the passage. */
  readonly counts: ReadonlyMap<string, number>;
}

/** @returns the surroundings of the lines of a passage */
export const surroundingsOf = (passage: Passage): Surroundings => ({ passage, counts: stemCounts(passage) });

const LONG_SENTENCE = 60;
const SHORT_SENTENCE = 9;
const OFTEN = 5;
const bare = (norm: string): string => norm.split("'")[0]!;

/** How a draft is said, by feature. */
export function mannerOf(draft: TitleDraft, around: Surroundings): Record<MannerFeature, number> {
  const { line } = draft;
  const norms = line.map(({ norm }) => norm);
  const has = (word: string): boolean => norms.includes(word, 1);
  const past = line.some(({ norm, tag }) => EARLIER_THAN_NOW.has(norm) || DID.has(norm) || (tag === 'VERB' && /[^e]ed$/.test(norm)));
  const who = bare(norms[0]!);
  const named = line.some(({ tag }) => tag === 'NOUN' || tag === 'PROPN');
  const ands = norms.filter((norm) => norm === 'and').length;
  const of = (tags: readonly string[], most: number): number => Math.min(most, line.filter(({ tag }) => tags.includes(tag)).length) / most;
  const values = {
    'tells of the past': past,
    'I did': past && (who === 'i' || who === 'we'),
    'they did': past && (who === 'he' || who === 'she' || who === 'they'),
    reports: norms.some((norm) => REPORTS.has(norm)),
    'I report': norms.some((norm, i) => /^(?:i|he|she|they|we)$/.test(bare(norm)) && REPORTS.has(norms[i + 1] ?? '')),
    'there is': who === 'there',
    'one of them': norms.some((norm) => norm === 'one' || norm === "one's" || norm === 'ones'),
    'says my': norms.some((norm) => /^(?:my|mine|our)$/.test(norm)),
    'I do': who === 'i' && !past,
    'you do': who === 'you' && !past,
    firm: Math.min(3, norms.filter((norm) => FIRM.has(norm)).length) / 3,
    points: Math.min(2, norms.slice(1).filter((norm) => POINTS.has(norm)).length) / 2,
    ...endOf(line),
    'an and': ands > 0,
    'several ands': ands > 1,
    'a but': has('but'),
    'an if': has('if'),
    'a because': has('because'),
    'an or': has('or'),
    verbs: of(['VERB', 'AUX'], 4),
    adjectives: of(['ADJ'], 2),
    pronouns: of(['PRON'], 4),
    'begins with a figure': line[0]!.tag === 'NUM' || /^\d/.test(line[0]!.text),
    'begins with a name': line[0]!.tag === 'PROPN',
    'begins with the': who === 'the',
    'no noun': !named,
    'it and no noun': !named && norms.some((norm) => /^(?:it|they|them|that|this|those|these)$/.test(bare(norm))),
    'runs on': breaksIn(line),
    ...standingOf(draft, around.passage),
    ...repeatedOf(line, around.counts),
  };
  return Object.fromEntries(Object.entries(values).map(([feature, value]) => [feature, Number(value)])) as Record<MannerFeature, number>;
}

/** How a line ends. */
function endOf(line: Line): Partial<Record<MannerFeature, boolean>> {
  const { norm, tag, text } = line.at(-1)!;
  return {
    'ends in when or where': WHEN_AND_WHERE.has(norm),
    'ends in a pronoun': tag === 'PRON',
    'ends in a verb': tag === 'VERB' || tag === 'AUX',
    'ends in an adverb': tag === 'ADV',
    'ends in a figure': tag === 'NUM' || /^\d/.test(text),
    'ends in a noun': tag === 'NOUN' || tag === 'PROPN',
  };
}

/** What stands around its sentence, in the passage. */
function standingOf({ sentence, line }: TitleDraft, passage: Passage): Partial<Record<MannerFeature, number | boolean>> {
  const at = passage.first + sentence;
  const isIn = (s: number): boolean => s >= passage.first && s < passage.end;
  // A sentence may have tens of thousands of words, and as many drafts: it is not copied.
  const from = Math.max(passage.firstWord, passage.sentences[at]!.firstWord);
  const length = Math.min(passage.endWord, passage.sentences[at]!.endWord) - from;
  const next = isIn(at + 1) ? passage.texts[passage.sentences[at + 1]!.firstWord] : undefined;
  const asks = (s: number): boolean => isIn(s) && passage.words[Math.min(passage.endWord, passage.sentences[s]!.endWord) - 1]!.text.endsWith('?');
  const goesOn = passage.texts[from] === 'and';
  const begin = passage.texts[goesOn ? from + 1 : from];
  return {
    'a reason follows': /^(?:because|'cause|cause)$/.test(next ?? ''),
    'more of it follows': /^(?:it|they|he|she)(?:$|')/.test(next ?? ''),
    'answers a question': asks(at - 1),
    'is part of a question': asks(at),
    concludes: begin === 'so',
    'goes on': goesOn,
    'of a long sentence': Math.min(LONG_SENTENCE, length) / LONG_SENTENCE,
    'of a short sentence': length < SHORT_SENTENCE,
    'share of its sentence': Math.min(1, line.length / Math.max(1, length)),
    late: (sentence / Math.max(1, passage.end - passage.first - 1)) ** 2,
  };
}

/** How often its words are said in the passage. */
function repeatedOf(line: Line, counts: ReadonlyMap<string, number>): Partial<Record<MannerFeature, number>> {
  const often = line.filter(({ norm }) => isContent(norm)).map(({ norm }) => counts.get(stem(norm)) ?? 0);
  return {
    'said most often': Math.min(OFTEN, Math.max(0, ...often)) / OFTEN,
    'said again': often.filter((times) => times > 1).length / Math.max(1, often.length),
  };
}
