import { isDeepStrictEqual } from 'node:util';
import { ConflictException, Inject, Injectable, NotFoundException, type OnModuleDestroy, type OnModuleInit } from '@nestjs/common';
import { fileName, playedMs } from '@sift-reel/core';
import { Op, type WhereOptions } from 'sequelize';
import { log } from '../config/logger.js';
import { Rounds } from '../config/rounds.js';
import type { Channel } from '../clients/clients.models.js';
import { Database } from '../database/database.service.js';
import { type Actor, found, scoped } from '../identity/actor.js';
import { User } from '../identity/identity.models.js';
import { JobsService } from '../jobs/jobs.service.js';
import { MediaStore } from '../media/media-store.service.js';
import { storedTalk } from '../recordings/stored-talk.js';
import { baseCopy } from '../shorts/short-views.js';
import { passageOf, Short } from '../shorts/shorts.models.js';
import { ShortsService } from '../shorts/shorts.service.js';
import { TextPool } from '../text/text-pool.service.js';
import type { StoredTalk } from '../text/unpack.js';
import { loudnessAsked, loudnessFor } from './asked-loudness.js';
import { RENDER, workFolder } from './render.kind.js';
import { inputsOf, RenderAsking } from './render-asking.service.js';
import { isMadeOf, type Loudness, type RenderShape } from './render-plan.js';
import { Render } from './rendering.models.js';
import type { ArchiveEntry } from './render-archive.js';
import type { ReadyView, RenderForm, RenderView } from './rendering.views.js';

const SWEEP_EVERY_MS = 10 * 60_000;
/** Of one short; files of former versions are shown for a while. */
const MOST_SHOWN = 20;

const titleOf = (short: Short): string => baseCopy(short).title || short.candidate.firstLine;

/** Asks for files of shorts, says how they stand, and hands them out. */
/** Files of some shorts. */
export interface WantedFiles {
  readonly shape: RenderShape;
  readonly shortIds: readonly string[];
  /** As loud as it plays; null: as the first of each client's channels that takes the shape. */
  readonly platformProfileId: string | null;
}

@Injectable()
export class RendersService implements OnModuleInit, OnModuleDestroy {
  private readonly rounds = new Rounds('left renders', SWEEP_EVERY_MS, () => this.sweep());

  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(JobsService) private readonly jobs: JobsService,
    @Inject(RenderAsking) private readonly asking: RenderAsking,
    @Inject(ShortsService) private readonly shorts: ShortsService,
    @Inject(TextPool) private readonly text: TextPool,
    @Inject(MediaStore) private readonly media: MediaStore,
  ) {}

  async onModuleInit(): Promise<void> {
    await this.rounds.begin();
  }

  onModuleDestroy(): void {
    this.rounds.end();
  }

  /** Files whose short is gone, and what killed runs left. */
  async sweep(nowMs = Date.now()): Promise<void> {
    const named = async (): Promise<ReadonlySet<string>> => {
      const atWork = (await this.jobs.atWork(RENDER)).map(({ subjectId, attempt }) => workFolder(subjectId, attempt));
      const files = (await Render.findAll({ attributes: ['file'] })).flatMap(({ file }) => file ?? []);
      return new Set([...files, ...atWork]);
    };
    const swept = await this.media.sweep(named, nowMs, 'renders');
    if (swept > 0) log.warn({ files: swept }, 'renders that nobody names were swept away');
  }

  /** The file of a short as it is now, as loud as a platform of its client plays. One that was made of the same is given again, not made again. */
  async ask(actor: Actor, shortId: string, { shape, platformProfileId }: RenderForm): Promise<RenderView> {
    const short = await this.shorts.find(actor, shortId);
    const channels = (await this.asking.channelsOf([short])).get(short.clientId) ?? [];
    const loudness = this.loudnessOf(channels, shape, platformProfileId ?? null);
    const { id } = await this.asking.ask(short, shape, loudness, actor.userId);
    return found((await this.views(short, { id }))[0], 'file');
  }

  async list(actor: Actor, shortId: string): Promise<RenderView[]> {
    const short = await this.shorts.find(actor, shortId);
    return this.views(short, { shortId, ...scoped(actor) });
  }

  async cancel(actor: Actor, renderId: string): Promise<void> {
    const render = await this.find(actor, renderId);
    if (!(await this.jobs.cancel(RENDER, render.id))) throw new ConflictException('The file is made; there is nothing to cancel.');
  }

  /** A file, and what it is called for people. */
  async fileOf(actor: Actor, renderId: string): Promise<{ readonly file: string; readonly name: string; readonly type: string }> {
    const render = await this.find(actor, renderId);
    const file = found(render.file, 'file');
    const short = await this.shorts.find(actor, render.shortId);
    const ending = file.slice(file.lastIndexOf('.') + 1);
    const name = fileName([short.recording.title, baseCopy(short).title, render.shape], ending);
    return { file, name, type: ending === 'm4a' ? 'audio/mp4' : 'video/mp4' };
  }

  /** In the order of the ids: which of the shorts have a file of what they are now. */
  async ready(actor: Actor, wanted: WantedFiles): Promise<ReadyView[]> {
    return (await this.filesNow(actor, wanted)).map(({ short, file }) => ({ shortId: short.id, title: titleOf(short), ready: file !== null }));
  }

  /**
   * Files of some shorts with their captions, numbered in the order of the ids.
   * @throws ConflictException naming those that have no file of what they are now
   */
  async archive(actor: Actor, wanted: WantedFiles): Promise<{ readonly name: string; readonly entries: readonly ArchiveEntry[] }> {
    const { shape } = wanted;
    const shorts = await this.filesNow(actor, wanted);
    const lacking = shorts.filter(({ file }) => file === null).map(({ short }) => `“${titleOf(short)}”`);
    if (lacking.length > 0) throw new ConflictException(`There is no file of this shape yet of ${lacking.join(', ')}.`);
    const entries: ArchiveEntry[] = [];
    const talks = new Map<string, StoredTalk>(); // many shorts are of one recording
    for (const [i, { short, file }] of shorts.entries()) {
      const name = [String(i + 1).padStart(2, '0'), titleOf(short)];
      entries.push({ name: fileName([...name, shape], file!.slice(file!.lastIndexOf('.') + 1)), ...(await this.media.open(file!, 'renders')) });
      const { clientId, recordingId } = short;
      if (!talks.has(recordingId)) talks.set(recordingId, await storedTalk(recordingId));
      entries.push({
        name: fileName([...name, shape], 'srt'),
        text: await this.text.captions(clientId, { talk: talks.get(recordingId)!, ...passageOf(short), format: 'subrip' }),
      });
    }
    return { name: fileName(['shorts', shape], 'zip'), entries };
  }

  /** As a platform of the client plays, or as the first that takes the shape. */
  private loudnessOf(channels: readonly Channel[], shape: RenderShape, platformProfileId: string | null): Loudness {
    return platformProfileId === null ? loudnessAsked(channels, shape)[0]! : loudnessFor(channels, shape, platformProfileId);
  }

  private async filesNow(
    actor: Actor,
    { shape, shortIds, platformProfileId }: WantedFiles,
  ): Promise<{ readonly short: Short; readonly file: string | null }[]> {
    const wanted = [...new Set(shortIds)];
    const shorts = new Map((await this.shorts.findSome(actor, wanted)).map((short) => [short.id, short]));
    if (shorts.size < wanted.length) throw new NotFoundException('There is no such short.');
    const rows = await Render.findAll({ where: { shortId: wanted, shape, ...scoped(actor), file: { [Op.ne]: null } }, order: [['createdAt', 'ASC']] });
    const clients = await this.asking.clientsOf([...shorts.values()]);
    const channels = await this.asking.channelsOf([...shorts.values()]);
    return wanted.map((id) => {
      const short = shorts.get(id)!;
      const inputs = inputsOf(short, clients.get(short.clientId)!, shape, this.loudnessOf(channels.get(short.clientId) ?? [], shape, platformProfileId));
      return { short, file: rows.findLast((row) => row.shortId === id && inputs !== null && isMadeOf(row.plan, inputs))?.file ?? null };
    });
  }

  private async find(actor: Actor, renderId: string): Promise<Render> {
    return found(await Render.findOne({ where: { id: renderId, ...scoped(actor) } }), 'file');
  }

  private views(short: Short, where: WhereOptions<Render>): Promise<RenderView[]> {
    // In one look: a row beside the state that its job had at that moment.
    return this.database.snapshot(async () => {
      const rows = await Render.findAll({ where, order: [['createdAt', 'DESC']], limit: MOST_SHOWN });
      const jobs = await this.jobs.ofSubjects(
        RENDER,
        rows.map(({ id }) => id),
      );
      const users = await User.findAll({ attributes: ['id', 'name'], where: { id: rows.flatMap(({ askedBy }) => askedBy ?? []) } });
      const names = new Map(users.map(({ id, name }) => [id, name]));
      const client = (await this.asking.clientsOf([short])).get(short.clientId)!;
      const channels = (await this.asking.channelsOf([short])).get(short.clientId) ?? [];
      return rows.map((row) => {
        const { loudness } = row.plan;
        const inputs = inputsOf(short, client, row.shape, loudness);
        const asked = loudnessAsked(channels, row.shape).some((one) => isDeepStrictEqual(one, loudness));
        const job = jobs.get(row.id);
        return {
          id: row.id,
          shortId: row.shortId,
          shape: row.shape,
          state: job?.state ?? 'waiting',
          stage: job?.stage ?? 'waiting',
          fraction: job?.fraction ?? 0,
          leftMs: job?.leftMs ?? null,
          failure: job?.failure ?? null,
          askedBy: names.get(row.askedBy ?? '') ?? 'a former user',
          askedAt: row.createdAt.toISOString(),
          durationMs: playedMs(row.plan.cuts),
          bytes: row.bytes === null ? null : Number(row.bytes),
          loudness: loudness.integrated,
          truePeak: loudness.peak,
          outdated: inputs === null || !asked || !isMadeOf(row.plan, inputs),
        };
      });
    });
  }
}
