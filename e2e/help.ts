import { renameSync, writeFileSync } from 'node:fs';
import { expect, type Locator, type Page, request } from '@playwright/test';
import { settings } from '../scripts/lib/config.mjs';
import { serviceEnv, startService } from '../scripts/lib/services.mjs';

export const OWNER = { email: 'owner@agency.example', password: 'a long enough password' };
export const url = (path = ''): string => `${process.env['E2E_URL']!}${path}`;

/** It is then so late for every process of the test: see `Clock` of the server. Time goes on from there as it does here. */
export function setClock(startMs: number): void {
  const file = process.env['SIFT_REEL_CLOCK_FILE']!;
  writeFileSync(`${file}.new`, JSON.stringify({ startMs, sinceMs: Date.now(), speed: 1 }));
  renameSync(`${file}.new`, file);
}

/** What the worker makes is there by then, or never, ms: a machine that is shared has taken five times as long as one that is not. */
export const AT_WORK_MS = 300_000;

export type Worker = ReturnType<typeof startService>;

export function startWorker(threads = 2): Worker {
  return startService(
    'worker',
    serviceEnv(settings('test'), process.env['E2E_DATABASE_URL']!, { SIFT_REEL_LOG_LEVEL: 'silent', SIFT_REEL_VECTOR_THREADS: String(threads) }),
    { quiet: true },
  );
}

export async function signIn(page: Page, { email, password } = OWNER): Promise<void> {
  await page.goto(url());
  await page.getByLabel('E-mail').fill(email);
  await page.getByLabel('Password').fill(password);
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByRole('heading', { name: 'Desk', exact: true })).toBeVisible();
}

/** What opens a select, or a calendar, by the words above or before it. */
export const select = (page: Page, label: string): Locator =>
  page
    .locator('label, span[id]')
    .filter({ hasText: new RegExp(`^${label}$`) })
    .locator('xpath=following-sibling::button | following-sibling::div/button');

/**
 * Does what keeps or drops a candidate, until the server has said that it knows. A page that is loaded before does not show
 * it: the screen that did it shows it at once.
 */
export async function decided(page: Page, act: () => Promise<void>): Promise<void> {
  const said = page.waitForResponse((response) => /\/api\/candidates\/[^/]+\/state$/.test(response.url()));
  await act();
  const response = await said;
  if (!response.ok()) throw new Error(`${response.status()}: ${await response.text()}`);
}

/** Chooses from one, by what the option says. */
export async function choose(page: Page, label: string, option: string | RegExp): Promise<void> {
  await select(page, label).click();
  await page.getByRole('option', { name: option, exact: typeof option === 'string' }).click();
}
export async function chooseNth(page: Page, label: string, n: number): Promise<void> {
  await select(page, label).click();
  await page.getByRole('option').nth(n).click();
}

type OwnerApi = (method: string, path: string, data?: unknown) => Promise<{ id: string } & Record<string, unknown>>;
let signedIn: Promise<OwnerApi> | undefined;

/** The API as the owner calls it, for what a test needs but is not about. Signs in once: attempts are counted. */
export function ownerApi(): Promise<OwnerApi> {
  signedIn ??= signInToApi();
  return signedIn;
}

async function signInToApi(): Promise<OwnerApi> {
  const context = await request.newContext({ baseURL: url() });
  const session = (await (await context.post('/api/session', { data: OWNER })).json()) as { csrfToken: string };
  return async (method, path, data) => {
    const response = await context.fetch(`/api/${path}`, { method, data, headers: { 'x-csrf-token': session.csrfToken } });
    expect(response.ok(), `${method} ${path}: ${await response.text()}`).toBe(true);
    return response.status() === 204 ? { id: '' } : ((await response.json()) as { id: string });
  };
}

export const BRIEF = { partStartMs: 0, partEndMs: null, minMs: 20_000, maxMs: 60_000, roughCount: 12, topics: [], kinds: [], avoid: [] };
export const PLATFORM = {
  minDurationMs: 3_000,
  maxDurationMs: 90_000,
  shapes: ['vertical'],
  titleLimit: 100,
  descriptionLimit: 300,
  hashtagLimit: 5,
  postsPerDay: 3,
  minGapMinutes: 60,
  loudness: -14,
  truePeak: -1,
};

/** A client with two channels that have a window on every day. */
export async function makeClient(name: string): Promise<{ clientId: string; channelIds: string[] }> {
  const api = await ownerApi();
  const client = await api('POST', 'clients', { name, zone: 'Europe/Dublin', tags: ['firewood'], standingBrief: BRIEF });
  const channelIds: string[] = [];
  for (const [i, zone] of ['Europe/Dublin', 'America/Halifax'].entries()) {
    const platform = await api('POST', 'platform-profiles', { ...PLATFORM, name: `${name} platform ${i + 1}` });
    const windows = [1, 2, 3, 4, 5, 6, 7].map((weekday) => ({ weekday, minute: 450 + i * 300, weight: 70 }));
    channelIds.push(
      (
        await api('POST', `clients/${client.id}/channels`, {
          name: `${name} ${i + 1}`,
          platformProfileId: platform.id,
          zone,
          order: i + 1,
          postsPerDay: 1,
          postsPerWeek: 7,
          windows,
        })
      ).id,
    );
  }
  return { clientId: client.id, channelIds };
}

/** What somebody says of logs and tar. */
export const LOGS = [
  'Why should you buy your logs in March?',
  'Because everybody buys in October, when it is dear and wet.',
  'The same bag is nine euro in October and six in March.',
  'You should never pay more for the worse wood.',
  'I bought forty bags and I nearly cried when I split one.',
  'It was thirty one per cent water.',
  'That is the only business I know where you pay extra for the bad one.',
  'A stove with wet wood in it is a factory for tar.',
  'My neighbour lost his chimney to that tar in one winter.',
  'So I keep two stacks, and I burn the old one first.',
];

/** Captions of so many cues, the lines in turn. @param speakers take turns as well */
export function captions(lines: readonly string[], cues: number, speakers: readonly string[]): Buffer {
  const stamp = (s: number): string => new Date(s * 1_000).toISOString().slice(11, 23);
  const cue = (i: number): string =>
    `${stamp(i * 5)} --> ${stamp(i * 5 + 4.6)}\n<v ${speakers[i % speakers.length]!}>${lines[(i * 3 + (i >> 2)) % lines.length]!}\n`;
  return Buffer.from(`WEBVTT\n\n${Array.from({ length: cues }, (_, i) => cue(i)).join('\n')}`);
}
