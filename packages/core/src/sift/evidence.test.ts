import { describe, expect, it } from 'vitest';
import { DEMO_TALKS, demoTranscript } from '../talk.fixture.js';
import type { Transcript, WordRange } from '../transcript/types.js';
import { buildContext } from './context.js';
import { sift } from './sift.js';
import { buildSignals } from './signals/index.js';
import { type SignalName, SIGNALS, type SiftInput } from './types.js';

const brief = { partStartMs: 0, partEndMs: null, minMs: 20_000, maxMs: 60_000, roughCount: 10, topics: ['money', 'work'], kinds: [], avoid: [] };
const inputOf = (transcript: Transcript): SiftInput => ({ transcript, brief, clientTags: ['time'], sentenceVectors: null, topicVectors: null });

/** The transcript without some words; a sentence that loses all of them goes with them. */
function without(transcript: Transcript, gone: readonly WordRange[]): Transcript {
  const keep = transcript.words.map((_, i) => !gone.some((range) => range.firstWord <= i && i < range.endWord));
  const before = new Int32Array(keep.length + 1);
  keep.forEach((kept, i) => (before[i + 1] = before[i]! + (kept ? 1 : 0)));
  const sentences = transcript.sentences
    .map((s) => ({ ...s, firstWord: before[s.firstWord]!, endWord: before[s.endWord]! }))
    .filter((s) => s.endWord > s.firstWord);
  return { ...transcript, words: transcript.words.filter((_, i) => keep[i]), sentences };
}

/** Value of a signal over the sentences that lie in a span of time. */
function valueIn(transcript: Transcript, name: SignalName, startMs: number, endMs: number): number {
  const context = buildContext(inputOf(transcript));
  const first = context.sentences.findIndex((s) => s.endMs > startMs);
  let end = first;
  while (end < context.sentences.length && context.sentences[end]!.startMs < endMs) end += 1;
  return buildSignals(context)[SIGNALS.indexOf(name)]!.value({ first, end });
}

describe.each(DEMO_TALKS)('evidence of %s', (talk) => {
  const transcript = demoTranscript(talk);
  const top = sift(inputOf(transcript)).candidates.slice(0, 6);
  it.each(SIGNALS)('%s falls when the words that earned it are taken out', (name) => {
    const shown = top.filter((one) => one.signals[name].evidence.length > 0);
    expect(shown.length).toBeGreaterThan(0);
    for (const one of shown) {
      const poorer = without(transcript, one.signals[name].evidence);
      expect(valueIn(poorer, name, one.startMs, one.endMs), `${name} of rank ${one.rank}`).toBeLessThan(valueIn(transcript, name, one.startMs, one.endMs));
    }
  });
});
