import { CANNOT_END, SUBJECT_PRONOUNS } from '../../text/lists/talk.js';
import { ASKS_ROOM, DID, ENDS_IN_ING, WAITING } from '../../text/lists/titles.js';
import { stem } from '../../text/stem.js';
import type { Hit } from '../../text/tells/find-tells.js';
import { isHalf } from './half-lines.js';
import { clausesOf, type TitleDraft } from './title-sorts.js';
import { hasComma, type Line } from './written-word.js';

// Whether a line can stand by itself, judged by rule.

/** What makes a line look broken, whatever else it has. Judged by rule: nearness to written titles does not see it. */
export function isBroken({ line, text, sort, cut }: TitleDraft): boolean {
  const [first, last] = [line[0]!, line.at(-1)!];
  const before = line.at(-2)!;
  if (CANNOT_END.has(last.norm) || last.tag === 'DET' || last.tag === 'CCONJ' || (last.tag === 'ADP' && cut)) return true;
  // "where we lose most of the jobs", "how high": asked, but not to the end.
  if (
    (sort === 'said' || sort === 'contrast') &&
    !text.endsWith('?') &&
    (ASKS_WHERE.has(first.norm) || (first.norm === 'how' && line[1]?.tag === 'ADJ')) &&
    !hasMainClause(line)
  )
    return true;
  const past =
    (first.tag === 'VERB' || first.tag === 'PROPN' || first.tag === 'AUX') && (DID.has(first.norm) || (first.tag === 'VERB' && /[^e]ed$/.test(first.norm)));
  if (isBit(line)) return true; // "in spring you can't", "not just press no show"
  if (past && sort === 'said') return true; // "told it to me in the yard": who?
  if (sort === 'said' && first.tag === 'VERB' && SAYS_OF_SOMEBODY.test(first.norm) && line[1]?.tag !== 'PRON' && !text.endsWith('?')) return true; // "withdraws the report": who?
  if (asksAndTells(line) || isHalf(line)) return true; // "what did we downloaded it", "since the quarry widened its entrance"
  if (first.norm === 'even' && WAITS.has(line[1]!.norm) && !hasMainClause(line)) return true; // "even if there is no tax": and then?
  if ((first.tag === 'ADP' || first.tag === 'SCONJ') && !isClause(line)) return true; // "as an approved walking route"
  if (WAITS.has(first.norm) && !hasMainClause(line)) return true; // "if it stops": and then?
  if (first.tag === 'AUX' && !text.endsWith('?') && first.norm !== "don't") return true; // "is around the niche"
  if (cut && (last.tag === 'VERB' || last.tag === 'AUX') && (before.tag === 'PRON' || before.tag === 'AUX' || before.tag === 'NOUN')) return true; // "I can hear"
  if (cut && last.tag === 'ADV' && before.tag === 'PRON') return true; // "we never"
  if (sort === 'said' && !isClause(line) && line.length < 4) return true;
  return line.some(({ norm }, i) => i > 0 && /^i'm$|^we're$/.test(line[i - 1]!.norm) && /^(?:is|are|was)$/.test(norm)); // a start that broke off
}

/** What answers somebody or goes on from before, and says nothing of itself. */
const isBit = (line: Line): boolean =>
  (line.at(-1)!.norm.endsWith("n't") && line.filter(({ tag }) => tag === 'VERB').length === 0) ||
  (line[0]!.norm === 'not' && !/^(?:one|every|everyone|everybody|all|a|an|many)$/.test(line[1]?.norm ?? '') && !line.some(hasComma)) ||
  (/^(?:just|only)$/.test(line[0]!.norm) && /^(?:VERB|AUX|PRON|ADP|SCONJ)$/.test(line[1]?.tag ?? ''));

/** A verb of somebody else: "withdraws", not "pass" nor "focus". */
const SAYS_OF_SOMEBODY = /[^suiay]s$/;

/** A question that was not asked to its end runs into what is told: after "did we" no verb of the past can stand. */
const asksAndTells = (line: Line): boolean =>
  line.some(
    ({ norm }, i) =>
      (norm === 'did' || norm === 'does' || norm === 'do') && line[i + 1]?.tag === 'PRON' && line[i + 2]?.tag === 'VERB' && /[^e]ed$/.test(line[i + 2]!.norm),
  );

function hasMainClause(line: Line): boolean {
  const comma = line.findIndex(hasComma);
  const rest = line.slice(comma + 1);
  return comma > 0 && rest.length >= 2 && isClause(rest) && rest[0]!.tag !== 'ADP' && !/^(?:so|and|but|or)$/.test(rest[0]!.norm);
}

/** It speaks of somebody or something that only the talk before it names. A frame ("Why") changes nothing. */
export function leans({ line, resolved }: TitleDraft): boolean {
  const at = line.findIndex((word) => word.end > word.first);
  const norm = line[at]!.norm;
  if (resolved) return false;
  if (/^(?:it|it'\w+|they|they'\w+|he|he'\w+|she|she'\w+|them|those|these)$/.test(norm)) return true;
  if (norm === 'there' && /^(?:it|they|he|she|you|i|we)(?:$|')/.test(line[at + 1]?.norm ?? '')) return true; // "there it's 40 minutes different"
  // "in some it's the whole floor", "with it I got back": of what nobody has named.
  if (AT.has(norm) && UNNAMED.has(line[at + 1]?.norm ?? '') && !/^(?:NOUN|ADJ|PROPN|NUM)$/.test(line[at + 2]?.tag ?? '') && line[at + 2]?.norm !== 'of')
    return true;
  if (isOther(line.slice(at)) || asksNothing(line)) return true;
  // "Where's your nearest one?": one of what nobody has named.
  if (/^ones?$/.test(line.at(-1)!.norm) && line.length > 2 && !line.slice(0, -1).some(({ tag }) => tag === 'NOUN' || tag === 'PROPN')) return true;
  return /^(?:this|that|that's)$/.test(norm) && line[at + 1]?.tag !== 'NOUN';
}

/** "One's an eight", "the other one begins at nine", "first one's from Shabana": one of what was named before. */
function isOther(line: Line): boolean {
  const from = /^(?:the|this|that)$/.test(line[0]!.norm) ? 1 : 0;
  const [which, next] = [line[from]?.norm ?? '', line[from + 1]];
  if (which === "one's" || (from === 1 && which === 'others') || (from === 0 && which === 'one' && (next?.tag === 'AUX' || next?.tag === 'VERB'))) return true;
  return /^(?:other|first|second|third|last|next)$/.test(which) && /^one(?:'s)?$/.test(next?.norm ?? '') && line[from + 2]?.norm !== 'of';
}

/** "What do you say?": nothing in it tells of what. */
const asksNothing = (line: Line): boolean =>
  line.at(-1)!.text.endsWith('?') && line.every(({ norm, tag }) => !/^(?:NOUN|PROPN|ADJ|NUM)$/.test(tag) && (tag !== 'VERB' || SAYS_LITTLE.has(norm)));
const SAYS_LITTLE = new Set("do does did doing say said saying want wanted know think mean happen happens happened go going get call called what's".split(' '));

const AT = new Set('in on at with for from by to after before under over'.split(' '));
const UNNAMED = new Set('some others it this that these those them any most both each'.split(' '));

/** "Is that right?": asked of somebody in the room, not of whoever reads it. */
export const asksRoom = ({ line, text }: TitleDraft): boolean =>
  text.endsWith('?') && ASKS_ROOM.has(line[0]!.norm) && line.some(({ norm }) => /^(?:you|your|he|she|it|they|them|that|this|we|us)$/.test(norm));

const NAMED_FIRST = 3;

/** "The box, it says an hour": what it is about is called first, as one does in talk. */
export function callsFirst({ line }: TitleDraft): boolean {
  const comma = line.findIndex(hasComma);
  if (comma < 0 || comma >= NAMED_FIRST || comma > line.length - 3) return false;
  const called = line.slice(0, comma + 1);
  return ['NOUN', 'PROPN'].includes(called.at(-1)!.tag) && !called.some((_, i) => isVerb(line, i)) && isClause(line.slice(comma + 1));
}

const ASKS_WHERE = new Set(['where', 'which', 'who', 'whose', 'whom']);

/** "I had a client, a wool shop", "I'm at the stop", "someone asks about the powder": somebody is brought in, and nothing is said of them yet. */
export const bringsIn = ({ line }: TitleDraft): boolean =>
  hasOnly(line) ||
  (/^(?:i'm|we're|i|we)$/.test(line[0]!.norm) &&
    /^(?:at|in|on|am|are|was|were)$/.test(line[1]?.norm ?? '') &&
    /^(?:the|at|in|on)$/.test(line[2]?.norm ?? '')) ||
  line.some(({ norm }, i) => /^(?:someone|somebody)'s$/.test(norm) && /^ask(?:ing|ed)$/.test(line[i + 1]?.norm ?? '')) ||
  (line[0]!.tag === 'PROPN' && line.slice(1, 4).some(({ norm }) => norm === 'asks')) ||
  (/^(?:someone|somebody)$/.test(line[0]!.norm) && /^(?:asks|asked|says|said)$/.test(line[1]?.norm ?? '') && line.length < ASKED_SHORTLY);
/** What somebody asks, in so few words, is only named. */
const ASKED_SHORTLY = 7;

const hasOnly = (line: Line): boolean =>
  /^(?:i|we|you)$/.test(line[0]!.norm) &&
  /^(?:had|have|know|knew|met|got|get)$/.test(line[1]?.norm ?? '') &&
  /^(?:a|an|one|this|some|another)$/.test(line[2]?.norm ?? '') &&
  !line.slice(3).some((_, i) => isVerb(line, i + 3));

/** "Five frames, five frames": the same word twice in one line. */
export function saysTwice({ line, sort }: TitleDraft): boolean {
  const content = line.filter(({ tag }) => tag === 'NOUN' || tag === 'VERB').map(({ norm }) => stem(norm));
  return sort !== 'contrast' && new Set(content).size < content.length;
}

/** They begin what waits for the other half. */
export const WAITS = new Set([...WAITING, 'because']);

/** A verb that says something of somebody: not "to save", nor "working" without "is". */
const isVerb = (line: Line, i: number): boolean => {
  const { tag, norm } = line[i]!;
  return (
    tag === 'AUX' ||
    /[a-z]'(?:s|re|ve|d|ll|m)$|n't$/.test(norm) ||
    (tag === 'VERB' && line[i - 1]?.norm !== 'to' && (!norm.endsWith('ing') || ENDS_IN_ING.has(norm)))
  );
};

/** Somebody or something that more is told of right behind it. */
const isTold = ({ tag, norm }: Line[number]): boolean =>
  tag === 'NOUN' || tag === 'PROPN' || /^(?:everyone|everybody|anyone|anybody|someone|somebody|those)$/.test(norm);

/** Something is said of something: a verb that is not inside "a man that was". */
export function isClause(line: Line): boolean {
  let inside: 'nothing' | 'before its verb' | 'its verb' = 'nothing';
  for (let i = 0; i < line.length; i += 1) {
    const verb = isVerb(line, i);
    if (i > 0 && isTold(line[i - 1]!) && /^(?:that|who|which)(?:$|')/.test(line[i]!.norm)) inside = verb ? 'its verb' : 'before its verb';
    else if (verb) {
      if (inside === 'nothing') return true;
      inside = 'its verb';
    } else if (inside === 'its verb' && line[i]!.tag !== 'ADV' && line[i]!.norm !== 'since') inside = 'nothing';
  }
  return false;
}

const HOUSEKEEPING = new Set(['greeting', 'housekeeping', 'sponsor', 'signoff']);

/** Somebody says how they tell it: "I can't remember the figures", "I'll not go into that". */
const OF_THE_TELLING =
  /^(?:I (?:can't|cannot|don't|do not) (?:remember|recall|want to (?:put words|go into))|I(?:'ll| will) not go into|I forget\b|I(?:'ll| will| can) come back to)/i;

/** It is about the recording, or how it is told, not of it. */
export const isHousekeeping = ({ line, text }: TitleDraft, tells: readonly Hit[]): boolean =>
  OF_THE_TELLING.test(text) || tells.some(({ tell, firstWord, endWord }) => HOUSEKEEPING.has(tell) && firstWord < line.at(-1)!.end && line[0]!.first < endWord);

const ASKS = /^(?:what|how|where|who|why)$/;
/** They begin what waits for the other half, in a sentence; in a title they may do without. */
const WAITS_LONGER = new Set([...WAITS, 'before', 'after', 'by']);

/**
 * It may pass as a line by itself, and not as a sentence that is read: another begins inside it ("sent up to a I'll not go into
 * that"), it answers what was asked before ("mostly for cellars, but …"), somebody is called, or it is not asked to its end.
 */
export function isLoose(draft: TitleDraft): boolean {
  const { line, text } = draft;
  const [first, second] = line;
  if (callsFirst(draft) || breaksIn(line)) return true;
  if ((draft.sort === 'advice' || first!.tag === 'VERB') && hasComma(first)) return true; // "buy, if you can get one": what?
  if (first!.norm === 'that' && /(?:[^su]s|people)$/.test(second!.norm) && second!.tag === 'NOUN') return true; // "that people should be doing"
  if (first!.norm === 'that' && SUBJECT_PRONOUNS.has(second!.norm)) return true; // "that you know, because"
  if (first!.norm === 'not' || (first!.tag === 'ADV' && second!.tag === 'VERB')) return true; // "just stopped"
  if ((first!.tag === 'PROPN' || first!.tag === 'INTJ') && hasComma(first)) return true; // "Desmond, before we go"
  const asked = text.endsWith('?');
  if (!asked && (ASKS.test(line.at(-1)!.norm) || (ASKS.test(first!.norm) && second!.tag === 'AUX'))) return true; // "what was it, 18 letters"
  const pieces = clausesOf(line);
  if (WAITS_LONGER.has(first!.norm) && !asked) return !pieces.slice(1).some((piece) => isMain(piece)); // "if it's been in your kitchen, even if it's a peel"
  return pieces.length > 1 && !isClause(pieces[0]!) && !(first!.tag === 'ADP' && isMain(pieces[1]!)); // "with the light on, and you can't"
}

/** A clause that stands by itself, in the middle of a sentence. */
const isMain = (piece: Line): boolean =>
  isClause(piece) &&
  piece[0]!.norm !== 'even' &&
  !/^(?:and|but|or|so|because|which|who|if|when)$/.test(piece[0]!.norm) &&
  !(piece[0]!.norm === 'that' && piece[1]?.tag === 'NOUN');

/** Somebody begins anew in the middle of it, with nothing between; or a verb stands alone between commas ("…, is, …"). */
export const breaksIn = (line: Line): boolean =>
  line.some((word, i) => i > 0 && word.tag === 'AUX' && hasComma(word) && hasComma(line[i - 1])) ||
  line.some(
    ({ norm, tag }, i) =>
      i > 0 &&
      !hasComma(line[i - 1]) &&
      ((tag === 'PRON' &&
        /^(?:i|he|she|we|they|it|you)(?:$|')/.test(norm) &&
        /^(?:a|an|the|my|your|his|our|their|is|are|was|were|it's|there's|that's)$/.test(line[i - 1]!.norm)) ||
        (line[i - 1]!.tag === 'DET' && (tag === 'CCONJ' || tag === 'SCONJ') && /^(?:a|an|the)$/.test(line[i - 1]!.norm))),
  );
