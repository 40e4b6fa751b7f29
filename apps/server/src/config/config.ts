import { availableParallelism } from 'node:os';
import { resolve } from 'node:path';

/** Object storage that speaks S3's protocol. */
export interface StoreConfig {
  /** Where it is asked. */
  readonly endpoint: string;
  /** Where browsers reach it, or null: what they play goes through the API then. */
  readonly publicEndpoint: string | null;
  readonly bucket: string;
  /** What all keys begin with; empty, or ending with a slash. */
  readonly prefix: string;
  readonly region: string;
  readonly keyId: string;
  /** A secret. */
  readonly secret: string;
  /** How much of it a machine keeps at hand. */
  readonly cacheBytes: number;
}

/** A platform outside that posts are handed to. */
export interface PlatformConfig {
  /** Where it is asked, without a slash at its end. */
  readonly url: string;
  /** What this installation is registered as there. */
  readonly clientId: string;
  /** A secret. */
  readonly clientSecret: string;
  /** What it signs its calls back with; a secret. */
  readonly callbackSecret: string;
}

/** A key that tokens are sealed with: 32 bytes. The name stands beside what it sealed. */
export interface SealingKey {
  readonly name: string;
  readonly bytes: Buffer;
}

export interface Config {
  readonly databaseUrl: string;
  readonly host: string;
  readonly port: number;
  /** Folder of the media, absolute; with a store, what this machine has of them. */
  readonly mediaDir: string;
  /** Null where media live in the folder. */
  readonly store: StoreConfig | null;
  /** Folder of the built web app, absolute, or null to serve the API alone. */
  readonly webDir: string | null;
  /** True behind https: cookies get `Secure` and the `__Host-` prefix. */
  readonly secureCookies: boolean;
  readonly logLevel: LogLevel;
  /** Threads for sentence vectors in the worker. */
  readonly vectorThreads: number;
  /** Connections of one process to the database, transactions and reads together. */
  readonly poolSize: number;
  /** True behind a proxy of our own on this machine, whose word on who asks is taken. */
  readonly trustProxy: boolean;
  /** Where mail is handed over, such as smtp://127.0.0.1:2525, or null: links are shown to whoever asked for them instead. */
  readonly mailUrl: string | null;
  readonly mailFrom: string;
  /** The address people open Sift Reel at; links in mails begin with it. */
  readonly publicUrl: string;
  /** Where a writing service is asked for words, or null: none is. */
  readonly writingUrl: string | null;
  /** Sent to it as a bearer token; a secret. */
  readonly writingKey: string | null;
  /** How another program is called that hears words, or null: Debian's pocketsphinx is. See `CommandRecogniser`. */
  readonly recogniser: string | null;
  /** Origins that feeds and files may be fetched from though their address is not public, such as the stand-in podcast host. */
  readonly fetchFrom: readonly string[];
  /** The platforms that posts can go to by themselves, by the name of their adapter. */
  readonly platforms: Readonly<Record<string, PlatformConfig>>;
  /** The first seals; the others open what was sealed before. Without one, no account can be connected. */
  readonly sealingKeys: readonly SealingKey[];
  /** A file that says what time it is, for simulated time: see `Clock`. Null for the time of day. */
  readonly clockFile: string | null;
}

/** An environment variable cannot be used; the message names it. */
export class ConfigError extends Error {
  override readonly name = 'ConfigError';
}

export const LOG_LEVELS = ['debug', 'info', 'warn', 'error', 'silent'] as const;
export type LogLevel = (typeof LOG_LEVELS)[number];

/** Reads and checks the environment once, at start. @throws ConfigError naming the variable */
export function readConfig(env: NodeJS.ProcessEnv = process.env): Config {
  const databaseUrl = env['SIFT_REEL_DATABASE_URL'] ?? '';
  if (!/^postgres(?:ql)?:\/\//.test(databaseUrl)) throw new ConfigError('SIFT_REEL_DATABASE_URL must be a postgres:// address');
  const logLevel = env['SIFT_REEL_LOG_LEVEL'] ?? 'info';
  if (!(LOG_LEVELS as readonly string[]).includes(logLevel)) throw new ConfigError(`SIFT_REEL_LOG_LEVEL must be one of ${LOG_LEVELS.join(', ')}`);
  return {
    databaseUrl,
    host: env['SIFT_REEL_HOST'] ?? '127.0.0.1',
    port: wholeNumber(env, 'SIFT_REEL_PORT', 4310, 0, 65_535),
    mediaDir: resolve(env['SIFT_REEL_MEDIA_DIR'] ?? 'var/live/media'),
    store: storeOf(env),
    webDir: env['SIFT_REEL_WEB_DIR'] === undefined ? null : resolve(env['SIFT_REEL_WEB_DIR']),
    secureCookies: env['SIFT_REEL_SECURE_COOKIES'] === 'yes',
    logLevel: logLevel as LogLevel,
    vectorThreads: wholeNumber(env, 'SIFT_REEL_VECTOR_THREADS', availableParallelism(), 1, 16),
    poolSize: wholeNumber(env, 'SIFT_REEL_POOL_SIZE', 16, 8, 200),
    trustProxy: env['SIFT_REEL_TRUST_PROXY'] === 'yes',
    mailUrl: address(env, 'SIFT_REEL_MAIL_URL', /^smtps?:\/\//),
    mailFrom: env['SIFT_REEL_MAIL_FROM'] ?? 'Sift Reel <sift-reel@localhost>',
    publicUrl: (address(env, 'SIFT_REEL_PUBLIC_URL', /^https?:\/\//) ?? `http://127.0.0.1:${wholeNumber(env, 'SIFT_REEL_PORT', 4310, 0, 65_535)}`).replace(
      /\/+$/,
      '',
    ),
    writingUrl: address(env, 'SIFT_REEL_WRITING_URL', /^https?:\/\//),
    writingKey: env['SIFT_REEL_WRITING_KEY'] || null,
    recogniser: template(env, 'SIFT_REEL_RECOGNISER'),
    fetchFrom: origins(env, 'SIFT_REEL_FETCH_FROM'),
    platforms: platformsOf(env),
    sealingKeys: keysOf(env),
    clockFile: env['SIFT_REEL_CLOCK_FILE'] ? resolve(env['SIFT_REEL_CLOCK_FILE']) : null,
  };
}

function storeOf(env: NodeJS.ProcessEnv): StoreConfig | null {
  const endpoint = address(env, 'SIFT_REEL_S3_ENDPOINT', /^https?:\/\//);
  if (endpoint === null) return null;
  const prefix = env['SIFT_REEL_S3_PREFIX'] ?? '';
  if (!/^(?:[\w-][\w.-]*\/)*$/.test(prefix)) throw new ConfigError(`SIFT_REEL_S3_PREFIX must be empty or end with a slash, found “${prefix}”`);
  return {
    endpoint,
    publicEndpoint: address(env, 'SIFT_REEL_S3_PUBLIC_ENDPOINT', /^https?:\/\//),
    bucket: needed(env, 'SIFT_REEL_S3_BUCKET'),
    prefix,
    region: env['SIFT_REEL_S3_REGION'] || 'us-east-1',
    keyId: needed(env, 'SIFT_REEL_S3_KEY_ID'),
    secret: needed(env, 'SIFT_REEL_S3_SECRET'),
    cacheBytes: wholeNumber(env, 'SIFT_REEL_MEDIA_CACHE_GB', 50, 1, 100_000) * 1e9,
  };
}

/** Every refusal names the field, and shows none: they hold secrets. */
function platformsOf(env: NodeJS.ProcessEnv): Record<string, PlatformConfig> {
  const name = 'SIFT_REEL_PLATFORMS';
  const text = env[name];
  if (text === undefined || text === '') return {};
  const read = jsonOf(text);
  if (typeof read !== 'object' || read === null || Array.isArray(read)) throw new ConfigError(`${name} must be JSON: an object of platforms by their names`);
  return Object.fromEntries(
    Object.entries(read as Record<string, unknown>).map(([id, one]) => {
      const fields = (one ?? {}) as Record<string, unknown>;
      for (const field of ['url', 'clientId', 'clientSecret', 'callbackSecret'])
        if (typeof fields[field] !== 'string' || fields[field] === '') throw new ConfigError(`${name}: ${id}.${field} must be text`);
      const { url, clientId, clientSecret, callbackSecret } = fields as Record<string, string>;
      if (!/^https?:\/\//.test(url!) || !URL.canParse(url!)) throw new ConfigError(`${name}: ${id}.url must be an address`);
      return [id, { url: url!.replace(/\/+$/, ''), clientId: clientId!, clientSecret: clientSecret!, callbackSecret: callbackSecret! }];
    }),
  );
}

function jsonOf(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}

function keysOf(env: NodeJS.ProcessEnv): SealingKey[] {
  const name = 'SIFT_REEL_SEALING_KEYS';
  const keys = (env[name] ?? '')
    .split(/[\s,]+/)
    .filter((one) => one !== '')
    .map((one, i) => {
      const [, called, text] = /^([\w-]{1,30}):([A-Za-z0-9+/_-]{43}=?)$/.exec(one) ?? [];
      const bytes = Buffer.from(text ?? '', 'base64');
      if (called === undefined || bytes.length !== 32) throw new ConfigError(`${name}: key ${i + 1} must be a name, a colon and 32 bytes in base 64`);
      return { name: called, bytes };
    });
  if (new Set(keys.map((key) => key.name)).size !== keys.length) throw new ConfigError(`${name}: two keys have one name`);
  return keys;
}

function needed(env: NodeJS.ProcessEnv, name: string): string {
  const text = env[name] ?? '';
  if (text === '') throw new ConfigError(`${name} must be set where SIFT_REEL_S3_ENDPOINT is`);
  return text;
}

function address(env: NodeJS.ProcessEnv, name: string, scheme: RegExp): string | null {
  const text = env[name];
  if (text === undefined || text === '') return null;
  if (!scheme.test(text) || !URL.canParse(text)) throw new ConfigError(`${name} must be an address`); // not shown: it may hold a password
  return text;
}

function origins(env: NodeJS.ProcessEnv, name: string): string[] {
  const listed = (env[name] ?? '').split(/[\s,]+/).filter((one) => one !== '');
  for (const one of listed)
    if (!/^https?:\/\//.test(one) || !URL.canParse(one) || new URL(one).origin !== one)
      throw new ConfigError(`${name} must be a list of origins such as http://127.0.0.1:4313, found “${one}”`);
  return listed;
}

function template(env: NodeJS.ProcessEnv, name: string): string | null {
  const text = env[name]?.trim() ?? '';
  if (text === '') return null;
  if (!text.includes('{wav}') || text.startsWith('{')) throw new ConfigError(`${name} must be a program with its arguments, {wav} among them`);
  return text;
}

function wholeNumber(env: NodeJS.ProcessEnv, name: string, fallback: number, min: number, max: number): number {
  const text = env[name];
  if (text === undefined || text === '') return fallback;
  const value = Number(text);
  if (!Number.isInteger(value) || value < min || value > max) throw new ConfigError(`${name} must be a whole number from ${min} to ${max}, found “${text}”`);
  return value;
}
