import 'reflect-metadata';
import { randomUUID } from 'node:crypto';
import pg from 'pg';
import type { NestExpressApplication } from '@nestjs/platform-express';
import { buildApp } from '../dist/api/app.js';
import { hashPassword } from '../dist/identity/passwords.js';

export const PASSWORD = 'a long enough password';

export interface Answer {
  readonly status: number;
  // eslint-disable-next-line @typescript-eslint/no-explicit-any -- answers of every route, read by the tests that know them
  readonly body: any;
  readonly text: string;
  readonly headers: Headers;
}

/** Calls the API as one user would from our own pages. */
export class Caller {
  cookie = '';
  csrf = '';
  constructor(readonly base: string) {}
  async call(method: string, path: string, body?: unknown, headers: Record<string, string> = {}): Promise<Answer> {
    const form = body instanceof FormData;
    const response = await fetch(`${this.base}/api/${path}`, {
      method,
      headers: {
        ...(this.cookie === '' ? {} : { cookie: this.cookie }),
        ...(this.csrf === '' ? {} : { 'x-csrf-token': this.csrf }),
        ...(body === undefined || form ? {} : { 'content-type': 'application/json' }),
        ...headers,
      },
      ...(body === undefined ? {} : { body: form ? body : JSON.stringify(body) }),
    });
    const text = await response.text();
    const set = response.headers.get('set-cookie');
    if (set !== null) this.cookie = set.split(';')[0]!;
    const json = /json/.test(response.headers.get('content-type') ?? '');
    return { status: response.status, body: json && text !== '' ? JSON.parse(text) : undefined, text, headers: response.headers };
  }
  get(path: string): Promise<Answer> {
    return this.call('GET', path);
  }
  post(path: string, body?: unknown): Promise<Answer> {
    return this.call('POST', path, body);
  }
  put(path: string, body?: unknown): Promise<Answer> {
    return this.call('PUT', path, body);
  }
  delete(path: string): Promise<Answer> {
    return this.call('DELETE', path);
  }
  /** Follows an invitation's link and chooses a password. */
  async takeUp(link: string, password = PASSWORD): Promise<Answer> {
    const answer = await this.post(`invitations/${link.split('/').at(-1)!}`, { password });
    if (answer.status === 201) this.csrf = answer.body.csrfToken;
    return answer;
  }
  async signIn(email: string, password = PASSWORD): Promise<Answer> {
    const answer = await this.post('session', { email, password });
    if (answer.status === 201) this.csrf = answer.body.csrfToken;
    return answer;
  }
}

export const BRIEF = { partStartMs: 0, partEndMs: null, minMs: 10_000, maxMs: 30_000, roughCount: 5, topics: [], kinds: [], avoid: [] };
export const PLATFORM = {
  minDurationMs: 3_000,
  maxDurationMs: 60_000,
  shapes: ['vertical'],
  titleLimit: 100,
  descriptionLimit: 300,
  hashtagLimit: 5,
  postsPerDay: 3,
  minGapMinutes: 60,
  loudness: -14,
  truePeak: -1,
};

/** An app with an owner, and makers of clients and producers; names are new each time, so that test files never meet. */
export class World {
  readonly owner: Caller;
  private constructor(
    readonly app: NestExpressApplication,
    readonly base: string,
    readonly ownerEmail: string,
  ) {
    this.owner = new Caller(base);
  }
  /** @param port where it listens, or 0 for any that is free */
  static async make(port = 0): Promise<World> {
    const app = await buildApp();
    await app.listen(port, '127.0.0.1');
    const address = app.getHttpServer().address() as { port: number };
    const email = `owner-${randomUUID()}@agency.example`;
    await query('DELETE FROM sign_in_counts'); // all tests come from one address, and some of them guess
    await query(`INSERT INTO users (email, name, role, password_hash) VALUES ($1, 'Owner', 'owner', $2)`, [email, await hashPassword(PASSWORD)]);
    const world = new World(app, `http://127.0.0.1:${address.port}`, email);
    await world.owner.signIn(email);
    return world;
  }
  async close(): Promise<void> {
    await this.app.close();
  }
  async client(name = `Client ${randomUUID()}`): Promise<string> {
    const { body } = await this.owner.post('clients', { name, zone: 'Europe/Dublin', tags: ['firewood'], standingBrief: BRIEF });
    return body.id as string;
  }
  async platform(fields: object = {}): Promise<string> {
    return (await this.owner.post('platform-profiles', { ...PLATFORM, name: `P ${randomUUID().slice(0, 30)}`, ...fields })).body.id as string;
  }
  async channel(clientId: string, fields: object = {}): Promise<string> {
    const windows = [1, 2, 3, 4, 5, 6, 7].map((weekday) => ({ weekday, minute: 450, weight: 70 }));
    const { body } = await this.owner.post(`clients/${clientId}/channels`, {
      name: 'First',
      platformProfileId: await this.platform(),
      zone: 'Europe/Dublin',
      order: 1,
      postsPerDay: 1,
      postsPerWeek: 7,
      windows,
      ...fields,
    });
    return body.id as string;
  }
  /** A write of the owner that has seen the short as it is now. */
  async writeShort(method: string, shortId: string, path: string, body: object = {}): Promise<Answer> {
    const version = await this.version(`shorts/${shortId}`);
    return method === 'DELETE'
      ? this.owner.delete(`shorts/${shortId}/${path}?version=${version}`)
      : this.owner.call(method, `shorts/${shortId}/${path}`, { ...body, version });
  }
  /** A write of the owner that has seen the post as it is now. */
  async writePost(postId: string, path: string, body: object): Promise<Answer> {
    const { posts } = (await this.owner.get('schedule')).body as { posts: { id: string; version: number }[] };
    return this.owner.put(`posts/${postId}/${path}`, { ...body, version: posts.find((one) => one.id === postId)?.version ?? 1 });
  }
  /** The version of a thing that a path shows now. */
  async version(path: string, id?: string): Promise<number> {
    const { body } = await this.owner.get(path);
    return (id === undefined ? body : body.find((one: { id: string }) => one.id === id)).version as number;
  }
  /** What the owner reads at a path. */
  read(path: string): Promise<Answer> {
    return this.owner.get(path);
  }
  /** The owner's view of the shorts, or of one recording's. */
  async shorts(recordingId?: string): Promise<Answer['body'][]> {
    const path = recordingId === undefined ? 'shorts' : `shorts?recordingId=${recordingId}`;
    return (await this.owner.get(path)).body;
  }
  async producer(clientIds: string[]): Promise<Caller> {
    const email = `producer-${randomUUID()}@agency.example`;
    const { body } = await this.owner.post('users', { email, name: 'Producer', role: 'producer', clientIds });
    const caller = new Caller(this.base);
    await caller.takeUp(body.link as string);
    return caller;
  }
}

export async function query(sql: string, values: unknown[] = []): Promise<Record<string, unknown>[]> {
  const client = new pg.Client({ connectionString: process.env['SIFT_REEL_DATABASE_URL'] });
  await client.connect();
  try {
    return (await client.query(sql, values)).rows as Record<string, unknown>[];
  } finally {
    await client.end();
  }
}

const READER_WAITS = `SELECT 1 FROM pg_locks WHERE NOT granted AND database = (SELECT oid FROM pg_database WHERE datname = current_database()) AND relation = $1::regclass`;
/** Holds a table until a reader waits for it, changes what that reader has read already together with the table, and lets it go on. */
export async function changedWhileRead<T>(table: string, read: () => Promise<T>, statements: readonly string[], values: unknown[]): Promise<T> {
  const client = new pg.Client({ connectionString: process.env['SIFT_REEL_DATABASE_URL'] });
  await client.connect();
  try {
    await client.query('BEGIN');
    await client.query(`LOCK TABLE ${table} IN ACCESS EXCLUSIVE MODE`);
    const reading = read();
    while ((await query(READER_WAITS, [table])).length === 0);
    for (const statement of statements) await client.query(statement, values);
    await client.query('COMMIT');
    return await reading;
  } finally {
    await client.end();
  }
}

export function filesForm(files: { transcript?: [string, string | Uint8Array]; sound?: [string, Uint8Array]; title?: string }): FormData {
  const form = new FormData();
  if (files.title !== undefined) form.set('title', files.title);
  if (files.transcript !== undefined) form.set('transcript', new Blob([files.transcript[1]]), files.transcript[0]);
  if (files.sound !== undefined) form.set('sound', new Blob([files.sound[1]]), files.sound[0]);
  return form;
}

const LINES = [
  'Why does it always go wrong on the first night?',
  'Because the chimney is cold, and cold air is heavy.',
  'It took me nineteen wasted drives to learn that.',
  'You should hold one sheet of newspaper up past the baffle for thirty seconds.',
  'That is the whole trick, and nobody tells you.',
  'I could not believe it the first time.',
  'There was a wasp nest the size of a football in there.',
  'We paid two hundred and forty euro for a load of water.',
  'The man went very quiet, and then he laughed.',
  'Never trust the end of a log.',
];

/** Talk of about `minutes`, two voices, as WebVTT. Different from one place to the next, so that vectors are not all cached. */
export function talk(minutes: number, salt = ''): string {
  const cues: string[] = [];
  const stamp = (s: number): string => new Date(s * 1_000).toISOString().slice(11, 23);
  for (let i = 0, at = 0; at < minutes * 60; i += 1, at += 5) {
    cues.push(
      `${stamp(at)} --> ${stamp(at + 4.5)}\n<v ${i % 3 === 0 ? 'Ann' : 'Bo'}>${salt}${i % 7 === 0 ? `Number ${i}: ` : ''}${LINES[(i * 7 + (i >> 3)) % LINES.length]!}\n`,
    );
  }
  return `WEBVTT\n\n${cues.join('\n')}`;
}

/** A sound of so many seconds: 8-bit silence, as WAV (RIFF) says it. */
export function wav(seconds: number): Uint8Array<ArrayBuffer> {
  const data = seconds * 8_000;
  const bytes = Buffer.alloc(44 + data, 128);
  bytes.write('RIFF', 0);
  bytes.writeUInt32LE(36 + data, 4);
  bytes.write('WAVEfmt ', 8);
  bytes.writeUInt32LE(16, 16);
  bytes.writeUInt16LE(1, 20);
  bytes.writeUInt16LE(1, 22);
  bytes.writeUInt32LE(8_000, 24);
  bytes.writeUInt32LE(8_000, 28);
  bytes.writeUInt16LE(1, 32);
  bytes.writeUInt16LE(8, 34);
  bytes.write('data', 36);
  bytes.writeUInt32LE(data, 40);
  return bytes;
}

/** Looks again and again until what is found is as it should be. */
export async function until<T>(look: () => Promise<T>, holds: (found: T) => boolean): Promise<T> {
  for (let i = 0; i < 4_000; i += 1) {
    const found = await look();
    if (holds(found)) return found;
    await new Promise((resolve) => {
      setTimeout(resolve, 50);
    });
  }
  throw new Error('it never comes');
}
