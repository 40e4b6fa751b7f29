import { FILLER_SOUNDS, QUESTION_WORDS } from '../../text/lists/talk.js';
import type { PartOfSpeech } from '../../text/tagger.js';
import type { Sentence, Word } from '../../transcript/types.js';
import type { Hit } from '../../text/tells/find-tells.js';
import type { Tell } from '../../text/lists/tells.js';
import { ROLE_LISTS, ROLE_STARTS } from '../../text/lists/roles.js';

/** What the role model reads of a stretch of talk. */
export interface RoleInput {
  readonly words: readonly Word[];
  readonly texts: readonly string[];
  readonly tags: readonly PartOfSpeech[];
  readonly sentences: readonly Sentence[];
  readonly hits: readonly Hit[];
  /** First hit of each sentence in `hits`, and one more for the end. */
  readonly hitStarts: Int32Array;
}

const TELLS: readonly Tell[] = [
  'advice',
  'cause',
  'example',
  'opinion',
  'contrast',
  'surprise',
  'promise',
  'story',
  'laugh',
  'greeting',
  'housekeeping',
  'sponsor',
  'signoff',
  'backward',
  'figure',
  'feeling',
  'question',
  'superlative',
  'name',
  'address',
  'filler',
  'repeat',
];

/** Places of the lists that a word is in; one look-up a word instead of one a list. */
function placesOf(lists: readonly (readonly [string, ReadonlySet<string>])[]): ReadonlyMap<string, readonly number[]> {
  const places = new Map<string, number[]>();
  lists.forEach(([, set], l) => {
    for (const word of set) places.set(word, [...(places.get(word) ?? []), l]);
  });
  return places;
}
const LISTS_OF = placesOf(ROLE_LISTS);

const NO_LISTS: readonly number[] = [];

/** Places of the starts that a word is one of. */
const STARTS_OF = placesOf(ROLE_STARTS);

const LENGTHS = [3, 6, 10, 15, 22, 30] as const;
const MORE = ['commands', 'noun share', 'verb share', 'asks before', 'new voice', 'voice leaves', 'shouts', 'stops early', 'fillers share'] as const;

/** Names of the surface features, in order. */
export const SURFACE_FEATURES: readonly string[] = [
  ...TELLS.map((tell) => `tell ${tell}`),
  ...ROLE_LISTS.map(([name]) => name),
  ...ROLE_STARTS.map(([name]) => name),
  ...LENGTHS.map((n) => `over ${n} words`),
  ...MORE,
];

/** Parts of speech that a finished sentence ends with. */
const MAY_END: ReadonlySet<PartOfSpeech> = new Set(['VERB', 'NOUN', 'PROPN', 'ADJ', 'NUM', 'PRON', 'ADV', 'X']);

const tellAt = new Map(TELLS.map((tell, i) => [tell, i]));
const FILLER_TELL = TELLS.indexOf('filler');

/**
 * Surface features of sentence `s`, written into `into` from `at`: counts damped by a square root so that the third
 * word of a list says less than the first, shares and flags, each 0 to about 2.
 */
export function writeSurface(reading: RoleInput, s: number, into: Float32Array, at: number): void {
  const { sentences, texts, tags, words, hits, hitStarts } = reading;
  const { firstWord, endWord, speaker } = sentences[s]!;
  const n = endWord - firstWord;
  into.fill(0, at, at + SURFACE_FEATURES.length);
  for (let h = hitStarts[s]!; h < hitStarts[s + 1]!; h += 1) {
    const place = tellAt.get(hits[h]!.tell);
    if (place !== undefined) into[at + place]! += 1;
  }
  const fillers = into[at + FILLER_TELL]!;
  let k = at + TELLS.length;
  const lists = k;
  for (let i = firstWord; i < endWord; i += 1) for (const l of LISTS_OF.get(texts[i]!) ?? NO_LISTS) into[lists + l]! += 1;
  for (let i = at; i < lists + ROLE_LISTS.length; i += 1) into[i] = Math.min(2, Math.sqrt(into[i]!));
  k = lists + ROLE_LISTS.length;
  const first = firstTelling(reading, s);
  for (const start of STARTS_OF.get(texts[first]!) ?? NO_LISTS) into[k + start] = 1;
  k += ROLE_STARTS.length;
  for (const length of LENGTHS) into[k++] = n > length ? 1 : 0;
  let nouns = 0;
  let verbs = 0;
  for (let i = firstWord; i < endWord; i += 1) {
    if (tags[i] === 'NOUN' || tags[i] === 'PROPN') nouns += 1;
    else if (tags[i] === 'VERB') verbs += 1;
  }
  into[k++] = tags[first] === 'VERB' && !/(?:ed|ing|s)$/.test(texts[first]!) ? 1 : 0;
  into[k++] = (2 * nouns) / n;
  into[k++] = (2 * verbs) / n;
  into[k++] = s > 0 && asksHere(reading, s - 1) ? 1 : 0;
  into[k++] = s > 0 && sentences[s - 1]!.speaker !== speaker ? 1 : 0;
  into[k++] = s + 1 < sentences.length && sentences[s + 1]!.speaker !== speaker ? 1 : 0;
  into[k++] = words[endWord - 1]!.text.includes('!') && /!["'”’)]*$/.test(words[endWord - 1]!.text) ? 1 : 0;
  into[k++] = MAY_END.has(tags[endWord - 1]!) ? 0 : 1;
  into[k] = Math.min(1, (3 * fillers) / n);
}

/** First word that is no sound and no "and so". */
export function firstTelling(reading: RoleInput, s: number): number {
  const { firstWord, endWord } = reading.sentences[s]!;
  let i = firstWord;
  while (i + 1 < endWord && (FILLER_SOUNDS.has(reading.texts[i]!) || reading.words[i]!.kind === 'mark')) i += 1;
  return i;
}

const TURNED = /^(?:do|does|did|is|are|was|were|can|could|would|should|have|has|will|don't|didn't|isn't)$/;

/** Whether a sentence asks: a question mark, or the shape of a question where nothing is punctuated. */
export function asksHere(reading: Pick<RoleInput, 'words' | 'texts' | 'tags' | 'sentences'>, s: number): boolean {
  const { firstWord, endWord } = reading.sentences[s]!;
  const last = reading.words[endWord - 1]!.text;
  if (last.endsWith('.')) return false; // most sentences, without a pattern
  if (/[?؟？]["'”’)\]]*$/.test(last)) return true;
  if (/[.!…]["'”’)\]]*$/.test(last) || endWord - firstWord > 25) return false;
  let i = firstWord;
  while (i + 2 < endWord && /^(?:and|so|but|okay|ok|well|now|right|um|uh|er)$/.test(reading.texts[i]!)) i += 1;
  const [text, next] = [reading.texts[i]!, reading.texts[i + 1] ?? ''];
  if (QUESTION_WORDS.has(text)) return TURNED.test(next) || text.includes("'") || (text === 'how' && /^(?:much|many|long|often|old|far)$/.test(next));
  return TURNED.test(text) && /^(?:i|you|we|they|he|she|it|that|this|there|the|your|anyone|anybody|everyone|any)$/.test(next);
}
