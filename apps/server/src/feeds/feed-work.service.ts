import { HttpException, Inject, Injectable, type OnModuleInit } from '@nestjs/common';
import type { Feed as ReadFeed, FeedEpisode } from '@sift-reel/core';
import { Database } from '../database/database.service.js';
import { FetchError } from '../fetching/fetch-errors.js';
import { SafeFetch } from '../fetching/safe-fetch.js';
import { JobRefusedError } from '../jobs/job-kind.js';
import type { JobRun } from '../jobs/job-run.js';
import { JobWorker } from '../jobs/job-worker.service.js';
import { TextPool } from '../text/text-pool.service.js';
import { FEED } from './feeds.kind.js';
import { Feed } from './feeds.models.js';
import { Intake } from './intake.service.js';
import { afterMiss, afterReading, MOST_MINUTES } from './reading-times.js';

const LARGEST_PAGE = 30_000_000;
const LONGEST_MS = 120_000;
/** Pages and episodes of one reading; older ones are left where they are. */
const [MOST_PAGES, MOST_EPISODES] = [40, 2_000];
/** More at once is a feed that gives its old episodes new names, not a week's work. */
const MOST_BY_RULE = 10;

/** What one reading of a feed found. */
interface Found {
  /** Null when nothing changed since it was read last. */
  readonly changed: Changed | null;
  readonly movedTo: string | null;
}

interface Changed {
  readonly feed: ReadFeed;
  readonly episodes: readonly FeedEpisode[];
  readonly etag: string | null;
  readonly lastModified: string | null;
}

/** A feed that says no more: it is not asked again by itself (RFC 9110, section 15.5.11). */
const GONE = 410;

const KEEP_EPISODES = `INSERT INTO episodes (client_id, feed_id, guid, title, summary, link, published_at, duration_ms, enclosure, transcripts,
    chapters, persons, season, season_name, number, is_new)
  SELECT $1, $2, e.guid, e.title, e.summary, e.link, to_timestamp(e."publishedMs" / 1000.0), e."durationMs", e.enclosure, e.transcripts, e.chapters,
    e.persons, e.season, e."seasonName", e.number,
    $3 AND NOT EXISTS (SELECT FROM episodes old WHERE old.feed_id = $2 AND old.enclosure->>'url' = e.enclosure->>'url')
  FROM jsonb_to_recordset($4::jsonb) AS e (guid text, title text, summary text, link text, "publishedMs" double precision, "durationMs" int,
    enclosure jsonb, transcripts jsonb, chapters jsonb, persons jsonb, season int, "seasonName" text, number text)
  ON CONFLICT (feed_id, guid) DO UPDATE SET title = excluded.title, summary = excluded.summary, link = excluded.link,
    published_at = excluded.published_at, duration_ms = excluded.duration_ms, enclosure = excluded.enclosure, transcripts = excluded.transcripts,
    chapters = excluded.chapters, persons = excluded.persons, season = excluded.season, season_name = excluded.season_name, number = excluded.number
  RETURNING id, xmax = 0 AND is_new AS "isNew", published_at AS "publishedAt"`;

/** Reads feeds, in the worker: on the condition that they changed, page by page until what is known. */
@Injectable()
export class FeedWork implements OnModuleInit {
  constructor(
    @Inject(JobWorker) private readonly worker: JobWorker,
    @Inject(Database) private readonly database: Database,
    @Inject(SafeFetch) private readonly safe: SafeFetch,
    @Inject(TextPool) private readonly text: TextPool,
    @Inject(Intake) private readonly intake: Intake,
  ) {}

  onModuleInit(): void {
    this.worker.register(FEED, (feedId, run) => this.read(feedId, run));
  }

  private async read(feedId: string, run: JobRun): Promise<void> {
    const feed = await Feed.findByPk(feedId);
    if (feed === null) throw new JobRefusedError('The feed is not followed any more.');
    run.report('reading-feed', 0.05);
    const signal = AbortSignal.any([run.signal, AbortSignal.timeout(LONGEST_MS)]);
    let found: Found;
    try {
      found = await this.pagesOf(feed, signal, run);
    } catch (error) {
      run.signal.throwIfAborted();
      const miss = asMiss(error);
      await this.ending(feedId, run, (row) =>
        row.update({ trouble: miss.message, misses: row.misses + 1, nextReadAt: afterMiss(new Date(), row.misses + 1, miss) }).then(() => undefined),
      );
      return;
    }
    await this.ending(feedId, run, (row) => this.keep(row, found));
  }

  /** Feed, then job: whoever stops following holds them in this order. */
  private async ending(feedId: string, run: JobRun, act: (row: Feed) => Promise<void>): Promise<void> {
    await this.database.transaction(async () => {
      const row = await Feed.findByPk(feedId, { lock: true });
      await run.complete(async () => {
        if (row !== null) await act(row);
      });
    });
  }

  private async pagesOf(feed: Feed, signal: AbortSignal, run: JobRun): Promise<Found> {
    const headers: Record<string, string> = { accept: 'application/rss+xml, application/xml;q=0.9, text/xml;q=0.8, */*;q=0.1' };
    if (feed.etag !== null) headers['if-none-match'] = feed.etag;
    else if (feed.lastModified !== null) headers['if-modified-since'] = feed.lastModified;
    const first = await this.safe.read(feed.url, LARGEST_PAGE, { signal, headers });
    const { status, url, headers: told, movedTo } = first.answer;
    if (status === 304) return { changed: null, movedTo };
    const read = await this.parse(feed, first.bytes, url);
    const known = await this.known(feed.id);
    const episodes = new Map(read.episodes.map((one) => [one.guid, one]));
    const asked = new Set([url]);
    let page = read;
    while (page.nextUrl !== null && asked.size < MOST_PAGES && episodes.size < MOST_EPISODES && !page.episodes.some(({ guid }) => known.has(guid))) {
      if (asked.has(page.nextUrl)) break; // a page that names itself
      asked.add(page.nextUrl);
      run.report('reading-feed', Math.min(0.9, 0.05 + asked.size * 0.05));
      const next = await this.safe.read(page.nextUrl, LARGEST_PAGE, { signal });
      page = await this.parse(feed, next.bytes, next.answer.url);
      for (const one of page.episodes) if (!episodes.has(one.guid)) episodes.set(one.guid, one);
    }
    const changed = {
      feed: read,
      episodes: [...episodes.values()].slice(0, MOST_EPISODES),
      etag: told.etag ?? null,
      lastModified: told['last-modified'] ?? null,
    };
    return { changed, movedTo };
  }

  private async parse(feed: Feed, bytes: Buffer, url: string): Promise<ReadFeed> {
    const outcome = await this.text.readFeed(feed.clientId, { bytes: new Uint8Array(bytes), url });
    if (outcome.kind === 'read') return outcome.what;
    throw new FetchError(`What is at this address is no feed that can be read: line ${outcome.line}: ${outcome.detail}.`, true);
  }

  private async known(feedId: string): Promise<ReadonlySet<string>> {
    const rows = await this.database.rows<{ guid: string }>('SELECT guid FROM episodes WHERE feed_id = $1', [feedId]);
    return new Set(rows.map(({ guid }) => guid));
  }

  /** Writes what was found; what is new is taken in where the rule says so, as it stands now. */
  private async keep(row: Feed, { changed, movedTo }: Found): Promise<void> {
    const now = new Date();
    const read = { readAt: now, misses: 0, ...(await this.moved(row, movedTo)) };
    if (changed === null) {
      await row.update({ ...read, trouble: null, nextReadAt: afterReading(now, row.ttlMinutes) });
      return;
    }
    const { feed, episodes, etag, lastModified } = changed;
    const title = feed.title === '' ? row.title : feed.title;
    const ttlMinutes = feed.ttlMinutes === null ? null : Math.min(feed.ttlMinutes, MOST_MINUTES);
    const first = row.readAt === null;
    const kept = await this.database.run<{ id: string; isNew: boolean; publishedAt: Date | null }>(KEEP_EPISODES, [
      row.clientId,
      row.id,
      !first,
      JSON.stringify(episodes),
    ]);
    const fresh = kept.filter(({ isNew }) => isNew).sort((a, b) => Number(a.publishedAt ?? 0) - Number(b.publishedAt ?? 0));
    let trouble: string | null = null;
    if (row.rule !== 'list' && fresh.length > MOST_BY_RULE)
      trouble = `${fresh.length} episodes came out at once, so none of them was taken in by itself. Look at them and take in what you want.`;
    else if (row.rule !== 'list') for (const { id } of fresh) await this.intake.takeIn(id, title, row.rule === 'sift', row.createdBy);
    await row.update({ ...read, title, etag, lastModified, trouble, ttlMinutes, nextReadAt: afterReading(now, ttlMinutes) });
  }

  /** A feed that moved for good is asked at its new address, unless the client follows that one already. */
  private async moved({ id, clientId, url }: Feed, movedTo: string | null): Promise<{ url?: string }> {
    if (movedTo === null || movedTo === url) return {};
    const rows = await this.database.rows('SELECT 1 FROM feeds WHERE client_id = $1 AND url = $2 AND id <> $3', [clientId, movedTo, id]);
    return rows.length > 0 ? {} : { url: movedTo };
  }
}

/** A reading that came to nothing, in words. @throws what is a fault of the program */
function asMiss(error: unknown): { readonly message: string; readonly afterMs: number | null; readonly ended: boolean } {
  if (error instanceof FetchError) return { message: error.message, afterMs: error.afterMs, ended: error.status === GONE };
  if (error instanceof HttpException) return { message: error.message, afterMs: null, ended: false };
  if (error instanceof Error && error.name === 'TimeoutError') return { message: 'It took longer than it may.', afterMs: null, ended: false };
  throw error;
}
