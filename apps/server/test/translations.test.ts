import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { seedRanking } from './seed.js';
import { type Answer, query, World } from './world.js';

interface Unit {
  readonly id: string;
  readonly source: string;
  readonly target: string;
  readonly limit: number | null;
  readonly changed: boolean;
  readonly findings: readonly { readonly rule: string; readonly detail: string }[];
}
interface View {
  readonly units: readonly Unit[];
  readonly version: number;
  readonly readBy: string | null;
  readonly outdated: boolean;
  readonly draftedBy: string | null;
}

let world: World;
let clientId: string;
let shortId: string;
let channelId: string;
beforeAll(async () => {
  world = await World.make();
  clientId = await world.client();
  channelId = await world.channel(clientId, { name: 'Canal', order: 1, language: 'es' });
  await world.channel(clientId, { name: 'Second', order: 2 });
});
beforeEach(async () => {
  const seeded = await seedRanking(world, clientId);
  await world.owner.put(`candidates/${seeded.candidates[0]!.id}/state`, { state: 'kept' });
  shortId = (await world.shorts(seeded.recordingId))[0].id;
});
afterAll(() => world.close());

const SPANISH = () => `shorts/${shortId}/translations/es`;
const look = async (): Promise<View> => (await world.read(SPANISH())).body as View;
const save = async (targets: Record<string, string>, version?: number): Promise<Answer> =>
  world.owner.put(SPANISH(), { targets: Object.entries(targets).map(([unit, text]) => ({ unit, text })), version: version ?? (await look()).version });
const reading = async (read: boolean): Promise<Answer> => world.owner.put(`${SPANISH()}/reading`, { read, version: (await look()).version });
/** Every text said again, so that numbers and sounds are right. */
const whole = async (): Promise<Answer> => save(Object.fromEntries((await look()).units.map(({ id, source }) => [id, source])));
const problems = async (): Promise<{ field: string; detail: string }[]> =>
  (await world.read(`shorts/${shortId}`)).body.channels.find((one: { channelId: string }) => one.channelId === channelId).problems;
const approve = () => world.writeShort('PUT', shortId, 'approval', { approved: true });
let days = 0;
/** On a day of its own. */
const place = () => {
  days += 2;
  const date = `2055-05-${String(days).padStart(2, '0')}`;
  return world.owner.post('schedule/posts', { batchId: null, placements: [{ shortId, channelId, date, minute: 450, why: 'x' }] });
};

describe('a short in another language', () => {
  it('is open at first: its words and its captions, with what they may hold', async () => {
    const { units, version } = await look();
    expect(version).toBe(0);
    expect(units.map(({ id }) => id)).toEqual(expect.arrayContaining(['title', 'description', 'caption-1']));
    expect(units.every(({ target, findings }) => target === '' && findings[0]!.rule === 'missing')).toBe(true);
    expect((await world.read(`shorts/${shortId}/translations`)).body).toEqual([]);
    expect((await world.read(`shorts/${shortId}/translations/en`)).body.detail).toBe('The talk is in English already.');
    expect((await world.read(`shorts/${shortId}/translations/xx`)).status).toBe(404);
    expect((await world.read(`shorts/${shortId}/translations/../x`)).status).toBe(404);
    expect((await world.read(`shorts/${shortId}/translations/Spanish`)).status).toBe(400);
  });
  it('is written by version, unit by unit, and checked', async () => {
    const saved = await save({ title: 'Leña 4711' });
    expect([saved.status, saved.body.version]).toEqual([200, 1]);
    expect((saved.body as View).units[0]).toMatchObject({ target: 'Leña 4711', changed: false, findings: [expect.objectContaining({ rule: 'numbers' })] });
    const stale = await save({ title: 'Tarde' }, 0);
    expect([stale.status, stale.body.code, stale.body.current.units[0].target]).toEqual([409, 'stale', 'Leña 4711']);
    expect((await save({ 'caption-999': 'x' })).body.errors).toEqual([{ field: 'targets.0.unit', detail: 'is no part of this short' }]);
  });
  it('is begun by two at the same moment once', async () => {
    const both = await Promise.all([save({ title: 'Uno' }, 0), save({ title: 'Dos' }, 0)]);
    expect(both.map(({ status }) => status).sort()).toEqual([200, 409]);
    expect(await query('SELECT count(*)::int AS n FROM translations WHERE short_id = $1', [shortId])).toEqual([{ n: 1 }]);
  });
  it('is read only when all of it is there, and is no longer read when it changes', async () => {
    await save({ title: 'Leña' });
    expect((await reading(true)).body.detail).toMatch(/texts are not translated yet/);
    await whole();
    expect((await reading(true)).body).toMatchObject({ readBy: 'Owner', outdated: false });
    await save({ title: 'Otra cosa' });
    expect(await look()).toMatchObject({ readBy: null, outdated: false });
    await reading(true);
    expect((await reading(false)).body.readBy).toBeNull();
  });
  it('tells what has changed under it', async () => {
    await whole();
    await reading(true);
    const { copy } = (await world.read(`shorts/${shortId}`)).body;
    await world.writeShort('PUT', shortId, 'copy', { ...copy, title: 'Another title' });
    const view = await look();
    expect(view).toMatchObject({ readBy: null, outdated: true });
    expect(view.units.filter(({ changed }) => changed).map(({ id }) => id)).toEqual(['title']);
    expect(await problems()).toContainEqual({ field: 'language', detail: 'its words have changed since they were read in Spanish' });
  });
  it('is drafted by the program where it has the pair, and a draft is nobody’s word', async () => {
    await save({ title: 'Mi título' });
    const drafted = await world.owner.post(`${SPANISH()}/draft`, { version: 1 });
    expect([drafted.status, drafted.body.draftedBy, drafted.body.readBy]).toEqual([200, 'apertium', null]);
    const { units } = drafted.body as View;
    expect(units.find(({ id }) => id === 'title')!.target).toBe('Mi título');
    const captions = units.filter(({ id }) => id.startsWith('caption'));
    expect(captions.every(({ target }) => target !== '')).toBe(true);
    // The chimney is cold: it is Spanish that came back.
    expect(captions.map(({ target }) => target).join(' ')).toMatch(/\b(?:el|la|los|que|de|un|una)\b/);
    expect((await world.owner.post(`${SPANISH()}/draft`, { version: drafted.body.version })).body.detail).toBe('All of it is translated already.');
    const none = await world.owner.post(`shorts/${shortId}/translations/fi/draft`, { version: 0 });
    expect([none.status, none.body.detail]).toEqual([409, expect.stringContaining('No program here drafts Finnish')]);
  });
  it('gives captions once all of them are there', async () => {
    await save({ 'caption-1': 'Uno' });
    expect((await world.read(`${SPANISH()}/captions.srt`)).status).toBe(409);
    await whole();
    await save({ 'caption-1': 'Línea primera' });
    const { text, headers } = await world.read(`${SPANISH()}/captions.srt`);
    expect(text).toMatch(/^1\r\n00:00:00,\d+ --> [\d:,]+\r\nLínea primera\r\n/);
    expect(headers.get('content-disposition')).toContain('Spanish - captions.srt');
    expect((await world.read(`${SPANISH()}/captions.vtt`)).text).toMatch(/^WEBVTT\n\n/);
  });
  it('gives no captions that were translated from other words', async () => {
    await whole();
    const { siftId, candidateId, firstWord, endWord } = (await world.read(`shorts/${shortId}`)).body;
    expect(siftId).toBeDefined();
    await world.owner.put(`candidates/${candidateId}/span`, { firstWord: firstWord + 5, endWord });
    expect((await look()).units.some(({ changed }) => changed)).toBe(true);
    const refused = await world.read(`${SPANISH()}/captions.srt`);
    expect([refused.status, refused.body.detail]).toEqual([409, expect.stringMatching(/captions are not translated into Spanish, or have changed/)]);
  });
  it('is no draft any more once somebody has read it, or all of it has come back', async () => {
    expect((await world.owner.post(`${SPANISH()}/draft`, { version: 0 })).body.draftedBy).toBe('apertium');
    await save({ title: 'Mío' });
    expect((await look()).draftedBy).toBe('apertium');
    await reading(true);
    await save({ title: 'Mío, otra vez' });
    expect(await look()).toMatchObject({ draftedBy: null, readBy: null });
  });
  it('goes with its version, and only when nothing of it stands on the schedule', async () => {
    await whole();
    expect((await world.owner.delete(`${SPANISH()}?version=9`)).status).toBe(409);
    expect((await world.owner.delete(`${SPANISH()}?version=1`)).status).toBe(204);
    expect((await look()).version).toBe(0);
  });
});

describe('a channel of another language', () => {
  it('takes a short only when its words are read, and holds them while they stand there', async () => {
    await approve();
    expect(await problems()).toContainEqual({ field: 'language', detail: 'its words are not there in Spanish' });
    const early = await place();
    expect(early.status).toBe(409);
    await whole();
    expect(await problems()).toContainEqual({ field: 'language', detail: 'nobody has read its words in Spanish yet' });
    await save({ title: 'Leña mojada' });
    await reading(true);
    expect(await problems()).toEqual([]);
    const placed = await place();
    expect([placed.status, placed.body.detail]).toEqual([201, undefined]);
    const csv = (await world.read(`schedule/plan.csv?from=2055-01-01&to=2055-12-31&clientId=${clientId}`)).text;
    expect(csv).toContain('Leña mojada');
    // What stands there stays as it was read.
    expect([(await save({ title: 'Otra' })).status, (await reading(false)).status]).toEqual([409, 409]);
    expect((await world.owner.delete(`${SPANISH()}?version=${(await look()).version}`)).status).toBe(409);
    const { body: channels } = await world.owner.get('channels');
    const { id, name, zone, order, postsPerDay, postsPerWeek, windows, platform, version } = channels.find((one: { id: string }) => one.id === channelId);
    const changed = await world.owner.put(`channels/${id}`, {
      name,
      zone,
      order,
      postsPerDay,
      postsPerWeek,
      windows,
      platformProfileId: platform.id,
      language: 'ca',
      version,
    });
    expect([changed.status, changed.body.detail]).toEqual([409, expect.stringContaining('Posts stand on this channel')]);
  });
  it('cannot be given a post past the check, by two at the same moment', async () => {
    await approve();
    await whole();
    await reading(true);
    const [placed, edited] = await Promise.all([place(), save({ title: 'A la vez' })]);
    // Either the post came first, and the words stay read; or the words changed first, and there is no post.
    expect([placed.status, edited.status]).toSatisfy(([a, b]: number[]) => (a === 201 && b === 409) || (a !== 201 && b === 200));
    const [row] = await query(
      `SELECT count(*)::int AS n FROM posts p JOIN translations t ON t.short_id = p.short_id AND t.language = 'es' WHERE p.short_id = $1 AND t.read_version IS NULL`,
      [shortId],
    );
    expect(row).toEqual({ n: 0 });
  });
  it('may have words of its own in place of a translation', async () => {
    const { copy } = (await world.read(`shorts/${shortId}`)).body;
    await world.writeShort('PUT', shortId, `copy/${channelId}`, { ...copy, title: 'Propio' });
    expect(await problems()).toEqual([]);
  });
});

describe('XLIFF', () => {
  const out = async (): Promise<string> => (await world.read(`${SPANISH()}/xliff`)).text;
  const back = async (xliff: string): Promise<Answer> => world.owner.post(`shorts/${shortId}/xliff`, { xliff, version: (await look()).version });
  const translated = (xliff: string): string =>
    xliff.replace(/(<source[^>]*>)([^]*?)<\/source>/g, (_, open: string, text: string) => `${open}${text}</source><target>${text} ñ</target>`);
  it('goes out and comes back, checked', async () => {
    const answer = await back(translated(await out()));
    expect([answer.status, answer.body.version]).toEqual([200, 1]);
    const { units } = answer.body as View;
    expect(units.every(({ source, target }) => target === `${source} ñ`)).toBe(true);
    expect(units.flatMap(({ findings }) => findings).some(({ rule }) => rule === 'missing')).toBe(false);
    expect(await out()).toContain('ñ</target>');
  });
  it('keeps what it does not hold', async () => {
    await save({ description: 'Queda.' });
    const title = /<unit id="title"[^]*?<\/unit>/.exec(translated(await out()))![0];
    const one = (await out()).replace(/<group[^]*<\/group>/, title);
    const { units } = (await back(one)).body as View;
    expect(units.find(({ id }) => id === 'description')!.target).toBe('Queda.');
    expect(units.find(({ id }) => id === 'title')!.target).toMatch(/ñ$/);
  });
  it.each<[string, (xliff: string) => string, RegExp]>([
    ['broken', (xliff) => xliff.slice(0, 300), /^line \d+: /],
    ['of another short', (xliff) => xliff.replace(/<file id="[^"]+"/, '<file id="other"'), /of another short/],
    [
      'whose source has changed',
      (xliff) => xliff.replace(/(<unit id="title"[^]*?<source[^>]*>)/, '$1Otherwise: '),
      /line \d+: the source of Title is not what the short says now/,
    ],
    ['with a unit that is not known', (xliff) => xliff.replace('unit id="title"', 'unit id="heading"'), /line \d+: unit heading is no part/],
    ['with nothing in it', (xliff) => xliff.replace(/<target>[^]*?<\/target>/g, ''), /Nothing in this XLIFF is translated/],
    ['into no language', (xliff) => xliff.replace('trgLang="es"', 'trgLang="abc-1"'), /trgLang is abc-1; a code such as es/],
    ['into the talk’s own language', (xliff) => xliff.replace('trgLang="es"', 'trgLang="en"'), /in English already/],
  ])('that is %s is refused, and nothing of it is kept', async (_, spoil, says) => {
    const answer = await back(spoil(translated(await out())));
    expect(answer.status).toBeGreaterThanOrEqual(400);
    expect(answer.status).toBeLessThan(500);
    expect(answer.body.detail).toMatch(says);
    expect((await look()).version).toBe(0);
  });
});
