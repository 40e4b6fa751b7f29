import { describe, expect, it } from 'vitest';
import { spanOfWords } from '../cut/word-span.js';
import type { Transcript, WordTimes } from '../transcript/types.js';
import { withHeardEnds } from './heard-ends.js';
import { VOICE_STEP_MS } from './voice-track.js';

/** Words from pairs of start and end, in ms, each a sentence of its own. */
function talk(times: readonly (readonly [number, number])[], wordTimes: WordTimes = 'given'): Transcript {
  const words = times.map(([startMs, endMs], i) => ({ text: `w${i}`, startMs, endMs, kind: 'word' as const, speaker: -1 }));
  const sentences = words.map(({ startMs, endMs }, i) => ({ firstWord: i, endWord: i + 1, startMs, endMs, speaker: -1 }));
  return { words, sentences, speakers: [], durationMs: times.at(-1)![1], wordTimes, sentenceEnds: 'written' };
}

/** Levels: a voice at -20 dB with the given silences, in ms, at -60; some silence at the end, so that there is a floor. */
function sound(lengthMs: number, silences: readonly (readonly [number, number])[], voice = -20, floor = -60): Int8Array {
  const levels = new Int8Array(Math.ceil(lengthMs / VOICE_STEP_MS)).fill(voice);
  for (const [from, to] of silences) levels.fill(floor, Math.round(from / VOICE_STEP_MS), Math.round(to / VOICE_STEP_MS));
  return levels;
}

describe('withHeardEnds', () => {
  it('ends words where the silence between them begins and ends', () => {
    const { words, sentences } = withHeardEnds(
      talk([
        [0, 960],
        [1_080, 2_000],
      ]),
      sound(4_000, [
        [880, 1_160],
        [2_000, 4_000],
      ]),
    );
    expect(words.map(({ startMs, endMs }) => [startMs, endMs])).toEqual([
      [0, 880],
      [1_160, 2_000],
    ]);
    expect(sentences[1]).toMatchObject({ startMs: 1_160, endMs: 2_000 });
    expect(spanOfWords(words, 0, 1).endMs).toBe(1_020);
  });

  it('finds the pause that times spread over a cue know nothing of', () => {
    const times = [
      [0, 600],
      [600, 1_200],
      [1_200, 1_800],
    ] as const;
    const levels = sound(4_000, [
      [1_360, 1_560],
      [1_800, 4_000],
    ]);
    expect(withHeardEnds(talk(times, 'spread'), levels).words.map(({ endMs }) => endMs)).toEqual([600, 1_360, 1_800]);
    expect(withHeardEnds(talk(times, 'given'), levels).words[1]).toMatchObject({ startMs: 600, endMs: 1_200 });
  });

  it('is not misled by a mouth that closes inside a word', () => {
    const given = talk([
      [0, 1_000],
      [1_000, 2_000],
    ]);
    expect(
      withHeardEnds(
        given,
        sound(4_000, [
          [1_040, 1_120],
          [2_000, 4_000],
        ]),
      ).words,
    ).toEqual(given.words);
  });

  it('moves the border of rough times into the deepest place beside it, where there is no pause', () => {
    const levels = sound(4_000, [[2_000, 4_000]]);
    levels[27] = -34;
    const { words } = withHeardEnds(
      talk(
        [
          [0, 1_000],
          [1_000, 2_000],
        ],
        'spread',
      ),
      levels,
    );
    expect([words[0]!.endMs, words[1]!.startMs]).toEqual([1_100, 1_100]);
  });

  it.each([
    ['music that never falls silent', sound(4_000, [], -20)],
    [
      'a floor just under the voice',
      sound(
        4_000,
        [
          [900, 1_100],
          [2_000, 4_000],
        ],
        -20,
        -27,
      ),
    ],
    ['silence throughout', sound(4_000, [], -96)],
    ['no sound at all', new Int8Array(0)],
    ['a sound that ends before the words do', sound(400, [[200, 400]])],
  ])('leaves the times as they are: %s', (_, levels) => {
    for (const wordTimes of ['given', 'spread'] as const) {
      const given = talk(
        [
          [0, 1_000],
          [1_000, 2_000],
        ],
        wordTimes,
      );
      expect(withHeardEnds(given, levels)).toEqual(given);
    }
  });

  it('keeps words in order, each with some of itself, whatever is heard', () => {
    let seed = 3;
    const random = (): number => (seed = (seed * 1_103_515_245 + 12_345) & 0x7fffffff) / 0x7fffffff;
    for (let round = 0; round < 200; round += 1) {
      let at = 0;
      const times = Array.from({ length: 40 }, () => {
        const startMs = at + (random() < 0.4 ? 0 : Math.floor(random() * 500));
        at = startMs + 1 + Math.floor(random() * 700);
        return [startMs, at] as const;
      });
      const levels = Int8Array.from({ length: Math.ceil((at * (0.5 + random())) / VOICE_STEP_MS) }, () => -Math.floor(random() * 97));
      for (const wordTimes of ['given', 'spread'] as const) {
        const before = talk(times, wordTimes).words;
        const { words } = withHeardEnds(talk(times, wordTimes), levels);
        words.forEach(({ startMs, endMs }, i) => {
          const middleMs = (before[i]!.startMs + before[i]!.endMs) / 2;
          expect(startMs).toBeLessThanOrEqual(middleMs + 1);
          expect(endMs).toBeGreaterThanOrEqual(middleMs - 1);
          expect(endMs).toBeGreaterThanOrEqual(startMs);
          if (i > 0) expect(startMs).toBeGreaterThanOrEqual(words[i - 1]!.endMs);
        });
      }
    }
  });
});
