import { parse } from 'csv-parse/sync';
import { parseSync } from 'subtitle';
import { cutFrames, readEdl, readOtio } from '@sift-reel/core';
import { fieldsOf } from '@sift-reel/core/fitting';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { seedRanking } from './seed.js';
import { query, World } from './world.js';

let world: World;
let clientId: string;
let seeded: Awaited<ReturnType<typeof seedRanking>>;
beforeAll(async () => {
  world = await World.make();
  clientId = await world.client();
  await world.channel(clientId);
  seeded = await seedRanking(world, clientId);
});
afterAll(() => world.close());

const setState = (i: number, state: string) => world.owner.put(`candidates/${seeded.candidates[i]!.id}/state`, { state });
const shortOf = async (i: number) => (await world.shorts()).find((short: { candidateId: string }) => short.candidateId === seeded.candidates[i]!.id);

describe('a kept candidate', () => {
  it('becomes a short with words that were said or are the client’s', async () => {
    expect((await setState(0, 'kept')).body.state).toBe('kept');
    const short = await shortOf(0);
    expect(short.copy.title.length).toBeGreaterThan(3);
    const said = seeded
      .text(short.firstWord, short.endWord)
      .toLowerCase()
      .replace(/[^a-z0-9 ]/g, '');
    for (const word of short.copy.title
      .toLowerCase()
      .replace(/[^a-z0-9 ]/g, '')
      .split(' '))
      if (!/\d/.test(word)) expect([...said.split(' '), 'why', 'what', 'happens', 'dont']).toContain(word);
    const all = seeded
      .text(0, 100_000)
      .toLowerCase()
      .replace(/[^a-z0-9]/g, '');
    const fields = fieldsOf(
      seeded
        .text(0, 100_000)
        .toLowerCase()
        .split(/[^a-z0-9'-]+/),
      9,
    ).map(({ tag }) => tag);
    for (const tag of short.copy.hashtags) expect(all.includes(tag) || ['firewood', ...fields].includes(tag.replace(/tips$/, ''))).toBe(true); // of the whole recording
    expect(short.channels[0].problems).toEqual([]);
  });
  it('keeps its words when it is left and kept again', async () => {
    const short = await shortOf(0);
    await world.writeShort('PUT', short.id, 'copy', { ...short.copy, title: 'Mine' });
    await setState(0, 'open');
    expect(await shortOf(0)).toBeUndefined();
    await setState(0, 'kept');
    expect((await shortOf(0)).copy.title).toBe('Mine');
  });
  it('moves its short along when its ends are moved', async () => {
    const { firstWord, endWord, id } = seeded.candidates[0]!;
    const moved = await world.owner.put(`candidates/${id}/span`, { firstWord: firstWord + 2, endWord });
    expect(moved.body).toMatchObject({ firstWord: firstWord + 2, foundFirstWord: firstWord });
    expect((await shortOf(0)).firstWord).toBe(firstWord + 2);
    expect((await world.owner.put(`candidates/${id}/span`, { firstWord: 5, endWord: 5 })).status).toBe(400);
    expect((await world.owner.put(`candidates/${id}/span`, { firstWord: 5, endWord: 999_999 })).status).toBe(409);
  });
});

describe('words', () => {
  it('have a variant for each channel, with its limits', async () => {
    await setState(1, 'kept');
    const short = await shortOf(1);
    const channelId = short.channels[0].channelId;
    const long = { ...short.copy, title: 'x'.repeat(101), hashtags: ['a', 'b', 'c', 'd', 'e', 'f'] };
    const answer = (await world.writeShort('PUT', short.id, `copy/${channelId}`, long)).body;
    expect(answer.copy.title).toBe(short.copy.title);
    expect(answer.channels[0].variant.title).toHaveLength(101);
    expect(answer.channels[0].problems).toEqual([
      { field: 'title', detail: '101 characters, 100 allowed' },
      { field: 'hashtags', detail: '6 hashtags, 5 allowed' },
    ]);
    expect((await world.writeShort('DELETE', short.id, `copy/${channelId}`)).body.channels[0]).toMatchObject({ variant: null, problems: [] });
  });
  it('are proposed afresh without being saved', async () => {
    const short = await shortOf(1);
    await world.writeShort('PUT', short.id, 'copy', { ...short.copy, title: 'Other' });
    const proposal = (await world.owner.post(`shorts/${short.id}/proposal`)).body;
    expect(proposal.title).toBe(short.copy.title);
    expect((await shortOf(1)).copy.title).toBe('Other');
  });
  it('offer a few titles, each with the words that it was made of, inside the limits of all channels or of one', async () => {
    const short = await shortOf(1);
    const { channelId, titleLimit } = short.channels[0];
    const offered = `shorts/${short.id}/titles`;
    for (const path of [offered, `${offered}?channelId=${channelId}`]) {
      const { status, body } = await world.owner.get(path);
      expect(status).toBe(200);
      expect(body.length).toBeGreaterThan(1);
      expect(new Set(body.map(({ text }: { text: string }) => text)).size).toBe(body.length);
      const words = seeded.text(short.firstWord, short.endWord);
      for (const { text, said } of body) {
        expect(words).toContain(said);
        expect(text.length).toBeLessThanOrEqual(titleLimit);
      }
    }
    expect((await world.owner.get(`${offered}?channelId=${short.id}`)).status).toBe(404);
  });
  it('are proposed by what the last finished sift found: its subject, and its language', async () => {
    const short = await shortOf(1);
    const propose = async () => (await world.owner.post(`shorts/${short.id}/proposal`)).body as { title: string; hashtags: string[] };
    const field = { tag: 'bargehorse', wider: null, weight: 9, said: ['barge', 'horse'] };
    await query('UPDATE sifts SET subject = $2 WHERE id = $1', [seeded.siftId, JSON.stringify({ compounds: [], singles: [], fields: [field] })]);
    expect((await propose()).hashtags).toContain('bargehorse');
    // What the recording is called counts, too, where it is said in it.
    expect((await propose()).hashtags).not.toContain('coldchimney');
    await query(`UPDATE recordings SET title = 'The cold chimney, a talk' WHERE id = $1`, [seeded.recordingId]);
    expect((await propose()).hashtags).toContain('coldchimney');
    // One that waits has found nothing, and changes nothing.
    await query(
      `INSERT INTO sifts (recording_id, client_id, brief_id, created_at) SELECT recording_id, client_id, brief_id, now() + interval '1 hour' FROM sifts WHERE id = $1`,
      [seeded.siftId],
    );
    expect((await propose()).hashtags).toContain('bargehorse');
    await query(`UPDATE sifts SET language = 'de' WHERE id = $1`, [seeded.siftId]);
    const path = `shorts/${short.id}/titles`;
    const offered = await world.owner.get(path);
    expect([(await propose()).hashtags.includes('bargehorse'), offered.body]).toEqual([false, []]);
    await query('UPDATE sifts SET language = NULL, subject = NULL WHERE id = $1', [seeded.siftId]);
  });
  it('are locked by approval', async () => {
    const short = await shortOf(1);
    expect((await world.writeShort('PUT', short.id, 'approval', { approved: true })).body).toMatchObject({ approved: true, approvedBy: 'Owner' });
    expect((await world.writeShort('PUT', short.id, 'copy', short.copy)).status).toBe(409);
    expect((await world.owner.put(`candidates/${seeded.candidates[1]!.id}/span`, { firstWord: short.firstWord + 1, endWord: short.endWord })).status).toBe(409);
    expect((await world.writeShort('PUT', short.id, 'approval', { approved: false })).body.approved).toBe(false);
  });
  it('need a title to be approved', async () => {
    const short = await shortOf(1);
    await world.writeShort('PUT', short.id, 'copy', { ...short.copy, title: '  ' });
    expect((await world.writeShort('PUT', short.id, 'approval', { approved: true })).status).toBe(422);
  });
});

describe('files to take away', () => {
  it('are captions that start at zero, read back by a reference parser', async () => {
    const short = await shortOf(0);
    const srt = await world.read(`shorts/${short.id}/captions.srt`);
    expect(srt.headers.get('content-disposition')).toMatch(/^attachment; filename="[\x20-\x7e]+captions\.srt"/);
    const cues = parseSync(srt.text).map((node) => node.data as { start: number; end: number; text: string });
    expect(cues[0]!.start).toBeLessThan(300);
    expect(cues.at(-1)!.end).toBeLessThanOrEqual(short.endMs - short.startMs);
    expect(cues.map((cue) => cue.text).join(' ')).toBe(seeded.text(short.firstWord, short.endWord));
    const vtt = await world.read(`shorts/${short.id}/captions.vtt`);
    expect(vtt.text.startsWith('WEBVTT\n\n00:00:00.')).toBe(true);
    expect(vtt.headers.get('content-type')).toContain('text/vtt');
  });
  it('are a cut sheet as CSV and as a page', async () => {
    const csv = await world.owner.get(`recordings/${seeded.recordingId}/cut-sheet.csv`);
    const rows = parse(csv.text, { bom: true, columns: true, record_delimiter: '\r\n' }) as Record<string, string>[];
    expect(rows).toHaveLength(2);
    expect(Object.keys(rows[0]!)).toEqual([
      'kind',
      'start',
      'stop',
      'length',
      'first words',
      'last words',
      'title',
      'description',
      'keywords',
      'cover line',
      'reason',
    ]);
    expect(rows[0]!['start']).toMatch(/^\d\d:\d\d:\d\d\.\d{3}$/);
    const page = await world.owner.get(`recordings/${seeded.recordingId}/cut-sheet`);
    expect(page.headers.get('content-type')).toContain('text/html');
    expect(page.text).toContain(rows[0]!['start']);
    expect(page.text).not.toContain('<script');
  });
  it('are edit lists, in the order it was said, that say the same cuts when they are read', async () => {
    const shorts = [await shortOf(0), await shortOf(1)].sort((a, b) => a.startMs - b.startMs);
    const rate = { numerator: 25, denominator: 1 };
    const wanted = shorts.map(({ copy, firstLine, startMs, endMs }) => ({ title: copy.title || firstLine, spans: cutFrames([{ startMs, endMs }], rate) }));
    const edl = await world.owner.get(`recordings/${seeded.recordingId}/kept.edl`);
    expect(edl.headers.get('content-disposition')).toContain('.edl');
    expect(readEdl(edl.text, rate).passages).toEqual(wanted);
    const otio = await world.owner.get(`recordings/${seeded.recordingId}/kept.otio`);
    expect(readOtio(otio.text, rate).passages).toEqual(wanted);
  });
});

describe('the history of words', () => {
  const history = async (shortId: string) => (await world.read(`shorts/${shortId}/history`)).body;
  it('begins with what was proposed, and one sitting of one person is one version', async () => {
    await setState(2, 'kept');
    const { id, copy } = await shortOf(2);
    expect(await history(id)).toMatchObject([{ writtenBy: null, channel: null, copy }]);
    for (const title of ['A', 'A line', 'A line of mine']) await world.writeShort('PUT', id, 'copy', { ...copy, title });
    expect((await history(id)).map(({ writtenBy, copy: { title } }: { writtenBy: string | null; copy: { title: string } }) => [writtenBy, title])).toEqual([
      ['Owner', 'A line of mine'],
      [null, copy.title],
    ]);
  });
  it('keeps apart who wrote, and for which channel; what was written before a while is a version of its own', async () => {
    const { id, copy, channels } = await shortOf(2);
    const producer = await world.producer([clientId]);
    const version = () => world.version(`shorts/${id}`);
    await producer.put(`shorts/${id}/copy`, { ...copy, title: 'Of a producer', version: await version() });
    await world.writeShort('PUT', id, `copy/${channels[0].channelId}`, { ...copy, title: 'For one channel' });
    await query(`UPDATE copy_versions SET written_at = written_at - interval '1 hour' WHERE short_id = $1`, [id]);
    await world.writeShort('PUT', id, `copy/${channels[0].channelId}`, { ...copy, title: 'For one channel, later' });
    const rows = (await history(id)) as { channel: string | null; copy: { title: string } }[];
    expect(rows.map((one) => [one.channel, one.copy.title]).slice(0, 3)).toEqual([
      ['First', 'For one channel, later'],
      ['First', 'For one channel'],
      [null, 'Of a producer'],
    ]);
  });
  it('two at once write one after the other, and both are there', async () => {
    const { id, copy } = await shortOf(2);
    const producer = await world.producer([clientId]);
    const version = await world.version(`shorts/${id}`);
    const both = await Promise.all([
      world.owner.put(`shorts/${id}/copy`, { ...copy, title: 'Mine at once', version }),
      producer.put(`shorts/${id}/copy`, { ...copy, title: 'Theirs at once', version }),
    ]);
    expect(both.map(({ status }) => status).sort()).toEqual([200, 409]);
    const [last] = (await history(id)) as { copy: { title: string } }[];
    expect(last!.copy.title).toBe((await shortOf(2)).copy.title);
  });
  it('is nobody else’s to read', async () => {
    const stranger = await world.producer([await world.client()]);
    const at = `shorts/${(await shortOf(2)).id}/history`;
    expect((await stranger.get(at)).status).toBe(404);
  });
});
