// Makes the demo and loads it through the API, as a producer would, when the database is empty.
import { readFile } from 'node:fs/promises';
import { basename } from 'node:path';
import { fileURLToPath } from 'node:url';
import { addDays, layOut, OPEN_VOICE, wallTimeAt } from '@sift-reel/core';
import pg from 'pg';
import { hashPassword } from '../apps/server/dist/identity/passwords.js';
import { CLIENTS, DEMO_PRODUCER, DEMO_SIGN_IN, PLATFORMS, RECORDINGS } from './scenario.mjs';
import { SHOW } from './shows.mjs';
import { speakRecording } from './speak.mjs';

export { DEMO_SIGN_IN };

const TEXTS = fileURLToPath(new URL('recordings/', import.meta.url));

/** A signed-in caller of the API. */
class Caller {
  constructor(url) {
    this.url = url;
    this.headers = {};
  }
  async call(method, path, body) {
    const form = body instanceof FormData;
    const response = await fetch(`${this.url}/api/${path}`, {
      method,
      headers: { ...this.headers, ...(body === undefined || form ? {} : { 'content-type': 'application/json' }) },
      body: body === undefined ? undefined : form ? body : JSON.stringify(body),
    });
    const text = await response.text();
    if (!response.ok) throw new Error(`${method} ${path}: ${response.status} ${text.slice(0, 500)}`);
    const cookie = response.headers.get('set-cookie');
    if (cookie) this.headers.cookie = cookie.split(';')[0];
    return text === '' ? undefined : JSON.parse(text);
  }
  async signIn({ email, password }) {
    const session = await this.call('POST', 'session', { email, password });
    this.headers['x-csrf-token'] = session.csrfToken;
    return session;
  }
}

/** The first owner of an empty database. @returns false when there are users already */
export async function makeFirstOwner(databaseUrl, { email, name, password }) {
  const client = new pg.Client({ connectionString: databaseUrl });
  await client.connect();
  try {
    const { rows } = await client.query('SELECT 1 FROM users LIMIT 1');
    if (rows.length > 0) return false;
    await client.query(`INSERT INTO users (email, name, role, password_hash) VALUES ($1, $2, 'owner', $3)`, [email, name, await hashPassword(password)]);
    return true;
  } finally {
    await client.end();
  }
}

/** Stands in the database while the demo is being loaded: where it stands at a start, the load before was killed. */
const LOADING = 'demo-loading';
const EMPTY = 'TRUNCATE users, clients, platform_profiles, batches, audit_entries, sentence_vectors, setup_marks CASCADE';

/** Makes and loads the demo if the database is empty. What a load that broke off or was killed has left is emptied first. */
export async function loadDemo({ url, databaseUrl, soundDir, standinsUrl, say }) {
  const client = new pg.Client({ connectionString: databaseUrl });
  await client.connect();
  try {
    const { rows: left } = await client.query('SELECT 1 FROM setup_marks WHERE name = $1', [LOADING]);
    if (left.length > 0) {
      say('The demo was not loaded to its end: emptying it.');
      await client.query(EMPTY);
    }
    const { rows } = await client.query('SELECT 1 FROM users LIMIT 1');
    if (rows.length > 0) return;
    say('The database is empty: making the demo. The recordings are spoken once; that takes a few minutes.');
    const spoken = new Map();
    for (const { file } of RECORDINGS) spoken.set(file, await speakRecording(`${TEXTS}${file}.txt`, soundDir, say));
    await client.query('INSERT INTO setup_marks (name) VALUES ($1)', [LOADING]);
    try {
      await makeFirstOwner(databaseUrl, DEMO_SIGN_IN);
      await fill(new Caller(url), client, spoken, say);
      await follow(new Caller(url), standinsUrl);
    } catch (error) {
      await client.query(EMPTY);
      throw error;
    }
    await client.query('DELETE FROM setup_marks WHERE name = $1', [LOADING]);
  } finally {
    await client.end();
  }
}

async function fill(caller, client, spoken, say) {
  await caller.signIn(DEMO_SIGN_IN);
  const platforms = new Map();
  for (const platform of PLATFORMS) platforms.set(platform.name, (await caller.call('POST', 'platform-profiles', platform)).id);
  const clients = new Map();
  for (const { channels, interest, voice, ...form } of CLIENTS) {
    const { id } = await caller.call('POST', 'clients', form);
    if (interest !== undefined)
      await caller.call('PUT', `clients/${id}/interest`, { csv: await readFile(fileURLToPath(new URL(`interest/${interest}`, import.meta.url)), 'utf8') });
    if (voice !== undefined) {
      const { version } = (await caller.call('GET', 'clients')).find((one) => one.id === id);
      await caller.call('PUT', `clients/${id}/voice`, { voice: { ...OPEN_VOICE, ...voice }, version });
    }
    clients.set(form.name, { id, ...form });
    for (const { platform, ...channel } of channels)
      await caller.call('POST', `clients/${id}/channels`, { ...channel, platformProfileId: platforms.get(platform) });
  }
  const { email, name, password } = DEMO_PRODUCER;
  const { user } = await caller.call('POST', 'users', { email, name, role: 'producer', clientIds: DEMO_PRODUCER.clients.map((one) => clients.get(one).id) });
  await client.query('UPDATE users SET password_hash = $2 WHERE id = $1', [user.id, await hashPassword(password)]); // as if she had followed her link
  const approved = [];
  for (const entry of [...RECORDINGS].reverse()) {
    const owner = clients.get(entry.client);
    const recording = await bringIn(caller, owner.id, spoken.get(entry.file));
    say(`Brought in: ${recording.title}`);
    if (entry.stage === 'waiting') continue;
    const sift = await caller.call('POST', `recordings/${recording.id}/sifts`, { ...owner.standingBrief, ...entry.brief });
    await waitFor(caller, sift.id, say);
    if (entry.stage === 'worked') approved.push(...(await workOut(caller, recording, sift)));
  }
  await caller.call('POST', 'batches', { name: 'First frost', shortIds: approved });
  await layOutFrom(caller, client, clients.get('Ardcree Chimneys'), approved.slice(1));
}

/** A feed that is followed, in which an episode has come out since. */
async function follow(caller, standinsUrl) {
  await caller.signIn(DEMO_SIGN_IN);
  const { id: clientId } = (await caller.call('GET', 'clients')).find((one) => one.name === SHOW.client);
  const feed = await caller.call('POST', `clients/${clientId}/feeds`, { url: `${standinsUrl}/shows/${SHOW.slug}/feed.xml`, rule: 'list' });
  const read = async () => {
    for (;;) {
      const now = (await caller.call('GET', 'feeds')).find((one) => one.id === feed.id);
      if (now.trouble !== null) throw new Error(`the demo's feed: ${now.trouble}`);
      if (!now.reading) return;
      await new Promise((resolve) => setTimeout(resolve, 200));
    }
  };
  await read();
  const answer = await fetch(`${standinsUrl}/shows/${SHOW.slug}/publish`, { method: 'PUT' });
  if (!answer.ok) throw new Error(`the stand-in podcast host: ${answer.status}`);
  await caller.call('POST', `feeds/${feed.id}/reading`);
  await read();
}

async function bringIn(caller, clientId, { title, soundFile, transcriptFile }) {
  const form = new FormData();
  form.set('title', title);
  form.set('transcript', new Blob([await readFile(transcriptFile)]), basename(transcriptFile));
  form.set('sound', new Blob([await readFile(soundFile)]), basename(soundFile));
  return caller.call('POST', `clients/${clientId}/recordings`, form);
}

async function waitFor(caller, siftId, say) {
  let shown = 0;
  for (;;) {
    const sift = await caller.call('GET', `sifts/${siftId}`);
    if (sift.state === 'done') return;
    if (sift.state === 'failed' || sift.state === 'cancelled') throw new Error(`the demo's sift ${sift.state}: ${sift.failure ?? ''}`);
    if (sift.fraction >= shown + 0.25) {
      shown = sift.fraction;
      say(`  sifting: ${Math.round(shown * 100)} %`);
    }
    await new Promise((resolve) => setTimeout(resolve, 300));
  }
}

/** Keeps the strong ones, drops one, approves most. @returns the ids of the approved shorts */
async function workOut(caller, recording, sift) {
  const { candidates } = await caller.call('GET', `sifts/${sift.id}/ranking`);
  for (const candidate of candidates.slice(0, 9)) {
    await caller.call('PUT', `candidates/${candidate.id}/state`, { state: candidate.rank === 5 ? 'dropped' : 'kept' });
  }
  const ofRecording = `shorts?recordingId=${recording.id}`;
  const shorts = (await caller.call('GET', ofRecording)).sort((a, b) => b.score - a.score);
  const chosen = shorts.slice(0, shorts.length - 2);
  // What else is made of it; the others wait to be made by hand.
  for (const kind of ['chapters', 'show-notes', 'article', 'quote-cards']) await caller.call('POST', `recordings/${recording.id}/documents`, { kind });
  for (const short of chosen) await caller.call('PUT', `shorts/${short.id}/approval`, { approved: true, version: short.version });
  return chosen.map((short) => short.id);
}

/** How many days ago the demo's plan was laid out: a week, so that on any weekday some of it is posted and some still to come. */
const LAID_OUT_DAYS_AGO = 7;

/** The schedule some days into its life: the same planner, asked as if it were then; what is over by now is posted. */
async function layOutFrom(caller, client, owner, shortIds) {
  const view = await caller.call('GET', 'schedule');
  const nowMs = Date.parse(view.now);
  const today = wallTimeAt(owner.zone, nowMs).date;
  const from = addDays(today, -LAID_OUT_DAYS_AGO);
  const plan = {
    channels: view.channels.map(({ platform, ...channel }) => ({
      ...channel,
      rules: { ...platform, copy: { title: platform.titleLimit, description: platform.descriptionLimit, hashtags: platform.hashtagLimit } },
      blackouts: [],
    })),
    shorts: view.shorts.map((short) => ({ ...short, copyProblems: Object.fromEntries(short.copyProblems.map((one) => [one.channelId, one.detail])) })),
    posts: [],
    nowMs: Date.parse(`${from}T00:00:00Z`),
  };
  const { placements } = layOut({ plan, shortIds, fromDate: from, toDate: addDays(from, 20) });
  for (const post of placements) {
    await client.query(
      `INSERT INTO posts (client_id, channel_id, short_id, date, minute, at, state, why) SELECT client_id, id, $2, $3, $4, to_timestamp($5 / 1000.0), $6, $7 FROM channels WHERE id = $1`,
      [post.channelId, post.shortId, post.date, post.minute, post.atMs, post.atMs < nowMs ? 'posted' : 'planned', post.why],
    );
  }
}
