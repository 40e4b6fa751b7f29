import { PitchDetector } from 'pitchy';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { HIGHEST_HZ, LOWEST_HZ, pitchAt } from './pitch.js';
import { VOICE_RATE, VoiceAnalyser } from './voice-analyser.js';
import { pitchCode, semitonesOf, VOICE_STEP_MS } from './voice-track.js';

/** A voice-like tone: harmonics that fall off, as of a glottal pulse; `hz` may move over time. */
function tone(seconds: number, hz: (t: number) => number, harmonics = [1, 0.6, 0.4, 0.25, 0.15], rate = VOICE_RATE): Float32Array {
  const out = new Float32Array(Math.round(seconds * rate));
  let phase = 0;
  for (let i = 0; i < out.length; i += 1) {
    phase += (2 * Math.PI * hz(i / rate)) / rate;
    harmonics.forEach((size, h) => (out[i]! += 0.3 * size * Math.sin((h + 1) * phase)));
  }
  return out;
}
const toPcm = (samples: Float32Array): Int16Array => Int16Array.from(samples, (value) => Math.round(Math.max(-1, Math.min(1, value)) * 32_767));
const cents = (a: number, b: number): number => Math.abs(1_200 * Math.log2(a / b));

/** Noise that is the same every time: a linear congruential generator (Numerical Recipes' constants, from memory). */
function noise(n: number, size: number): Float32Array {
  let state = 12_345;
  return Float32Array.from({ length: n }, () => {
    state = (1_664_525 * state + 1_013_904_223) >>> 0;
    return size * (state / 2 ** 31 - 1);
  });
}

describe('pitch', () => {
  it('is that of a steady tone over the whole range of voices, within an eighth of a semitone', () => {
    fc.assert(
      fc.property(fc.double({ min: LOWEST_HZ + 2, max: 400, noNaN: true }), (hz) => {
        expect(
          cents(
            pitchAt(
              tone(0.1, () => hz),
              40,
              VOICE_RATE,
            ),
            hz,
          ),
        ).toBeLessThan(12.5);
      }),
      { numRuns: 60 },
    );
  });
  it('is that of the fundamental where it is missing, as over a telephone', () => {
    expect(
      cents(
        pitchAt(
          tone(0.1, () => 120, [0, 0.6, 0.5, 0.4]),
          0,
          VOICE_RATE,
        ),
        120,
      ),
    ).toBeLessThan(15);
  });
  it('is not found in noise, silence or below the range', () => {
    expect([
      pitchAt(noise(800, 0.3), 0, VOICE_RATE),
      pitchAt(new Float32Array(800), 0, VOICE_RATE),
      pitchAt(
        tone(0.1, () => 30),
        0,
        VOICE_RATE,
      ),
    ]).toEqual([0, 0, 0]);
  });
  // McLeod & Wyvill's method (2005), another one than ours, as pitchy has it.
  it('agrees with pitchy on a voice that glides, with some noise', () => {
    const glide = tone(2, (t) => 110 * 2 ** (t / 2));
    const hiss = noise(glide.length, 0.02);
    glide.forEach((_, i) => (glide[i]! += hiss[i]!));
    const detector = PitchDetector.forFloat32Array(512);
    for (let from = 0; from + 512 <= glide.length; from += 400) {
      const [theirs, clarity] = detector.findPitch(glide.subarray(from, from + 512), VOICE_RATE);
      expect(clarity).toBeGreaterThan(0.8);
      // Both look at a window in which the tone moves: half a semitone is the most that their middles can be apart.
      expect(cents(pitchAt(glide, from, VOICE_RATE), theirs)).toBeLessThan(50);
    }
  });
});

describe('a pitch as it is kept', () => {
  it('comes back within an eighth of a semitone', () => {
    for (let hz = LOWEST_HZ; hz <= HIGHEST_HZ; hz += 7) expect(Math.abs(semitonesOf(pitchCode(hz)) - 12 * Math.log2(hz / 50))).toBeLessThanOrEqual(0.125);
    expect([pitchCode(0), pitchCode(100), semitonesOf(pitchCode(100))]).toEqual([0, 49, 12]);
  });
});

describe('the analyser', () => {
  const listen = (samples: Int16Array, pieces: readonly number[] = []): ReturnType<VoiceAnalyser['finish']> => {
    const analyser = new VoiceAnalyser();
    let from = 0;
    for (const length of pieces) {
      analyser.push(samples.subarray(from, from + length));
      from = Math.min(samples.length, from + length);
    }
    analyser.push(samples.subarray(from));
    return analyser.finish();
  };
  it('hears a full sine at -3 dB, one of a tenth at -23 dB (root mean square below full scale), and silence at the floor', () => {
    const sine = (size: number): Int16Array =>
      toPcm(Float32Array.from({ length: VOICE_RATE }, (_, i) => size * Math.sin((2 * Math.PI * 200 * i) / VOICE_RATE)));
    expect([...new Set(listen(sine(1)).levels)]).toEqual([-3]);
    expect([...new Set(listen(sine(0.1)).levels)]).toEqual([-23]);
    const silence = listen(new Int16Array(VOICE_RATE));
    expect([[...new Set(silence.levels)], [...new Set(silence.pitches)]]).toEqual([[-96], [0]]);
  });
  it('has a step for every 40 ms, whatever pieces the sound comes in', () => {
    const sound = toPcm(tone(1.3, (t) => 140 + 60 * t));
    const whole = listen(sound);
    expect(whole.levels.length).toBe(Math.floor(1_300 / VOICE_STEP_MS));
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 3_000 }), { maxLength: 12 }), (pieces) => {
        expect(listen(sound, pieces)).toEqual(whole);
      }),
      { numRuns: 30 },
    );
  });
});
