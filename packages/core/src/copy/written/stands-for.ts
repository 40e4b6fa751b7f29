import { hasComma, type Line, raised, withMark } from './written-word.js';

const STANDS_FOR: Readonly<Record<string, readonly [number: 'one' | 'many', after: string]>> = {
  it: ['one', ''],
  "it's": ['one', 'is'],
  they: ['many', ''],
  "they're": ['many', 'are'],
};

/** A line whose "it" or "they" is replaced by what the sentence before speaks of first, or null where that is not plain. */
export function resolved(line: Line, before: Line): Line | null {
  const [number, after] = STANDS_FOR[line[0]?.norm ?? ''] ?? [];
  if (number === undefined) return null;
  const phrase = subjectOf(before);
  const noun = phrase?.at(-1);
  if (phrase === undefined || noun === undefined || (number === 'many') !== isPlural(noun.norm)) return null;
  const verb = after === '' ? [] : [{ ...line[0]!, text: after!, norm: after! }];
  return [raised(phrase[0]!), ...phrase.slice(1, -1), ...(phrase.length > 1 ? [withMark(noun, '')] : []), ...verb, ...line.slice(1)];
}
const isPlural = (norm: string): boolean => /[^s]s$/.test(norm);

/** What a sentence speaks of: article, adjectives and noun at its very start, with its verb right behind. */
function subjectOf(line: Line): Line | undefined {
  if (line[0]?.tag !== 'DET' || line[1]?.norm === 'bit' || line[1]?.norm === 'lot') return undefined;
  let end = 1;
  while (end < line.length && ['NOUN', 'PROPN', 'ADJ'].includes(line[end]!.tag) && !hasComma(line[end - 1])) end += 1;
  const says = line[end]?.tag === 'VERB' || line[end]?.tag === 'AUX';
  return says && end > 1 && end <= 4 && line[end - 1]!.tag === 'NOUN' ? line.slice(0, end) : undefined;
}
