import { SIGNALS, type Span, spanMs } from '@sift-reel/core';
import type { CandidateView } from '../../app/api.js';
import type { RankingFilter, SortBy } from './bench-slice.js';

/** The candidates a filter lets through, in the order asked for. */
export function arrange(candidates: readonly CandidateView[], filter: RankingFilter, sort: SortBy, chapters: readonly Span[] = []): CandidateView[] {
  const wanted = filter.text.trim().toLowerCase();
  const signalIndex = filter.signal === 'all' ? -1 : SIGNALS.indexOf(filter.signal);
  const topic = chapters.find(({ startMs }) => startMs === filter.topicMs); // one of another sift filters nothing
  const shown = candidates.filter(
    (one) =>
      (filter.state === 'all' || one.state === filter.state) &&
      (filter.kind === 'all' || one.kind === filter.kind) &&
      (signalIndex < 0 || (one.signals[signalIndex]?.value ?? 0) >= filter.atLeast) &&
      (topic === undefined || isAbout(one, topic)) &&
      (filter.phrase === null || carries(one, filter.phrase.firstWords)) &&
      (filter.longestMs === null || one.endMs - one.startMs <= filter.longestMs) &&
      (wanted === '' || `${one.title} ${one.firstLine} ${one.lastLine} ${one.reason}`.toLowerCase().includes(wanted)),
  );
  if (sort === 'score') return shown;
  if (sort === 'time') return shown.sort((a, b) => a.startMs - b.startMs);
  if (sort === 'length') return shown.sort((a, b) => a.endMs - a.startMs - (b.endMs - b.startMs) || a.rank - b.rank);
  const index = SIGNALS.indexOf(sort);
  return shown.sort((a, b) => (b.signals[index]?.value ?? 0) - (a.signals[index]?.value ?? 0) || a.rank - b.rank);
}

/** Whether most of a candidate lies in a topic, or, of a long cut, most of the topic in it. */
function isAbout(candidate: Span, topic: Span): boolean {
  const shared = Math.min(candidate.endMs, topic.endMs) - Math.max(candidate.startMs, topic.startMs);
  return shared > 0.5 * Math.min(spanMs(candidate), spanMs(topic));
}

/** Whether a candidate holds one of some words. */
export function carries(candidate: { readonly firstWord: number; readonly endWord: number }, words: readonly number[]): boolean {
  return words.some((word) => word >= candidate.firstWord && word < candidate.endWord);
}
