import { MarkedSetError, type Talk } from './talk.js';

/** What one reader says of one passage: sentences `first` to `end` (not inside), counted from 0. */
export interface Mark {
  readonly talk: string;
  readonly first: number;
  readonly end: number;
  /** 3, 4 or 5; 0 stands for "nobody should post this". */
  readonly grade: number;
}

/**
 * Reads a file of marks: `talk first-last grade` a line, sentences counted from 1, grade 3 to 5 or `never`.
 * @throws MarkedSetError with the line
 */
export function readMarks(file: string, text: string): Mark[] {
  return text.split('\n').flatMap((line, i) => {
    if (line.trim() === '' || line.startsWith('#')) return [];
    const parts = /^(\S+) (\d+)-(\d+) ([345]|never)$/.exec(line);
    if (parts === null) throw new MarkedSetError(file, i + 1, `expected “talk first-last grade”, found “${line}”`);
    const [, talk, first, last, grade] = parts;
    if (Number(first) < 1 || Number(last) < Number(first)) throw new MarkedSetError(file, i + 1, `sentences run from ${first} to ${last}`);
    return [{ talk: talk!, first: Number(first) - 1, end: Number(last), grade: grade === 'never' ? 0 : Number(grade) }];
  });
}

/** Grade of each sentence by one reader: the best passage that holds it, 0 where none does. */
export function gradesOf(talk: Talk, marks: readonly Mark[]): Float64Array {
  const grades = new Float64Array(talk.sentences.length);
  for (const mark of marks) for (let s = mark.first; s < Math.min(mark.end, grades.length); s += 1) grades[s] = Math.max(grades[s]!, mark.grade);
  return grades;
}

/** 1 for each sentence that one reader says nobody should post. */
export function neverOf(talk: Talk, marks: readonly Mark[]): Float64Array {
  const never = new Float64Array(talk.sentences.length);
  for (const mark of marks) if (mark.grade === 0) for (let s = mark.first; s < Math.min(mark.end, never.length); s += 1) never[s] = 1;
  return never;
}

/** Mean of `perSentence` over a span of time, weighted by the time that each sentence takes of it; 0 for none. */
export function meanOver(talk: Talk, perSentence: Float64Array, startMs: number, endMs: number): number {
  let sum = 0;
  let total = 0;
  talk.sentences.forEach((sentence, s) => {
    const shared = Math.min(endMs, sentence.endMs) - Math.max(startMs, sentence.startMs);
    if (shared <= 0) return;
    sum += shared * perSentence[s]!;
    total += shared;
  });
  return total === 0 ? 0 : sum / total;
}
