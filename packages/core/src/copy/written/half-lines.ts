import { SUBJECT_PRONOUNS } from '../../text/lists/talk.js';
import { hasComma, type Line, type WrittenWord } from './written-word.js';

// Lines that are half of something, whatever verbs they have.

/** They begin what waits for its other half, with a comma behind it or without; those that need the comma are in `WAITS`. */
const WAITS_FOR_MAIN = new Set('before since though whereas until'.split(' '));
const SOMEBODY = /^(?:everyone|everybody|nobody|somebody|someone|anyone|people|there)$/;

/** Whether a line is only half of what is said: "before you let anyone sell you a tank", "the thing I'd want to say about it". */
export const isHalf = (line: Line): boolean =>
  NEVER_FIRST.has(line[0]!.norm) ||
  waitsForMain(line) ||
  isAnnounced(line) ||
  isCalledTwice(line) ||
  isNobodys(line) ||
  willNot(line) ||
  asksAnew(line) ||
  beginsAnew(line) ||
  tellsOfSomebody(line);

/** "Of the five that went I know …", "whereas if it's …", "also the ones who …": the other half stands before, or somewhere behind. */
const NEVER_FIRST = new Set(['of', 'whereas', 'also']);

/** "At a stile that's you can time it": somebody begins anew behind what waits for something else. */
const beginsAnew = (line: Line): boolean =>
  !line.at(-1)!.text.endsWith('?') &&
  line.some(
    ({ norm }, i) =>
      i > 0 && /^(?:that's|it's|there's|here's)$/.test(norm) && !hasComma(line[i]) && /^(?:you|i|we|he|she|they)(?:$|')/.test(line[i + 1]?.norm ?? ''),
  );

const QUESTION_WORD = /^(?:what|when|where|why|how|who)$/;
/** "What are you dreading when did you last look": a second question begins inside the first, with nothing between. */
const asksAnew = (line: Line): boolean =>
  QUESTION_WORD.test(line[0]!.norm) &&
  line.some(
    ({ norm }, i) =>
      i > 2 &&
      QUESTION_WORD.test(norm) &&
      !hasComma(line[i - 1]) &&
      /^(?:do|does|did|are|is|was|were|can|will|have|has)$/.test(line[i + 1]?.norm ?? '') &&
      line[i + 2]?.tag === 'PRON',
  );

/** "Since the quarry widened its entrance": and then? "Before you buy them get a pen" has its other half. */
function waitsForMain(line: Line): boolean {
  const even = line[0]!.norm === 'even' ? 1 : 0;
  if (!WAITS_FOR_MAIN.has(line[even]!.norm)) return false;
  const rest = line.slice(even + 1);
  // Its own subject and verb stand first; what begins after them is the other half.
  return !rest.some((word, i) => i > 1 && (beginsSubject(rest, i) || tellsToDo(rest, i) || (hasComma(rest[i - 1]) && word.tag !== 'CCONJ')));
}

/** A subject with its verb right behind it, not one that is told of ("the man who …", "what you …"). */
const beginsSubject = (line: Line, i: number): boolean =>
  (SUBJECT_PRONOUNS.has(line[i]!.norm.split("'")[0]!) || SOMEBODY.test(line[i]!.norm)) &&
  line[i - 1]!.tag !== 'SCONJ' &&
  !/^(?:that|who|which|what|where|how|why|if|and|or|than|as|let|makes?|made)$/.test(line[i - 1]!.norm) &&
  (line[i]!.norm.includes("'") || line[i + 1]?.tag === 'VERB' || line[i + 1]?.tag === 'AUX');

/** "the animals get yourself a pen": a verb behind a thing, with nobody who does it. */
const tellsToDo = (line: Line, i: number): boolean =>
  line[i]!.tag === 'VERB' &&
  line[i - 1]!.tag === 'NOUN' &&
  /^(?:yourself|it|them|your|the|a|an)$/.test(line[i + 1]?.norm ?? '') &&
  !/(?:ed|ing|[^s]s)$/.test(line[i]!.norm);

/** "The thing I'd want to say about the breathing", "here's what I'd tell you": what is said of it does not come. */
function isAnnounced(line: Line): boolean {
  // "What I was paying in sugar and diesel": and what was it? "What I tell them is pretty simple": and what is it?
  if (line[0]!.norm === 'what' && /^(?:i|we|he|she|they)(?:$|')/.test(line[1]?.norm ?? '') && !line.at(-1)!.text.endsWith('?'))
    return !line.slice(3).some((word) => isWasIs(word) || SUBJECT_PRONOUNS.has(word.norm)) || (line.at(-1)!.tag === 'ADJ' && /^(?:i|we)$/.test(line[1]!.norm));
  if (/^(?:here's|that's)$/.test(line[0]!.norm) && /^(?:what|how|why)$/.test(line[1]?.norm ?? ''))
    return !line.some(({ tag }) => tag === 'NOUN' || tag === 'PROPN' || tag === 'NUM' || tag === 'ADJ');
  const at = line.findIndex(({ norm }) => norm === 'thing' || norm === 'things');
  if (at < 1 || at > 3 || !/^(?:the|one|another|a)$/.test(line[0]!.norm)) return false;
  const rest = line.slice(at + 1);
  const told = rest[0]?.norm === 'that' ? rest.slice(1) : rest;
  return told.length > 0 && SUBJECT_PRONOUNS.has(told[0]!.norm.split("'")[0]!) && !told.slice(1).some(({ norm }) => /^(?:is|was|are|were)$|'s$/.test(norm));
}

const isWasIs = ({ norm }: WrittenWord): boolean => /^(?:is|are|was|were)$|'s$/.test(norm);

/** "The lower site and they both begin", "the number and what is the problem": things are named, and then another thing begins. */
function isCalledTwice(line: Line): boolean {
  const and = line.findIndex(({ norm }, i) => norm === 'and' && i > 0);
  if (and < 1 || line[0]!.tag !== 'DET' || !/^(?:they|it|he|she|we|what|how|why)(?:$|')/.test(line[and + 1]?.norm ?? '')) return false;
  return line.slice(0, and).every(({ tag, norm }) => tag !== 'VERB' && tag !== 'AUX' && !norm.includes("'"));
}

/** "Take the honey off in April and I worked it out": nobody does the one, somebody the other. */
const isNobodys = (line: Line): boolean =>
  line[0]!.tag === 'VERB' &&
  !line.at(-1)!.text.endsWith('?') &&
  line.some(({ norm }, i) => norm === 'and' && i > 1 && /^(?:i|he|she|we)(?:$|')/.test(line[i + 1]?.norm ?? ''));

const MODALS = /^(?:would|could|should|will|can|must|might|wouldn't|couldn't|shouldn't|won't|can't)$/;
/** "I would not really this week": what somebody would do broke off. */
const willNot = (line: Line): boolean =>
  line.some(
    ({ norm, tag }, i) =>
      MODALS.test(norm) &&
      tag === 'AUX' &&
      i < line.length - 1 &&
      !hasComma(line[i]) &&
      !line.slice(i + 1).some((word, k, after) => word.tag === 'VERB' || word.tag === 'AUX' || mayBeVerb(word, after[k - 1])),
  );
/** What a tagger takes for a noun: "you should water them". */
const mayBeVerb = ({ tag, norm }: WrittenWord, before: WrittenWord | undefined): boolean =>
  (tag === 'NOUN' || tag === 'ADJ') && before?.tag !== 'DET' && !/s$/.test(norm);

/** "Everyone who's been hurt in the time I've been there": who they are, and nothing of them. */
function tellsOfSomebody(line: Line): boolean {
  if (!/^(?:everyone|everybody|anyone|anybody|those|people)$/.test(line[0]!.norm) || !/^(?:who|that)(?:$|')/.test(line[1]?.norm ?? '')) return false;
  // Each run of verbs belongs to whoever stands before it: the first to "who", others to "I", "you"; one that has nobody is of the first word.
  let owned = true;
  for (let i = 1; i < line.length; i += 1) {
    const { norm, tag } = line[i]!;
    const before = line[i - 1]!;
    const isObject = before.tag === 'VERB' && !norm.includes("'");
    if (/^(?:who|that|which|to)(?:$|')/.test(norm) || (SUBJECT_PRONOUNS.has(norm.split("'")[0]!) && !isObject)) owned = true;
    else if (tag === 'VERB' || tag === 'AUX') {
      if (!owned || (before.tag === 'ADV' && FINITE.test(norm))) return false;
    } else if (tag !== 'ADV' && tag !== 'PART') owned = false;
  }
  return true;
}
const FINITE = /^(?:is|are|was|were|has|had|does|did|will|would|can|could)$/;
