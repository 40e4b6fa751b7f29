import { FIELD_TAGS } from '../text/lists/field-tags.js';
import { rarity } from '../text/spoken-words.js';
import { base } from './fields.js';

interface SaidTag {
  readonly words: readonly string[];
  readonly tag: string;
}

interface ListedTags {
  /** Other names of the field, the one that is used most first. */
  readonly others: readonly string[];
  readonly said: readonly SaidTag[];
}

const LISTED: ReadonlyMap<string, ListedTags> = new Map(
  FIELD_TAGS.split('\n')
    .filter((line) => line !== '' && !line.startsWith('#'))
    .map((line) => {
      const [field, tags] = line.split(': ') as [string, string];
      const [others, said = ''] = tags.split('; ') as [string, string?];
      const pairs = said.split(' ').filter((one) => one !== '');
      return [
        field,
        {
          others: others.split(' '),
          said: pairs.map((pair) => {
            const [words, tag] = pair.split('=') as [string, string];
            return { words: words.split('+'), tag };
          }),
        },
      ];
    }),
);

/** What people tag beside the name of a field; nothing for one that is not listed. */
export function otherNames(field: string): readonly string[] {
  return LISTED.get(field)?.others ?? [];
}

/** A word that is said all over the recording tells so much of a passage, one that is said nowhere else as much again and this. */
const [ANYWHERE, HERE_ALONE] = [0.35, 0.65];

/**
 * Tags of a field for what a passage says ("queen": queenbee), each once: first what is said most, is rarest in English and is
 * said least elsewhere in the recording; words of one tag count together.
 * @param here how often each word is said in the passage, by `base`, @param inAll how often a word is said in the recording
 */
export function saidTags(field: string, here: ReadonlyMap<string, number>, inAll: (word: string) => number): string[] {
  const weights = new Map<string, number>();
  for (const { words, tag } of LISTED.get(field)?.said ?? []) {
    const said = Math.min(...words.map((word) => here.get(base(word)) ?? 0));
    if (said === 0) continue;
    const own = said / Math.max(said, ...words.map(inAll));
    const weight = Math.sqrt(said) * Math.max(...words.map(rarity)) * (ANYWHERE + HERE_ALONE * own);
    weights.set(tag, (weights.get(tag) ?? 0) + weight);
  }
  return [...weights].sort((a, b) => b[1] - a[1]).map(([tag]) => tag);
}
