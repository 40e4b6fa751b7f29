import { type SiftContext, Sums } from '../context.js';
import { PART_WEIGHTS } from '../fitted.js';
import { type Role, roleAt, ROLES } from '../roles/roles.js';
import type { Tell } from '../tells.js';
import type { Run, WordRange } from '../types.js';

/** One measured part of a signal. What one unit of it weighs in the signal's raw measure is data: see `PART_WEIGHTS`. */
export interface Part {
  readonly name: string;
  value(run: Run): number;
}

/** Signals whose raw measure is a fitted sum of parts. */
export type MeasuredSignal = keyof typeof PART_WEIGHTS;

/** Twelve words are added to the length of a run, so that a very short one is not rich by one sentence alone. */
const GRACE_WORDS = 12;

/** Share of the words of a run that are in sentences of a role, 0 to 1. */
export function rolePart(context: SiftContext, role: Role): Part {
  const sums = context.roleSums(role);
  return { name: role, value: (run) => sums.sum(run) / (context.wordCounts.sum(run) + GRACE_WORDS) };
}

/** Hits of a tell for every ten words of a run. */
export function tellPart(context: SiftContext, tell: Tell): Part {
  return { name: `${tell} words`, value: (run) => (10 * context.count(tell, run)) / (context.wordCounts.sum(run) + GRACE_WORDS) };
}

/** Things counted in each sentence, for every ten words of a run. */
export function countedPart(context: SiftContext, name: string, test: (word: number) => boolean): Part {
  const sums = new Sums(
    context.sentences.map(({ firstWord, endWord }) => {
      let n = 0;
      for (let i = firstWord; i < endWord; i += 1) if (test(i)) n += 1;
      return n;
    }),
  );
  return { name, value: (run) => (10 * sums.sum(run)) / (context.wordCounts.sum(run) + GRACE_WORDS) };
}

/** Probability of a role in one sentence. */
export const roleIn = (context: SiftContext, s: number, role: Role): number => context.roles[s * ROLES.length + roleAt(role)]!;

/** Raw measure of a signal: its parts, each times its fitted weight. */
export function rawOf(signal: MeasuredSignal, parts: readonly Part[]): (run: Run) => number {
  const weights = parts.map(({ name }) => weightOf(signal, name));
  return (run) => {
    let sum = 0;
    for (let p = 0; p < parts.length; p += 1) if (weights[p] !== 0) sum += weights[p]! * parts[p]!.value(run);
    return sum;
  };
}

export function weightOf(signal: MeasuredSignal, part: string): number {
  return (PART_WEIGHTS[signal] as Readonly<Record<string, number>>)[part] ?? 0;
}

/**
 * The sentences of a run that give most of a signal by their roles, best first. Only those richer than the run as a whole,
 * so that without them less would be left.
 */
export function richestSentences(context: SiftContext, run: Run, signal: MeasuredSignal, roles: readonly Role[], most: number): number[] {
  const worth = (s: number): number => roles.reduce((sum, role) => sum + Math.max(0, weightOf(signal, role)) * roleIn(context, s, role), 0);
  const length = (s: number): number => context.sentences[s]!.endWord - context.sentences[s]!.firstWord;
  const inside = Array.from({ length: run.end - run.first }, (_, k) => run.first + k);
  const mean = inside.reduce((sum, s) => sum + worth(s) * length(s), 0) / inside.reduce((sum, s) => sum + length(s), 0);
  return inside
    .filter((s) => worth(s) > Math.max(0.3, mean))
    .sort((a, b) => worth(b) * Math.sqrt(length(b)) - worth(a) * Math.sqrt(length(a)) || a - b)
    .slice(0, most);
}

/** The most probable of some roles in a sentence. */
export function leadingRole(context: SiftContext, s: number, among: readonly Role[]): Role {
  return among.reduce((best, role) => (roleIn(context, s, role) > roleIn(context, s, best) ? role : best));
}

export function wordsOf(context: SiftContext, s: number): WordRange {
  const { firstWord, endWord } = context.sentences[s]!;
  return { firstWord, endWord };
}
