import { execFile } from 'node:child_process';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { HeardLoudness } from '../src/media/heard-loudness.js';
import { evenFilter, evenMeasuresOf, findLevel, type Level, levelFilter, levelFor } from '../src/rendering/level.js';

const run = promisify(execFile);
const ffmpeg = async (...args: string[]): Promise<string> =>
  (await run('ffmpeg', ['-hide_banner', '-nostdin', '-nostats', '-y', ...args], { maxBuffer: 100_000_000 })).stderr;
const PLAYED = { integrated: -14, peak: -1 };
const heard = (given: Partial<HeardLoudness>): HeardLoudness => ({ integrated: -20, shortTerm: -18, range: 4, truePeak: -10, ...given });

describe('what makes sound as loud as asked', () => {
  it('is one gain where its peaks have room for it, half a decibel below what is asked', () => {
    expect(levelFor(PLAYED, heard({ integrated: -20, truePeak: -7.5 }))).toEqual({ kind: 'gain', db: 6 });
    expect(levelFor(PLAYED, heard({ integrated: -9, truePeak: -0.1 }))).toEqual({ kind: 'gain', db: -5 });
  });
  it('has a limiter where they have not, and is evened out where that would be heard', () => {
    expect(levelFor(PLAYED, heard({ truePeak: -7.4 }))).toEqual({ kind: 'limited', db: 6, peak: -1.5 });
    expect(levelFor(PLAYED, heard({ truePeak: 0.5 }))).toEqual({ kind: 'limited', db: 6, peak: -1.5 });
    expect(levelFor(PLAYED, heard({ truePeak: 0.6 }))).toBe('even');
  });
  it('is evened out where it ranges further than talk does', () => {
    expect(levelFor(PLAYED, heard({ range: 11 }))).toMatchObject({ kind: 'gain' });
    expect(levelFor(PLAYED, heard({ range: 11.1 }))).toBe('even');
  });
  it('leaves silence as it is', () => {
    expect(levelFor(PLAYED, null)).toEqual({ kind: 'none' });
    expect(levelFilter({ kind: 'none' })).toBe('anull');
  });
});

// The level is set by what ffmpeg's ebur128 heard, and checked by the meter of its loudnorm: EBU R 128, ITU-R BS.1770, true peak.
describe('sound of which the level was found', () => {
  let folder: string;
  beforeAll(async () => {
    folder = await mkdtemp(join(tmpdir(), 'sift-reel-level-'));
  });
  afterAll(() => rm(folder, { recursive: true, force: true }));

  const VOICE = `0.05*sin(2*PI*(200+60*sin(3*t))*t)*(1+0.6*sin(2*t))`;
  it.each([
    ['quiet talk', VOICE, 'gain', 0.2],
    ['talk with a knock every second, 18 dB above it', `${VOICE}+0.45*sin(2*PI*900*t)*lt(mod(t,1),0.004)`, 'limited', 0.2],
    ['a voice that is near and far by turns', `${VOICE}*(0.3+3.7*lt(mod(t,16),8))`, 'even', 1],
    ['nothing', '0*t', 'none', Infinity],
  ])('is as loud as asked, its peaks below: %s', async (_, wave, kind, within) => {
    const path = join(folder, `${kind}.wav`);
    await ffmpeg('-v', 'error', '-f', 'lavfi', '-i', `aevalsrc='${wave}':s=48000:d=40:c=stereo`, path);
    const through = (filters: string): Promise<string> => ffmpeg('-v', 'info', '-i', path, '-af', filters, '-f', 'null', '-');
    let measurings = 0;
    const measure = (after: Level): Promise<string> => ((measurings += 1), through(`${levelFilter(after)},ebur128=peak=true:framelog=verbose`));
    const level = await findLevel(PLAYED, measure, () => through(`${evenFilter(PLAYED)}:print_format=json`));
    expect(level.kind).toBe(kind);
    expect(measurings).toBe(kind === 'limited' ? 2 : 1);
    const { input_i, input_tp } = evenMeasuresOf(await through(`${levelFilter(level)},aresample=48000,loudnorm=print_format=json`));
    if (kind === 'none') return expect(input_i).toBe('-inf');
    expect(Math.abs(Number(input_i) - PLAYED.integrated)).toBeLessThan(within);
    expect(Number(input_tp)).toBeLessThanOrEqual(PLAYED.peak);
  });
  it('comes not later for a limiter that looks ahead', async () => {
    const click = `0.9*lt(abs(t-2),0.0005)+${VOICE}`;
    const [whole, after] = [join(folder, 'click.wav'), join(folder, 'limited.wav')];
    await ffmpeg('-v', 'error', '-f', 'lavfi', '-i', `aevalsrc='${click}':s=48000:d=4:c=mono`, whole);
    await ffmpeg('-v', 'error', '-i', whole, '-af', levelFilter({ kind: 'limited', db: 0, peak: -6 }), after);
    const loudestAt = async (path: string): Promise<number> => {
      const { stdout } = await run('ffmpeg', ['-v', 'error', '-i', path, '-f', 'f32le', '-'], { encoding: 'buffer', maxBuffer: 10_000_000 });
      const samples = new Float32Array(stdout.buffer.slice(stdout.byteOffset, stdout.byteOffset + stdout.length));
      return samples.reduce((best, value, i) => (Math.abs(value) > Math.abs(samples[best]!) ? i : best), 0) / 48_000;
    };
    expect(Math.abs((await loudestAt(after)) - (await loudestAt(whole)))).toBeLessThan(0.001);
  });
});
