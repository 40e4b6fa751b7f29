import { CANNOT_END, FILLER_SOUNDS, SUBJECT_PRONOUNS } from '../../text/lists/talk.js';
import { BREAKS_OFF } from '../../text/lists/titles.js';
import { ASIDES, HEDGES, TAILS } from '../../text/lists/written.js';
import { type PhrasesBy, phrasesBy } from '../../text/phrases-by.js';
import type { Passage } from '../phrases.js';
import { withoutCleft, withoutInnerCleft } from './clefts.js';
import { withFigures } from './figures.js';
import { withoutOpenings } from './openings.js';
import { hasComma, type Line, standsAt, withMark, type WrittenWord } from './written-word.js';

/**
 * Words of a range of the passage as somebody would write them: without sounds, restarts, repeats, hedges, openings and
 * trailing tags, with numbers in figures. Each word knows what was said; nothing is added.
 */
export function compress(passage: Pick<Passage, 'words' | 'texts' | 'tags'>, from: number, to: number): Line {
  return STEPS.reduce((line, step) => step(line), asSaid(passage, from, to));
}

/** The words of a range, without marks and filler sounds. */
export function asSaid({ words, texts, tags }: Pick<Passage, 'words' | 'texts' | 'tags'>, from: number, to: number): Line {
  const line: WrittenWord[] = [];
  for (let i = from; i < to; i += 1) {
    const said = words[i]!;
    if (said.kind === 'mark') continue;
    if (FILLER_SOUNDS.has(texts[i]!)) {
      closeUp(line, said.text);
      continue;
    }
    line.push({ text: said.text.replace(/^i(?=$|['’,.?!])/, 'I').replace(/’/g, "'"), norm: texts[i]!, tag: tags[i]!, first: i, end: i + 1 });
  }
  return line;
}

/** Where a sound fell between two commas, both go in the end; until then they tell where somebody may have begun again. */
const PAUSE = ',,';
function closeUp(before: WrittenWord[], fell: string): void {
  const last = before.at(-1);
  if (last !== undefined && /,$/.test(fell) && /,$/.test(last.text)) before[before.length - 1] = withMark(last, PAUSE);
}
export const withoutPauses = (line: Line): Line => line.map((word) => (word.text.endsWith(PAUSE) ? withMark(word, '') : word));

const [BETWEEN_COMMAS, SOFT, ENDS] = [phrasesBy(0, ASIDES), phrasesBy(0, HEDGES), phrasesBy(-1, TAILS)];

const STEPS: readonly ((line: Line) => Line)[] = [
  withoutRepeats,
  withoutRestarts,
  withoutStandIn,
  withoutBrokenPieces,
  withoutPauses,
  (line) => withoutPhrases(line, BETWEEN_COMMAS, true),
  withoutOtherStart,
  (line) => withoutPhrases(line, SOFT, false),
  withoutOpenings,
  withoutCleft,
  withoutInnerCleft,
  withoutFalseStart,
  withoutRepeats,
  withoutTagQuestion,
  withoutTails,
  withFigures,
];

const LONGEST_REPEAT = 4;

/** "it's it's", "I was I was": said twice in a row counts once. */
export function withoutRepeats(line: Line): Line {
  const out = [...line];
  for (let i = 0; i + 1 < out.length; i += 1)
    for (let n = LONGEST_REPEAT; n >= 1; n -= 1)
      if (i + 2 * n <= out.length && repeats(out, i, n) && !(n === 1 && MEANT_TWICE.has(out[i]!.norm))) {
        out.splice(i, n);
        i = Math.max(-1, i - 2);
        break;
      }
  return out;
}
const repeats = (line: Line, at: number, n: number): boolean => {
  for (let k = 0; k < n; k += 1) if (line[at + k]!.norm !== line[at + n + k]!.norm) return false;
  const last = line[at + n - 1]!;
  return !hasComma(last) || breaksOff(last) || line[at]!.tag === 'PRON'; // "not an open fire, an open fire wastes": both are meant
};
/** Saying these twice means something. */
const MEANT_TWICE = new Set('that had very really never no much far on and'.split(' '));

const LONGEST_RESTART = 7;

/** "it's the, it's the standard", "I've got a cup of, I've got my thermos": a start that broke off goes when it is begun again. */
export function withoutRestarts(line: Line): Line {
  const out = [...line];
  for (let i = 0; i < out.length - 1; i += 1) {
    if (!hasComma(out[i]) || !breaksOff(out[i]!)) continue;
    for (let from = i; from >= Math.max(0, i - LONGEST_RESTART); from -= 1)
      if (beginsAlike(out[from]!.norm, out[i + 1]!.norm)) {
        out.splice(from, i + 1 - from);
        i = Math.max(-1, from - 2);
        break;
      }
  }
  return out;
}

/** "It's not right in the for the profession": two beginnings of one part, of which the second was meant. */
export function withoutOtherStart(line: Line): Line {
  const out = [...line];
  const begins = (i: number): boolean => out[i]!.tag === 'ADP' && ARTICLES.has(out[i + 1]!.norm) && !hasComma(out[i]);
  for (let i = 0; i + 4 < out.length; i += 1) if (begins(i) && begins(i + 2)) out.splice(i, 2);
  return out;
}
const ARTICLES = new Set('the a an my your our their his'.split(' '));

const LONGEST_SAID_AGAIN = 3;

/** "the chimneys were, they were the old ones": said of them again, by a word that only stands for them. */
export function withoutStandIn(line: Line): Line {
  const out = [...line];
  for (let at = 1; at < out.length - 2; at += 1) {
    const n = saidAgainAt(out, at);
    if (n === 0) continue;
    out.splice(at, 2 + n, withMark(out[at]!, ''));
    at -= 1;
  }
  return out;
}
/** How many words before the comma at a place are said again behind a word that stands for somebody; 0 for none. */
function saidAgainAt(line: Line, at: number): number {
  if (!hasComma(line[at]) || !breaksOff(line[at]!) || !STAND_INS.has(line[at + 1]!.norm)) return 0;
  for (let n = Math.min(LONGEST_SAID_AGAIN, at); n >= 1; n -= 1)
    if (line.slice(at + 1 - n, at + 1).every((word, k) => word.norm === line[at + 2 + k]?.norm)) return n;
  return 0;
}
/** "Leave it in the shade for, I left it half an hour": what broke off before a comma goes, when a sentence begins behind it. */
export function withoutBrokenPieces(line: Line): Line {
  const out = [...line];
  for (let i = 0; i < out.length - 2; i += 1) {
    if (!hasComma(out[i]) || !(BREAKS_OFF.has(out[i]!.norm) || NEEDS_NOUN.has(out[i]!.norm)) || !beginsSentence(out, i + 1)) continue;
    let from = i;
    while (from > 0 && !hasComma(out[from - 1]) && !/[.?!]["'”’)]*$/.test(out[from - 1]!.text)) from -= 1;
    if (CAN_WAIT.has(out[from]!.norm)) continue; // "as it is, I …", "what it is, is …"
    out.splice(from, i + 1 - from);
    i = Math.max(-1, from - 2);
  }
  return out;
}
/** A subject with something said of it. */
const beginsSentence = (line: Line, at: number): boolean => {
  const [first, second] = [line[at]!, line[at + 1]!];
  const subject = SUBJECT_PRONOUNS.has(first.norm.split("'")[0]!) || /^(?:everyone|everybody|nobody|somebody|someone|there)$/.test(first.norm);
  return subject && (first.norm.includes("'") || second.tag === 'VERB' || second.tag === 'AUX' || second.tag === 'ADV');
};
const NEEDS_NOUN = new Set('for from with at by into onto than every some'.split(' '));
const CAN_WAIT = new Set('as what how where who which whoever whatever that if when because than and but so'.split(' '));

const STAND_INS = new Set('it they he she that this'.split(' '));
const breaksOff = ({ norm, tag }: WrittenWord): boolean => CANNOT_END.has(norm) || tag === 'DET' || tag === 'AUX' || tag === 'CCONJ';
const beginsAlike = (a: string, b: string): boolean => a === b || a.split("'")[0] === b.split("'")[0];

/** @param between only where commas or the ends of the line stand on both sides */
export function withoutPhrases(line: Line, phrases: PhrasesBy, between: boolean): Line {
  const out = [...line];
  for (let i = 0; i < out.length; i += 1) {
    const phrase = phrases.get(out[i]!.norm)?.find((one) => standsAt(out, i, one) && (between ? isAside(out, i, one.length) : !belongs(out, i, one)));
    if (phrase === undefined) continue;
    const end = i + phrase.length;
    // One comma is left of two; and the mark that ends a sentence stays.
    const last = out[end - 1]!;
    const mark = /[.?!]["'”’)]*$/.test(last.text);
    out.splice(i, phrase.length);
    if (i > 0 && /,$/.test(last.text) && /,$/.test(out[i - 1]!.text)) out[i - 1] = withMark(out[i - 1]!, '');
    if (i > 0 && mark) out[i - 1] = { ...out[i - 1]!, text: withMark(out[i - 1]!, '').text + /[.?!]+["'”’)]*$/.exec(last.text)![0] };
    i -= 1;
  }
  return out;
}
const isAside = (line: Line, at: number, length: number): boolean =>
  (at === 0 || hasComma(line[at - 1])) && (hasComma(line[at + length - 1]) || at + length === line.length) && length < line.length;
/** "what kind of", "I don't really", "so probably": parts of what is said. */
const belongs = (line: Line, at: number, phrase: readonly string[]): boolean => {
  const before = line[at - 1]?.norm ?? '';
  if (/^(?:kind|sort) of$/.test(phrase.join(' ')))
    return /^(?:what|this|that|the|a|any|some|every|one|same|which|other|different|all|these|those|no|best|right)$/.test(before) || line[at - 1]?.tag === 'ADJ';
  if (phrase[0] === 'really' || phrase.length === 1) return /n't$|^not$|^how$|^as$|^so$/.test(before);
  if (before === 'that' && line[at - 2]?.tag === 'NOUN') return true; // "the thing that I'd say"
  if (/^i(?:$|')/.test(phrase[0]!))
    return (
      /^(?:what|that|than|as|which|who|where|when|if|and|like|do|did)$/.test(before) && !hasComma(line[at - 1]) && /^(?:what|than|as|do|did)$/.test(before)
    );
  return false;
};

/** A start is begun again within this many words, or not at all. */
const AGAIN_WITHIN = 4;

/** "I didn't I never put that up": a start that broke off without a comma, where the same subject begins again. */
export function withoutFalseStart(line: Line): Line {
  let from = 0;
  for (let i = 2; i <= from + AGAIN_WITHIN && i < line.length - 1; i += 1) {
    const broken = i > from + 1 && (BREAKS_OFF.has(line[i - 1]!.norm) || line[i - 1]!.norm.endsWith("n't"));
    if (broken && SUBJECT_PRONOUNS.has(line[i]!.norm.split("'")[0]!) && beginsAlike(line[i]!.norm, line[from]!.norm)) from = i;
  }
  return line.slice(from);
}

const TAG_QUESTION = /^(?:is|isn|are|aren|was|wasn|were|do|don|does|doesn|did|didn|has|hasn|have|haven|can|could|will|won|would|wouldn|should|ain)(?:'?t)?$/;

/** "isn't it", "do you": asked at the end of what is no question. */
export function withoutTagQuestion(line: Line): Line {
  const n = line.length;
  if (n < 5 || !hasComma(line[n - 3]) || !TAG_QUESTION.test(line[n - 2]!.norm.replace("n't", 'n')) || line[n - 1]!.tag !== 'PRON') return line;
  return [...line.slice(0, n - 3), withMark(line[n - 3]!, '')];
}

/** Tails, one after another. */
export function withoutTails(line: Line): Line {
  let end = line.length;
  for (;;) {
    const phrase = ENDS.get(line[end - 1]?.norm ?? '')?.find(
      (one) => end > one.length + 2 && standsAt(line, end - one.length, one) && (hasComma(line[end - one.length - 1]) || FREE_TAILS.has(one.join(' '))),
    );
    if (phrase === undefined) break;
    end -= phrase.length;
  }
  if (end === line.length) return line;
  const asked = line.at(-1)!.text.endsWith('?') ? '?' : '';
  const last = withMark(line[end - 1]!, '');
  return [...line.slice(0, end - 1), { ...last, text: last.text + asked }];
}
/** No comma stands before these, and still nothing hangs on them. */
const FREE_TAILS = new Set([
  'or something like that',
  'and so on',
  'or something',
  'or whatever',
  'and stuff',
  'and things',
  'and all that',
  'or so',
  'basically',
  'obviously',
  'and',
  'but',
  'or',
  'you know',
  'i think',
]);
