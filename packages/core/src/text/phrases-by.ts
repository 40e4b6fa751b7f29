/** Phrases of words by the one that they are looked up by, in the order of their list. */
export type PhrasesBy = ReadonlyMap<string, readonly (readonly string[])[]>;

/** So most places are known by one look to have no phrase of a list. @param at place of that word: 0 the first, -1 the last */
export function phrasesBy(at: 0 | -1, list: readonly (readonly string[])[]): PhrasesBy {
  const found = new Map<string, (readonly string[])[]>();
  for (const phrase of list) {
    const word = phrase.at(at)!;
    found.set(word, [...(found.get(word) ?? []), phrase]);
  }
  return found;
}
