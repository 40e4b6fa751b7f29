import { SUBJECT_PRONOUNS } from '../../text/lists/talk.js';
import { type Line, raised } from './written-word.js';

const WHO = /^(?:i|you|we|they|he|she|it|that|this|people)(?:'(?:d|ll))?$/;
const BESIDE = new Set('would will could usually always often normally mostly then now just also really generally basically'.split(' '));
/** "it's that", "it's just that": what is so stands behind it. */
const IT_IS = /^(?:it's|that's)$/;
const BEGINS_SENTENCE = new Set(['DET', 'NOUN', 'PROPN', 'PRON']);

/**
 * "What I do is I have a small piece of paper", "all it is you sit down", "it's that the cost comes off": the sentence behind the
 * announcement, alone. Behind "what you do is" it may be what to do. Anything else stays as it is.
 */
export function withoutCleft(line: Line): Line {
  const at = announcementEnd(line);
  if (at === 0) return line;
  const rest = line.slice(at);
  if (saysSomething(rest)) return [raised(rest[0]!), ...rest.slice(1)];
  const who = line[1]!;
  if (rest.length < 3 || !isDone(rest) || /(?:ed|ing|[^s]s)$/.test(rest[0]!.norm)) return line;
  if (who.norm === 'you') return [raised(rest[0]!), ...rest.slice(1)];
  return /'(?:d|ll)$/.test(who.norm) ? [raised(who), ...rest] : line;
}

/** "because what happens is the boiler breaks": because the boiler breaks. */
export function withoutInnerCleft(line: Line): Line {
  const at = line.findIndex(
    ({ norm }, i) => i > 0 && norm === 'what' && /^happen(?:s|ed)$/.test(line[i + 1]?.norm ?? '') && /^(?:is|was)$/.test(line[i + 2]?.norm ?? ''),
  );
  return at > 0 && JOINS.has(line[at - 1]!.norm) && saysSomething(line.slice(at + 3)) ? [...line.slice(0, at), ...line.slice(at + 3)] : line;
}
const JOINS = new Set('because so and but then'.split(' '));

/** "have the same form", "drop the paddles": a verb, or what a tagger takes for a noun before its article. */
const isDone = (line: Line): boolean => line[0]!.tag === 'VERB' || (line[0]!.tag === 'NOUN' && line[1]!.tag === 'DET');

/** Where what is announced begins; 0 where nothing is. */
function announcementEnd(line: Line): number {
  const norm = (i: number): string => line[i]?.norm ?? '';
  const skipThat = (i: number): number => (norm(i) === 'that' && line.length > i + 2 ? i + 1 : i);
  if (IT_IS.test(norm(0))) {
    const that = norm(1) === 'just' ? 2 : 1;
    return norm(that) === 'that' && saysSomething(line.slice(that + 1)) ? that + 1 : 0;
  }
  if (norm(0) === 'all' && norm(1) === 'it' && norm(2) === 'is') return norm(3) === 'is' ? skipThat(4) : skipThat(3);
  if ((norm(0) !== 'what' && norm(0) !== 'all') || !WHO.test(norm(1))) return 0;
  let i = 2;
  while (BESIDE.has(norm(i))) i += 1;
  if (!/^(?:do|does|did)$/.test(norm(i))) return 0;
  i += 1;
  while (BESIDE.has(norm(i))) i += 1;
  return norm(i) === 'is' || norm(i) === 'was' ? skipThat(i + 1) : 0;
}

/** A subject at the start, and a verb behind it. */
const saysSomething = (line: Line): boolean =>
  line.length > 2 &&
  (SUBJECT_PRONOUNS.has(line[0]!.norm.split("'")[0]!) || line[0]!.norm === 'there' || BEGINS_SENTENCE.has(line[0]!.tag)) &&
  (line[0]!.norm.includes("'") || line.slice(1).some(({ tag, norm }) => tag === 'VERB' || tag === 'AUX' || /[a-z]'(?:s|re|ve|d|ll)$|n't$/.test(norm)));
