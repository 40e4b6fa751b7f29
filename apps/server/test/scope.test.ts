import { randomUUID } from 'node:crypto';
import { NO_EDIT, OPEN_VOICE, PLAIN_CARD } from '@sift-reel/core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { approveShorts, seedRanking } from './seed.js';
import { BRIEF, type Caller, filesForm, query, talk, World } from './world.js';

let world: World;
let producer: Caller;
let theirs: Record<string, string>;
let own: string;
beforeAll(async () => {
  world = await World.make();
  const other = await world.client();
  own = await world.client();
  producer = await world.producer([own]);
  const channelId = await world.channel(other);
  const seeded = await seedRanking(world, other);
  const [shortId] = await approveShorts(world, seeded, 1);
  const post = (await world.owner.post('schedule/posts', { batchId: null, placements: [{ shortId, channelId, date: '2055-05-05', minute: 450, why: 'x' }] }))
    .body[0];
  const blackout = (await world.owner.post(`clients/${other}/blackouts`, { channelId: null, fromDate: '2055-01-01', toDate: '2055-01-01', reason: 'x' })).body;
  const batch = (await world.owner.post('batches', { name: 'Theirs', shortIds: [shortId] })).body;
  const [render] = await query(`INSERT INTO renders (client_id, short_id, key, shape, plan) VALUES ($1, $2, 'k', 'wide', '{"cuts":[]}') RETURNING id`, [
    other,
    shortId,
  ]);
  const [preparation] = await query(
    `INSERT INTO preparations (recording_id, client_id, sound_file, sound_track, proxy_file, sprite_file, sprite)
       VALUES ($1, $2, 'a.mp3', 0, 'a.m4a', 'a.jpg', '{}') RETURNING id`,
    [seeded.recordingId, other],
  );
  const [feed] = await query(`INSERT INTO feeds (client_id, url, title, rule) VALUES ($1, 'https://shows.example/feed.xml', 'Theirs', 'list') RETURNING id`, [
    other,
  ]);
  const [episode] = await query(
    `INSERT INTO episodes (client_id, feed_id, guid, title, summary, enclosure, transcripts, persons, season_name, number, is_new)
       VALUES ($1, $2, 'g', 'Theirs', '', '{"url":"https://media.example/a.mp3","type":"audio/mpeg","bytes":null}', '[]', '[]', '', '', true) RETURNING id`,
    [other, feed!['id']],
  );
  await query(
    `WITH f AS (INSERT INTO fetches (client_id, recording_id, url, transcripts, then_sift) VALUES ($1, $2, 'https://media.example/a.mp3', '[]', false) RETURNING id)
       INSERT INTO jobs (kind, subject_id, client_id, about, lock_key, size, state, finished_at) SELECT 'fetch', id, $1, '{}', 'fetch', 'short', 'done', now() FROM f`,
    [other, seeded.recordingId],
  );
  const [writing] = await query(`INSERT INTO writings (client_id, short_id, request) VALUES ($1, $2, '{}') RETURNING id`, [other, shortId]);
  const document = (await world.owner.post(`recordings/${seeded.recordingId}/documents`, { kind: 'quote-cards' })).body;
  const calendar = (await world.owner.post(`clients/${other}/calendars`, { name: 'Theirs' })).body;
  const [account] = await query(
    `INSERT INTO accounts (client_id, service, remote_id, name, scopes, access_token, access_ends_at) VALUES ($1, 'fernpost', $2, 'Theirs', '{}', '\\x00', now()) RETURNING id`,
    [other, `theirs-${other}`],
  );
  theirs = {
    accountId: String(account!['id']),
    calendarId: calendar.id,
    feedId: String(feed!['id']),
    episodeId: String(episode!['id']),
    documentId: document.id,
    writingId: String(writing!['id']),
    preparationId: String(preparation!['id']),
    renderId: String(render!['id']),
    clientId: other,
    channelId,
    recordingId: seeded.recordingId,
    siftId: seeded.siftId,
    candidateId: seeded.candidates[0]!.id,
    shortId: shortId!,
    postId: post.id,
    blackoutId: blackout.id,
    batchId: batch.id,
  };
});
afterAll(() => world.close());

const CLIENT = { name: 'Taken', zone: 'UTC', tags: [], standingBrief: BRIEF, version: 1 };
const COPY = { title: 'x', description: '', hashtags: [], keywords: [], coverLine: '', version: 1 };
const channelForm = async (fields: object = {}): Promise<object> => ({
  name: 'C',
  platformProfileId: await world.platform(),
  zone: 'UTC',
  order: 1,
  postsPerDay: 1,
  postsPerWeek: 1,
  windows: [],
  ...fields,
});

const SHORT = 'shorts/:shortId';
const XLIFF = '<xliff xmlns="urn:oasis:names:tc:xliff:document:2.0" version="2.1" srcLang="en" trgLang="es"><file id="x"><unit id="title"/></file></xliff>';

/** Every route that names something of a client: method, path, body. A route that is missing here fails the last test. */
const ROUTES: [string, string, unknown?][] = [
  ['PUT', 'clients/:clientId', CLIENT],
  ['PUT', 'clients/:clientId/voice', { voice: OPEN_VOICE, version: 1 }],
  ['PUT', 'clients/:clientId/writing-service', { allowed: true, version: 1 }],
  ['PUT', 'clients/:clientId/files-kept', { days: 30, version: 1 }],
  ['PUT', 'clients/:clientId/come-again', { days: 30, version: 1 }],
  ['PUT', 'shorts/:shortId/evergreen', { evergreen: true }],
  ['PUT', 'renders/:renderId/keeping'],
  ['PUT', 'clients/:clientId/signal-weights', { weights: null, version: 1 }],
  ['GET', 'clients/:clientId/interest'],
  ['PUT', 'clients/:clientId/interest', { csv: 'term,volume,competition,change\n' }],
  ['GET', 'clients/:clientId/audit'],
  ['GET', 'recordings/:recordingId/search?q=roof'],
  ['POST', 'sifts/:siftId/candidates', { firstWord: 0, endWord: 4 }],
  ['POST', 'clients/:clientId/channels', () => channelForm()],
  ['PUT', 'channels/:channelId', () => channelForm({ version: 1 })],
  ['DELETE', 'channels/:channelId'],
  ['POST', 'clients/:clientId/blackouts', { channelId: null, fromDate: '2055-01-01', toDate: '2055-01-01', reason: 'x' }],
  ['DELETE', 'blackouts/:blackoutId'],
  ['POST', 'clients/:clientId/recordings', () => filesForm({ transcript: ['a.vtt', talk(1)] })],
  ['POST', 'recordings/:recordingId/files', () => filesForm({ transcript: ['a.vtt', talk(1)] })],
  ['GET', 'recordings/:recordingId'],
  ['PUT', 'recordings/:recordingId', { title: 'x', version: 1 }],
  ['DELETE', 'recordings/:recordingId'],
  ['GET', 'recordings/:recordingId/transcript'],
  ['GET', 'recordings/:recordingId/repairs'],
  ['GET', 'recordings/:recordingId/sound'],
  ['PUT', 'recordings/:recordingId/voices', { names: ['x'], unnamed: null, version: 1 }],
  ['PUT', 'recordings/:recordingId/sound-track', { track: 0, version: 1 }],
  ['POST', 'recordings/:recordingId/preparation'],
  ['POST', 'recordings/:recordingId/alignment', { kind: 'draft' }],
  ['DELETE', 'recordings/:recordingId/alignment'],
  ['GET', 'recordings/:recordingId/levels'],
  ['POST', 'clients/:clientId/feeds', { url: 'https://shows.example/feed.xml', rule: 'list' }],
  ['GET', 'clients/:clientId/calendars'],
  ['POST', 'clients/:clientId/calendars', { name: 'Theirs' }],
  ['DELETE', 'calendars/:calendarId'],
  ['PUT', 'clients/:clientId/lateness', { minutes: 30, version: 1 }],
  ['POST', 'channels/:channelId/connecting'],
  ['PUT', 'channels/:channelId/account', { accountId: null }],
  ['DELETE', 'accounts/:accountId'],
  ['GET', 'posts/:postId/sending'],
  ['POST', 'posts/:postId/sending', { version: 1 }],
  ['PUT', 'posts/:postId/outcome', { isUp: true, version: 1 }],
  ['PUT', 'posts/:postId/words', { title: 'x', description: '', version: 1 }],
  ['DELETE', 'posts/:postId/publication?version=1'],
  ['PUT', 'feeds/:feedId', { rule: 'take', version: 1 }],
  ['DELETE', 'feeds/:feedId'],
  ['POST', 'feeds/:feedId/reading'],
  ['GET', 'feeds/:feedId/episodes'],
  ['POST', 'episodes/:episodeId/recording', { sift: true }],
  ['POST', 'clients/:clientId/links', { url: 'https://media.example/a.mp3', transcriptUrl: null, title: null, sift: false }],
  ['POST', 'recordings/:recordingId/fetch'],
  ['DELETE', 'recordings/:recordingId/fetch'],
  ['GET', 'preparations/:preparationId/proxy'],
  ['GET', 'preparations/:preparationId/sprite'],
  ['GET', 'recordings/:recordingId/sifts'],
  ['POST', 'recordings/:recordingId/sifts', BRIEF],
  ['GET', 'recordings/:recordingId/cut-sheet'],
  ['GET', 'recordings/:recordingId/cut-sheet.csv'],
  ['GET', 'sifts/:siftId'],
  ['GET', 'sifts/:siftId/ranking'],
  ['POST', 'sifts/:siftId/cancel'],
  ['POST', 'sifts/:siftId/retry'],
  ['POST', 'sifts/:siftId/reel', { parts: [{ firstWord: 0, endWord: 4 }] }],
  ['POST', 'sifts/:siftId/edit-list', { name: 'a.edl', text: 'TITLE: a', asOne: false }],
  ['POST', 'sifts/:siftId/passages', { passages: [{ title: '', firstWord: 0, endWord: 4, edit: NO_EDIT }] }],
  ['DELETE', 'candidates/:candidateId'],
  ['PUT', 'candidates/:candidateId/state', { state: 'kept' }],
  ['PUT', 'candidates/:candidateId/span', { firstWord: 0, endWord: 4 }],
  ['GET', SHORT],
  ['PUT', `${SHORT}/copy`, COPY],
  ['PUT', `${SHORT}/copy/:channelId`, COPY],
  ['DELETE', `${SHORT}/copy/:channelId?version=1`],
  ['POST', `${SHORT}/proposal`],
  ['GET', `${SHORT}/titles`],
  ['GET', `${SHORT}/passage`],
  ['GET', `${SHORT}/history`],
  ['POST', `${SHORT}/check`, { title: 'x', description: '', hashtags: [], keywords: [], coverLine: '' }],
  ['GET', `${SHORT}/writings`],
  ['POST', `${SHORT}/writings`],
  ['DELETE', 'writings/:writingId'],
  ['GET', 'recordings/:recordingId/kept.edl'],
  ['GET', 'recordings/:recordingId/kept.otio'],
  ['GET', `${SHORT}/talk`],
  ['PUT', `${SHORT}/edit`, { edit: NO_EDIT, version: 1 }],
  ['GET', `${SHORT}/tightening`],
  ['GET', `${SHORT}/frames?shape=wide`],
  ['GET', `${SHORT}/renders`],
  ['POST', `${SHORT}/renders`, { shape: 'vertical' }],
  ['DELETE', 'renders/:renderId'],
  ['GET', 'renders/:renderId/file'],
  ['GET', `${SHORT}/translations`],
  ['GET', `${SHORT}/translations/es`],
  ['PUT', `${SHORT}/translations/es`, { targets: [], version: 0 }],
  ['POST', `${SHORT}/translations/es/draft`, { version: 0 }],
  ['PUT', `${SHORT}/translations/es/reading`, { read: true, version: 0 }],
  ['DELETE', `${SHORT}/translations/es?version=0`],
  ['GET', `${SHORT}/translations/es/xliff`],
  ['GET', `${SHORT}/translations/es/captions.srt`],
  ['GET', `${SHORT}/translations/es/captions.vtt`],
  ['POST', `${SHORT}/xliff`, { xliff: XLIFF, version: 0 }],
  ['PUT', 'clients/:clientId/card-style', { cardStyle: PLAIN_CARD, version: 1 }],
  ['GET', 'recordings/:recordingId/documents'],
  ['POST', 'recordings/:recordingId/documents', { kind: 'summary' }],
  ['GET', 'documents/:documentId'],
  ['PUT', 'documents/:documentId', { content: { type: 'doc', content: [] }, version: 1 }],
  ['PUT', 'documents/:documentId/proposal', { version: 1 }],
  ['DELETE', 'documents/:documentId?version=1'],
  ['GET', 'documents/:documentId/versions'],
  ['GET', 'documents/:documentId/file?as=plain'],
  ['GET', 'documents/:documentId/cards/1?as=svg&shape=square'],
  ['PUT', `${SHORT}/approval`, { approved: false, version: 1 }],
  ['GET', `${SHORT}/captions.srt`],
  ['GET', `${SHORT}/captions.vtt`],
  ['PUT', 'batches/:batchId', { name: 'x', shortIds: [], version: 1 }],
  ['DELETE', 'batches/:batchId'],
  ['PUT', 'posts/:postId/place', () => ({ channelId: theirs['channelId'], date: '2055-05-06', minute: 450, version: 1 })],
  ['PUT', 'posts/:postId/state', { state: 'posted', version: 1 }],
  ['DELETE', 'posts/:postId'],
];

describe('another client’s anything answers 404', () => {
  it.each(ROUTES)('%s %s', async (method, path, body) => {
    const asked = path.replace(/:(\w+)/g, (_, name: string) => theirs[name] ?? randomUUID());
    const sent = typeof body === 'function' ? await (body as () => unknown)() : body;
    const answer = await producer.call(method, asked, sent);
    expect([answer.status, method === 'GET' || answer.body?.status]).toEqual([404, method === 'GET' || 404]);
    const unknown = path.replace(/:(\w+)/g, () => randomUUID());
    const nowhere = await producer.call(method, unknown, typeof body === 'function' ? await (body as () => unknown)() : body);
    expect(answer.body?.detail).toBe(nowhere.body?.detail); // a stranger cannot tell “not yours” from “not there”
  });
  it('in the bodies of requests too', async () => {
    expect((await producer.post('batches', { name: 'x', shortIds: [theirs['shortId']] })).status).toBe(404);
    const days = { fromDate: '2055-01-01', toDate: '2055-01-07' };
    const kept = { shortId: theirs['shortId'], channelId: theirs['channelId'], date: '2055-01-02', minute: 450, why: '' };
    const change = { channelId: theirs['channelId'], postsPerDay: 2, postsPerWeek: null, windows: [], blackouts: [] };
    const moved = { postId: theirs['postId'], channelId: theirs['channelId'], date: '2055-05-06', minute: 450, version: 1 };
    for (const asked of [
      { shortIds: [theirs['shortId']], kept: [], whatIf: [] },
      { shortIds: [], kept: [kept], whatIf: [] },
      { shortIds: [], kept: [], whatIf: [change] },
      { shortIds: [], kept: [], keptMoves: [moved], whatIf: [] },
    ])
      expect((await producer.post('schedule/proposals', { ...days, ...asked })).status).toBe(404);
    expect(
      (
        await producer.post('schedule/posts', {
          batchId: null,
          placements: [{ shortId: theirs['shortId'], channelId: theirs['channelId'], date: '2055-05-09', minute: 450, why: '' }],
        })
      ).status,
    ).toBe(404);
    expect((await producer.post('schedule/readings', { csv: 'channel,date,time,title\n', clientId: theirs['clientId'] })).status).toBe(404);
    expect((await producer.put('posts/places', { moves: [moved] })).status).toBe(404);
    expect((await producer.put('posts/movable', { movable: true, posts: [{ postId: theirs['postId'], version: 1 }] })).status).toBe(404);
    expect((await producer.post('schedule/posts', { batchId: null, placements: [], moves: [{ ...moved, why: '' }] })).status).toBe(404);
    expect((await producer.get(`schedule/plan.csv?from=2055-01-01&to=2055-12-31&clientId=${theirs['clientId']}`)).status).toBe(404);
  });
  it('and lists hold only what is theirs to see', async () => {
    const lists = await Promise.all(
      ['clients', 'channels', 'blackouts', 'feeds', 'new-episodes', 'files-going', 'recordings', 'shorts', 'batches'].map(
        async (path) => (await producer.get(path)).body as { id: string; clientId?: string }[],
      ),
    );
    expect(lists[0]!.map((one) => one.id)).toEqual([own]);
    for (const list of lists.slice(1)) expect(list).toEqual([]);
    const schedule = (await producer.get('schedule')).body;
    expect([schedule.channels, schedule.shorts, schedule.posts]).toEqual([[], [], []]);
    expect((await producer.get('schedule/plan.csv?from=2055-01-01&to=2055-12-31')).text.trim().split('\r\n')).toHaveLength(1);
  });
  it('and nothing of theirs was changed on the way', async () => {
    expect((await query('SELECT state FROM posts WHERE id = $1', [theirs['postId']]))[0]).toEqual({ state: 'planned' });
    expect((await query('SELECT name FROM batches WHERE id = $1', [theirs['batchId']]))[0]).toEqual({ name: 'Theirs' });
  });
  it('covers every route of the API document that names something of a client', async () => {
    const document = (await world.owner.get('docs.json')).body as { paths: Record<string, Record<string, unknown>> };
    const named = Object.entries(document.paths)
      .flatMap(([path, methods]) => Object.keys(methods).map((method) => `${method.toUpperCase()} ${path.replace('/api/', '').replace(/\{(\w+)\}/g, ':$1')}`))
      .filter((route) => route.includes(':') && !/:(?:userId|platformProfileId|token)|^POST archived-clients|^DELETE clients/.test(route));
    expect(
      ROUTES.map(
        ([method, path]) => `${method} ${path.split('?')[0]!.replace('cards/1', 'cards/:number').replace('translations/es', 'translations/:language')}`,
      ).sort(),
    ).toEqual(named.sort());
  });
});
