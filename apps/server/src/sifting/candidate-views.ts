import { NEED_ENGLISH, SIGNALS } from '@sift-reel/core';
import type { CandidateRow } from './sifting.models.js';
import type { CandidateView } from './sifting.views.js';

type Fields = Pick<
  CandidateRow,
  | 'id'
  | 'rank'
  | 'score'
  | 'startMs'
  | 'endMs'
  | 'firstWord'
  | 'endWord'
  | 'foundFirstWord'
  | 'foundEndWord'
  | 'kind'
  | 'reason'
  | 'firstLine'
  | 'lastLine'
  | 'title'
  | 'hashtags'
  | 'alternatives'
  | 'origin'
  | 'state'
>;

/**
 * Candidates with their readings and the words that earned them.
 * @param language of their sift, where it is not English
 */
export function assembleCandidates(
  rows: readonly Fields[],
  signals: readonly { candidateId: string; signal: string; value: number; sentence: string }[],
  evidence: readonly { candidateId: string; signal: string; firstWord: number; endWord: number }[],
  language: string | null,
): CandidateView[] {
  const ranges = new Map<string, number[]>();
  for (const row of evidence) {
    const key = `${row.candidateId} ${row.signal}`;
    const list = ranges.get(key) ?? [];
    list.push(row.firstWord, row.endWord);
    ranges.set(key, list);
  }
  const readings = new Map(signals.map((row) => [`${row.candidateId} ${row.signal}`, row]));
  return rows.map((row) => ({
    id: row.id,
    rank: row.rank,
    score: row.score,
    startMs: row.startMs,
    endMs: row.endMs,
    firstWord: row.firstWord,
    endWord: row.endWord,
    foundFirstWord: row.foundFirstWord,
    foundEndWord: row.foundEndWord,
    kind: row.kind,
    reason: row.reason,
    firstLine: row.firstLine,
    lastLine: row.lastLine,
    title: row.title,
    hashtags: row.hashtags,
    alternatives: row.alternatives,
    origin: row.origin,
    state: row.state,
    signals: SIGNALS.map((signal) => {
      const reading = readings.get(`${row.id} ${signal}`);
      return {
        signal,
        known: language === null || !NEED_ENGLISH.includes(signal),
        value: reading?.value ?? 0,
        sentence: reading?.sentence ?? '',
        evidence: ranges.get(`${row.id} ${signal}`) ?? [],
      };
    }),
  }));
}
