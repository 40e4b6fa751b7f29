import type { Reweighed } from '@sift-reel/core';
import { useEffect, useMemo, useRef, useState } from 'react';
import type { RankingView } from '../../app/api.js';
import type { ReweighReply, ReweighRequest } from './reweigh.worker.js';

interface Answer {
  readonly wished: readonly number[];
  /** Candidates of the ranking that was weighed, in its order. */
  readonly ids: string;
  readonly result: Reweighed;
}

/**
 * The ranking by other weights, worked out in a web worker without asking the server; the ranking itself while nothing
 * is changed, or until the first answer is there. Of several changes in a row only the newest counts. A Keep changes no
 * score, so the answer holds for it, and the list stays where it is.
 */
export function useReweighed(ranking: RankingView, wished: readonly number[] | null): RankingView {
  const worker = useRef<Worker | null>(null);
  const asked = useRef(0);
  const latest = useRef(ranking);
  latest.current = ranking;
  const [answer, setAnswer] = useState<Answer | null>(null);
  const ids = useMemo(() => ranking.candidates.map((one) => one.id).join(' '), [ranking.candidates]);
  useEffect(
    () => () => {
      worker.current?.terminate();
      worker.current = null;
    },
    [],
  );
  useEffect(() => {
    asked.current += 1;
    if (wished === null) {
      setAnswer(null);
      return;
    }
    worker.current ??= new Worker(new URL('./reweigh.worker.ts', import.meta.url), { type: 'module' });
    worker.current.onmessage = ({ data }: MessageEvent<ReweighReply>) => {
      if (data.id === asked.current) setAnswer({ wished, ids, result: data.result });
    };
    const { candidates, weights } = latest.current;
    const request: ReweighRequest = {
      id: asked.current,
      candidates: candidates.map((one) => ({ score: one.score, values: one.signals.map((signal) => signal.value) })),
      from: weights,
      to: wished,
    };
    worker.current.postMessage(request);
  }, [ids, wished]);
  // An answer to other weights stands until the next is there, unless nothing is wished any more.
  return useMemo(
    () => (answer === null || answer.ids !== ids || wished === null ? ranking : rankedAgain(ranking, answer.result)),
    [ranking, answer, ids, wished],
  );
}

/** A ranking with other scores, in their order. */
export function rankedAgain(ranking: RankingView, { scores, ranks, strongCount }: Reweighed): RankingView {
  const candidates = ranking.candidates.map((one, i) => ({ ...one, score: scores[i]!, rank: ranks[i]! })).sort((a, b) => a.rank - b.rank);
  return { ...ranking, candidates, strongCount };
}
