import { COMPARING_WORDS, NEGATIONS, SAYING_WORDS } from '../text/lists/roles.js';
import { asksHere, firstTelling, type RoleInput } from './roles/surface.js';
import type { WordRange } from '../transcript/types.js';

/** Things that are said in so many words, whatever the talk is about. */
export type SaidKind =
  | 'number'
  | 'money'
  | 'duration'
  | 'percentage'
  | 'name'
  | 'comparison'
  | 'superlative'
  | 'negation'
  | 'question'
  | 'imperative'
  | 'first-person'
  | 'second-person'
  | 'direct-speech';
export type FigureKind = Extract<SaidKind, 'number' | 'money' | 'duration' | 'percentage'>;

/** Something said, at its words. */
interface Said extends WordRange {
  readonly kind: SaidKind;
}

const MONEY = /^(?:[$€£].*|pence|penny|pennies|pounds?|dollars?|euros?|cents?|quid|grand)$/;
const SHARE = /^(?:.*%|percent|percentage|cent)$/;
const TIME = /^(?:seconds?|minutes?|hours?|days?|weeks?|months?|years?|decades?|centur(?:y|ies))$/;
const FIRST = /^(?:i|me|my|mine|myself|we|us|our|ours|ourselves)(?:'\w+)?$/;
const SECOND = /^(?:you|your|yours|yourself|yourselves)(?:'\w+)?$/;
/** What people begin with when they say again what somebody said. */
const SPOKEN_START =
  /^(?:i|we|you|no|yes|yeah|oh|look|well|what|why|how|who|where|when|is|are|do|don't|can|could|would|will|this|that|it|there|never|please|sorry|listen)(?:'\w+)?$/;
const THAN_REACH = 6;

/** Everything of these kinds in sentence `s`, in order of the first word. Takes words as they come, with or without punctuation. */
export function findSaid(reading: RoleInput, s: number): Said[] {
  const { texts, hits, hitStarts, sentences } = reading;
  const { firstWord, endWord } = sentences[s]!;
  const found: Said[] = [];
  const add = (kind: SaidKind, from: number, end: number): void => {
    found.push({ kind, firstWord: from, endWord: Math.min(endWord, end) });
  };
  for (let h = hitStarts[s]!; h < hitStarts[s + 1]!; h += 1) {
    const hit = hits[h]!;
    if (hit.tell === 'figure') add(figureKind(texts, hit), hit.firstWord, hit.endWord);
    else if (hit.tell === 'superlative') add('superlative', hit.firstWord, hit.endWord);
  }
  for (let i = firstWord; i < endWord; i += 1) {
    const text = texts[i]!;
    if (FIRST.test(text)) add('first-person', i, i + 1);
    else if (SECOND.test(text)) add('second-person', i, i + 1);
    if (NEGATIONS.has(text)) add('negation', i, i + 1);
    if (SAYING_WORDS.has(text)) findSpeech(reading, i, endWord, add);
  }
  findNames(reading, firstWord, endWord, add);
  findComparisons(texts, firstWord, endWord, add);
  findQuoted(reading, firstWord, endWord, add);
  if (asksHere(reading, s)) add('question', firstTelling(reading, s), endWord);
  else if (commands(reading, s)) add('imperative', firstTelling(reading, s), endWord);
  return found.sort((a, b) => a.firstWord - b.firstWord || a.endWord - b.endWord);
}

/** What kind of figure a hit is. */
export function figureKind(texts: readonly string[], { firstWord, endWord }: WordRange): FigureKind {
  const words = texts.slice(firstWord, endWord);
  const last = words.at(-1)!;
  // "per cent" is two words, and the cent of it is no money.
  if (SHARE.test(last) && (last !== 'cent' || words.at(-2) === 'per')) return 'percentage';
  if (words.some((word) => MONEY.test(word))) return 'money';
  return TIME.test(last) ? 'duration' : 'number';
}

type Add = (kind: SaidKind, from: number, end: number) => void;

const CAPITAL = /^["'“‘(]*\p{Lu}[\p{L}'’.-]*/u;
const NO_NAME = /^["'“‘(]*(?:I|I['’]\w+|OK|Okay|TV|Mr|Mrs)\b/;

/** Capitals inside a sentence that has small letters too, together where they stand together; else what the tagger takes for a name. */
function findNames({ words, tags }: RoleInput, firstWord: number, endWord: number, add: Add): void {
  const said = words.slice(firstWord, endWord);
  const mixed = said.filter(({ text }) => /^\p{Ll}/u.test(text)).length * 2 >= said.length;
  const cased = mixed && CAPITAL.test(words[firstWord]!.text);
  const isName = (i: number): boolean =>
    cased ? i > firstWord && CAPITAL.test(words[i]!.text) && !NO_NAME.test(words[i]!.text) && !/^["“]/.test(words[i]!.text) : tags[i] === 'PROPN';
  for (let i = firstWord; i < endWord; i += 1) {
    if (!isName(i)) continue;
    const from = i;
    while (i + 1 < endWord && isName(i + 1) && !/[,.;:!?]$/.test(words[i]!.text)) i += 1;
    add('name', from, i + 1);
  }
}

/** "bigger than", "more tired than", "as good as". */
function findComparisons(texts: readonly string[], firstWord: number, endWord: number, add: Add): void {
  for (let i = firstWord; i < endWord; i += 1) {
    if (texts[i] === 'as' && texts[i + 2] === 'as' && i + 2 < endWord) add('comparison', i, i + 3);
    if (texts[i] !== 'than') continue;
    let from = i - 1;
    while (from > firstWord && from > i - THAN_REACH && !/^.{2,}er$/.test(texts[from]!) && !COMPARING_WORDS.has(texts[from]!)) from -= 1;
    if (/^.{2,}er$/.test(texts[from] ?? '') || COMPARING_WORDS.has(texts[from] ?? '')) add('comparison', from, i + 1);
  }
}

/** After "she said": what sounds spoken, to the end of the sentence. Where it stands in quotation marks, those say so. */
function findSpeech({ words, texts }: RoleInput, saying: number, endWord: number, add: Add): void {
  const from = saying + 1;
  if (from >= endWord || /["“”]/.test(words[from]!.text)) return;
  const afterComma = /,$/.test(words[saying]!.text);
  const capital = /^\p{Lu}/u.test(words[from]!.text) && !/^I\b/.test(words[from]!.text);
  if ((afterComma || capital) && SPOKEN_START.test(texts[from]!)) add('direct-speech', from, endWord);
  else if (!afterComma && SPOKEN_START.test(texts[from]!) && !/^(?:that|it|this|there|what|why|how|who|where|when)$/.test(texts[from]!))
    add('direct-speech', from, endWord);
}

function findQuoted({ words }: RoleInput, firstWord: number, endWord: number, add: Add): void {
  let open = -1;
  for (let i = firstWord; i < endWord; i += 1) {
    const { text } = words[i]!;
    if (open < 0 && /^["“]/.test(text)) open = i;
    if (open >= 0 && /["”][.,!?]?$/.test(text)) {
      // One word in quotation marks is a word with distance, not speech.
      if (i > open) add('direct-speech', open, i + 1);
      open = -1;
    }
  }
}

/** A sentence that begins with a verb in its plain form, or with "don't" and one. */
function commands(reading: RoleInput, s: number): boolean {
  const first = firstTelling(reading, s);
  const { texts, tags } = reading;
  const at = texts[first] === "don't" || texts[first] === 'never' || texts[first] === 'always' || texts[first] === 'just' ? first + 1 : first;
  return at < reading.sentences[s]!.endWord && tags[at] === 'VERB' && !/(?:ed|ing|s)$/.test(texts[at]!);
}
