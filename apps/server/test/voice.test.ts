import { randomUUID } from 'node:crypto';
import { OPEN_VOICE } from '@sift-reel/core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { seedRanking } from './seed.js';
import { query, World } from './world.js';

let world: World;
let clientId: string;
let shortId: string;
let passage: string;
beforeAll(async () => {
  world = await World.make();
  clientId = await world.client();
  await world.channel(clientId);
  const seeded = await seedRanking(world, clientId);
  await world.owner.put(`candidates/${seeded.candidates[0]!.id}/state`, { state: 'kept' });
  const short = (await world.shorts(seeded.recordingId))[0];
  shortId = short.id;
  passage = seeded.text(short.firstWord, short.endWord);
});
afterAll(() => world.close());

const clientNow = async () => (await world.owner.get('clients')).body.find((one: { id: string }) => one.id === clientId);
const setVoice = async (voice: object) =>
  world.owner.put(`clients/${clientId}/voice`, { voice: { ...OPEN_VOICE, ...voice }, version: (await clientNow()).version });
const check = async (fields: object) =>
  (await world.owner.post(`shorts/${shortId}/check`, { title: '', description: '', hashtags: [], keywords: [], coverLine: '', ...fields })).body;
const short = async () => (await world.read(`shorts/${shortId}`)).body;
const someSaid = (): string => passage.split(' ').slice(4, 12).join(' ');

describe('a client’s voice', () => {
  it('is open at first, is set whole, and is written into the trail', async () => {
    expect((await clientNow()).voice).toEqual(OPEN_VOICE);
    const voice = {
      use: [{ say: 'firewood', not: 'logs' }],
      avoid: ['dirt cheap'],
      spelling: 'british',
      fixedParts: ['upthe.example'],
      alwaysTags: ['UpTheFlue'],
      longestTitle: 50,
    };
    expect((await setVoice(voice)).body.voice).toEqual({ ...OPEN_VOICE, ...voice });
    expect((await world.owner.get(`clients/${clientId}/audit`)).body[0]).toMatchObject({ action: 'voice', subject: 'client' });
  });
  it('is refused field by field, and a writer who saw an older one is stale', async () => {
    const before = await clientNow();
    const bad = await setVoice({ use: [{ say: '', not: 'x' }], capitals: 'LOUD', longestTitle: 3 });
    expect(bad.status).toBe(400);
    expect(bad.body.errors.map((one: { field: string }) => one.field).sort()).toEqual(['voice.capitals', 'voice.longestTitle', 'voice.use.0.say']);
    const both = await Promise.all(
      [1, 2].map((n) => world.owner.put(`clients/${clientId}/voice`, { voice: { ...before.voice, avoid: [`word ${n}`] }, version: before.version })),
    );
    expect(both.map(({ status }) => status).sort()).toEqual([200, 409]);
    await setVoice(before.voice);
  });
  it('shows in what is proposed, and its fixed parts count into the limits and go out with a text', async () => {
    const proposal = (await world.owner.post(`shorts/${shortId}/proposal`)).body;
    expect(proposal.hashtags[0]).toBe('UpTheFlue');
    expect(proposal.title.length).toBeLessThanOrEqual(50);
    const now = await short();
    expect(now.fixedParts).toEqual(['upthe.example']);
    await world.writeShort('PUT', shortId, 'copy', { ...now.copy, description: 'y'.repeat(290) });
    expect((await short()).channels[0].problems).toEqual([{ field: 'description', detail: '305 characters, 300 allowed' }]);
    await world.writeShort('PUT', shortId, 'copy', now.copy);
  });
});

describe('the check of words', () => {
  it('finds what was not said and what is not how the client writes, and saves nothing', async () => {
    const before = await short();
    const { findings } = await check({ title: `Kestrelwick: 4711 logs`, description: `${someSaid()} recieve dirt cheap` });
    const found = findings.map(({ field, rule, text, mend }: { field: string; rule: string; text: string; mend: string | null }) => [field, rule, text, mend]);
    expect(found).toEqual(
      expect.arrayContaining([
        ['title', 'name', 'Kestrelwick', null],
        ['title', 'figure', '4711', null],
        ['title', 'use', 'logs', 'firewood'],
        ['description', 'spelling', 'recieve', 'receive'],
        ['description', 'avoid', 'dirt cheap', null],
        ['hashtags', 'use', '', 'UpTheFlue'],
      ]),
    );
    expect(await short()).toEqual(before);
  });
  it('spells as the client does', async () => {
    const spelled = async () =>
      (await check({ description: 'My favourite color' })).findings
        .filter((one: { rule: string }) => one.rule === 'spelling')
        .map((one: { text: string }) => one.text);
    expect(await spelled()).toEqual(['color']);
    const { voice } = await clientNow();
    await setVoice({ ...voice, spelling: 'american' });
    expect(await spelled()).toEqual(['favourite']);
    await setVoice({ ...voice, spelling: 'any' });
    expect(await spelled()).toEqual([]);
    await setVoice(voice);
  });
  it('finds nothing in what the program itself proposes', async () => {
    const proposal = (await world.owner.post(`shorts/${shortId}/proposal`)).body;
    const truth = (await check(proposal)).findings.filter((one: { rule: string }) => ['figure', 'name', 'quotation', 'claim'].includes(one.rule));
    expect(truth).toEqual([]);
  });
  it('does not show another client’s short to anybody', async () => {
    const stranger = await world.producer([await world.client()]);
    expect((await stranger.post(`shorts/${shortId}/check`, { title: 'x', description: '', hashtags: [], keywords: [], coverLine: '' })).status).toBe(404);
    expect((await stranger.put(`clients/${clientId}/voice`, { voice: OPEN_VOICE, version: 1 })).status).toBe(404);
  });
});

describe('approving what was not said', () => {
  const approve = (ticks?: object[]) => world.writeShort('PUT', shortId, 'approval', { approved: true, ...(ticks === undefined ? {} : { ticks }) });
  it('needs a person’s tick for each thing, whichever channel has it', async () => {
    const { copy, channels } = await short();
    await world.writeShort('PUT', shortId, 'copy', { ...copy, title: `${someSaid()} 4711` });
    await world.writeShort('PUT', shortId, `copy/${channels[0].channelId}`, { ...copy, title: `${someSaid()} of Kestrelwick` });
    const refused = await approve();
    expect(refused.status).toBe(422);
    expect(refused.body).toMatchObject({ code: 'unsaid' });
    expect(refused.body.unsaid.map(({ rule, text }: { rule: string; text: string }) => `${rule} ${text}`).sort()).toEqual(['figure 4711', 'name Kestrelwick']);
    expect((await approve([{ rule: 'figure', text: '4711' }])).body.unsaid).toHaveLength(1);
    expect((await short()).approved).toBe(false);
    const done = await approve([
      { rule: 'figure', text: '4711' },
      { rule: 'name', text: 'Kestrelwick' },
    ]);
    expect([done.status, done.body.approved]).toEqual([200, true]);
    const [row] = await query('SELECT ticks FROM shorts WHERE id = $1', [shortId]);
    expect(row!.ticks).toMatchObject([
      { rule: 'figure', text: '4711' },
      { rule: 'name', text: 'Kestrelwick' },
    ]);
  });
  it('is remembered, so that the same words need no second tick', async () => {
    await world.writeShort('PUT', shortId, 'approval', { approved: false });
    expect((await check({ title: '4711' })).findings[0]).toMatchObject({ rule: 'figure', ticked: true });
    expect((await approve()).status).toBe(200);
    await world.writeShort('PUT', shortId, 'approval', { approved: false });
  });
  it('by two at once keeps the ticks of both, and no tick that its words do not need', async () => {
    const { version } = await short();
    await query(`UPDATE shorts SET ticks = '[]' WHERE id = $1`, [shortId]);
    const producer = await world.producer([clientId]);
    const needed = [
      { rule: 'figure', text: '4711' },
      { rule: 'name', text: 'Kestrelwick' },
    ];
    const yes = (ticks: object[]) => ({ approved: true, version, ticks });
    const answers = await Promise.all([
      world.owner.put(`shorts/${shortId}/approval`, yes([...needed, { rule: 'claim', text: 'nowhere in it' }])),
      producer.put(`shorts/${shortId}/approval`, yes(needed)),
    ]);
    expect(answers.map(({ status }) => status)).toEqual([200, 200]);
    const [row] = await query('SELECT ticks FROM shorts WHERE id = $1', [shortId]);
    const ticks = row!['ticks'] as { rule: string; text: string; by: string }[];
    expect(ticks.map(({ rule, text }) => ({ rule, text }))).toEqual(needed);
    expect(new Set(ticks.map(({ by }) => by)).size).toBe(1); // whoever was first ticked them; the second found them ticked
    await world.writeShort('PUT', shortId, 'approval', { approved: false });
  });
  it('is decided on the words that are approved: who changed them meanwhile is asked again', async () => {
    const { copy, version } = await short();
    const [answer, saved] = await Promise.all([
      world.owner.put(`shorts/${shortId}/approval`, { approved: true, version }),
      world.owner.put(`shorts/${shortId}/copy`, { ...copy, title: `${randomUUID().replace(/\D/g, '')}9 liars`, version }),
    ]);
    // Whichever came first, no short is approved with an unticked figure.
    const now = await short();
    expect([answer.status, saved.status].sort()).toEqual([200, 409]);
    if (now.approved) expect(now.copy.title).toBe(copy.title);
    else expect((await approve()).status).toBe(422);
  });
});
