import { type Candidate, SIGNALS } from '@sift-reel/core';
import { CandidateRow, CandidateSignal, EvidenceRow, type Sift } from './sifting.models.js';

const ROWS_AT_ONCE = 1_000;

/** Writes candidates with their readings and evidence, in the transaction at hand. @returns their ids, in the order given */
export async function writeCandidates(sift: Sift, candidates: readonly Candidate[], origin: CandidateRow['origin']): Promise<string[]> {
  const rows = await CandidateRow.bulkCreate(
    candidates.map(({ signals: _, ...fields }) => ({
      ...fields,
      siftId: sift.id,
      clientId: sift.clientId,
      foundFirstWord: fields.firstWord,
      foundEndWord: fields.endWord,
      origin,
      state: 'open',
    })),
    { returning: ['id', 'rank'] },
  );
  const idOf = new Map(rows.map((row) => [row.rank, row.id]));
  const readings = candidates.flatMap((candidate) => SIGNALS.map((name) => ({ candidateId: idOf.get(candidate.rank)!, ...candidate.signals[name] })));
  const signals = readings.map(({ candidateId, signal, value, sentence }) => ({ candidateId, signal, value, sentence }));
  const evidence = readings.flatMap(({ candidateId, signal, evidence: ranges }) => ranges.map((range) => ({ candidateId, signal, ...range })));
  for (let from = 0; from < signals.length; from += ROWS_AT_ONCE)
    await CandidateSignal.bulkCreate(signals.slice(from, from + ROWS_AT_ONCE), { returning: false });
  for (let from = 0; from < evidence.length; from += ROWS_AT_ONCE)
    await EvidenceRow.bulkCreate(evidence.slice(from, from + ROWS_AT_ONCE), { returning: false });
  return candidates.map((candidate) => idOf.get(candidate.rank)!);
}
