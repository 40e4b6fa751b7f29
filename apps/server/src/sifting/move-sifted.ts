import type { WordRange } from '@sift-reel/core';
import type { Database } from '../database/database.service.js';
import type { EdgesOfWords } from '../text/align-tasks.js';
import { CandidateRow, Sift } from './sifting.models.js';

/** $1 ids, $2 starts, $3 ends, in ms */
const MOVE_CANDIDATES = `UPDATE candidates c SET start_ms = t.start_ms, end_ms = t.end_ms
FROM unnest($1::uuid[], $2::int[], $3::int[]) AS t (id, start_ms, end_ms) WHERE c.id = t.id`;

/**
 * Candidates and chapters are runs of words: they begin and end where their words do. Inside the transaction that gives the words other
 * times, which were reckoned before it: nothing heavy is waited for here.
 */
export async function moveSifted(database: Database, recordingId: string, { starts, ends }: EdgesOfWords): Promise<void> {
  const sifts = await Sift.findAll({ where: { recordingId }, attributes: ['id', 'chapters'] });
  if (sifts.length === 0) return;
  const candidates = await CandidateRow.findAll({ where: { siftId: sifts.map(({ id }) => id) }, attributes: ['id', 'firstWord', 'endWord', 'alternatives'] });
  const moved = <T extends WordRange>(range: T): T => ({ ...range, startMs: starts[range.firstWord]!, endMs: ends[range.endWord - 1]! });
  await database.run(MOVE_CANDIDATES, [
    candidates.map(({ id }) => id),
    candidates.map(({ firstWord }) => starts[firstWord]!),
    candidates.map(({ endWord }) => ends[endWord - 1]!),
  ]);
  for (const one of candidates) if (one.alternatives.length > 0) await one.update({ alternatives: one.alternatives.map(moved) });
  for (const sift of sifts) if (sift.chapters !== null) await sift.update({ chapters: sift.chapters.map(moved) });
}
