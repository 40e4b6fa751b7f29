import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { readTranscript, sift, type Transcript } from '@sift-reel/core';
import { describe, expect, it } from 'vitest';
import { readTalk, toCaptions } from './talk.js';

const HERE = join(import.meta.dirname, '..', '..', '..', '..', 'bench', 'editors');
const TALKS = ['talks', 'flat/talks'].flatMap((folder) =>
  readdirSync(join(HERE, folder))
    .sort()
    .map((file): [string, string] => [file, join(HERE, folder, file)]),
);

/** Share of the time of speech that lies in some candidate, or in another cut of one. */
function covered(transcript: Transcript, minMs: number, maxMs: number): { share: number; candidates: number } {
  const brief = { partStartMs: 0, partEndMs: null, minMs, maxMs, roughCount: 12, topics: [], kinds: [], avoid: [] };
  const { candidates } = sift({ transcript, brief, clientTags: [], sentenceVectors: null, topicVectors: null });
  const spans = candidates.flatMap((one) => [one, ...one.alternatives]);
  let [inside, all] = [0, 0];
  for (const { startMs, endMs } of transcript.sentences) {
    all += endMs - startMs;
    if (spans.some((span) => span.startMs <= startMs + 1_000 && endMs - 1_000 <= span.endMs)) inside += endMs - startMs;
  }
  return { share: inside / all, candidates: candidates.length };
}

// A producer always gets the best that there is, however little that be.
describe('the ranking covers the talk, whatever it is like', () => {
  it.each(TALKS)('%s', (_, path) => {
    const captions = toCaptions(readTalk(readFileSync(path, 'utf8'), 1), { punctuation: 'written', cues: 'lines', speakers: 'named' });
    const { transcript } = readTranscript(new TextEncoder().encode(captions));
    for (const [minMs, maxMs] of [
      [15_000, 30_000],
      [30_000, 60_000],
      [60_000, 90_000],
    ] as const) {
      const { share, candidates } = covered(transcript, minMs, maxMs);
      expect([minMs, share >= 0.9, share], `${candidates} candidates cover ${share.toFixed(3)}`).toEqual([minMs, true, share]);
      expect(candidates).toBeGreaterThanOrEqual(Math.min(12, Math.floor((0.6 * transcript.durationMs) / maxMs)));
    }
  });
});
