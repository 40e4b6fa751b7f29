import { ConflictException, Inject, Injectable } from '@nestjs/common';
import type { FeedChangeForm, FeedForm, LinkForm, TakeInForm } from '@sift-reel/forms';
import { AuditService } from '../audit/audit.service.js';
import { CONFIG, type Config } from '../config/config.module.js';
import { Database } from '../database/database.service.js';
import { sqlState } from '../database/sql-state.js';
import { claimVersion } from '../database/versions.js';
import { whyNot } from '../fetching/safe-fetch.js';
import { type Actor, found, requireClient, scoped, seenClients } from '../identity/actor.js';
import { JobsService } from '../jobs/jobs.service.js';
import { InvalidFormException } from '../problems/refusals.js';
import { RecordingsService } from '../recordings/recordings.service.js';
import type { RecordingView } from '../recordings/recordings.views.js';
import { FEED } from './feeds.kind.js';
import { Episode, Feed } from './feeds.models.js';
import type { EpisodeView, FeedView } from './feeds.views.js';
import { fileName } from './file-name.js';
import { Intake } from './intake.service.js';

const UNIQUE_VIOLATION = '23505';
/** Shown of one feed, and of all together: the newest. */
const [SHOWN_OF_FEED, SHOWN_NEW] = [500, 100];

/** $1 clients, or null for all; $2 one feed, or null */
const FEEDS = `SELECT f.id, f.client_id AS "clientId", f.url, f.title, f.rule, f.read_at AS "readAt", f.next_read_at AS "nextReadAt", f.trouble, f.version,
  coalesce(j.state IN ('waiting', 'running'), false) AS reading, j.failure,
  (SELECT count(*)::int FROM episodes e WHERE e.feed_id = f.id) AS "episodeCount",
  (SELECT count(*)::int FROM episodes e WHERE e.feed_id = f.id AND e.is_new AND NOT EXISTS (SELECT FROM fetches t WHERE t.episode_id = e.id)) AS "newCount"
FROM feeds f JOIN clients c ON c.id = f.client_id AND c.archived_at IS NULL LEFT JOIN jobs j ON j.kind = 'feed' AND j.subject_id = f.id
WHERE ($1::uuid[] IS NULL OR f.client_id = ANY ($1)) AND ($2::uuid IS NULL OR f.id = $2) ORDER BY lower(f.title), f.id`;

/** $1 clients, or null for all; $2 one feed, or null for what is new and not taken in; $3 how many */
const EPISODES = `SELECT e.id, e.client_id AS "clientId", e.feed_id AS "feedId", f.title AS "feedTitle", e.title, e.summary, e.link,
  e.published_at AS "publishedAt", e.duration_ms AS "durationMs", e.season, e.season_name AS "seasonName", e.number, e.enclosure, e.persons,
  jsonb_array_length(e.transcripts) > 0 AS "hasTranscript", e.chapters IS NOT NULL AS "hasChapters", e.is_new AS "isNew", t.recording_id AS "recordingId"
FROM episodes e JOIN feeds f ON f.id = e.feed_id JOIN clients c ON c.id = e.client_id AND c.archived_at IS NULL LEFT JOIN fetches t ON t.episode_id = e.id
WHERE ($1::uuid[] IS NULL OR e.client_id = ANY ($1)) AND CASE WHEN $2::uuid IS NULL THEN e.is_new AND t.id IS NULL ELSE e.feed_id = $2 END
ORDER BY e.published_at DESC NULLS LAST, e.found_at DESC, e.id LIMIT $3`;

type FeedRow = Omit<FeedView, 'readAt' | 'nextReadAt'> & { readonly readAt: Date | null; readonly nextReadAt: Date | null; readonly failure: string | null };
type EpisodeRow = Omit<EpisodeView, 'publishedAt' | 'video' | 'bytes' | 'persons'> &
  Pick<Episode, 'enclosure' | 'persons'> & { readonly publishedAt: Date | null };

/** Feeds that clients follow, what came out in them, and what is taken in of it. */
@Injectable()
export class FeedsService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(JobsService) private readonly jobs: JobsService,
    @Inject(AuditService) private readonly audit: AuditService,
    @Inject(RecordingsService) private readonly recordings: RecordingsService,
    @Inject(Intake) private readonly intake: Intake,
    @Inject(CONFIG) private readonly config: Config,
  ) {}

  async list(actor: Actor): Promise<FeedView[]> {
    return (await this.database.rows<FeedRow>(FEEDS, [seenClients(actor), null])).map(toFeedView);
  }

  private async read(actor: Actor, feedId: string): Promise<FeedView> {
    return toFeedView(found((await this.database.rows<FeedRow>(FEEDS, [seenClients(actor), feedId]))[0], 'feed'));
  }

  async follow(actor: Actor, clientId: string, { url: written, rule }: FeedForm): Promise<FeedView> {
    const url = this.address('url', written);
    const id = await this.database.transaction(async () => {
      await this.recordings.requireOpenClient(actor, clientId);
      const title = new URL(url).hostname;
      const row = await Feed.create({ clientId, url, title, rule, createdBy: actor.userId }).catch((error: unknown) => {
        if (sqlState(error) === UNIQUE_VIOLATION) throw new ConflictException('This client follows this feed already.');
        throw error;
      });
      await this.ask(row);
      await this.audit.record({ userId: actor.userId, clientId, action: 'create', subject: 'feed', subjectId: row.id, detail: { title } });
      return row.id;
    });
    return this.read(actor, id);
  }

  async change(actor: Actor, feedId: string, { rule, version }: FeedChangeForm): Promise<FeedView> {
    await this.find(actor, feedId);
    await this.database.transaction(async () => {
      const row = await claimVersion(Feed, feedId, version, 'feed', () => this.read(actor, feedId));
      // Whoever says that it happens by itself is whose doing it is.
      await row.update({ rule, createdBy: actor.userId });
      const { clientId, title } = row;
      await this.audit.record({ userId: actor.userId, clientId, action: 'update', subject: 'feed', subjectId: feedId, detail: { title } });
    });
    return this.read(actor, feedId);
  }

  /** What was taken in of it stays. */
  async leave(actor: Actor, feedId: string): Promise<void> {
    await this.find(actor, feedId);
    await this.database.transaction(async () => {
      const row = found(await Feed.findOne({ where: { id: feedId, ...scoped(actor) }, lock: true }), 'feed');
      await this.jobs.cancel(FEED, feedId);
      const { clientId, title } = row;
      await row.destroy();
      await this.audit.record({ userId: actor.userId, clientId, action: 'delete', subject: 'feed', subjectId: feedId, detail: { title } });
    });
  }

  /** Reads it now. */
  async readNow(actor: Actor, feedId: string): Promise<FeedView> {
    await this.find(actor, feedId);
    await this.database.transaction(async () => {
      const row = found(await Feed.findOne({ where: { id: feedId, ...scoped(actor) }, lock: true }), 'feed');
      await this.ask(row);
    });
    return this.read(actor, feedId);
  }

  async episodes(actor: Actor, feedId: string): Promise<EpisodeView[]> {
    await this.find(actor, feedId);
    return (await this.database.rows<EpisodeRow>(EPISODES, [seenClients(actor), feedId, SHOWN_OF_FEED])).map(toEpisodeView);
  }

  /** What came out since the feeds are followed and was not taken in. */
  async newEpisodes(actor: Actor): Promise<EpisodeView[]> {
    return (await this.database.rows<EpisodeRow>(EPISODES, [seenClients(actor), null, SHOWN_NEW])).map(toEpisodeView);
  }

  async takeIn(actor: Actor, episodeId: string, { sift }: TakeInForm): Promise<RecordingView> {
    const recordingId = await this.database.transaction(async () => {
      const { feedId, clientId } = found(await Episode.findOne({ where: { id: episodeId, ...scoped(actor) }, attributes: ['feedId', 'clientId'] }), 'episode');
      await this.recordings.requireOpenClient(actor, clientId);
      // Held against somebody who stops following it just now.
      const { title } = found(await Feed.findByPk(feedId, { attributes: ['title'], lock: true }), 'episode');
      return this.intake.takeIn(episodeId, title, sift, actor.userId);
    });
    return this.recordings.read(actor, recordingId);
  }

  /** A recording from a plain link. */
  async fromLink(actor: Actor, clientId: string, { url: written, transcriptUrl, title, sift }: LinkForm): Promise<RecordingView> {
    requireClient(actor, clientId);
    const url = this.address('url', written);
    const transcripts = transcriptUrl === null ? [] : [{ url: this.address('transcriptUrl', transcriptUrl), type: '' }];
    const recordingId = await this.database.transaction(async () => {
      await this.recordings.requireOpenClient(actor, clientId);
      const name = fileName(url)
        .replace(/\.\w{1,5}$/, '')
        .replace(/[_-]+/g, ' ')
        .trim();
      const named = title ?? (name === '' ? 'Untitled' : name);
      return this.intake.begin({
        clientId,
        title: named,
        url,
        bytes: null,
        transcripts,
        chaptersUrl: null,
        episodeId: null,
        origin: null,
        sift,
        userId: actor.userId,
      });
    });
    return this.recordings.read(actor, recordingId);
  }

  private async ask({ id, clientId }: Feed): Promise<void> {
    await this.jobs.enqueue(FEED, { subjectId: id, clientId, about: { feedId: id }, size: 'short', again: true });
  }

  private async find(actor: Actor, feedId: string): Promise<Feed> {
    return found(await Feed.findOne({ where: { id: feedId, ...scoped(actor) } }), 'feed');
  }

  /** What may never be asked is refused at once, at its field. */
  private address(field: string, written: string): string {
    const why = whyNot(written, this.config.fetchFrom);
    if (why !== null) throw new InvalidFormException([{ field, detail: why }]);
    return new URL(written).href;
  }
}

function toFeedView({ readAt, nextReadAt, failure, ...row }: FeedRow): FeedView {
  return { ...row, trouble: row.trouble ?? failure, readAt: readAt?.toISOString() ?? null, nextReadAt: nextReadAt?.toISOString() ?? null };
}

function toEpisodeView({ enclosure, persons, publishedAt, ...row }: EpisodeRow): EpisodeView {
  return {
    ...row,
    publishedAt: publishedAt?.toISOString() ?? null,
    persons: persons.map(({ name }) => name),
    video: enclosure.type.startsWith('video/'),
    bytes: enclosure.bytes,
  };
}
