import { setTimeout as wait } from 'node:timers/promises';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { type Caller, query, World } from './world.js';

let world: World;
let clientId: string;
beforeAll(async () => {
  world = await World.make();
});
beforeEach(async () => {
  clientId = await world.client();
});
afterAll(() => world.close());

interface Message {
  readonly type: string;
  readonly job?: { readonly subjectId: string; readonly state: string; readonly fraction: number };
}

/** Listens to a caller's events. `ended` resolves when the server ends the stream. */
async function listen(caller: Caller): Promise<{ messages: Message[]; ended: Promise<void>; close: () => void }> {
  const stop = new AbortController();
  const answer = await fetch(`${world.base}/api/progress`, { headers: { cookie: caller.cookie }, signal: stop.signal });
  expect(answer.status).toBe(200);
  const messages: Message[] = [];
  const ended = (async () => {
    const reader = answer.body!.pipeThrough(new TextDecoderStream()).getReader();
    for (let chunk = await reader.read(); !chunk.done; chunk = await reader.read())
      for (const line of chunk.value.split('\n')) if (line.startsWith('data: ')) messages.push(JSON.parse(line.slice(6)) as Message);
  })().catch(() => undefined);
  await expect.poll(() => messages.length).toBeGreaterThan(0);
  return { messages, ended, close: () => stop.abort() };
}
/** Something happens to a job of a client. @returns its subject */
async function happen(ofClient = clientId): Promise<string> {
  const [row] = await query(
    `INSERT INTO jobs (kind, subject_id, client_id, lock_key) SELECT 'test', s, $1, 'test:' || s FROM gen_random_uuid() s RETURNING subject_id`,
    [ofClient],
  );
  return String(row!['subject_id']);
}
const heard = (messages: readonly Message[], subjectId: string): number => messages.filter((one) => one.job?.subjectId === subjectId).length;

describe('a stream of events', () => {
  it('tells of one’s own clients only, once each', async () => {
    const producer = await world.producer([clientId]);
    const stream = await listen(producer);
    const [theirs, own] = [await happen(await world.client()), await happen()];
    await expect.poll(() => heard(stream.messages, own)).toBe(1);
    expect(heard(stream.messages, theirs)).toBe(0);
    stream.close();
  });
  it('ends with signing out, with being switched off, and with a changed password', async () => {
    const ways: ((caller: Caller, userId: string) => Promise<unknown>)[] = [
      (caller) => caller.delete('session'),
      (_, userId) => world.owner.put(`users/${userId}`, { name: 'P', role: 'producer', clientIds: [clientId], active: false, version: 1 }),
      (caller) => caller.put('session/password', { current: 'a long enough password', next: 'another long password' }),
      (_, userId) => world.owner.delete(`users/${userId}`),
    ];
    for (const way of ways) {
      const producer = await world.producer([clientId]);
      const { userId } = (await producer.get('session')).body;
      const stream = await listen(producer);
      await way(producer, userId);
      await stream.ended; // the server's doing: nobody closed it here
      expect(stream.messages.at(-1)).toEqual({ type: 'over' });
      const later = await happen();
      await wait(200);
      expect(heard(stream.messages, later)).toBe(0);
    }
  });
  it('tells nothing more of a client that one does not work for any more', async () => {
    const other = await world.client();
    const producer = await world.producer([clientId, other]);
    const { userId } = (await producer.get('session')).body;
    const stream = await listen(producer);
    await world.owner.put(`users/${userId}`, { name: 'P', role: 'producer', clientIds: [other], active: true, version: 1 });
    const [gone, still] = [await happen(clientId), await happen(other)];
    await expect.poll(() => heard(stream.messages, still)).toBe(1);
    expect(heard(stream.messages, gone)).toBe(0);
    stream.close();
  });
  it('tells what happened to a job in the order that it happened in', async () => {
    const stream = await listen(world.owner);
    const subject = await happen();
    await query(`DO $$ BEGIN FOR step IN 1..400 LOOP UPDATE jobs SET fraction = step / 400.0 WHERE subject_id = '${subject}'; END LOOP; END $$`);
    await expect.poll(() => heard(stream.messages, subject)).toBe(401);
    const told = stream.messages.flatMap(({ job }) => (job?.subjectId === subject ? [job.fraction] : []));
    expect(told).toEqual([...told].sort((a, b) => a - b));
    stream.close();
  });
  it('survives a lost line to the database, says that something was missed, and then tells each thing once', async () => {
    const stream = await listen(world.owner);
    for (let round = 0; round < 3; round += 1) {
      const missed = stream.messages.filter((one) => one.type === 'missed').length;
      await query(`SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE datname = current_database() AND application_name = 'sift-reel event line'`);
      await expect.poll(() => stream.messages.filter((one) => one.type === 'missed').length).toBe(missed + 1);
    }
    const subject = await happen();
    await expect.poll(() => heard(stream.messages, subject)).toBe(1);
    await wait(300);
    expect(heard(stream.messages, subject)).toBe(1);
    stream.close();
  });
  it('health says when events are not heard, and when they are again', async () => {
    await query(`SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE datname = current_database() AND application_name = 'sift-reel event line'`);
    await expect.poll(async () => (await world.owner.get('health')).body.detail, { interval: 5 }).toBe('Events of workers are not heard.');
    await expect.poll(async () => (await world.owner.get('health')).body).toEqual({ database: true, queue: true, events: true });
  });
  // The last: a second server in one process takes the models over.
  it('is no hindrance to a server that is told to stop', async () => {
    const other = await World.make();
    const answer = await fetch(`${other.base}/api/progress`, { headers: { cookie: other.owner.cookie } });
    const reading = answer.text();
    await other.close(); // hung here until the browser went away
    expect(await reading).toContain('beat');
  });
});
