import type { CandidateView } from './generated-api.js';

/** A change that shows before the server has it. `settledAt`: the first request that was sent after the server's word; null before it. */
interface Pending {
  readonly change: (candidate: CandidateView) => void;
  settledAt: number | null;
}

const pending = new Map<string, Set<Pending>>();
/** Answers older than a change are on their way no longer than this. */
const FORGET_MS = 60_000;

/** Remembers a change of a candidate until every answer that cannot know of it is in. */
export function changePending(candidateId: string, change: (candidate: CandidateView) => void): { settled(request: number): void; failed(): void } {
  const entry: Pending = { change, settledAt: null };
  const entries = pending.get(candidateId) ?? new Set();
  entries.add(entry);
  pending.set(candidateId, entries);
  const forget = (): void => {
    entries.delete(entry);
    if (entries.size === 0) pending.delete(candidateId);
  };
  return {
    settled: (request) => {
      entry.settledAt = request;
      setTimeout(forget, FORGET_MS);
    },
    failed: forget,
  };
}

/** Brings an answer up to what was changed since it was asked for. */
export function withPending(candidates: CandidateView[], request: number): void {
  if (pending.size === 0) return;
  for (const candidate of candidates)
    for (const { change, settledAt } of pending.get(candidate.id) ?? []) if (settledAt === null || request < settledAt) change(candidate);
}
