import { phraseAt, topicWords } from '../text/stem.js';
import type { Span } from '../time/span.js';
import type { SiftContext } from './context.js';
import { canClose, canOpen } from './edges.js';
import type { Run } from './types.js';

/** The span of a run with its air, inside the part. */
export function cutSpan(context: SiftContext, run: Run): Span {
  return { startMs: context.cutStartsMs[run.first]!, endMs: context.cutEndsMs[run.end - 1]! };
}

/** Every run of sentences whose cut lies in the length band and whose edges are clean, by start and end. */
export function* candidateRuns(context: SiftContext): Generator<Run> {
  const { sentences, brief, cutStartsMs, cutEndsMs } = context;
  const avoided = avoidedSentences(context);
  const opens = sentences.map((_, s) => canOpen(context, s) && !avoided[s]);
  const closes = sentences.map((_, s) => canClose(context, s));
  for (let first = 0; first < sentences.length; first += 1) {
    if (!opens[first]) continue;
    for (let end = first + 1; end <= sentences.length && !avoided[end - 1]; end += 1) {
      const lengthMs = cutEndsMs[end - 1]! - cutStartsMs[first]!;
      if (lengthMs > brief.maxMs) break;
      if (lengthMs >= brief.minMs && closes[end - 1]) yield { first, end };
    }
  }
}

/** Sentences that hold something the brief wants left out. */
function avoidedSentences(context: SiftContext): boolean[] {
  const phrases = context.brief.avoid.map(topicWords).filter((words) => words.length > 0);
  return context.sentences.map(({ firstWord, endWord }) => {
    for (const words of phrases) {
      for (let i = firstWord; i < endWord; i += 1) if (phraseAt(context.spoken, i, words)) return true;
    }
    return false;
  });
}
