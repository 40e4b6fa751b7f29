import type { Span, WordRange } from '@sift-reel/core';
import type { Database } from '../database/database.service.js';
import type { TextPool } from '../text/text-pool.service.js';
import type { StoredTalk } from '../text/unpack.js';
import { CandidateRow, Sift } from './sifting.models.js';

/** $1 ids, $2 starts, $3 ends, in ms */
const MOVE_CANDIDATES = `UPDATE candidates c SET start_ms = t.start_ms, end_ms = t.end_ms
FROM unnest($1::uuid[], $2::int[], $3::int[]) AS t (id, start_ms, end_ms) WHERE c.id = t.id`;

/** Candidates and chapters are runs of words: they begin and end where their words do. Inside the transaction that gives the words other times. */
export async function moveSifted(
  { database, text }: { readonly database: Database; readonly text: TextPool },
  recordingId: string,
  clientId: string,
  talk: StoredTalk,
): Promise<void> {
  const sifts = await Sift.findAll({ where: { recordingId }, attributes: ['id', 'chapters', 'limits'] });
  if (sifts.length === 0) return;
  const candidates = await CandidateRow.findAll({ where: { siftId: sifts.map(({ id }) => id) }, attributes: ['id', 'firstWord', 'endWord', 'alternatives'] });
  const ranges: WordRange[] = [...candidates, ...candidates.flatMap(({ alternatives }) => alternatives), ...sifts.flatMap(({ chapters }) => chapters ?? [])];
  const spans = await text.spansOfRanges(clientId, {
    talk,
    ranges: ranges.map(({ firstWord, endWord }) => ({ firstWord, endWord })),
  });
  const spanOf = new Map<WordRange, Span>(ranges.map((range, i) => [range, spans[i]!]));
  const moved = <T extends WordRange>(range: T): T => ({ ...range, ...spanOf.get(range)! });
  await database.run(MOVE_CANDIDATES, [
    candidates.map(({ id }) => id),
    candidates.map((one) => spanOf.get(one)!.startMs),
    candidates.map((one) => spanOf.get(one)!.endMs),
  ]);
  for (const one of candidates) if (one.alternatives.length > 0) await one.update({ alternatives: one.alternatives.map(moved) });
  for (const sift of sifts) if (sift.chapters !== null) await sift.update({ chapters: sift.chapters.map(moved) });
}
