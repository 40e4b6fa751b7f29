import vader from 'vader-sentiment';
import { FILLER_SOUNDS } from '../lists/talk.js';
import { rememberWords } from '../remember.js';
import type { PartOfSpeech } from '../tagger.js';
import type { Word, WordRange } from '../../transcript/types.js';
import { NOT_FELT, NUMBER_WORDS, type Tell, TELL_PHRASES, UNITS } from '../lists/tells.js';
import { normalise } from '../normalise.js';

/** A tell at its place. */
export interface Hit extends WordRange {
  readonly tell: Tell;
}

interface Phrase {
  readonly words: readonly string[];
  readonly tell: Tell;
}

const PHRASES_BY_FIRST = new Map<string, Phrase[]>();
for (const [tell, phrases] of Object.entries(TELL_PHRASES)) {
  for (const text of phrases) {
    const words = tell === 'laugh' && /^[[(*]/.test(text) ? [text] : text.split(' ');
    const list = PHRASES_BY_FIRST.get(words[0]!) ?? [];
    list.push({ words, tell: tell as Tell });
    PHRASES_BY_FIRST.set(words[0]!, list);
  }
}

/** VADER's word valences run from -4 to 4; a compound of 0.42 is a valence of about 1.8, where a word is plainly felt. */
const FELT = 0.42;
const FIGURE = /^(?:[$€£]\d[\d.,]*[km]?|\d[\d.,]*(?:%|k|m|p|st|nd|rd|th|s|kg|cm|mm|am|pm)?)$/;
const NAME_CONTEXT = /^\p{Lu}\p{Ll}/u;
const ASKS = /[?؟？]["'”’)]*$/;
const ENDS = /[.!?]["'”’)]*$/;

/** What a word is by itself, wherever it stands. */
interface WordFacts {
  readonly phrases: readonly Phrase[];
  readonly number: boolean;
  readonly digits: boolean;
  /** May begin a figure: a number, or "one", "a", "an" before a unit. */
  readonly opensFigure: boolean;
  readonly filler: boolean;
  readonly address: boolean;
  readonly felt: boolean;
  readonly superlative: boolean;
}

const factsOf = rememberWords((text): WordFacts => {
  const number = isNumber(text);
  return {
    phrases: PHRASES_BY_FIRST.get(text) ?? [],
    number,
    digits: FIGURE.test(text),
    opensFigure: number || text === 'one' || text === 'a' || text === 'an',
    filler: FILLER_SOUNDS.has(text),
    address: text === 'you' || text === 'your' || text === "you're",
    felt: !NOT_FELT.has(text) && text.length > 2 && Math.abs(vader.SentimentIntensityAnalyzer.polarity_scores(text).compound) >= FELT,
    superlative: /^.{2,}(?:est)$/.test(text) && !['best', 'rest', 'west', 'honest', 'modest', 'test', 'latest'].includes(text),
  };
});

function isNumber(text: string): boolean {
  if (FIGURE.test(text) || NUMBER_WORDS.has(text)) return true;
  return text.includes('-') && text.split('-').every((part) => NUMBER_WORDS.has(part) || part === 'one' || UNITS.has(part));
}

/**
 * Finds every tell of a run of words, in order of their first word. Overlapping hits of different tells are all kept: a
 * phrase may be both surprise and contrast.
 * @param texts normalised words, @param tags their parts of speech, both by index of `words`
 */
export function findTells(words: readonly Word[], texts: readonly string[], tags: readonly PartOfSpeech[]): Hit[] {
  const hits: Hit[] = [];
  const inFigureUntil = { word: 0 };
  for (let i = 0; i < words.length; i += 1) {
    const facts = factsOf(texts[i]!);
    if (facts.phrases.length > 0) findPhrases(facts.phrases, texts, i, hits);
    if (words[i]!.kind === 'mark') {
      if (/laugh|chuckl|giggl/i.test(words[i]!.text) && !(hits.at(-1)?.tell === 'laugh' && hits.at(-1)!.firstWord === i)) {
        hits.push({ tell: 'laugh', firstWord: i, endWord: i + 1 });
      }
      continue;
    }
    const text = texts[i]!;
    if (facts.opensFigure && i >= inFigureUntil.word) findFigure(texts, i, hits, inFigureUntil);
    if (facts.filler) hits.push({ tell: 'filler', firstWord: i, endWord: i + 1 });
    else if (i > 0 && text === texts[i - 1] && text !== 'very' && text !== 'really' && !facts.digits && !ENDS.test(words[i - 1]!.text))
      hits.push({ tell: 'repeat', firstWord: i, endWord: i + 1 });
    if (facts.address) hits.push({ tell: 'address', firstWord: i, endWord: i + 1 });
    if (facts.felt) hits.push({ tell: 'feeling', firstWord: i, endWord: i + 1 });
    if (isSuperlative(facts, text, tags[i]!, texts[i + 1])) hits.push({ tell: 'superlative', firstWord: i, endWord: i + 1 });
    if (words[i]!.text.includes('?') && ASKS.test(words[i]!.text)) hits.push({ tell: 'question', firstWord: i, endWord: i + 1 });
    if (tags[i] === 'PROPN' && NAME_CONTEXT.test(words[i]!.text) && i > 0 && !ENDS.test(words[i - 1]!.text)) {
      hits.push({ tell: 'name', firstWord: i, endWord: i + 1 });
    }
  }
  return hits.sort((a, b) => a.firstWord - b.firstWord || a.endWord - b.endWord);
}

function findPhrases(phrases: readonly Phrase[], texts: readonly string[], i: number, hits: Hit[]): void {
  for (const { words, tell } of phrases) {
    let k = 1;
    while (k < words.length && texts[i + k] === words[k]) k += 1;
    if (k === words.length) hits.push({ tell, firstWord: i, endWord: i + k });
  }
}

function findFigure(texts: readonly string[], i: number, hits: Hit[], until: { word: number }): void {
  const isNumber = (text: string | undefined): boolean => text !== undefined && factsOf(text).number;
  let end = i;
  while (
    isNumber(texts[end]) ||
    (end > i && texts[end] === 'one' && /ty$/.test(texts[end - 1]!)) ||
    (end > i && (texts[end] === 'and' || texts[end] === 'a' || texts[end] === 'per') && (isNumber(texts[end + 1]) || UNITS.has(texts[end + 1] ?? '')))
  )
    end += 1;
  const oneOfUnit =
    end === i &&
    (texts[i] === 'one' || texts[i] === 'a' || texts[i] === 'an') &&
    texts[i + 1] !== undefined &&
    /^(?:hundred|thousand|million|quarter|third|half|dozen|penny|pound|minute|hour|metre|inch|mile)$/.test(texts[i + 1]!);
  if (oneOfUnit) end = i + 2;
  if (end === i) return;
  if (UNITS.has(texts[end] ?? '')) end += 1;
  hits.push({ tell: 'figure', firstWord: i, endWord: end });
  until.word = end;
}

function isSuperlative(facts: WordFacts, text: string, tag: PartOfSpeech, next: string | undefined): boolean {
  if (text === 'most' || text === 'least') return next !== undefined && !['of', 'people', 'likely'].includes(next);
  return facts.superlative && (tag === 'ADJ' || tag === 'ADV');
}

/** The same text is the same string each time, so that looking it up again and again compares nothing. */
const normaliseOnce = rememberWords(normalise);

/** Normalised texts of words; marks keep their brackets. */
export function normaliseWords(words: readonly Word[]): string[] {
  return words.map((word) => (word.kind === 'mark' ? word.text.toLowerCase() : normaliseOnce(word.text)));
}
