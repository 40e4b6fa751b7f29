import { SUBJECT_PRONOUNS } from '../../text/lists/talk.js';
import { OPENINGS } from '../../text/lists/written.js';
import { phrasesBy } from '../../text/phrases-by.js';
import { rarity } from '../../text/spoken-words.js';
import { hasComma, type Line, standsAt, type WrittenWord } from './written-word.js';

const OPENS = phrasesBy(0, OPENINGS);

/** Openings, one after another; what is left is a whole sentence or nothing is taken. */
export function withoutOpenings(line: Line): Line {
  let from = 0;
  for (;;) {
    from += calledLength(line, from);
    const phrase = OPENS.get(line[from]?.norm ?? '')?.find((one) => standsAt(line, from, one) && opens(line, from, one));
    if (phrase === undefined || from + phrase.length >= line.length) return line.slice(from);
    from += phrase.length;
  }
}
/** "Colm again, what if …", "Desmond, before we go": who is called, when more comes than a name could have of its own. */
function calledLength(line: Line, at: number): number {
  if (line[at] === undefined || !isName(line[at])) return 0;
  const end = hasComma(line[at]) ? at + 1 : /^(?:again|there|also|too)$/.test(line[at + 1]?.norm ?? '') && hasComma(line[at + 1]) ? at + 2 : at;
  const asks = /^(?:what|how|why|where|when|who|which|if|do|does|did|can|could|would|should|is|are|have|has|you|i|we|before)(?:$|')/.test(
    line[end]?.norm ?? '',
  );
  return end > at && asks && line.length - end >= LEAST_CALLED ? end - at : 0;
}
const LEAST_CALLED = 4;
/** Written large, as all first words are, and rare enough for a name. */
const isName = ({ text, norm, tag }: WrittenWord): boolean => /^\p{Lu}/u.test(text) && (tag === 'PROPN' || (tag === 'NOUN' && rarity(norm) > NAMES_ARE_RARER));
const NAMES_ARE_RARER = 8;

/** "no butter" opens nothing, "no, butter" does; "right hand", "second floor" neither. */
const opens = (line: Line, at: number, phrase: readonly string[]): boolean => {
  const last = line[at + phrase.length - 1]!;
  // "no that's moved": a no, and what is so.
  if (phrase[0] === 'no' && SUBJECT_PRONOUNS.has(line[at + 1]?.norm.split("'")[0] ?? '') && /'/.test(line[at + 1]!.norm)) return true;
  return !NEEDS_COMMA.has(phrase.join(' ')) || hasComma(last);
};
const NEEDS_COMMA = new Set([
  ...'no right second third first like look listen now then again sure exactly or finally remember plus secondly thirdly anyway'.split(' '),
  ...['that said', 'one thing', 'as well', 'in fact', 'after that', 'even so', 'all right', 'first thing', 'first of all'],
]);
