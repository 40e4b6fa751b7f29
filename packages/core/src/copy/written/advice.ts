import { DID } from '../../text/lists/titles.js';
import { STATES } from '../../text/lists/written.js';
import { hasComma, type Line, lowered, raised, rewritten, standsAt, type WrittenWord } from './written-word.js';

/** "you have to", "you should", "you want to": what follows is what to do. */
const MUST: readonly (readonly string[])[] = [
  'have to',
  'need to',
  'should',
  'must',
  'want to',
  "'ve got to",
  'had better',
  'can just',
  'could just',
  'just',
  'always',
].map((one) => one.split(' '));
const MUST_NOT: readonly (readonly string[])[] = [
  "don't",
  "shouldn't",
  "mustn't",
  "don't want to",
  'do not',
  'should not',
  'must not',
  "can't just",
  "wouldn't want to",
].map((one) => one.split(' '));

/** What "you should do", "you don't do" or "I'd do" advises, said as advice; also after "when …,". Null where it advises nothing. */
export function asAdvice(line: Line): Line | null {
  // "You open it and there's no eggs": that is how it went.
  if (line.some(({ norm }, i) => i > 1 && norm === 'and' && /^there(?:'s)?$/.test(line[i + 1]?.norm ?? ''))) return null;
  const advice = adviceOf(line);
  return advice === null ? null : withoutYou(advice);
}

/** "stop, and you wait": what is advised first is advised to the end. */
const withoutYou = (line: Line): Line =>
  line.filter((word, i) => !(word.norm === 'you' && (line[i - 1]?.norm === 'and' || hasComma(line[i - 1])) && advises(line[i + 1])));

function adviceOf(line: Line): Line | null {
  const comma = line.findIndex((word, i) => hasComma(word) && i >= 2);
  if ((line[0]?.norm === 'if' || line[0]?.norm === 'when' || line[0]?.norm === 'before') && comma >= 0 && comma < line.length - 2) {
    const rest = adviceOf(line.slice(line[comma + 1]!.norm === 'then' ? comma + 2 : comma + 1));
    return rest === null ? null : [...line.slice(0, comma + 1), lowered(rest[0]!), ...rest.slice(1)];
  }
  const [first, second] = line;
  if (first === undefined || second === undefined) return null;
  if (first.norm === "i'd" && advises(second)) return [raised(second), ...line.slice(2)];
  if (first.norm !== 'you' && first.norm !== "you've" && first.norm !== "you'd" && first.norm !== "you'll") return null;
  const rest = first.norm === 'you' ? line.slice(1) : [rewritten(first, first.norm.slice(3)), ...line.slice(1)];
  for (const phrase of [...MUST_NOT].sort((a, b) => b.length - a.length))
    if (standsAt(rest, 0, phrase) && advises(rest[phrase.length])) return [{ ...rest[0]!, text: "Don't", norm: "don't" }, ...rest.slice(phrase.length)];
  if (rest[0]?.norm === 'never' && advises(rest[1])) return [raised(rest[0]), ...rest.slice(1)];
  for (const phrase of MUST) {
    const has = phrase[0] === "'ve" ? first.norm === "you've" && standsAt(rest, 1, phrase.slice(1)) : standsAt(rest, 0, phrase);
    const at = phrase.length;
    if (has && advises(rest[at])) return [raised(rest[at]!), ...rest.slice(at + 1)];
  }
  return first.norm === 'you' && second.tag === 'VERB' && advises(second) ? [raised(second), ...line.slice(2)] : null;
}
const advises = (word: WrittenWord | undefined): word is WrittenWord =>
  word !== undefined &&
  (word.tag === 'VERB' || word.norm === 'be') &&
  (!DID.has(word.norm) || word.norm === 'put') &&
  !STATES.has(word.norm) &&
  !/(?:[^e]ed|ing)$/.test(word.norm) &&
  !word.norm.includes("'");
