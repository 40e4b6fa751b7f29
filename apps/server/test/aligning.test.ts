import { execFile } from 'node:child_process';
import { mkdtemp, readdir, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { unpackTranscript } from '@sift-reel/core';
import pg from 'pg';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { settings } from '../../../scripts/lib/config.mjs';
import { RATE, speakWords } from '../../../scripts/lib/flite-words.mjs';
import { serviceEnv, startService } from '../../../scripts/lib/services.mjs';
import { CommandRecogniser } from '../dist/aligning/command-recogniser.js';
import { quietPlace } from '../dist/aligning/quiet-place.js';
import { Pocketsphinx } from '../dist/aligning/pocketsphinx.js';
import { SoundPieces, wavOf } from '../dist/aligning/sound-pieces.js';
import { type Answer, BRIEF, filesForm, query, World } from './world.js';

/** Who waits in this database for a lock of another. */
const WAITING = `SELECT count(*)::int AS n FROM pg_stat_activity WHERE datname = current_database() AND wait_event_type = 'Lock'`;

vi.setConfig({ testTimeout: 240_000, hookTimeout: 240_000 });
const run = promisify(execFile);

type Worker = ReturnType<typeof startService>;
let world: World;
let clientId: string;
let folder: string;
let worker: Worker;
const startWorker = (extra: Record<string, string> = {}): Worker =>
  startService('worker', serviceEnv(settings('test'), process.env['SIFT_REEL_DATABASE_URL']!, { SIFT_REEL_LOG_LEVEL: 'silent', ...extra }), { quiet: true });

/** Said by Debian's flite, which tells when. */
const LINES = [
  { voice: 'slt', name: 'Maren', text: 'So the first thing everybody gets wrong is the temperature, and I mean everybody.' },
  { voice: 'slt', name: 'Maren', text: 'We measured it for three weeks, and on 12 days out of 21 it was far too cold.', pauseMs: 4_000 },
  { voice: 'rms', name: 'Idris', text: 'How cold is too cold, though?' },
  { voice: 'slt', name: 'Maren', text: 'Under nine degrees nothing moves at all. Zarnikov called that the sleeping month.' },
  { voice: 'rms', name: 'Idris', text: 'And nobody told them before they had paid for the second tank.' },
  { voice: 'slt', name: 'Maren', text: 'Nobody. It cost them the whole spring, and the pump went as well.' },
  { voice: 'rms', name: 'Idris', text: 'That is the part I would have left out of the brochure.' },
];
let wav: Uint8Array;
let truth: readonly { readonly text: string; readonly startMs: number; readonly endMs: number }[];

beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'sift-reel-aligning-'));
  const { samples, words } = await speakWords(LINES);
  truth = words;
  wav = new Uint8Array(wavOf(samples));
  await writeFile(join(folder, 'talk.wav'), wav);
  world = await World.make();
  clientId = await world.client();
  worker = startWorker();
  await worker.ready;
});
afterAll(async () => {
  await worker.stop();
  await world.close();
  await rm(folder, { recursive: true, force: true });
});

const bring = (files: Parameters<typeof filesForm>[0]): Promise<Answer> => world.owner.post(`clients/${clientId}/recordings`, filesForm(files));
const read = async (recordingId: string): Promise<Answer['body']> => (await world.read(`recordings/${recordingId}`)).body;
const wordsOf = async (recordingId: string) => unpackTranscript((await world.owner.get(`recordings/${recordingId}/transcript`)).body);
async function until(recordingId: string, holds: (alignment: Answer['body']) => boolean): Promise<Answer['body']> {
  for (let i = 0; i < 4_000; i += 1) {
    const recording = await read(recordingId);
    if (holds(recording.alignment)) return recording;
    await new Promise((resolve) => {
      setTimeout(resolve, 50);
    });
  }
  throw new Error('it never comes');
}
const over = (recordingId: string): Promise<Answer['body']> => until(recordingId, ({ state }) => ['done', 'failed'].includes(state));
/** How far starts are from where flite put them, in ms, rising. */
const errorsOf = (words: readonly { readonly startMs: number }[]): number[] =>
  words.map(({ startMs }, i) => Math.abs(startMs - truth[i]!.startMs)).sort((a, b) => a - b);

const PLAIN = LINES.map(({ name, text }) => `${name}: ${text}`).join('\n\n');

describe('text without times', () => {
  it('is taken with its sound, and each word is found where it is said', async () => {
    const { status, text, body } = await bring({ transcript: ['talk.txt', PLAIN], sound: ['talk.wav', wav] });
    expect(status, text).toBe(201);
    expect([body.transcript, body.alignment]).toMatchObject([null, { kind: 'text', sourceName: 'talk.txt', outcome: null }]);
    const recording = await over(body.id);
    expect(recording.alignment).toMatchObject({ state: 'done', outcome: 'taken', share: expect.any(Number) });
    expect(recording.transcript).toMatchObject({ format: 'plain-text', wordTimes: 'heard', sourceName: 'talk.txt', speakers: ['Maren', 'Idris'] });
    const { words } = await wordsOf(body.id);
    expect(words.map((word) => word.text)).toEqual(truth.map((word) => word.text));
    const errors = errorsOf(words);
    expect(errors[Math.floor(errors.length / 2)]).toBeLessThanOrEqual(150);
    expect(errors[Math.floor(errors.length * 0.95)]).toBeLessThanOrEqual(500);
    // What it was made from is let go of.
    expect(await query('SELECT said, heard FROM alignments WHERE recording_id = $1', [body.id])).toEqual([{ said: null, heard: null }]);
    const [own] = await query('SELECT id FROM alignments WHERE recording_id = $1', [body.id]);
    const left = await readdir(join(process.env['SIFT_REEL_MEDIA_DIR']!, 'aligning'));
    expect(left.filter((name) => name.startsWith(String(own!['id'])))).toEqual([]);
  });
  it('is shown as understood before, and refused where there is no sound to hear it in', async () => {
    const shown = await world.owner.post('transcripts/reading', filesForm({ transcript: ['talk.txt', PLAIN] }));
    expect([shown.status, shown.body]).toMatchObject([200, { timed: false, wordCount: truth.length }]);
    expect(shown.body.excerpt[0]).toEqual({ startMs: null, speaker: 'Maren', text: LINES[0]!.text });
    const alone = await bring({ transcript: ['talk.txt', PLAIN] });
    expect([alone.status, alone.body]).toMatchObject([
      422,
      { file: 'talk.txt', code: 'unknown-format', detail: expect.stringContaining('bring the sound in') },
    ]);
  });
  it('of something else is refused in words, can be let go, and what is said can be drafted instead', async () => {
    const other =
      'Beat four eggs with the sugar until they are pale and thick. Fold the flour in with a large spoon, gently, or it falls. Butter the tin, ' +
      'line it with paper, and heat the oven well before you begin. Bake it for forty minutes on the lowest shelf. Leave the door closed meanwhile. ' +
      'When a needle comes out dry, turn it onto a rack. Serve it with plums that were stewed in port, or with soft cream and roasted almonds.';
    const { samples } = await speakWords(LINES.slice(0, 1));
    const { body } = await bring({ transcript: ['cake.txt', other], sound: ['short.wav', new Uint8Array(wavOf(samples))] });
    const failed = await over(body.id);
    expect([failed.transcript, failed.alignment]).toMatchObject([
      null,
      { state: 'failed', failure: expect.stringMatching(/^Text and sound do not belong together: \d+ % of the text was heard/) },
    ]);
    const path = `recordings/${body.id}/alignment`;
    expect((await world.owner.post(path, { kind: 'cues' })).status).toBe(409);
    expect([(await world.owner.delete(path)).status, (await world.owner.delete(path)).status, (await read(body.id)).alignment]).toEqual([204, 404, null]);
    // Two who ask at the same moment: one is told that it is being listened to already.
    const asked = await Promise.all([world.owner.post(path, { kind: 'draft' }), world.owner.post(path, { kind: 'draft' })]);
    expect(asked.map(({ status }) => status).sort()).toEqual([202, 409]);
    const drafted = await over(body.id);
    expect(drafted.transcript).toMatchObject({ format: 'draft', wordTimes: 'heard', sentenceEnds: 'restored' });
    const said = new Set((await wordsOf(body.id)).words.map((word) => word.text));
    expect(['temperature', 'everybody', 'thing', 'wrong', 'first'].filter((word) => said.has(word)).length).toBeGreaterThanOrEqual(2);
    expect((await world.owner.post(path, { kind: 'draft' })).status).toBe(409);
  });
});

describe('cues', () => {
  const lastMs = (): number => truth.at(-1)!.endMs;
  const stamp = (ms: number): string => `00:00:${(ms / 1_000).toFixed(3).padStart(6, '0')}`;
  const cues = (): string => `WEBVTT\n\n${stamp(0)} --> ${stamp(lastMs())}\n${truth.map(({ text }) => text).join(' ')}\n`;
  it('that spread their words are given true times, and what was sifted by them moves along', async () => {
    const { body } = await bring({ transcript: ['talk.vtt', cues()] });
    expect([body.transcript.wordTimes, body.alignment]).toEqual(['spread', null]);
    const { body: sift } = await world.owner.post(`recordings/${body.id}/sifts`, { ...BRIEF, minMs: 5_000, maxMs: 20_000 });
    await vi.waitFor(async () => expect((await world.read(`sifts/${sift.id}`)).body.state).toBe('done'), { timeout: 120_000, interval: 100 });
    const before = (await world.read(`sifts/${sift.id}/ranking`)).body;
    expect(before.limits).toContain('spread-times');
    expect((await world.owner.post(`recordings/${body.id}/files`, filesForm({ sound: ['talk.wav', wav] }))).status).toBe(201);
    const recording = await over(body.id);
    expect([recording.transcript.wordTimes, recording.alignment.outcome]).toEqual(['heard', 'taken']);
    const { words } = await wordsOf(body.id);
    const errors = errorsOf(words);
    expect(errors[Math.floor(errors.length * 0.95)]).toBeLessThanOrEqual(500);
    const after = (await world.read(`sifts/${sift.id}/ranking`)).body;
    expect(after.limits).not.toContain('spread-times');
    expect(after.candidates.length).toBeGreaterThan(0);
    for (const [i, one] of after.candidates.entries()) {
      expect([one.id, one.firstWord, one.endWord]).toEqual([before.candidates[i].id, before.candidates[i].firstWord, before.candidates[i].endWord]);
      // A little air, and where its sound begins and ends, which may be a little beside its times.
      expect(Math.abs(words[one.firstWord]!.startMs - one.startMs)).toBeLessThanOrEqual(120 + 160);
      expect(Math.abs(one.endMs - words[one.endWord - 1]!.endMs)).toBeLessThanOrEqual(180 + 160);
    }
    expect(after.chapters[0].startMs).toBe(words[0]!.startMs);
  });
  it('keep their times where shorts stand on them, and say so', async () => {
    const { body } = await bring({ transcript: ['talk.vtt', cues()] });
    const { body: sift } = await world.owner.post(`recordings/${body.id}/sifts`, { ...BRIEF, minMs: 5_000, maxMs: 20_000 });
    await vi.waitFor(async () => expect((await world.read(`sifts/${sift.id}`)).body.state).toBe('done'), { timeout: 120_000, interval: 100 });
    const { candidates } = (await world.read(`sifts/${sift.id}/ranking`)).body;
    expect((await world.owner.put(`candidates/${candidates[0].id}/state`, { state: 'kept' })).status).toBe(200);
    await world.owner.post(`recordings/${body.id}/files`, filesForm({ sound: ['talk.wav', wav] }));
    const recording = await over(body.id);
    expect([recording.transcript.wordTimes, recording.alignment.outcome]).toEqual(['spread', 'shorts']);
  });
  it('that are made true while it is sifted have it sifted once more', async () => {
    const { body } = await bring({ transcript: ['talk.vtt', cues()] });
    // Written, and not yet there for others: the sift reads the times as they were.
    const hearing = new pg.Client(process.env['SIFT_REEL_DATABASE_URL']);
    await hearing.connect();
    await hearing.query('BEGIN');
    await hearing.query(`UPDATE transcripts SET word_times = 'heard' WHERE recording_id = $1`, [body.id]);
    const { body: sift } = await world.owner.post(`recordings/${body.id}/sifts`, { ...BRIEF, minMs: 5_000, maxMs: 20_000 });
    // It waits at its end for whoever holds the times.
    await vi.waitFor(async () => expect((await query(WAITING))[0]!['n']).toBeGreaterThan(0), { timeout: 60_000, interval: 20 });
    await hearing.query('COMMIT');
    await hearing.end();
    await vi.waitFor(async () => expect((await world.read(`sifts/${sift.id}`)).body.state).toBe('done'), { timeout: 120_000, interval: 100 });
    expect(await query(`SELECT faults FROM jobs WHERE kind = 'sift' AND subject_id = $1`, [sift.id])).toEqual([{ faults: 1 }]);
  });
  it('of another language are left as they are', async () => {
    const spanish = 'Lo primero que todo el mundo hace mal es la temperatura, y cuando digo todo el mundo quiero decir todo el mundo, porque nadie la mide. ';
    const { body } = await bring({ transcript: ['habla.vtt', `WEBVTT\n\n00:00:00.000 --> 00:00:20.000\n${spanish.repeat(3)}\n`], sound: ['talk.wav', wav] });
    const recording = await over(body.id);
    expect([recording.transcript.wordTimes, recording.alignment.outcome]).toEqual(['spread', 'language']);
  });
});

describe('another recogniser', () => {
  it('is called by its template, and a worker that is killed goes on after the last piece', async () => {
    await worker.stop();
    const calls = join(folder, 'calls.txt');
    const recogniser = { SIFT_REEL_RECOGNISER: `${process.execPath} ${join(import.meta.dirname, 'made-up-recogniser.mjs')} {wav} {expected} ${calls}` };
    worker = startWorker(recogniser);
    await worker.ready;
    await run('ffmpeg', ['-v', 'error', '-nostdin', '-y', '-f', 'lavfi', '-i', 'sine=frequency=300:duration=340', '-ar', '8000', join(folder, 'long.ogg')]);
    const sound = new Uint8Array(await readFile(join(folder, 'long.ogg')));
    const { body } = await bring({ transcript: ['long.txt', PLAIN], sound: ['long.ogg', sound] });
    const heardMs = async (): Promise<number> => Number((await query('SELECT heard_ms FROM alignments WHERE recording_id = $1', [body.id]))[0]!['heard_ms']);
    await vi.waitFor(async () => expect(await heardMs()).toBeGreaterThan(0), { timeout: 60_000, interval: 20 });
    process.kill(worker.child.pid!, 'SIGKILL');
    await worker.ended;
    const asked = async (): Promise<number[]> => (await readFile(calls, 'utf8')).trim().split('\n').map(Number);
    const before = (await asked()).length;
    const keptMs = await heardMs();
    worker = startWorker(recogniser);
    await worker.ready;
    const recording = await over(body.id);
    expect(recording.alignment).toMatchObject({ state: 'done', outcome: 'taken', share: 1 });
    expect(await query(`SELECT attempt, crashes FROM jobs WHERE kind = 'align' AND about->>'recordingId' = $1`, [body.id])).toEqual([
      { attempt: 2, crashes: 1 },
    ]);
    // The second run listened to what was left, and to nothing before it.
    const rest = (await asked()).slice(before);
    expect(rest.reduce((sum, seconds) => sum + seconds, 0)).toBeLessThan(340 - keptMs / 1_000 + 30 * rest.length);
    expect(rest.length).toBeLessThan(4);
    await worker.stop();
    worker = startWorker();
    await worker.ready;
  });
  it.each([
    ['nonsense', 'it wrote no JSON'],
    ['{"words":3}', 'words: expected a list'],
    ['{"words":[{"text":"a b","startMs":0,"endMs":1}]}', 'words[0].text: expected one word'],
    ['{"words":[{"text":"a","startMs":5,"endMs":9},{"text":"b","startMs":4,"endMs":9}]}', 'words[1].startMs: expected 5 or later'],
    ['{"words":[{"text":"a","startMs":5,"endMs":4}]}', 'words[0].endMs: expected 5 or later'],
  ])('that writes %s is told what is wrong', async (output, fault) => {
    const program = join(folder, 'writes.mjs');
    await writeFile(program, `process.stdout.write(${JSON.stringify(output)});`);
    const task = { wav: '/none', folder, signal: new AbortController().signal };
    await expect(new CommandRecogniser(`${process.execPath} ${program} {wav} --hint={expected}`).hear(task, null)).rejects.toThrow(fault);
  });
  it('that fails is told of by what it said; one that cannot be called is refused at the start', async () => {
    const task = { wav: '/none', folder, signal: new AbortController().signal };
    const program = join(folder, 'fails.mjs');
    await writeFile(program, `process.stderr.write('no model here'); process.exit(3);`);
    await expect(new CommandRecogniser(`${process.execPath} ${program} {wav}`).hear(task, null)).rejects.toThrow('no model here');
    await expect(new CommandRecogniser('no-such-recogniser {wav}').hear(task, null)).rejects.toThrow('no-such-recogniser is not installed on this machine');
    expect(() => new CommandRecogniser('hear it')).toThrow(RangeError);
  });
});

describe('words that cannot be listened for', () => {
  it.each([
    ['of no sound in English', ['Добрый', 'вечер']],
    ['that are no words', ['a'.repeat(1_000_000)]],
  ])('%s are refused in words', async (_, words) => {
    const task = { folder, signal: new AbortController().signal };
    await expect(new Pocketsphinx().expect(words, task)).rejects.toThrow('none of its words can be said in English');
  });
});

describe('pieces of sound', () => {
  it('are all of it, once, in order, whatever is given back', async () => {
    const whole = Buffer.from(wav).subarray(44);
    const pieces = new SoundPieces(join(folder, 'talk.wav'), 0, new AbortController().signal);
    const got: Buffer[] = [];
    for (let i = 0; ; i += 1) {
      const samples = await pieces.next(1_700);
      if (samples.length === 0) break;
      const kept = i % 2 === 0 ? samples : samples.subarray(0, Math.ceil(samples.length / 3));
      if (i % 2 === 1) pieces.putBack(samples.subarray(kept.length));
      got.push(Buffer.from(kept.buffer, kept.byteOffset, kept.byteLength));
    }
    // The resampler may end some samples sooner or later; what is there is the same.
    const all = Buffer.concat(got);
    expect(Math.abs(all.length - whole.length) / 2).toBeLessThan(RATE * 0.01);
    expect(all.subarray(0, whole.length - 400).equals(whole.subarray(0, all.length > whole.length ? whole.length - 400 : whole.length - 400))).toBe(true);
  });
  it('end in a pause, so that no word is cut', () => {
    const word = (startMs: number, endMs: number) => ({ text: 'x', startMs, endMs });
    expect(quietPlace([word(0, 70_000), word(70_400, 90_000), word(90_100, 99_990)], 100_000)).toBe(70_200);
    expect(quietPlace([word(0, 70_000), word(70_400, 90_000), word(90_400, 99_990)], 100_000)).toBe(90_200);
    expect(quietPlace([word(0, 70_000), word(70_100, 99_990)], 100_000)).toBe(70_050);
    expect(quietPlace([], 100_000)).toBe(100_000);
  });
});
