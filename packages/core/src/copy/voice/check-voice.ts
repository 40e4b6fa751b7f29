import { rarity } from '../../text/spoken-words.js';
import { STOPWORDS } from '../../text/lists/talk.js';
import { normalise } from '../../text/normalise.js';
import { characters, placeOfCharacter } from '../characters.js';
import { type Found, foundAt } from '../check/types.js';
import type { Voice } from './types.js';

/** Where a text stands. */
export type VoiceField = 'title' | 'description' | 'coverLine';

/** Words of a language, looked up by a dictionary. */
export interface Speller {
  correct(word: string): boolean;
  /** Likely words in its place, the likeliest first. */
  suggest(word: string): readonly string[];
}

export interface VoiceContext {
  readonly voice: Voice;
  /** Null where no dictionary of the text's language is at hand. */
  readonly speller: Speller | null;
  /** Words of the recording, lower case: they are words, whatever a dictionary says. */
  readonly known: ReadonlySet<string>;
  /** Names of the recording, lower case: they keep their capital. */
  readonly names: ReadonlySet<string>;
  /** The text is English: rules of its spelling and commas hold. */
  readonly english: boolean;
}

/** Where a text is not as the client writes, in the order of the text. */
export function checkVoice(field: VoiceField, text: string, context: VoiceContext): Found[] {
  const { voice, english } = context;
  const found = [
    ...voice.use.flatMap(({ say, not }) => phrase(text, not, 'use', `The client says “${say}”.`, say)),
    ...voice.avoid.flatMap((word) => phrase(text, word, 'avoid', `The client never says “${word}”.`, null)),
    ...(field === 'description' ? [] : capitals(text, context)),
    ...(english ? [...serialComma(text, voice), ...person(text, voice), ...spelling(text, context)] : address(text, voice)),
    ...emoji(field, text, voice),
    ...length(field, text, voice),
  ];
  const taken = new Uint8Array(text.length);
  // The first rule that finds fault with a place speaks for it.
  const kept = found.filter(({ rule, from, to }) => {
    if (rule === 'length') return true;
    for (let i = from; i < to; i += 1) if (taken[i] === 1) return false;
    taken.fill(1, from, to);
    return true;
  });
  return kept.sort((a, b) => a.from - b.from);
}

/** A text with what can be mended mended, from its end on, so that places stay where they are. */
export function mended(text: string, found: readonly Found[]): string {
  return [...found]
    .filter(({ mend }) => mend !== null)
    .sort((a, b) => b.from - a.from)
    .reduce((done, { from, to, mend }) => done.slice(0, from) + mend! + done.slice(to), text);
}

const escaped = (text: string): string =>
  text
    .trim()
    .replace(/[.*+?^${}()|[\]\\]/g, '\\$&')
    .replace(/\s+/g, '\\s+');
const WORD = /[\p{L}\p{M}][\p{L}\p{M}'’-]*[\p{L}\p{M}]|[\p{L}]/gu;

/** A word or phrase wherever it stands whole, also with an English plural's s. */
function phrase(text: string, words: string, rule: 'use' | 'avoid', detail: string, mend: string | null): Found[] {
  if (words.trim() === '') return [];
  const pattern = new RegExp(`(?<![\\p{L}\\p{N}])${escaped(words)}(s?)(?![\\p{L}\\p{N}])`, 'giu');
  return [...text.matchAll(pattern)].map((match) => {
    const end = match.index + match[0].length;
    const instead = mend === null ? null : likeCase(match[0], mend) + (match[1] !== '' && !/s$/.test(mend) ? 's' : '');
    return foundAt(rule, text, match.index, end, detail, instead);
  });
}

/** A word written as large as the one in whose place it comes. */
const likeCase = (before: string, word: string): string => (/^\p{Lu}/u.test(before) ? word.charAt(0).toUpperCase() + word.slice(1) : word);

/** Small words of a title with capitals (common practice). */
const SMALL = new Set('a an and as at but by for from in into nor of on or over per the to up via with'.split(' '));

function capitals(text: string, { voice, names }: VoiceContext): Found[] {
  if (voice.capitals === 'any') return [];
  const words = [...text.matchAll(WORD)];
  return words.flatMap((match, i) => {
    const word = match[0];
    const norm = normalise(word);
    const first = i === 0 || opensSentence(text, match.index);
    const large = /^\p{Lu}/u.test(word);
    const at = (detail: string, mend: string): Found => foundAt('capitals', text, match.index, match.index + word.length, detail, mend);
    if (first || voice.capitals === 'title') {
      const wanted = first || i === words.length - 1 || !SMALL.has(norm);
      if (wanted && !large && /^\p{Ll}/u.test(word))
        return [at(first ? 'A title begins with a capital.' : 'The client’s titles have capitals.', word.charAt(0).toUpperCase() + word.slice(1))];
      return [];
    }
    // A word in capitals throughout is an abbreviation, and one that nobody knows may be a name.
    const plain = norm.replace(/'s$/, '');
    const common = STOPWORDS.has(norm) || rarity(plain) < COMMON;
    if (!large || /^I(?:$|['’])/.test(word) || /\p{Lu}.*\p{Lu}/u.test(word) || names.has(plain) || !common || PROPER.has(plain)) return [];
    return [at('Only the first word and names have a capital in this client’s titles.', word.toLowerCase())];
  });
}
/** Eight thousand words that are no names. */
const COMMON = 9;
/** Words that have a capital wherever they stand. */
const PROPER = new Set(
  'monday tuesday wednesday thursday friday saturday sunday january february march april june july august september october november december english french german italian spanish american british europe european christmas easter'.split(
    ' ',
  ),
);

/** Three words in a row, the last after "and" or "or". */
const LIST = /(?<![\p{L}'’-])([\p{L}'’-]+), ([\p{L}'’-]+)(,?) (and|or) (?=[\p{L}'’-]+)/giu;

function serialComma(text: string, { serialComma: wanted }: Voice): Found[] {
  if (wanted === 'any') return [];
  return [...text.matchAll(LIST)].flatMap((match) => {
    const [, first, second, comma, join] = match as unknown as [string, string, string, string, string];
    if ([first, second].some((word) => STOPWORDS.has(normalise(word)) || word.includes("'")) || (comma === ',') === (wanted === 'always')) return [];
    const from = match.index + first.length + 2 + second.length;
    const detail = wanted === 'always' ? `A comma stands before the last “${join}” of a list.` : `No comma stands before the last “${join}” of a list.`;
    return [foundAt('comma', text, from, from + comma.length + 1 + join.length, detail, wanted === 'always' ? `, ${join}` : ` ${join}`)];
  });
}

const TO_WE: Readonly<Record<string, string>> = {
  'i am': 'we are',
  'i was': 'we were',
  i: 'we',
  "i'm": "we're",
  "i've": "we've",
  "i'd": "we'd",
  "i'll": "we'll",
  me: 'us',
  my: 'our',
  mine: 'ours',
  myself: 'ourselves',
};
const TO_I: Readonly<Record<string, string>> = {
  'we are': 'I am',
  'we were': 'I was',
  we: 'I',
  "we're": "I'm",
  "we've": "I've",
  "we'd": "I'd",
  "we'll": "I'll",
  us: 'me',
  our: 'my',
  ours: 'mine',
  ourselves: 'myself',
};

/** Outside of quotations, which keep whoever spoke. */
function person(text: string, { person: wanted }: Voice): Found[] {
  if (wanted === 'any') return [];
  const [turns, detail] = wanted === 'we' ? ([TO_WE, 'The client speaks as “we”.'] as const) : ([TO_I, 'The client speaks as “I”.'] as const);
  const quoted = quotedPlaces(text);
  const pattern = new RegExp(`(?<![\\p{L}'])(?:${Object.keys(turns).join('|').replaceAll("'", "['’]")})(?![\\p{L}'’])`, 'giu');
  return [...text.matchAll(pattern)]
    .filter((match) => !quoted[match.index])
    .map((match) => {
      const mend = turns[match[0].toLowerCase().replace('’', "'")]!;
      const first = opensSentence(text, match.index);
      return foundAt('person', text, match.index, match.index + match[0].length, detail, first ? mend.charAt(0).toUpperCase() + mend.slice(1) : mend);
    });
}

/** Nothing but white space stands between it and the end of a sentence, or the start of the text. */
function opensSentence(text: string, at: number): boolean {
  let i = at - 1;
  while (i >= 0 && /\s/.test(text[i]!)) i -= 1;
  return i < 0 || /[.!?:“"]/.test(text[i]!);
}

/** Which characters stand inside a quotation. */
function quotedPlaces(text: string): readonly boolean[] {
  let [open, straight] = [0, false];
  return [...text].flatMap((character) => {
    if (character === '“') open += 1;
    else if (character === '”') open = Math.max(0, open - 1);
    else if (character === '"') straight = !straight;
    return Array<boolean>(character.length).fill(open > 0 || straight);
  });
}

/** German: whoever says "Sie" never says "du", and the other way round. A "Sie" that begins a sentence may be a "they". */
function address(text: string, { address: wanted }: Voice): Found[] {
  if (wanted === 'any') return [];
  const pattern =
    wanted === 'Sie'
      ? /(?<!\p{L})(?:du|dich|dir|dein(?:e[mnrs]?)?|euch|euer|eure[mnrs]?)(?!\p{L})/giu
      : /(?<=[\p{L},;] )(?:Sie|Ihnen|Ihr(?:e[mnrs]?)?)(?!\p{L})/gu;
  return [...text.matchAll(pattern)].map((match) =>
    foundAt('person', text, match.index, match.index + match[0].length, `The client says “${wanted}” to its viewers.`),
  );
}

function spelling(text: string, { voice, speller, known, names }: VoiceContext): Found[] {
  if (speller === null) return [];
  const wanted = new Set(voice.use.flatMap(({ say }) => say.toLowerCase().split(/\s+/)));
  return [...text.matchAll(WORD)].flatMap((match) => {
    const word = match[0].replaceAll('’', "'");
    const norm = normalise(word);
    const plain = norm.replace(/'s$/, '');
    const around = text.slice(Math.max(0, match.index - 1), match.index) + text.slice(match.index + word.length, match.index + word.length + 2);
    // Part of an address, a tag or a figure; an abbreviation; a name of the recording; what the client says itself.
    if (/^[#@/.\d]|^.?[\d/@]|\.\p{L}/u.test(around) || /^\p{Lu}+s?$/u.test(word) || names.has(plain) || wanted.has(plain)) return [];
    if (speller.correct(word) || speller.correct(plain)) return [];
    // Said and in no dictionary is a word of the trade; but what is one word in another spelling is meant by the rule.
    const suggestions = speller.suggest(word);
    if (known.has(norm) && !isOtherSpelling(norm, suggestions[0])) return [];
    return [foundAt('spelling', text, match.index, match.index + match[0].length, `“${word}” is not in the dictionary.`, suggestions[0] ?? null)];
  });
}

/** "color" and "colour", "organize" and "organise": as good as one word. */
function isOtherSpelling(word: string, other: string | undefined): boolean {
  const core = (text: string): string =>
    text
      .toLowerCase()
      .replaceAll('our', 'or')
      .replaceAll('z', 's')
      .replaceAll('ll', 'l')
      .replace(/re$/, 'er')
      .replace(/ogue$/, 'og')
      .replaceAll('ae', 'e')
      .replace(/ence$/, 'ense');
  return other !== undefined && core(word) === core(other);
}

function emoji(field: VoiceField, text: string, { emoji: use }: Voice): Found[] {
  if (use === 'everywhere' || (use === 'texts' && field === 'description')) return [];
  const detail = use === 'none' ? 'The client uses no emoji.' : 'No emoji in titles.';
  return [...text.matchAll(/\s?(?:\p{Extended_Pictographic}(?:\uFE0F|\u200D\p{Extended_Pictographic}|\p{Emoji_Modifier})*|\p{Regional_Indicator}{2})/gu)].map(
    (match) => foundAt('emoji', text, match.index, match.index + match[0].length, detail, ''),
  );
}

function length(field: VoiceField, text: string, { longestTitle, longestText }: Voice): Found[] {
  const most = field === 'title' ? longestTitle : field === 'description' ? longestText : null;
  const used = characters(text);
  if (most === null || used <= most) return [];
  const from = placeOfCharacter(text, most);
  return [foundAt('length', text, from, text.length, `${used} characters; the client wants ${most} at most.`)];
}
