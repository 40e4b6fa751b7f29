const MOST_KNOWN = 50_000;

/** A pure function of a word that keeps what it found: talk says the same few thousand words again and again. Bounded. */
export function rememberWords<T>(compute: (word: string) => T): (word: string) => T {
  const known = new Map<string, T>();
  return (word) => {
    let found = known.get(word);
    if (found === undefined) {
      found = compute(word);
      if (known.size < MOST_KNOWN) known.set(word, found);
    }
    return found;
  };
}
