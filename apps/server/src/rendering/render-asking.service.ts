import { execFile } from 'node:child_process';
import { promisify } from 'node:util';
import { ConflictException, Inject, Injectable } from '@nestjs/common';
import { playedMs, takesShape } from '@sift-reel/core';
import { Op } from 'sequelize';
import { AuditService } from '../audit/audit.service.js';
import { cardStyleOf, Channel, Client, PlatformProfile } from '../clients/clients.models.js';
import { Database } from '../database/database.service.js';
import { found } from '../identity/actor.js';
import { JobsService } from '../jobs/jobs.service.js';
import { storedTalk } from '../recordings/stored-talk.js';
import { groundOf } from '../shorts/ground.js';
import { refuseLacking } from '../shorts/lacking-letters.js';
import { baseCopy } from '../shorts/short-views.js';
import { passageOf, Short } from '../shorts/shorts.models.js';
import { TextPool } from '../text/text-pool.service.js';
import { loudnessFor } from './asked-loudness.js';
import { RENDER } from './render.kind.js';
import { isMadeOf, keyOf, type Loudness, type RenderInputs, type RenderPlan, type RenderShape } from './render-plan.js';
import { Render } from './rendering.models.js';

const run = promisify(execFile);
/** What a recording without a picture is shown at. */
const STILL_RATE = { numerator: 30, denominator: 1 };
/** Sound alone is as long as its cut list, to the millisecond. */
const SOUND_RATE = { numerator: 1_000, denominator: 1 };
const LONG_MS = 180_000;

/** A finished file of a short. */
export interface MadeFile {
  readonly renderId: string;
  readonly file: string;
  readonly bytes: number;
  readonly shape: RenderShape;
  readonly lengthMs: number;
}

/** Asks for files of shorts as they are now, for whoever wants one: a person, or a post whose time comes. */
@Injectable()
export class RenderAsking {
  private program: Promise<string> | null = null;

  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(JobsService) private readonly jobs: JobsService,
    @Inject(TextPool) private readonly text: TextPool,
    @Inject(AuditService) private readonly audit: AuditService,
  ) {}

  /**
   * One that was made of the same is given again, not made again.
   * @param userId who asks, or null for the program itself
   * @throws ConflictException where the short has changed meanwhile, or its recording has no sound
   */
  async ask(short: Short, shape: RenderShape, loudness: Loudness, userId: string | null): Promise<{ readonly id: string }> {
    const { id: shortId, clientId } = short;
    const plan = await this.planOf(short, shape, loudness);
    const key = keyOf(plan, await this.encoder());
    return this.database.transaction(async () => {
      // Under the lock that every change of the short holds: the plan is of what the short is now, and one of two askers makes the row.
      const now = found(await Short.findByPk(shortId, { attributes: ['version'], lock: true }), 'short');
      if (now.version !== short.version) throw new ConflictException('The short was changed just now. Ask for its file again.');
      const known = await Render.findOne({ where: { shortId, key }, attributes: ['id'] });
      const { id } = known ?? (await Render.create({ clientId, shortId, key, shape, plan, askedBy: userId }));
      const size = playedMs(plan.cuts) > LONG_MS ? 'long' : 'short';
      if (await this.jobs.enqueue(RENDER, { subjectId: id, clientId, about: { shortId }, size }))
        await this.audit.record({ userId, clientId, action: 'render', subject: 'short', subjectId: shortId, detail: { title: baseCopy(short).title } });
      return { id };
    });
  }

  /**
   * The newest file of a short as it is now that a channel can take, in the order of its platform's shapes; or null.
   * @param short with its recording, candidate and copies
   */
  async fileFor(short: Short, channel: Channel): Promise<MadeFile | null> {
    const clients = await this.clientsOf([short]);
    const channels = (await this.channelsOf([short])).get(short.clientId) ?? [];
    const { platformProfile } = channel;
    const rows = await Render.findAll({ where: { shortId: short.id, file: { [Op.ne]: null } }, order: [['createdAt', 'DESC']] });
    for (const shape of platformProfile.shapes) {
      const inputs = inputsOf(short, clients.get(short.clientId)!, shape, loudnessFor(channels, shape, platformProfile.id));
      const row = inputs === null ? undefined : rows.find((one) => one.shape === shape && isMadeOf(one.plan, inputs));
      if (row != null) return { renderId: row.id, file: row.file!, bytes: Number(row.bytes), shape, lengthMs: playedMs(row.plan.cuts) };
    }
    return null;
  }

  /** Sees to it that there will be such a file. @throws ConflictException where there cannot be one now */
  async askFor(short: Short, channel: Channel): Promise<void> {
    const channels = (await this.channelsOf([short])).get(short.clientId) ?? [];
    const shape = channel.platformProfile.shapes.find((one) => takesShape(channel.platformProfile, one));
    if (shape === undefined) throw new ConflictException(`${channel.platformProfile.name} takes files of no shape.`);
    const loudness = loudnessFor(channels, shape, channel.platformProfile.id);
    if (!(await this.isBeingMade(short, shape, loudness))) await this.ask(short, shape, loudness, null);
  }

  /** Asked for, and not there yet: asking again would find that out by cutting the whole passage anew. */
  private async isBeingMade(short: Short, shape: RenderShape, loudness: Loudness): Promise<boolean> {
    const inputs = inputsOf(short, (await this.clientsOf([short])).get(short.clientId)!, shape, loudness);
    const rows = await Render.findAll({ where: { shortId: short.id, shape, file: null } });
    const asked = rows.filter(({ plan }) => inputs !== null && isMadeOf(plan, inputs)).map(({ id }) => id);
    const jobs = await this.jobs.ofSubjects(RENDER, asked);
    return [...jobs.values()].some(({ state }) => state === 'waiting' || state === 'running');
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

  async clientsOf(shorts: readonly Short[]): Promise<ReadonlyMap<string, Client>> {
    return new Map((await Client.findAll({ where: { id: [...new Set(shorts.map(({ clientId }) => clientId))] } })).map((client) => [client.id, client]));
  }

  /** By client, in their order, each with its platform profile. */
  async channelsOf(shorts: readonly Short[]): Promise<ReadonlyMap<string, Channel[]>> {
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
}

/** What a file of a shape would be made of today; null where the recording has no sound. */
export function inputsOf(short: Short, client: Client, shape: RenderShape, loudness: Loudness): RenderInputs | null {
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
