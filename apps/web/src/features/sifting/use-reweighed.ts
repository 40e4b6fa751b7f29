import type { Reweighed } from '@sift-reel/core';
import { useEffect, useMemo, useRef, useState } from 'react';
import type { RankingView } from '../../app/api.js';
import type { ReweighReply, ReweighRequest } from './reweigh.worker.js';

/**
 * The ranking by other weights, worked out in a web worker without asking the server; the ranking itself while nothing
 * is changed, or until the first answer is there. Of several changes in a row only the newest counts.
 */
export function useReweighed(ranking: RankingView, wished: readonly number[] | null): RankingView {
  const worker = useRef<Worker | null>(null);
  const asked = useRef(0);
  const [answer, setAnswer] = useState<{ of: RankingView; result: Reweighed } | null>(null);
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
      if (data.id === asked.current) setAnswer({ of: ranking, result: data.result });
    };
    const request: ReweighRequest = {
      id: asked.current,
      candidates: ranking.candidates.map((one) => ({ score: one.score, values: one.signals.map((signal) => signal.value) })),
      from: ranking.weights,
      to: wished,
    };
    worker.current.postMessage(request);
  }, [ranking, wished]);
  return useMemo(
    () => (answer === null || answer.of !== ranking || wished === null ? ranking : rankedAgain(ranking, answer.result)),
    [ranking, answer, wished],
  );
}

/** A ranking with other scores, in their order. */
export function rankedAgain(ranking: RankingView, { scores, ranks, strongCount }: Reweighed): RankingView {
  const candidates = ranking.candidates.map((one, i) => ({ ...one, score: scores[i]!, rank: ranks[i]! })).sort((a, b) => a.rank - b.rank);
  return { ...ranking, candidates, strongCount };
}
