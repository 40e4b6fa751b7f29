import Papa from 'papaparse';

/** A term that people look for, with what is known of it. */
export interface InterestTerm {
  readonly term: string;
  /** How often it is looked for in a month, 0 or more. */
  readonly volume: number;
  /** How many others want it, 0 to 1. */
  readonly competition: number;
  /** Change against the month before: 0.2 is a fifth more, -1 at least. */
  readonly change: number;
}

/** An interest list was refused; nothing of it is used. `line` counts from 1. */
export class InterestRefusedError extends Error {
  override readonly name = 'InterestRefusedError';
  constructor(
    readonly line: number,
    readonly field: string,
    detail: string,
  ) {
    super(`line ${line}, ${field}: ${detail}`);
  }
}

export const INTEREST_HEADER = ['term', 'volume', 'competition', 'change'] as const;
const MOST_TERMS = 5_000;
const LONGEST_TERM = 80;

/**
 * Reads an interest list: CSV (RFC 4180) with the columns term, volume, competition and change, in any order; others are
 * left alone. Of a term that stands twice the last counts.
 * @throws InterestRefusedError with line and column
 */
export function readInterestCsv(text: string): InterestTerm[] {
  const { data } = Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), { skipEmptyLines: false });
  const header = (data[0] ?? []).map((cell) => cell.trim().toLowerCase());
  for (const name of INTEREST_HEADER) {
    if (!header.includes(name))
      throw new InterestRefusedError(1, name, `the column is missing; the first line names the columns ${INTEREST_HEADER.join(', ')}`);
  }
  const terms = new Map<string, InterestTerm>();
  data.slice(1).forEach((cells, i) => {
    if (cells.every((cell) => cell.trim() === '')) return;
    const cell = (name: (typeof INTEREST_HEADER)[number]): string => (cells[header.indexOf(name)] ?? '').trim();
    const number = (name: (typeof INTEREST_HEADER)[number], least: number, most: number): number => {
      const value = Number(cell(name));
      if (cell(name) === '' || !Number.isFinite(value) || value < least || value > most)
        throw new InterestRefusedError(i + 2, name, `expected a number from ${least} to ${most}, found “${cell(name)}”`);
      return value;
    };
    // The apostrophe that keeps a spreadsheet from running a term comes back with our own files: see writeCsv.
    const term = cell('term')
      .replace(/^'(?=[=+\-@])/, '')
      .toLowerCase();
    if (term === '' || term.length > LONGEST_TERM)
      throw new InterestRefusedError(i + 2, 'term', `expected 1 to ${LONGEST_TERM} characters, found ${term.length}`);
    terms.delete(term);
    terms.set(term, { term, volume: number('volume', 0, 1e9), competition: number('competition', 0, 1), change: number('change', -1, 1_000) });
    if (terms.size > MOST_TERMS) throw new InterestRefusedError(i + 2, 'term', `a list holds at most ${MOST_TERMS} terms`);
  });
  return [...terms.values()];
}

/** How much a term matters beside the others of its list, 0.2 to 1.5: by volume on a logarithmic scale, more when it grows. */
export function interestWeight(term: InterestTerm, mostVolume: number): number {
  const size = mostVolume <= 0 ? 0 : Math.log(1 + term.volume) / Math.log(1 + mostVolume);
  return 0.2 + 0.8 * size + 0.5 * Math.min(1, Math.max(0, term.change));
}
