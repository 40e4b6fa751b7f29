import type { Passage } from '../phrases.js';
import { compress } from './compress.js';
import { contentOf, shared } from './content.js';
import { stemWeights, type TitleContext } from './title-features.js';
import { clausesOf, type TitleDraft } from './title-sorts.js';
import { isBroken, isClause, isHousekeeping, leans } from './wholeness.js';
import { type Line, lineText } from './written-word.js';

/** A text under a short is read in a glance: two sentences, so many characters. Common practice. */
const [MOST_SENTENCES, MOST_CHARACTERS] = [2, 220];
/** A sentence that runs on is cut where it may end; one that is read has so many characters at most. Common practice. */
const LONGEST_SENTENCE = 125;
const LEAST_WORDS = 5;
/** What says so much of the title again adds nothing. */
const SAME = 0.5;
/** What a sentence loses that leans on one that is not shown. */
const LEANS = 0.5;

interface Said {
  readonly text: string;
  readonly words: ReadonlySet<string>;
  readonly sentence: number;
  readonly worth: number;
}

/**
 * One or two sentences of the passage, written, that add to its title: those that say most, in their order; never the title
 * again. Empty where none is whole, or nothing may be said.
 * @param limit characters
 */
export function describe(context: TitleContext, title: string, limit: number): string {
  const most = Math.min(limit, MOST_CHARACTERS);
  const inTitle = contentOf(title.split(/\s+/).map((word) => word.toLowerCase().replace(/[^\p{L}\p{N}']/gu, '')));
  const sentences = saidSentences(context, most).filter(({ words }) => shared(words, inTitle) < SAME);
  const chosen: Said[] = [];
  for (const one of [...sentences].sort((a, b) => b.worth - a.worth)) {
    if (chosen.length === MOST_SENTENCES) break;
    const length = chosen.reduce((sum, { text }) => sum + text.length + 1, one.text.length);
    if (length <= most && chosen.every((other) => shared(one.words, other.words) < SAME)) chosen.push(one);
  }
  return chosen
    .sort((a, b) => a.sentence - b.sentence)
    .map(({ text }) => text)
    .join(' ');
}

function saidSentences(context: TitleContext, most: number): Said[] {
  const { passage, tells } = context;
  const weights = stemWeights(context);
  const found: Said[] = [];
  for (let s = passage.first; s < passage.end; s += 1) {
    const draft = writtenSentence(passage, s, Math.min(most, LONGEST_SENTENCE));
    if (draft === null || isBroken(draft) || isHousekeeping(draft, tells)) continue;
    const { line } = draft;
    const words = contentOf(line.map(({ norm }) => norm));
    const worth = [...words].reduce((sum, key) => sum + (weights.passage.get(key) ?? 0) + 0.5 * (weights.recording.get(key) ?? 0), 0) / line.length ** 0.7;
    found.push({ text: closed(draft.text), words, sentence: s, worth: worth * (leans(draft) ? LEANS : 1) });
  }
  return found;
}

/** A line with the mark that ends a sentence. */
export const closed = (text: string): string => (/[?!…]["”’)]?$/.test(text) ? text : `${text}.`);

/** A sentence of the passage as it would be written, or what of it is short enough; null where it says nothing of anything. @param most characters */
export function writtenSentence(passage: Passage, s: number, most: number): TitleDraft | null {
  const sentence = passage.sentences[s]!;
  const whole = compress(passage, Math.max(sentence.firstWord, passage.firstWord), Math.min(sentence.endWord, passage.endWord));
  const line = fitting(whole, most);
  return line === null ? null : { text: lineText(line), sort: 'said', line, sentence: s, whole: line === whole, resolved: false, cut: line !== whole };
}

/** The sentence, or as many of its first clauses as fit and say something of something; null where none do. */
function fitting(sentence: Line, most: number): Line | null {
  const pieces = clausesOf(sentence);
  for (let n = pieces.length; n > 0; n -= 1) {
    const line = n === pieces.length ? sentence : pieces.slice(0, n).flat();
    if (lineText(line).length < most && line.length >= LEAST_WORDS && isClause(line)) return line;
  }
  return null;
}
