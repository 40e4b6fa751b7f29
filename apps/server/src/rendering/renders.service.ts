import { execFile } from 'node:child_process';
import { isDeepStrictEqual, promisify } from 'node:util';
import { ConflictException, Inject, Injectable, NotFoundException, type OnModuleDestroy, type OnModuleInit } from '@nestjs/common';
import { fileName, playedMs } from '@sift-reel/core';
import { Op, type WhereOptions } from 'sequelize';
import { AuditService } from '../audit/audit.service.js';
import { cardStyleOf, Channel, Client, PlatformProfile } from '../clients/clients.models.js';
import { log } from '../config/logger.js';
import { Rounds } from '../config/rounds.js';
import { Database } from '../database/database.service.js';
import { type Actor, found, scoped } from '../identity/actor.js';
import { User } from '../identity/identity.models.js';
import { JobsService } from '../jobs/jobs.service.js';
import { MediaStore } from '../media/media-store.service.js';
import { storedTalk } from '../recordings/stored-talk.js';
import { groundOf } from '../shorts/ground.js';
import { baseCopy } from '../shorts/short-views.js';
import { passageOf, Short } from '../shorts/shorts.models.js';
import { ShortsService } from '../shorts/shorts.service.js';
import { refuseLacking } from '../shorts/lacking-letters.js';
import { TextPool } from '../text/text-pool.service.js';
import type { StoredTalk } from '../text/unpack.js';
import { loudnessAsked, loudnessFor } from './asked-loudness.js';
import { RENDER, workFolder } from './render.kind.js';
import { isMadeOf, keyOf, type Loudness, type RenderInputs, type RenderPlan, type RenderShape } from './render-plan.js';
import { Render } from './rendering.models.js';
import type { ArchiveEntry } from './render-archive.js';
import type { ReadyView, RenderForm, RenderView } from './rendering.views.js';

const run = promisify(execFile);
/** What a recording without a picture is shown at. */
const STILL_RATE = { numerator: 30, denominator: 1 };
/** Sound alone is as long as its cut list, to the millisecond. */
const SOUND_RATE = { numerator: 1_000, denominator: 1 };
const SWEEP_EVERY_MS = 10 * 60_000;
/** Of one short; files of former versions are shown for a while. */
const MOST_SHOWN = 20;

const titleOf = (short: Short): string => baseCopy(short).title || short.candidate.firstLine;

/** Asks for files of shorts, says how they stand, and hands them out. */
@Injectable()
export class RendersService implements OnModuleInit, OnModuleDestroy {
  private readonly rounds = new Rounds('left renders', SWEEP_EVERY_MS, () => this.sweep());
  private program: Promise<string> | null = null;

  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(JobsService) private readonly jobs: JobsService,
    @Inject(ShortsService) private readonly shorts: ShortsService,
    @Inject(TextPool) private readonly text: TextPool,
    @Inject(MediaStore) private readonly media: MediaStore,
    @Inject(AuditService) private readonly audit: AuditService,
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
    const channels = (await this.channelsOf([short])).get(short.clientId) ?? [];
    const loudness = platformProfileId === undefined ? loudnessAsked(channels, shape)[0]! : loudnessFor(channels, shape, platformProfileId);
    const plan = await this.planOf(short, shape, loudness);
    const key = keyOf(plan, await this.encoder());
    const id = await this.database.transaction(async () => {
      // Under the lock that every change of the short holds: the plan is of what the short is now, and one of two askers makes the row.
      const now = found(await Short.findByPk(shortId, { attributes: ['version'], lock: true }), 'short');
      if (now.version !== short.version) throw new ConflictException('The short was changed just now. Ask for its file again.');
      const known = await Render.findOne({ where: { shortId, key }, attributes: ['id'] });
      const { id: renderId } = known ?? (await Render.create({ clientId: short.clientId, shortId, key, shape, plan, askedBy: actor.userId }));
      const about = { shortId };
      if (await this.jobs.enqueue(RENDER, { subjectId: renderId, clientId: short.clientId, about, size: playedMs(plan.cuts) > 180_000 ? 'long' : 'short' }))
        await this.audit.record({
          userId: actor.userId,
          clientId: short.clientId,
          action: 'render',
          subject: 'short',
          subjectId: shortId,
          detail: { title: baseCopy(short).title },
        });
      return renderId;
    });
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
  async ready(actor: Actor, shape: RenderShape, shortIds: readonly string[]): Promise<ReadyView[]> {
    return (await this.filesNow(actor, shape, shortIds)).map(({ short, file }) => ({ shortId: short.id, title: titleOf(short), ready: file !== null }));
  }

  /**
   * Files of some shorts with their captions, numbered in the order of the ids.
   * @throws ConflictException naming those that have no file of what they are now
   */
  async archive(actor: Actor, shape: RenderShape, shortIds: readonly string[]): Promise<{ readonly name: string; readonly entries: readonly ArchiveEntry[] }> {
    const shorts = await this.filesNow(actor, shape, shortIds);
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

  private async filesNow(actor: Actor, shape: RenderShape, shortIds: readonly string[]): Promise<{ readonly short: Short; readonly file: string | null }[]> {
    const wanted = [...new Set(shortIds)];
    const shorts = new Map((await this.shorts.findSome(actor, wanted)).map((short) => [short.id, short]));
    if (shorts.size < wanted.length) throw new NotFoundException('There is no such short.');
    const rows = await Render.findAll({ where: { shortId: wanted, shape, ...scoped(actor), file: { [Op.ne]: null } }, order: [['createdAt', 'ASC']] });
    const clients = await this.clientsOf([...shorts.values()]);
    const channels = await this.channelsOf([...shorts.values()]);
    return wanted.map((id) => {
      const short = shorts.get(id)!;
      const [loudness] = loudnessAsked(channels.get(short.clientId) ?? [], shape);
      const inputs = inputsOf(short, clients.get(short.clientId)!, shape, loudness!);
      return { short, file: rows.findLast((row) => row.shortId === id && inputs !== null && isMadeOf(row.plan, inputs))?.file ?? null };
    });
  }

  private async find(actor: Actor, renderId: string): Promise<Render> {
    return found(await Render.findOne({ where: { id: renderId, ...scoped(actor) } }), 'file');
  }

  private async planOf(short: Short, shape: RenderShape, loudness: Loudness): Promise<RenderPlan> {
    const { clientId, recordingId } = short;
    const inputs = inputsOf(short, (await this.clientsOf([short])).get(clientId)!, shape, loudness);
    if (inputs === null) throw new ConflictException('The recording has no sound yet. Add it on the recordings screen.');
    const { style, ground } = inputs;
    const drawn = shape === 'sound' ? null : { typeface: style.typeface, texts: ground === null ? [] : [ground.title, ...ground.credits] };
    const { cuts, captions, lacking } = await this.text.cut(clientId, { talk: await storedTalk(recordingId), ...inputs.passage, drawn });
    refuseLacking(lacking);
    return { ...inputs, cuts, captions: shape === 'sound' ? [] : captions };
  }

  private async clientsOf(shorts: readonly Short[]): Promise<ReadonlyMap<string, Client>> {
    return new Map((await Client.findAll({ where: { id: [...new Set(shorts.map(({ clientId }) => clientId))] } })).map((client) => [client.id, client]));
  }

  /** By client, in their order, each with its platform profile. */
  private async channelsOf(shorts: readonly Short[]): Promise<ReadonlyMap<string, Channel[]>> {
    const of = new Map(shorts.map(({ clientId }): [string, Channel[]] => [clientId, []]));
    const channels = await Channel.findAll({ where: { clientId: [...of.keys()] }, include: [PlatformProfile], order: ['order', 'name'] });
    for (const channel of channels) of.get(channel.clientId)!.push(channel);
    return of;
  }

  /** The program that encodes, in its own words. */
  private encoder(): Promise<string> {
    this.program ??= run('ffmpeg', ['-version'], { timeout: 20_000 }).then(({ stdout }) => stdout.split('\n')[0]!);
    return this.program;
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
      const client = (await this.clientsOf([short])).get(short.clientId)!;
      const channels = (await this.channelsOf([short])).get(short.clientId) ?? [];
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

/** What a file of a shape would be made of today; null where the recording has no sound. */
function inputsOf(short: Short, client: Client, shape: RenderShape, loudness: Loudness): RenderInputs | null {
  const { recording } = short;
  if (recording.soundFile === null || (shape === 'sound' && recording.soundTrack === null)) return null;
  const pictured = recording.picture !== null && shape !== 'sound';
  return {
    source: recording.soundFile,
    pictured,
    shape,
    ...(recording.soundTrack === 0 ? {} : { track: recording.soundTrack }),
    rate: shape === 'sound' ? SOUND_RATE : pictured ? recording.picture!.rate : STILL_RATE,
    passage: passageOf(short),
    ground: shape === 'sound' ? null : groundOf(short, recording, client, pictured),
    style: cardStyleOf(client),
    loudness,
  };
}
