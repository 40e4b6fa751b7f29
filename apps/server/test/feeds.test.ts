import { stat } from 'node:fs/promises';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { Database } from '../dist/database/database.service.js';
import { FeedClock } from '../dist/feeds/feed-clock.service.js';
import { afterMiss, afterReading } from '../dist/feeds/reading-times.js';
import { JobsService } from '../dist/jobs/jobs.service.js';
import { episode, PodcastWorld } from './podcast-world.js';
import { BRIEF, query, until } from './world.js';

vi.setConfig({ testTimeout: 240_000, hookTimeout: 240_000 });

let here: PodcastWorld;
beforeAll(async () => {
  here = await PodcastWorld.make();
});
afterAll(() => here.close());

describe('a feed that is followed', () => {
  it('lists what is out, page by page, and nothing of it as new', async () => {
    const feed = await here.followed(
      await here.show(
        'pages',
        [5, 4, 3, 2, 1].map((n) => episode('pages', n)),
      ),
    );
    expect(feed).toMatchObject({ title: 'Show pages', rule: 'list', episodeCount: 5, newCount: 0, trouble: null });
    // As long as the feed says that it stays as it is (RSS 2.0, ttl).
    expect(Date.parse(feed.nextReadAt) - Date.parse(feed.readAt)).toBe(45 * 60_000);
    const episodes = await here.episodesOf(feed.id);
    expect(episodes.map(({ title }) => title)).toEqual(['Night 5', 'Night 4', 'Night 3', 'Night 2', 'Night 1']);
    expect(episodes[0]).toMatchObject({
      ...{ number: '5', season: 1, persons: ['Nuala', 'Odile Farr'], durationMs: 60_000, publishedAt: '2026-01-05T00:00:00.000Z' },
      ...{ hasTranscript: true, hasChapters: true, video: false, isNew: false, recordingId: null, summary: 'What happens to a cold chimney.' },
    });
  });

  it('is asked on the condition that it changed, and not past what is known', async () => {
    const feed = await here.followed(
      await here.show(
        'again',
        [3, 2, 1].map((n) => episode('again', n, { held: n === 3 })),
      ),
    );
    here.asked.length = 0;
    await here.readAgain(feed.id);
    expect(here.asked.map(({ url, ifNoneMatch }) => [url, typeof ifNoneMatch])).toEqual([['/shows/again/feed.xml', 'string']]);
    // What it said of how long it stays as it is holds while it does.
    const { readAt, nextReadAt } = await here.feedOf(feed.id);
    expect(Date.parse(nextReadAt) - Date.parse(readAt)).toBe(45 * 60_000);
    await here.publish('again');
    here.asked.length = 0;
    expect(await here.readAgain(feed.id)).toMatchObject({ episodeCount: 3, newCount: 1 });
    expect(here.asked.map(({ url }) => url)).toEqual(['/shows/again/feed.xml']);
    const mine = (await here.world.owner.get('new-episodes')).body.filter((one: { feedId: string }) => one.feedId === feed.id);
    expect(mine.map(({ title }: { title: string }) => title)).toEqual(['Night 3']);
  });

  it('becomes a recording with its sound, its transcript, its people and its chapters', async () => {
    const feed = await here.followed(await here.show('taken', [episode('taken', 1)]));
    const [one] = await here.episodesOf(feed.id);
    const { status, body } = await here.world.owner.post(`episodes/${one.id}/recording`, { sift: false });
    expect([status, body.title, body.fetch.host]).toEqual([201, 'Night 1', '127.0.0.1']);
    const made = await here.fetched(body.id);
    expect(made.fetch).toMatchObject({ state: 'done', failure: null, notes: [] });
    expect(made.sound).toMatchObject({ name: 'night-1.ogg', bytes: (await stat(join(here.folder, 'talk.ogg'))).size });
    expect(made.transcript).toMatchObject({ sourceName: 'talk.vtt', speakers: ['Ann', 'Bo'] });
    expect(made.origin).toEqual({
      ...{ feedTitle: 'Show taken', publishedAt: '2026-01-01T00:00:00.000Z', link: null, season: 1, seasonName: '', number: '1' },
      persons: [
        { name: 'Nuala', role: 'host' },
        { name: 'Odile Farr', role: 'guest' },
      ],
      chapters: [
        { startMs: 0, title: 'Hello' },
        { startMs: 30_500, title: 'The flue' },
      ],
    });
    expect(made.preparation).not.toBeNull();
    await expect.poll(here.leftovers).toEqual([]);
    expect((await here.episodesOf(feed.id))[0].recordingId).toBe(body.id);
    // A recording that is deleted gives the episode back.
    expect((await here.world.owner.delete(`recordings/${body.id}`)).status).toBe(204);
    expect((await here.episodesOf(feed.id))[0].recordingId).toBeNull();
  });

  it('is taken in once, by two at the same moment', async () => {
    const feed = await here.followed(await here.show('twice', [episode('twice', 1)]));
    const [one] = await here.episodesOf(feed.id);
    const answers = await Promise.all(Array.from({ length: 6 }, () => here.world.owner.post(`episodes/${one.id}/recording`, { sift: false })));
    expect(answers.map(({ status }) => status).sort()).toEqual([201, 409, 409, 409, 409, 409]);
    expect(await query('SELECT count(*)::int AS n FROM recordings WHERE client_id = $1', [feed.clientId])).toEqual([{ n: 1 }]);
  });

  it('is followed once, and read by whoever asks first', async () => {
    const url = await here.show('once', [episode('once', 1)]);
    const clientId = await here.world.client();
    const answers = await Promise.all(Array.from({ length: 4 }, () => here.world.owner.post(`clients/${clientId}/feeds`, { url, rule: 'list' })));
    expect(answers.map(({ status }) => status).sort()).toEqual([201, 409, 409, 409]);
    expect(answers.find(({ status }) => status === 409)!.body.detail).toBe('This client follows this feed already.');
  });

  it('goes, and what was taken in of it stays', async () => {
    const feed = await here.followed(await here.show('left', [episode('left', 2), episode('left', 1)]));
    const [one] = await here.episodesOf(feed.id);
    const { id } = (await here.world.owner.post(`episodes/${one.id}/recording`, { sift: false })).body;
    await here.fetched(id);
    expect((await here.world.owner.delete(`feeds/${feed.id}`)).status).toBe(204);
    expect((await here.world.owner.get(`feeds/${feed.id}/episodes`)).status).toBe(404);
    expect(await here.recording(id)).toMatchObject({ title: 'Night 2', origin: { feedTitle: 'Show left' } });
  });
});

describe('a standing rule', () => {
  it('takes each new episode in and sifts it with the standing brief, once, however many workers there are', async () => {
    const second = here.startWorker();
    await second.ready;
    try {
      const clientId = await here.world.client();
      const feed = await here.followed(await here.show('ruled', [episode('ruled', 2, { held: true }), episode('ruled', 1)]), 'sift', clientId);
      expect(await query('SELECT 1 FROM recordings WHERE client_id = $1', [clientId])).toEqual([]); // what was out is only listed
      await here.publish('ruled');
      // Two ask at once, and the clocks of two workers look, too.
      await query('UPDATE feeds SET next_read_at = now() WHERE id = $1', [feed.id]);
      const clock = new FeedClock(here.world.app.get(Database), here.world.app.get(JobsService, { strict: false }));
      await Promise.all([here.world.owner.post(`feeds/${feed.id}/reading`), clock.look(), clock.look()]);
      const [row] = await until(
        () => query('SELECT id FROM recordings WHERE client_id = $1', [clientId]),
        (rows) => rows.length > 0,
      );
      const made = await until(
        () => here.recording(row!['id'] as string),
        (one) => one.latestSift?.state === 'done',
      );
      expect(made).toMatchObject({ title: 'Night 2', fetch: { state: 'done', notes: [] } });
      await here.readAgain(feed.id);
      expect(await query('SELECT count(*)::int AS n FROM recordings WHERE client_id = $1', [clientId])).toEqual([{ n: 1 }]);
      expect(await query('SELECT count(*)::int AS n FROM sifts WHERE client_id = $1', [clientId])).toEqual([{ n: 1 }]);
      expect(await query('SELECT min_ms AS "minMs" FROM briefs WHERE client_id = $1', [clientId])).toEqual([{ minMs: BRIEF.minMs }]);
    } finally {
      await second.stop();
    }
  });

  it('says when the standing brief does not fit, and sifts nothing', async () => {
    const clientId = await here.world.client();
    const { version } = (await here.world.owner.get('clients')).body.find((one: { id: string }) => one.id === clientId);
    const form = { name: `Late ${clientId}`, zone: 'Europe/Dublin', tags: [], standingBrief: { ...BRIEF, partStartMs: 3_000_000 }, version };
    expect((await here.world.owner.put(`clients/${clientId}`, form)).status).toBe(200);
    const feed = await here.followed(await here.show('unfit', [episode('unfit', 1)]), 'list', clientId);
    const [one] = await here.episodesOf(feed.id);
    const { id } = (await here.world.owner.post(`episodes/${one.id}/recording`, { sift: true })).body;
    const made = await here.fetched(id);
    expect([made.latestSift, made.transcript === null]).toEqual([null, false]);
    expect(made.fetch.notes).toEqual([expect.stringMatching(/^It was not sifted, as the standing brief does not fit it: /)]);
  });

  it('takes nothing in when a feed gives all its episodes new names', async () => {
    const episodes = Array.from({ length: 12 }, (_, i) =>
      episode('flood', i + 1, { held: i > 0, sound: { file: 'talk.ogg', type: 'audio/ogg', bytes: 1_000 + i } }),
    );
    const url = await here.show('flood', episodes, { pageSize: 20 });
    const feed = await here.followed(url, 'take');
    // Names alone do not make an episode new.
    const renamed = episodes.map((one, i) => ({ ...one, guid: `renamed-${i}`, held: false }));
    await here.show('flood', renamed, { pageSize: 20 });
    expect(await here.readAgain(feed.id)).toMatchObject({ newCount: 0, trouble: null });
    const others = renamed.map((one, i) => ({ ...one, guid: `other-${i}`, sound: { ...one.sound, file: `other-${i}.ogg` } }));
    await here.show('flood', others, { pageSize: 20 });
    const after = await here.readAgain(feed.id);
    expect(after).toMatchObject({ newCount: 12, trouble: expect.stringMatching(/^12 episodes came out at once/) as string });
    expect(await query('SELECT 1 FROM recordings WHERE client_id = $1', [feed.clientId])).toEqual([]);
  });

  it('is changed by one of two who saw the same', async () => {
    const feed = await here.followed(await here.show('rule-two', [episode('rule-two', 1)]));
    const answers = await Promise.all(['take', 'sift'].map((rule) => here.world.owner.put(`feeds/${feed.id}`, { rule, version: feed.version })));
    expect(answers.map(({ status }) => status).sort()).toEqual([200, 409]);
    const stale = answers.find(({ status }) => status === 409)!.body;
    expect([stale.code, stale.current.rule]).toEqual(['stale', (await here.feedOf(feed.id)).rule]);
  });
});

describe('a host that does not do as it should', () => {
  it('is left alone for as long as it asks, and longer each time', async () => {
    const feed = await here.followed(await here.show('busy', [episode('busy', 1)]));
    await here.withManner('not-now', async () => {
      const first = await here.readAgain(feed.id);
      expect(first).toMatchObject({ trouble: '127.0.0.1 asks to come again later (503).', episodeCount: 1 });
      const second = await here.readAgain(feed.id);
      const ms = (one: { nextReadAt: string }): number => Date.parse(one.nextReadAt) - Date.now();
      expect(Math.round(ms(first) / 60_000)).toBeLessThanOrEqual(15);
      expect(Math.round(ms(second) / 60_000)).toBeGreaterThan(20);
    });
    expect(await here.readAgain(feed.id)).toMatchObject({ trouble: null });
  });

  it('moves its feed for good: it is asked there from then on', async () => {
    const url = await here.show('moved', [episode('moved', 1)]);
    const feed = await here.followed(url);
    await here.withManner('moved', async () => {
      expect((await here.readAgain(feed.id)).url).toBe(url.replace('feed.xml', 'feed-here.xml'));
    });
  });

  it('has no feed any more: it is not asked by itself', async () => {
    const feed = await here.followed(await here.show('gone', [episode('gone', 1)]));
    await here.withManner('gone', async () => {
      expect(await here.readAgain(feed.id)).toMatchObject({ trouble: '127.0.0.1 has nothing at this address (410).', nextReadAt: null });
    });
    expect(await here.readAgain(feed.id)).toMatchObject({ trouble: null, nextReadAt: expect.any(String) as string });
  });

  it('gives something else than a feed: the place is said', async () => {
    const feed = await here.followed(`${here.origin}/shows/pages`);
    expect(feed.trouble).toBe('What is at this address is no feed that can be read: line 1: this is a web page; give the address of the feed itself.');
  });
});

describe('when a feed is read next', () => {
  const now = new Date('2026-03-01T12:00:00Z');
  const minutes = (date: Date | null): number | null => (date === null ? null : (date.getTime() - now.getTime()) / 60_000);
  it.each([
    [null, 60],
    [5, 15],
    [90, 90],
    [100_000, 1_440],
  ])('after it was read, with a ttl of %s', (ttl, after) => expect(minutes(afterReading(now, ttl))).toBe(after));
  it.each([
    [1, null, 15],
    [2, null, 30],
    [3, 10_000, 60],
    [1, 3_600_000, 60],
    [40, null, 1_440],
  ])('after %s misses, when it asks for %s ms', (misses, afterMs, after) => expect(minutes(afterMiss(now, misses, { afterMs, ended: false }))).toBe(after));
  it('never by itself once it ended', () => expect(afterMiss(now, 1, { afterMs: null, ended: true })).toBeNull());
});
