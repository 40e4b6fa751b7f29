import { describe, expect, it } from 'vitest';
import { VOICE_STEP_MS, type VoiceTrack } from '../sound/voice-track.js';
import { toVtt, transcriptOf } from '../talk.fixture.js';
import { scorePassage } from './passage.js';
import { sift } from './sift.js';
import type { Brief, Candidate, SiftInput } from './types.js';
import { hearVoice } from './voice.js';

const LINES = [
  'The first oven was the one that my uncle built behind the shed.',
  'It leaned to one side and nobody minded very much at all.',
  'The second oven was made of brick that came from the station.',
  'It stood there for years and it hardly ever went out at night.',
  'The third oven was bought from a man who sold tractors.',
  'It was green and it ran on oil and it never worked well.',
];
const transcript = transcriptOf(toVtt(LINES.map((text, i) => ({ speaker: i % 2 === 0 ? 'Ann' : 'Bo', text }))));
const brief: Brief = { partStartMs: 0, partEndMs: null, minMs: 4_000, maxMs: 20_000, roughCount: 5, topics: [], kinds: [], avoid: [] };

/** A track whose code and level at a moment are given. */
function trackOf(at: (ms: number) => { code: number; level: number }): VoiceTrack {
  const steps = Math.ceil(transcript.durationMs / VOICE_STEP_MS);
  const values = Array.from({ length: steps }, (_, i) => at(i * VOICE_STEP_MS));
  return { levels: Int8Array.from(values, ({ level }) => level), pitches: Uint8Array.from(values, ({ code }) => code) };
}
const { sentences } = transcript;
const inSentence = (s: number, ms: number): boolean => ms >= sentences[s]!.startMs && ms < sentences[s]!.endMs;
const passage = (voice: VoiceTrack | null, s: number): Candidate => {
  const input: SiftInput = { transcript, brief, clientTags: [], sentenceVectors: null, topicVectors: null, voice };
  return scorePassage(input, { firstWord: sentences[s]!.firstWord, endWord: sentences[s]!.endWord });
};

describe('what is heard of a run', () => {
  it('is reckoned about each speaker’s own middle, so that two steady voices are not a lively one', () => {
    const hear = hearVoice(
      trackOf((ms) => (sentences.some((_, s) => s % 2 === 0 && inSentence(s, ms)) ? { code: 90, level: -14 } : { code: 50, level: -24 })),
      sentences,
    );
    const whole = hear({ first: 0, end: sentences.length })!;
    expect([whole.movesSemitones, whole.liftDb].map((value) => Math.round(value * 10) / 10)).toEqual([0, 0]);
  });
  it('tells how far the pitch moves in semitones: two up and two down, half the time in the middle, is a deviation of √2', () => {
    let step = 0;
    const hear = hearVoice(
      trackOf(() => ({ code: [60, 68, 76, 68][(step += 1) % 4]!, level: -20 })),
      sentences,
    );
    expect(hear({ first: 1, end: 3 })!.movesSemitones).toBeCloseTo(Math.SQRT2, 1);
  });
  it('tells nothing where nothing is voiced', () => {
    const hear = hearVoice(
      trackOf(() => ({ code: 0, level: -20 })),
      sentences,
    );
    expect(hear({ first: 0, end: 4 })).toBeNull();
  });
});

describe('Delivery with sound', () => {
  let step = 0;
  const lively = trackOf((ms) => (inSentence(3, ms) ? { code: 50 + 12 * ((step += 1) % 4), level: -14 } : { code: 68, level: -22 }));
  it('is higher where the voice moves and rises, and says what was heard', () => {
    const [heard, plain, deaf] = [passage(lively, 3), passage(lively, 5), passage(null, 3)].map((one) => one.signals.delivery);
    expect(heard!.value).toBeGreaterThan(plain!.value + 5);
    expect(plain!.value).toBeLessThan(passage(null, 5).signals.delivery.value);
    expect(heard!.sentence).toMatch(/the voice moves over \d\.\d semitones, \d+ dB above the usual; judged by sound and text/);
    expect(deaf!.sentence).toContain('judged by text alone');
  });
  it('changes no other signal', () => {
    const [heard, deaf] = [passage(lively, 3), passage(null, 3)];
    for (const name of ['opening', 'standsAlone', 'substance', 'charge', 'currency'] as const) expect(heard!.signals[name]).toEqual(deaf!.signals[name]);
  });
  it('is not touched by what is heard outside the part', () => {
    const part = { ...brief, partStartMs: sentences[2]!.startMs - 1, partEndMs: sentences[4]!.startMs };
    const cut = trackOf((ms) => ({ code: ms < sentences[2]!.startMs ? 40 : 68 + (Math.floor(ms / 400) % 9), level: ms > sentences[4]!.startMs ? -2 : -22 }));
    const same = trackOf((ms) => ({ code: 68 + (Math.floor(ms / 400) % 9), level: -22 }));
    const results = [cut, same].map((voice) => sift({ transcript, brief: part, clientTags: [], sentenceVectors: null, topicVectors: null, voice }));
    expect(results[0]!.candidates.length).toBeGreaterThan(0);
    expect(results[0]).toEqual(results[1]);
    expect(results[0]!.limits).not.toContain('no-sound');
  });
});
