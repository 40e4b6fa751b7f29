import { rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { settings } from '../../../scripts/lib/config.mjs';
import { serviceEnv, startService } from '../../../scripts/lib/services.mjs';
import { BRIEF, filesForm, query, talk, World } from './world.js';

const RATE = 16_000;
const SECONDS = 130;

/** A WAV file of one channel: a tone with overtones that stays at 120 Hz at first, and from the middle on swings and is louder; with pauses of 0.2 s. */
function voiceWav(pauses = false): Uint8Array {
  const samples = RATE * SECONDS;
  const file = Buffer.alloc(44 + 2 * samples);
  file.write('RIFF', 0);
  file.writeUInt32LE(36 + 2 * samples, 4);
  file.write('WAVEfmt ', 8);
  [16, 0x0001_0001, RATE, 2 * RATE, 0x0010_0002].forEach((value, i) => file.writeUInt32LE(value, 16 + 4 * i));
  file.write('data', 36);
  file.writeUInt32LE(2 * samples, 40);
  let phase = 0;
  for (let i = 0; i < samples; i += 1) {
    const t = i / RATE;
    const lively = t > SECONDS / 2;
    phase += (2 * Math.PI * (lively ? 120 * 2 ** (0.4 * Math.sin(3 * t)) : 120)) / RATE;
    const value = (pauses && t % 1.1 < 0.2 ? 0 : lively ? 0.3 : 0.12) * (Math.sin(phase) + 0.5 * Math.sin(2 * phase) + 0.3 * Math.sin(3 * phase));
    file.writeInt16LE(Math.round(32_767 * value), 44 + 2 * i);
  }
  return file;
}

let world: World;
let clientId: string;
let worker: ReturnType<typeof startService>;
beforeAll(async () => {
  world = await World.make();
  clientId = await world.client();
  const env = serviceEnv(settings('test'), process.env['SIFT_REEL_DATABASE_URL']!, { SIFT_REEL_LOG_LEVEL: 'silent', SIFT_REEL_VECTOR_THREADS: '1' });
  worker = startService('worker', env, { quiet: true });
  await worker.ready;
});
afterAll(async () => {
  await worker.stop();
  await world.close();
});

interface Ranked {
  readonly limits: string[];
  readonly candidates: { startMs: number; firstWord: number; endWord: number; signals: { signal: string; value: number; sentence: string }[] }[];
}
async function sifted(recordingId: string): Promise<Ranked & { id: string }> {
  const { body: sift } = await world.owner.post(`recordings/${recordingId}/sifts`, BRIEF);
  for (let i = 0; i < 1_200; i += 1) {
    const { body } = await world.owner.get(`sifts/${sift.id}`);
    if (body.state === 'done') return { ...(await world.owner.get(`sifts/${sift.id}/ranking`)).body, id: sift.id };
    if (body.state === 'failed') throw new Error(body.failure);
    await new Promise((resolve) => {
      setTimeout(resolve, 50);
    });
  }
  throw new Error('the sift does not come to an end');
}
const delivery = (one: Ranked['candidates'][number]): { value: number; sentence: string } => one.signals.find(({ signal }) => signal === 'delivery')!;
const tracks = (recordingId: string): Promise<Record<string, unknown>[]> =>
  query('SELECT sound_file, octet_length(levels) AS steps, xmin FROM voice_tracks WHERE recording_id = $1', [recordingId]);

it('a sift listens to the sound once, says what it heard, and the next one knows it', async () => {
  const { body } = await world.owner.post(
    `clients/${clientId}/recordings`,
    filesForm({ transcript: ['talk.vtt', talk(2, 'heard ')], sound: ['talk.wav', voiceWav()] }),
  );
  const first = await sifted(body.id);
  expect(first.limits).not.toContain('no-sound');
  expect(first.candidates.length).toBeGreaterThan(0);
  for (const one of first.candidates) expect(delivery(one).sentence).toMatch(/the voice moves over [\d.]+ semitones.*; judged by sound/);
  // The tone swings by 0.4 of an octave, which is a deviation of 0.4 × 12 / √2 = 3.4 semitones; before, it does not move.
  const moves = (one: Ranked['candidates'][number]): number => Number(/over ([\d.]+) semitones/.exec(delivery(one).sentence)![1]);
  const [still, lively] = [first.candidates.filter((one) => one.startMs < 35_000), first.candidates.filter((one) => one.startMs > 66_000)];
  expect(Math.min(still.length, lively.length)).toBeGreaterThan(0);
  expect(Math.max(...still.map(moves))).toBeLessThan(0.3);
  for (const one of lively) expect(Math.abs(moves(one) - 3.4)).toBeLessThan(0.6);
  const [track] = await tracks(body.id);
  expect(Number(track!['steps'])).toBe((SECONDS * 1_000) / 40);
  const second = await sifted(body.id);
  expect(second.candidates.map(delivery)).toEqual(first.candidates.map(delivery));
  expect(await tracks(body.id)).toEqual([track]); // not written again
  const { firstWord, endWord } = lively[0]!;
  const own = (await world.owner.post(`sifts/${second.id}/candidates`, { firstWord, endWord: endWord - 4 })).body;
  expect(delivery(own).sentence).toContain('judged by sound');
});

it('a sound that comes later is heard by the next sift, and goes with its recording', async () => {
  const { body } = await world.owner.post(`clients/${clientId}/recordings`, filesForm({ transcript: ['talk.vtt', talk(2, 'late ')] }));
  const deaf = await sifted(body.id);
  expect(deaf.limits).toContain('no-sound');
  expect(delivery(deaf.candidates[0]!).sentence).not.toContain('sound');
  expect((await world.owner.post(`recordings/${body.id}/files`, filesForm({ sound: ['late.wav', voiceWav()] }))).status).toBe(201);
  expect((await sifted(body.id)).limits).not.toContain('no-sound');
  // One's own candidate in the sift that did not listen is judged as the others there.
  const { firstWord, endWord } = deaf.candidates[0]!;
  const { body: own } = await world.owner.post(`sifts/${deaf.id}/candidates`, { firstWord, endWord: endWord - 3 });
  expect(delivery(own).sentence).not.toContain('sound');
  expect(await tracks(body.id)).toHaveLength(1);
  expect((await world.owner.delete(`recordings/${body.id}`)).status).toBe(204);
  expect(await tracks(body.id)).toEqual([]);
});

it.each([
  ['gone from the disk', (path: string) => rmSync(path)],
  ['spoilt on the disk', (path: string) => writeFileSync(path, 'not a sound any more')],
])('a sound that is %s does not keep the words from being sifted', async (_, spoil) => {
  const { body } = await world.owner.post(
    `clients/${clientId}/recordings`,
    filesForm({ transcript: ['talk.vtt', talk(2, 'spoilt ')], sound: ['talk.wav', voiceWav()] }),
  );
  const [row] = await query('SELECT sound_file FROM recordings WHERE id = $1', [body.id]);
  spoil(join(process.env['SIFT_REEL_MEDIA_DIR']!, String(row!['sound_file'])));
  const ranking = await sifted(body.id);
  expect(ranking.limits).toContain('no-sound');
  expect(ranking.candidates.length).toBeGreaterThan(0);
  expect(await tracks(body.id)).toEqual([]);
});

describe('words are cut where they are heard to end', () => {
  const endsHeardIn = async (recordingId: string): Promise<unknown> =>
    (await query('SELECT ends_heard_in AS "in" FROM transcripts WHERE recording_id = $1', [recordingId]))[0]!['in'];
  const soundOf = async (recordingId: string): Promise<unknown> =>
    (await query('SELECT sound_file AS file FROM recordings WHERE id = $1', [recordingId]))[0]!['file'];
  const spans = ({ candidates }: Ranked): number[][] => candidates.map(({ startMs, firstWord, endWord }) => [startMs, firstWord, endWord]);
  const deaf = async (name: string): Promise<{ id: string; sift: Ranked & { id: string } }> => {
    const { body } = await world.owner.post(`clients/${clientId}/recordings`, filesForm({ transcript: ['talk.vtt', talk(2, name)] }));
    const sift = await sifted(body.id);
    await world.owner.post(`recordings/${body.id}/files`, filesForm({ sound: ['talk.wav', voiceWav(true)] }));
    return { id: body.id, sift };
  };

  it('from the first sift on that has a sound, in every sift of the recording', async () => {
    const { id, sift } = await deaf('ends ');
    expect(await endsHeardIn(id)).toBeNull();
    await sifted(id);
    expect(await endsHeardIn(id)).toBe(await soundOf(id));
    const moved: Ranked = (await world.read(`sifts/${sift.id}/ranking`)).body;
    expect(spans(moved).map(([, ...words]) => words)).toEqual(spans(sift).map(([, ...words]) => words));
    expect(spans(moved)).not.toEqual(spans(sift));
    // Another sound has other ends: until it is sifted, the times count alone.
    await world.owner.post(`recordings/${id}/files`, filesForm({ sound: ['talk.wav', voiceWav()] }));
    expect(await endsHeardIn(id)).not.toBe(await soundOf(id));
  });

  it('but not under a short that is kept already', async () => {
    const { id, sift } = await deaf('kept ');
    await world.owner.put(`candidates/${(sift.candidates[0] as unknown as { id: string }).id}/state`, { state: 'kept' });
    const [short] = await world.shorts(id);
    const cuts = async (): Promise<unknown> => (await world.read(`shorts/${short.id}/passage`)).body.cuts;
    const before = await cuts();
    await sifted(id);
    expect(await endsHeardIn(id)).toBeNull();
    expect(await cuts()).toEqual(before);
  });

  it('or at the same moment: a short plays what was reckoned for it', async () => {
    const worlds = [];
    for (let i = 0; i < 3; i += 1) worlds.push(await deaf(`race ${i} `));
    await Promise.all(
      worlds.map(async ({ id, sift }, i) => {
        const ended = sifted(id);
        await new Promise((resolve) => {
          setTimeout(resolve, 700 * i);
        });
        for (const { id: candidateId } of (sift.candidates as unknown as { id: string }[]).slice(0, 3))
          await world.owner.put(`candidates/${candidateId}/state`, { state: 'kept' });
        await ended;
        for (const short of await world.shorts(id)) {
          const { cuts } = (await world.read(`shorts/${short.id}/passage`)).body as { cuts: { startMs: number; endMs: number }[] };
          expect(cuts.reduce((sum, { startMs, endMs }) => sum + endMs - startMs, 0)).toBe(short.playedMs);
        }
      }),
    );
  });
});
