import { NO_EDIT } from '@sift-reel/core';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { seedRanking } from './seed.js';
import { type Answer, query, World } from './world.js';

let world: World;
let clientId: string;
let candidateId: string;
let short: Answer['body'];
beforeAll(async () => {
  world = await World.make();
  clientId = await world.client();
  await world.channel(clientId);
});
beforeEach(async () => {
  const seeded = await seedRanking(world, clientId);
  candidateId = seeded.candidates[0]!.id;
  await world.owner.put(`candidates/${candidateId}/state`, { state: 'kept' });
  short = (await world.shorts(seeded.recordingId))[0];
});
afterAll(() => world.close());

const run = (from: number, to: number) => ({ firstWord: short.firstWord + from, endWord: short.firstWord + to });
const save = (edit: object, version: number = short.version): Promise<Answer> =>
  world.owner.put(`shorts/${short.id}/edit`, { edit: { ...NO_EDIT, ...edit }, version });
const look = async (): Promise<Answer['body']> => (await world.read(`shorts/${short.id}`)).body;
const captions = async (): Promise<string> => (await world.read(`shorts/${short.id}/captions.vtt`)).text;
const talk = async (): Promise<Answer['body']> => (await world.read(`shorts/${short.id}/talk`)).body;
/** What the short says, by the words of the recording. */
const said = async (): Promise<string[]> => {
  const { talks } = await talk();
  const at = short.firstWord - talks[0].firstWord;
  return talks[0].words.slice(at, at + short.endWord - short.firstWord).map(({ text }: { text: string }) => text);
};
const spoken = (vtt: string): string =>
  vtt
    .split('\n')
    .filter((line) => line !== '' && !/-->|WEBVTT/.test(line))
    .map((line) => line.replace(/<v [^>]*>/, ''))
    .join(' ');
/** The end of the last caption, in ms. */
const lastMs = (vtt: string): number => {
  const [, minutes, seconds, ms] = [...vtt.matchAll(/--> \d+:(\d+):(\d+)\.(\d+)/g)].at(-1)!;
  return Number(minutes) * 60_000 + Number(seconds) * 1_000 + Number(ms);
};

describe('words that are struck out of a short', () => {
  it('are in no caption and in none of its length, and come back', async () => {
    const words = await said();
    expect(spoken(await captions())).toBe(words.join(' '));
    const { body, status, text } = await save({ removed: [run(4, 6), run(2, 4)] });
    expect(status, text).toBe(200);
    expect(body.edit.removed).toEqual([run(2, 6)]);
    expect(body.version).toBe(short.version + 1);
    expect(body.playedMs).toBeLessThan(short.playedMs);
    expect([body.startMs, body.endMs]).toEqual([short.startMs, short.endMs]);
    const vtt = await captions();
    expect(spoken(vtt)).toBe([...words.slice(0, 2), ...words.slice(6)].join(' '));
    expect(lastMs(vtt)).toBeLessThanOrEqual(body.playedMs);
    const passage = (await world.read(`shorts/${short.id}/passage`)).body;
    expect(passage.cuts.length).toBe(2);
    expect(passage.cuts.reduce((sum: number, one: { startMs: number; endMs: number }) => sum + one.endMs - one.startMs, 0)).toBe(body.playedMs);
    const back = await save({}, body.version);
    expect([back.body.playedMs, spoken(await captions())]).toEqual([short.playedMs, words.join(' ')]);
  });

  it('are held to the length that a channel takes', async () => {
    const profile = await world.platform({ maxDurationMs: Math.max(3_001, short.playedMs - 1) });
    await world.channel(clientId, { name: `Brief ${short.id}`, platformProfileId: profile });
    const fits = async (): Promise<(string | null)[]> =>
      (await look()).channels.filter(({ name }: { name: string }) => name === `Brief ${short.id}`).map(({ unfit }: { unfit: string | null }) => unfit);
    expect((await fits())[0]).toMatch(/is over the/);
    await save({ removed: [run(1, 5)] });
    expect(await fits()).toEqual([null]);
  });

  it('are not said, so words about them need a tick', async () => {
    const line = (await said()).slice(2, 7).join(' ').replace(/[.,]$/, '');
    const check = async (): Promise<string[]> =>
      (
        await world.owner.post(`shorts/${short.id}/check`, { title: '', description: `She said “${line}”.`, hashtags: [], keywords: [], coverLine: '' })
      ).body.findings.flatMap(({ rule }: { rule: string }) => (rule === 'quotation' ? [rule] : []));
    expect(await check()).toEqual([]);
    await save({ removed: [run(3, 6)] });
    expect(await check()).toEqual(['quotation']);
  });

  it('take the approval away, and are refused while it stands', async () => {
    await world.writeShort('PUT', short.id, 'approval', { approved: true });
    const refused = await save({ removed: [run(0, 1)] }, (await look()).version);
    expect([refused.status, refused.body.detail]).toEqual([409, 'The short is approved. Un-approve it to change it.']);
    await world.writeShort('PUT', short.id, 'approval', { approved: false });
    expect((await save({ removed: [run(0, 1)] }, (await look()).version)).body.approved).toBe(false);
  });

  it('by two at once are one’s and refused to the other, who is told what stands', async () => {
    const both = await Promise.all([save({ removed: [run(0, 1)] }), save({ removed: [run(1, 2)] })]);
    expect(both.map(({ status }) => status).sort()).toEqual([200, 409]);
    const [won, lost] = both[0]!.status === 200 ? both : [both[1]!, both[0]!];
    expect(lost!.body.current.edit).toEqual(won!.body.edit);
    expect((await look()).edit).toEqual(won!.body.edit);
    expect((await look()).version).toBe(short.version + 1);
  });

  it('cannot be all of them, or beyond the talk, and the field is named', async () => {
    const all = await save({ removed: [{ firstWord: short.firstWord, endWord: short.endWord }] });
    expect([all.status, all.body.errors]).toEqual([400, [{ field: 'edit.removed', detail: 'leaves nothing of the passage' }]]);
    const { wordCount } = await talk();
    const beyond = await save({ after: [run(0, 1), { firstWord: wordCount, endWord: wordCount + 1 }] });
    expect([beyond.status, beyond.body.errors[0].field]).toEqual([400, 'edit.after.1']);
    const pause = await save({ pauses: [{ afterWord: wordCount - 1, leftMs: 100 }] });
    expect(pause.body.errors[0].field).toBe('edit.pauses.0.afterWord');
    const bad = [
      { removed: 'all' },
      { removed: run(0, 1) },
      { removed: [[0, 1]] },
      { pauses: [{ afterWord: -1, leftMs: 0 }] },
      { pauses: [{ afterWord: short.firstWord, leftMs: 1e9 }] },
      { corrected: [{ word: short.firstWord, text: 'a'.repeat(1_000_000) }] },
      { before: Array.from({ length: 41 }, () => run(0, 1)) },
    ];
    for (const edit of bad) {
      const { status, body } = await save(edit);
      expect([status, body.errors?.[0]?.field], JSON.stringify(edit).slice(0, 80)).toEqual([400, expect.stringMatching(/^edit\./)]);
    }
    expect((await world.owner.put(`shorts/${short.id}/edit`, { edit: [], version: short.version })).status).toBe(400);
    expect((await look()).version).toBe(short.version);
  });

  it('stay struck out when an end is moved, and no end is moved to where nothing would be left', async () => {
    const { body } = await save({ removed: [run(2, 6)] });
    const moved = await world.owner.put(`candidates/${candidateId}/span`, { firstWord: short.firstWord + 1, endWord: short.endWord });
    expect(moved.status, moved.text).toBe(200);
    const now = await look();
    expect(now.edit).toEqual(body.edit);
    expect(now.playedMs).toBeLessThan(body.playedMs);
    const cuts = (await world.read(`shorts/${short.id}/passage`)).body.cuts as { startMs: number; endMs: number }[];
    expect(now.playedMs).toBe(cuts.reduce((sum, one) => sum + one.endMs - one.startMs, 0));
    const empty = await world.owner.put(`candidates/${candidateId}/span`, run(3, 5));
    expect([empty.status, empty.body.detail]).toEqual([409, 'Every word between these ends is struck out of its short. Bring some back first.']);
    expect((await look()).firstWord).toBe(short.firstWord + 1);
  });

  it('and an end that is moved meanwhile never leave a length that neither plays', async () => {
    const ends = { firstWord: short.firstWord + 1, endWord: short.endWord };
    const both = await Promise.all([save({ removed: [run(2, 6)] }), world.owner.put(`candidates/${candidateId}/span`, ends)]);
    expect(both.map(({ status }) => status)).toContain(200);
    const now = await look();
    const cuts = (await world.read(`shorts/${short.id}/passage`)).body.cuts as { startMs: number; endMs: number }[];
    expect(now.playedMs).toBe(cuts.reduce((sum, one) => sum + one.endMs - one.startMs, 0));
  });
});

describe('what is taken away of a recording', () => {
  it('is as it is cut: every span of it stands in the edit list, and the cut sheet names the first words that are played', async () => {
    const words = await said();
    await save({ removed: [run(0, 2), run(6, 9)] });
    const { cuts } = (await world.read(`shorts/${short.id}/passage`)).body as { cuts: { startMs: number }[] };
    const edl = (await world.read(`recordings/${short.recordingId}/kept.edl`)).text;
    expect(edl.split(/\r?\n/).filter((line) => /^\d{3} /.test(line)).length).toBe(cuts.length);
    const sheet = (await world.read(`recordings/${short.recordingId}/cut-sheet.csv`)).text;
    expect(sheet).toContain(words.slice(2, 5).join(' '));
    expect(sheet).not.toMatch(new RegExp(`,"?${words.slice(0, 3).join(' ')}`));
  });
});

describe('the rest of an edit', () => {
  it('corrects words where they are read, and leaves their time', async () => {
    const words = await said();
    const { body } = await save({ corrected: [{ word: short.firstWord + 1, text: 'Chimney' }] });
    expect([body.playedMs, body.version]).toEqual([short.playedMs, short.version + 1]);
    expect(spoken(await captions())).toBe([words[0], 'Chimney', ...words.slice(2)].join(' '));
    expect((await world.read(`shorts/${short.id}/passage`)).body.sentences[0].text).toContain('Chimney');
  });

  it('plays another part of the recording in front, and shows its words', async () => {
    const far = { firstWord: short.endWord + 200, endWord: short.endWord + 206 };
    const { body } = await save({ before: [far] });
    expect(body.playedMs).toBeGreaterThan(short.playedMs);
    const { talks } = await talk();
    expect(talks.length).toBe(2);
    expect(talks[1].firstWord).toBe(far.firstWord - 1);
    const front = talks[1].words.slice(1, 7).map(({ text }: { text: string }) => text);
    expect(spoken(await captions())).toBe([...front, ...(await said())].join(' '));
  });

  it('is tightened by cuts that are proposed and saved one by one', async () => {
    const ask = async (query: string): Promise<Answer> => world.read(`shorts/${short.id}/tightening${query}`);
    const { body: wide } = await ask('');
    const { body: close, status } = await ask('?pauseMs=300&paddingMs=50');
    expect(status).toBe(200);
    const pauses = close.filter(({ sort }: { sort: string }) => sort === 'pause');
    expect(pauses.length).toBeGreaterThan(wide.filter(({ sort }: { sort: string }) => sort === 'pause').length);
    const [one] = pauses;
    expect(one).toMatchObject({ leftMs: 100, endWord: one.firstWord + 2 });
    const { body } = await save({ pauses: [{ afterWord: one.firstWord, leftMs: one.leftMs }] });
    expect(body.playedMs).toBe(short.playedMs - one.savedMs);
    expect(
      (await ask('?pauseMs=300&paddingMs=50')).body.some(
        ({ firstWord, sort }: { firstWord: number; sort: string }) => sort === 'pause' && firstWord === one.firstWord,
      ),
    ).toBe(false);
    expect((await ask('?pauseMs=tomorrow')).status).toBe(400);
  });

  it('is drawn as its file will be, caption by caption', async () => {
    await save({ removed: [run(2, 6)] });
    const { body, status } = await world.read(`shorts/${short.id}/frames?shape=square`);
    expect(status).toBe(200);
    expect(body.ground).toMatch(/^<svg [^>]*viewBox="0 0 1080 1080"/);
    const words = await said();
    expect(body.captions.map(({ text }: { text: string }) => text).join(' ')).toBe([...words.slice(0, 2), ...words.slice(6)].join(' '));
    for (const { svg } of body.captions) expect(svg).toMatch(/^<svg .*<path d="M/s);
    await save({ corrected: [{ word: short.firstWord, text: '漢字' }] }, (await look()).version);
    const refused = await world.read(`shorts/${short.id}/frames?shape=square`);
    expect([refused.status, refused.body.detail]).toEqual([409, expect.stringContaining('漢 字')]);
    await save({ corrected: [{ word: short.firstWord, text: 'Хорошо 🔥' }] }, (await look()).version);
    expect((await world.read(`shorts/${short.id}/frames?shape=square`)).status).toBe(200);
  });

  it('is on record, and is the short’s own in the database: version and approval follow it whoever writes', async () => {
    await save({ removed: [run(0, 1)] });
    const trail = await query(`SELECT action FROM audit_entries WHERE subject_id = $1 ORDER BY at DESC LIMIT 1`, [short.id]);
    expect(trail).toEqual([{ action: 'cut' }]);
    const before = (await look()).version;
    await query(`UPDATE shorts SET edit = '{"removed":[],"pauses":[],"corrected":[],"before":[],"after":[]}' WHERE id = $1`, [short.id]);
    expect((await look()).version).toBe(before + 1);
  });
});

describe('a reel', () => {
  const siftOf = async (): Promise<string> => String((await query('SELECT sift_id FROM candidates WHERE id = $1', [candidateId]))[0]!['sift_id']);
  const rows = async (): Promise<unknown> => query('SELECT (SELECT count(*) FROM candidates) AS candidates, (SELECT count(*) FROM shorts) AS shorts');
  it('becomes one short of its parts, in the order of the recording, beside the shorts of the parts', async () => {
    const siftId = await siftOf();
    const { candidates } = (await world.read(`sifts/${siftId}/ranking`)).body;
    const parts = candidates
      .map(({ firstWord, endWord }: Answer['body']) => ({ firstWord, endWord }))
      .sort((a: { firstWord: number }, b: { firstWord: number }) => a.firstWord - b.firstWord);
    expect(parts.length).toBeGreaterThan(1);
    const { status, body, text } = await world.owner.post(`sifts/${siftId}/reel`, { parts });
    expect(status, text).toBe(201);
    // The best part is the passage; its own short stays what it is.
    const [best] = candidates;
    expect([body.firstWord, body.endWord]).toEqual([best.firstWord, best.endWord]);
    expect([...body.edit.before, { firstWord: body.firstWord, endWord: body.endWord }, ...body.edit.after]).toEqual(parts);
    expect(body.playedMs).toBeGreaterThan(body.endMs - body.startMs);
    expect((await look()).edit).toEqual(NO_EDIT);
    const after = (await world.read(`sifts/${siftId}/ranking`)).body.candidates;
    expect(after.filter(({ origin }: Answer['body']) => origin === 'own')).toMatchObject([{ state: 'kept', firstWord: best.firstWord }]);
    // Another of the same is another short.
    expect((await world.owner.post(`sifts/${siftId}/reel`, { parts })).body.id).not.toBe(body.id);
  });
  it.each([
    ['parts', []],
    [
      'parts.1',
      [
        { firstWord: 4, endWord: 9 },
        { firstWord: 8, endWord: 12 },
      ],
    ],
    [
      'parts.1',
      [
        { firstWord: 4, endWord: 9 },
        { firstWord: 12, endWord: 999_000 },
      ],
    ],
  ])('that cannot be played is refused by its field (%s), and nothing is made', async (field, parts) => {
    const before = await rows();
    const { status, body } = await world.owner.post(`sifts/${await siftOf()}/reel`, { parts });
    expect([status, body.errors[0].field, await rows()]).toEqual([400, field, before]);
  });
});

describe('a sound that was listened to', () => {
  const STEP_MS = 40;

  it('moves cuts into its silence, for the screen, the captions and the length alike', async () => {
    const { talks } = await talk();
    const { firstWord, words } = talks[0];
    const at = short.firstWord - firstWord + 4;
    // The voice stops 120 ms before the times say that a word ends, and a fifth of a second later it is there again.
    const [fromMs, toMs] = [words[at].endMs - 120, words[at].endMs + 120].map((ms) => Math.round(ms / STEP_MS) * STEP_MS) as [number, number];
    const levels = Buffer.alloc(Math.ceil((words.at(-1).endMs + 10_000) / STEP_MS), -20);
    levels.fill(-70, fromMs / STEP_MS, toMs / STEP_MS);
    levels.fill(-70, levels.length - 200);
    for (let i = 25; i < levels.length; i += 50) levels.fill(-70, i, i + 8); // there is quiet here and there, as in every room
    levels.fill(-20, fromMs / STEP_MS - 40, fromMs / STEP_MS);
    levels.fill(-20, toMs / STEP_MS, toMs / STEP_MS + 40);
    await query(
      `UPDATE recordings SET sound_track = 0, sound_file = 'heard.wav', sound_name = 'heard.wav', sound_type = 'audio/wav', sound_bytes = 4 WHERE id = $1`,
      [short.recordingId],
    );
    const before = (await save({ removed: [run(5, 8)] })).body;
    await query(`INSERT INTO voice_tracks (recording_id, client_id, sound_file, levels, pitches) VALUES ($1, $2, 'heard.wav', $3, $4)`, [
      short.recordingId,
      clientId,
      levels,
      Buffer.alloc(levels.length),
    ]);
    expect((await talk()).talks[0].words[at].endMs).toBe(words[at].endMs);
    await query(`UPDATE transcripts SET ends_heard_in = 'heard.wav' WHERE recording_id = $1`, [short.recordingId]);
    const heard = (await talk()).talks[0].words;
    expect([heard[at].endMs, heard[at + 1].startMs]).toEqual([fromMs, toMs]);

    const passage = (await world.read(`shorts/${short.id}/passage`)).body;
    expect(passage.cuts[0].endMs).toBeGreaterThan(fromMs);
    expect(passage.cuts[0].endMs).toBeLessThan(toMs);
    const again = (await save({ removed: [run(5, 8)], pauses: [] }, before.version)).body;
    const played = passage.cuts.reduce((sum: number, { startMs, endMs }: { startMs: number; endMs: number }) => sum + endMs - startMs, 0);
    expect(again.playedMs).toBe(played);
    expect(again.playedMs).not.toBe(before.playedMs);
    expect(lastMs(await captions())).toBeLessThanOrEqual(played);
  });
});
