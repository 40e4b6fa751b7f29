import { ConflictException, Inject, Injectable } from '@nestjs/common';
import type { FeedFile } from '@sift-reel/core';
import { AuditService } from '../audit/audit.service.js';
import { JobsService } from '../jobs/jobs.service.js';
import { Recording, type RecordingOrigin } from '../recordings/recordings.models.js';
import { FETCH, LONG_BYTES } from './feeds.kind.js';
import { Episode, Fetch } from './feeds.models.js';

interface Wanted {
  readonly clientId: string;
  readonly title: string;
  readonly url: string;
  readonly bytes: number | null;
  readonly transcripts: readonly FeedFile[];
  readonly chaptersUrl: string | null;
  readonly episodeId: string | null;
  readonly origin: RecordingOrigin | null;
  readonly sift: boolean;
  readonly userId: string | null;
}

const LONGEST_TITLE = 160;

/** Makes recordings whose files are still to be fetched: API and worker alike. Always inside a transaction. */
@Injectable()
export class Intake {
  constructor(
    @Inject(JobsService) private readonly jobs: JobsService,
    @Inject(AuditService) private readonly audit: AuditService,
  ) {}

  /**
   * The episode as a recording. Of two who take it in at once, one does.
   * @throws ConflictException when it was taken in
   */
  async takeIn(episodeId: string, feedTitle: string, sift: boolean, userId: string | null): Promise<string> {
    // Held, so that whoever comes second sees the fetch of whoever came first.
    const episode = await Episode.findByPk(episodeId, { lock: true, rejectOnEmpty: true });
    if ((await Fetch.count({ where: { episodeId } })) > 0) throw new ConflictException('This episode was taken in already.');
    const { clientId, title, enclosure, transcripts, chapters, publishedAt, link, persons, season, seasonName, number } = episode;
    return this.begin({
      clientId,
      title,
      url: enclosure.url,
      bytes: enclosure.bytes,
      transcripts,
      chaptersUrl: chapters?.url ?? null,
      episodeId,
      origin: { feedTitle, publishedAt: publishedAt?.toISOString() ?? null, link, season, seasonName, number, persons, chapters: [] },
      sift,
      userId,
    });
  }

  /** @returns the recording's id */
  async begin({ clientId, title, url, bytes, transcripts, chaptersUrl, episodeId, origin, sift, userId }: Wanted): Promise<string> {
    const shown = Array.from(title).slice(0, LONGEST_TITLE).join('');
    const { id: recordingId } = await Recording.create({ clientId, title: shown, baseName: shown, createdBy: userId, origin });
    const files = { url, transcripts: [...transcripts], chaptersUrl };
    const { id } = await Fetch.create({ ...files, clientId, recordingId, episodeId, thenSift: sift, askedBy: userId });
    await this.jobs.enqueue(FETCH, { subjectId: id, clientId, about: { recordingId }, size: (bytes ?? 0) > LONG_BYTES ? 'long' : 'short' });
    const detail = origin === null ? { title: shown } : { title: shown, feed: origin.feedTitle };
    await this.audit.record({ userId, clientId, action: 'take-in', subject: 'recording', subjectId: recordingId, detail });
    return recordingId;
  }
}
