// Sets the demo up through the API, as an owner would, when the database is empty.
import { readFile } from 'node:fs/promises';
import { fileURLToPath } from 'node:url';
import { OPEN_VOICE } from '@sift-reel/core';
import pg from 'pg';
import { hashPassword } from '../apps/server/dist/identity/passwords.js';
import { CLIENTS, CONNECTED, DEMO_PRODUCER, DEMO_SIGN_IN, PLATFORMS, RECORDINGS } from './scenario.mjs';
import { parseRecording } from './speak.mjs';

export { DEMO_SIGN_IN };

const TEXTS = fileURLToPath(new URL('recordings/', import.meta.url));

/** A signed-in caller of the API. */
export class Caller {
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
    if (!response.ok) throw Object.assign(new Error(`${method} ${path}: ${response.status} ${text.slice(0, 500)}`), { status: response.status });
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

/** Stands in the database while the demo is being set up: where it stands at a start, the one before was killed. */
const LOADING = 'demo-loading';
/** Stands there while its recordings are still being made: see `grow.mjs`. */
export const GROWING = 'demo-growing';
const EMPTY = 'TRUNCATE users, clients, platform_profiles, batches, audit_entries, sentence_vectors, setup_marks CASCADE';

/**
 * Sets the demo up if the database is empty: people, clients, channels, and its recordings as links to where they are being made. It
 * takes seconds. What was killed in the middle is emptied first.
 * @returns whether its recordings are still to be made
 */
export async function loadDemo({ url, databaseUrl, standinsUrl, say }) {
  const client = new pg.Client({ connectionString: databaseUrl });
  await client.connect();
  try {
    const marked = async (name) => (await client.query('SELECT 1 FROM setup_marks WHERE name = $1', [name])).rows.length > 0;
    if (await marked(LOADING)) {
      say('The demo was not set up to its end: emptying it.');
      await client.query(EMPTY);
    }
    const { rows } = await client.query('SELECT 1 FROM users LIMIT 1');
    if (rows.length > 0) return await marked(GROWING);
    say('The database is empty: setting up the demo.');
    await client.query('INSERT INTO setup_marks (name) VALUES ($1)', [LOADING]);
    try {
      await makeFirstOwner(databaseUrl, DEMO_SIGN_IN);
      await fill(new Caller(url), client, standinsUrl);
    } catch (error) {
      await client.query(EMPTY);
      throw error;
    }
    await client.query('UPDATE setup_marks SET name = $2 WHERE name = $1', [LOADING, GROWING]);
    return true;
  } finally {
    await client.end();
  }
}

/** Says yes at the stand-in platform, as the owner of the account would in a browser. */
async function connect(caller, channelId, account) {
  const { address } = await caller.call('POST', `channels/${channelId}/connecting`);
  const form = new URLSearchParams(new URL(address).searchParams);
  form.set('account', account);
  form.set('answer', 'allow');
  const answer = await fetch(address.split('?')[0], { method: 'POST', body: form, redirect: 'manual' });
  const back = new URL(answer.headers.get('location')).searchParams;
  await caller.call('POST', 'accounts', Object.fromEntries(back));
}

async function fill(caller, client, standinsUrl) {
  await caller.signIn(DEMO_SIGN_IN);
  const platforms = new Map();
  for (const platform of PLATFORMS) platforms.set(platform.name, (await caller.call('POST', 'platform-profiles', platform)).id);
  const clients = new Map();
  for (const { channels, interest, voice, comeAgainDays, ...form } of CLIENTS) {
    const { id } = await caller.call('POST', 'clients', form);
    if (interest !== undefined)
      await caller.call('PUT', `clients/${id}/interest`, { csv: await readFile(fileURLToPath(new URL(`interest/${interest}`, import.meta.url)), 'utf8') });
    if (voice !== undefined) {
      const { version } = (await caller.call('GET', 'clients')).find((one) => one.id === id);
      await caller.call('PUT', `clients/${id}/voice`, { voice: { ...OPEN_VOICE, ...voice }, version });
    }
    if (comeAgainDays !== undefined) {
      const { version } = (await caller.call('GET', 'clients')).find((one) => one.id === id);
      await caller.call('PUT', `clients/${id}/come-again`, { days: comeAgainDays, version });
    }
    clients.set(form.name, { id, ...form });
    for (const { platform, ...channel } of channels) {
      const made = await caller.call('POST', `clients/${id}/channels`, { ...channel, platformProfileId: platforms.get(platform) });
      if (CONNECTED[channel.name] !== undefined) await connect(caller, made.id, CONNECTED[channel.name]);
    }
  }
  const { email, name, password } = DEMO_PRODUCER;
  const { user } = await caller.call('POST', 'users', { email, name, role: 'producer', clientIds: DEMO_PRODUCER.clients.map((one) => clients.get(one).id) });
  await client.query('UPDATE users SET password_hash = $2 WHERE id = $1', [user.id, await hashPassword(password)]); // as if she had followed her link
  // They are fetched as soon as they are made; until then each waits, as any link does whose host is not ready.
  for (const { file, pictured, client: of } of [...RECORDINGS].reverse()) {
    const { title } = parseRecording(await readFile(`${TEXTS}${file}.txt`, 'utf8'), file);
    const at = `${standinsUrl}/made/${file}`;
    await caller.call('POST', `clients/${clients.get(of).id}/links`, {
      url: `${at}.${pictured === true ? 'mp4' : 'ogg'}`,
      transcriptUrl: `${at}.vtt`,
      title,
      sift: false,
    });
  }
}
