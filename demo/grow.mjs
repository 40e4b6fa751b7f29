// Makes the demo's recordings and works on them as a producer would, while somebody may be signed in already: spoken, drawn, fetched,
// sifted, kept, approved, laid out. What is done stays done: a start that finds the demo unfinished goes on with it.
import { mkdir, readFile, stat, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { addDays, layOut, wallTimeAt } from '@sift-reel/core';
import pg from 'pg';
import { drawRecording } from './draw.mjs';
import { Caller, GROWING } from './load.mjs';
import { CLIENTS, DEMO_SIGN_IN, RECORDINGS } from './scenario.mjs';
import { makeShows, SHOW } from './shows.mjs';
import { parseRecording, speakRecording } from './speak.mjs';

const TEXTS = fileURLToPath(new URL('recordings/', import.meta.url));
const DOCUMENTS = ['chapters', 'show-notes', 'article', 'quote-cards'];
const BATCH = 'First frost';
const PLANNED = 'Ardcree Chimneys';
/** The short ones first: there is something to see sooner. */
const ORDER = ['up-the-flue-11', 'up-the-flue-12', 'the-last-and-the-welt-07', 'what-goes-down-31'];
/** What a letter of text takes to be spoken, and its minute of talk to be drawn, in ms, on two cores that have other work; measured. */
const [SPEAKING_MS, DRAWING_MS] = [2.4, 9];

/** Has the host know how long each recording will take, before anybody asks for one. */
export const sayWhenReady = (demoDir) => Waits.make(demoDir).then(() => undefined);

/** @param say told in words what is happening */
export async function growDemo({ url, databaseUrl, demoDir, standinsUrl, say }) {
  const client = new pg.Client({ connectionString: databaseUrl });
  await client.connect();
  try {
    const caller = new Caller(url);
    await caller.signIn(DEMO_SIGN_IN);
    const waits = await Waits.make(demoDir);
    const worked = [];
    const arriving = [];
    for (const [i, file] of ORDER.entries()) {
      const entry = RECORDINGS.find((one) => one.file === file);
      await make(entry, demoDir, waits, say);
      // Fetched and sifted while the next one is spoken.
      arriving.push(
        arrive(caller, entry, say).then((ids) => {
          if (entry.stage === 'worked') worked.push(...ids);
        }),
      );
      arriving.at(-1).catch(() => undefined); // told below
      if (i === 0) {
        await makeShows(demoDir, say);
        await follow(caller, standinsUrl);
      }
    }
    await Promise.all(arriving);
    await plan(caller, client, worked);
    await client.query('DELETE FROM setup_marks WHERE name = $1', [GROWING]);
    say('The demo is complete.');
  } finally {
    await client.end();
  }
}

/** Tells the host when what is still being made will be there, as far as that can be known. */
class Waits {
  constructor(path, tasks) {
    this.path = path;
    this.tasks = tasks;
  }
  static async make(demoDir) {
    const tasks = [];
    for (const file of ORDER) {
      const { pictured } = RECORDINGS.find((one) => one.file === file);
      const letters = (await readFile(`${TEXTS}${file}.txt`, 'utf8')).length;
      const there = async (ending) => (await stat(join(demoDir, `${file}.${ending}`)).catch(() => null)) !== null;
      tasks.push({ name: file, leftMs: (await there('made')) ? 0 : letters * SPEAKING_MS, of: letters * SPEAKING_MS });
      if (pictured === true) tasks.push({ name: `${file} drawn`, leftMs: (await there('drawn')) ? 0 : letters * DRAWING_MS, of: letters * DRAWING_MS });
    }
    await mkdir(demoDir, { recursive: true });
    const made = new Waits(join(demoDir, 'ready.json'), tasks);
    await made.write();
    return made;
  }
  /** @param share of it that is done */
  async at(name, share) {
    const task = this.tasks.find((one) => one.name === name);
    task.leftMs = task.of * (1 - share);
    await this.write();
  }
  async write() {
    const ready = {};
    let atMs = Date.now();
    for (const { name, leftMs } of this.tasks) {
      atMs += leftMs;
      const [file, drawn] = name.split(' ');
      const pictured = RECORDINGS.some((one) => one.file === file && one.pictured === true);
      ready[`${file}.${drawn !== undefined ? 'mp4' : pictured ? 'vtt' : 'ogg'}`] = Math.round(atMs);
    }
    await writeFile(this.path, JSON.stringify(ready));
  }
}

async function make({ file, pictured }, demoDir, waits, say) {
  const spoken = await speakRecording(`${TEXTS}${file}.txt`, demoDir, (text, share) => {
    say(text);
    void waits.at(file, share);
  });
  await waits.at(file, 1);
  if (pictured !== true) return;
  let told = 0;
  await drawRecording(spoken, (share) => {
    void waits.at(`${file} drawn`, share);
    if (share < told + 0.25) return;
    told = share;
    say(`${spoken.title}: drawn ${Math.round(100 * share)} %`);
  });
  await waits.at(`${file} drawn`, 1);
}

const pause = (ms) => new Promise((resolve) => setTimeout(resolve, ms));
/** What somebody who is signed in meanwhile has changed is left as he wants it. */
const unlessChanged = (act) =>
  act.catch((error) => {
    if (error.status !== 409 && error.status !== 404) throw error;
  });

/** Waits for a recording to be fetched, and takes it as far as it comes by itself. @returns the ids of its approved shorts */
async function arrive(caller, { file, client: of, stage, brief }, say) {
  const { title } = parseRecording(await readFile(`${TEXTS}${file}.txt`, 'utf8'), file);
  const find = async () => (await caller.call('GET', 'recordings')).find((one) => one.title === title);
  let recording = await find();
  // It is there now; whoever waits need not wait as long as the host had thought.
  if (recording?.fetch?.state === 'waiting' && recording.fetch.failure !== null) {
    await unlessChanged(caller.call('DELETE', `recordings/${recording.id}/fetch`));
    await unlessChanged(caller.call('POST', `recordings/${recording.id}/fetch`));
    recording = await find();
  }
  for (; recording !== undefined && recording.fetch !== null && recording.fetch.state !== 'done'; recording = await find()) {
    if (recording.fetch.state === 'failed') await unlessChanged(caller.call('POST', `recordings/${recording.id}/fetch`));
    if (recording.fetch.state === 'cancelled') return [];
    await pause(1_000);
  }
  if (recording === undefined) return []; // somebody has deleted it
  say(`Fetched: ${title}`);
  if (stage === 'waiting') return [];
  const { standingBrief } = CLIENTS.find((one) => one.name === of);
  const known = (await caller.call('GET', `recordings/${recording.id}/sifts`)).at(-1);
  const sift = known ?? (await caller.call('POST', `recordings/${recording.id}/sifts`, { ...standingBrief, ...brief }));
  await sifted(caller, sift.id);
  say(`Sifted: ${title}`);
  return stage === 'worked' ? workOut(caller, recording, sift) : [];
}

async function sifted(caller, siftId) {
  for (;;) {
    const { state, failure } = await caller.call('GET', `sifts/${siftId}`);
    if (state === 'done') return;
    if (state === 'failed' || state === 'cancelled') throw new Error(`the demo's sift ${state}: ${failure ?? ''}`);
    await pause(500);
  }
}

/** Keeps the strong ones, drops one, approves most; what is done already is left. @returns the ids of the approved shorts */
async function workOut(caller, recording, sift) {
  const { candidates } = await caller.call('GET', `sifts/${sift.id}/ranking`);
  for (const { id, rank, state } of candidates.slice(0, 9))
    if (state === 'open') await unlessChanged(caller.call('PUT', `candidates/${id}/state`, { state: rank === 5 ? 'dropped' : 'kept' }));
  const ofRecording = `shorts?recordingId=${recording.id}`;
  const shorts = (await caller.call('GET', ofRecording)).sort((a, b) => b.score - a.score);
  const chosen = shorts.slice(0, shorts.length - 2);
  // What else is made of it; the others wait to be made by hand.
  const made = (await caller.call('GET', `recordings/${recording.id}/documents`)).map(({ kind }) => kind);
  for (const kind of DOCUMENTS) if (!made.includes(kind)) await unlessChanged(caller.call('POST', `recordings/${recording.id}/documents`, { kind }));
  for (const { id, version, approved } of chosen) if (!approved) await unlessChanged(caller.call('PUT', `shorts/${id}/approval`, { approved: true, version }));
  // The best one stays true: it may come again.
  if (chosen.length > 0) await unlessChanged(caller.call('PUT', `shorts/${chosen[0].id}/evergreen`, { evergreen: true }));
  return (await caller.call('GET', ofRecording)).filter(({ approved }) => approved).map(({ id }) => id);
}

/** A feed that is followed, in which an episode has come out since. */
async function follow(caller, standinsUrl) {
  const owner = (await caller.call('GET', 'clients')).find((one) => one.name === SHOW.client);
  if (owner === undefined) return; // somebody has renamed it, or put it away
  const url = `${standinsUrl}/shows/${SHOW.slug}/feed.xml`;
  if ((await caller.call('GET', 'feeds')).some((one) => one.url === url)) return;
  const feed = await caller.call('POST', `clients/${owner.id}/feeds`, { url, rule: 'list' });
  const read = async () => {
    for (;;) {
      const now = (await caller.call('GET', 'feeds')).find((one) => one.id === feed.id);
      if (now.trouble !== null) throw new Error(`the demo's feed: ${now.trouble}`);
      if (!now.reading) return;
      await pause(200);
    }
  };
  await read();
  const answer = await fetch(`${standinsUrl}/shows/${SHOW.slug}/publish`, { method: 'PUT' });
  if (!answer.ok) throw new Error(`the stand-in podcast host: ${answer.status}`);
  await caller.call('POST', `feeds/${feed.id}/reading`);
  await read();
}

/** A batch, and the schedule some days into its life; neither where there is one. */
async function plan(caller, client, shortIds) {
  if (shortIds.length === 0) return;
  if (!(await caller.call('GET', 'batches')).some(({ name }) => name === BATCH)) await caller.call('POST', 'batches', { name: BATCH, shortIds });
  const { rows } = await client.query('SELECT 1 FROM posts LIMIT 1');
  const owner = (await caller.call('GET', 'clients')).find(({ name }) => name === PLANNED);
  if (rows.length === 0 && owner !== undefined) await layOutFrom(caller, client, owner, shortIds.slice(1));
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
