import { ConflictException, Inject, Injectable, UnprocessableEntityException } from '@nestjs/common';
import { type Finding, OPEN_VOICE } from '@sift-reel/core';
import type { ApprovalForm, CheckForm, CopyForm, EvergreenForm, TickForm } from '@sift-reel/forms';
import { StaleWriteException, UnsaidException } from '../problems/refusals.js';
import type { AuditAction } from '../audit/trail-words.js';
import { AuditService } from '../audit/audit.service.js';
import { Channel, Client, PlatformProfile, PostingWindow, voiceOf } from '../clients/clients.models.js';
import { Database } from '../database/database.service.js';
import { type Actor, found, mayPass, scoped } from '../identity/actor.js';
import { User } from '../identity/identity.models.js';
import { storedTalk } from '../recordings/stored-talk.js';
import { CopyHistory } from './copy-history.service.js';
import { CopyCheck, isTicked, ticksIt } from './copy-check.service.js';
import { ProposalsService } from './proposals.service.js';
import { ShortFacts } from './short-facts.js';
import { baseCopy, toCopyView, toShortChannel } from './short-views.js';
import { CopyRow, KEPT_WITH_ALL, passageOf, Short, type Tick } from './shorts.models.js';
import { talkLanguages } from './talk-languages.js';
import { TextPool } from '../text/text-pool.service.js';
import type { CheckView, CopyVersionView, CopyView, PassageView, ShortView, TitleView } from './shorts.views.js';

@Injectable()
export class ShortsService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(ProposalsService) private readonly proposals: ProposalsService,
    @Inject(CopyHistory) private readonly history: CopyHistory,
    @Inject(TextPool) private readonly text: TextPool,
    @Inject(CopyCheck) private readonly copyCheck: CopyCheck,
    @Inject(ShortFacts) private readonly facts: ShortFacts,
    @Inject(AuditService) private readonly audit: AuditService,
  ) {}

  async list(actor: Actor, filter: { recordingId?: string; clientId?: string; ids?: readonly string[] } = {}): Promise<ShortView[]> {
    if (filter.clientId !== undefined && !mayPass(actor.clientIds, filter.clientId)) return [];
    const shorts = await Short.findAll({
      where: {
        ...scoped(actor),
        ...(filter.recordingId === undefined ? {} : { recordingId: filter.recordingId }),
        ...(filter.clientId === undefined ? {} : { clientId: filter.clientId }),
        ...(filter.ids === undefined ? {} : { id: [...filter.ids] }),
      },
      include: KEPT_WITH_ALL,
      order: [
        ['recordingId', 'ASC'],
        ['score', 'DESC'],
        ['id', 'ASC'],
      ],
    });
    return this.views(shorts);
  }

  async read(actor: Actor, shortId: string): Promise<ShortView> {
    return (await this.views([await this.find(actor, shortId)]))[0]!;
  }

  /** Those of some shorts that the actor may see. */
  findSome(actor: Actor, shortIds: readonly string[]): Promise<Short[]> {
    return Short.findAll({ where: { id: [...shortIds], ...scoped(actor) }, include: KEPT_WITH_ALL });
  }

  async find(actor: Actor, shortId: string): Promise<Short> {
    return found(await Short.findOne({ where: { id: shortId, ...scoped(actor) }, include: KEPT_WITH_ALL }), 'short');
  }

  /** Saves words: for all channels (`channelId` null) or for one. */
  async saveCopy(actor: Actor, shortId: string, channelId: string | null, { version, ...form }: CopyForm): Promise<ShortView> {
    const fields = { ...form, hashtags: form.hashtags.map((tag) => tag.replace(/^#/, '')) };
    return this.change(actor, shortId, version, async (short) => {
      if (channelId !== null) await requireChannel(short, channelId);
      const row = await CopyRow.findOne({ where: { shortId, channelId } });
      if (row === null) await CopyRow.create({ ...fields, shortId, channelId, clientId: short.clientId });
      else await row.update(fields);
      await this.history.add({ short, channelId, copy: fields, by: actor.userId });
      await this.record(actor, 'word', short, fields.title);
    });
  }

  /** The channel goes back to the words for all. */
  async dropVariant(actor: Actor, shortId: string, channelId: string, version: number): Promise<ShortView> {
    return this.change(actor, shortId, version, async (short) => {
      await requireChannel(short, channelId);
      await CopyRow.destroy({ where: { shortId, channelId } });
      await this.record(actor, 'drop-variant', short, '');
    });
  }

  /** A fresh proposal, inside one channel's limits or inside all; nothing is saved. */
  async proposeAgain(actor: Actor, shortId: string, channelId: string | null): Promise<CopyView> {
    const short = await this.find(actor, shortId);
    if (channelId !== null) await requireChannel(short, channelId);
    return toCopyView(await this.proposals.propose(short.clientId, short.recordingId, short, channelId));
  }

  async offerTitles(actor: Actor, shortId: string, channelId: string | null): Promise<TitleView[]> {
    const short = await this.find(actor, shortId);
    if (channelId !== null) await requireChannel(short, channelId);
    const titles = await this.proposals.titles(short.clientId, short.recordingId, short, channelId);
    return titles.map(({ text, sort, said, draft, description }) => ({ text, sort, said, draft, description }));
  }

  /** What its words were, and who wrote them. */
  async listVersions(actor: Actor, shortId: string): Promise<CopyVersionView[]> {
    return this.history.of(await this.find(actor, shortId));
  }

  /** What is said in a short, sentence by sentence. */
  async readPassage(actor: Actor, shortId: string): Promise<PassageView> {
    const short = await this.find(actor, shortId);
    const { clientId, recordingId } = short;
    const { sentences, cuts } = await this.text.passage(clientId, { talk: await storedTalk(recordingId), ...passageOf(short) });
    return { sentences: [...sentences], cuts: [...cuts] };
  }

  /** What is wrong with words that are not saved yet. */
  async check(actor: Actor, shortId: string, form: CheckForm): Promise<CheckView> {
    const short = await this.find(actor, shortId);
    const { findings, speaksToProgram } = await this.copyCheck.check(short, [form]);
    return { findings: findings[0]!.map((finding) => ({ ...finding, ticked: isTicked(finding, short.ticks) })), speaksToProgram };
  }

  /**
   * Approving is a yes to the version that was seen; words that break a channel's limits only keep it from that channel. What
   * was not said in the passage needs a person's tick, which stays with the short for as long as it is needed.
   */
  async setApproval(actor: Actor, shortId: string, { approved, version, ticks = [] }: ApprovalForm): Promise<ShortView> {
    // Found before the lock, since it takes a thread its time: of the version that the lock must find as well.
    const seen = await this.find(actor, shortId);
    const truth = approved && seen.version === version ? await this.truthOf(seen) : [];
    await this.database.transaction(async () => {
      const short = await this.lockSeen(actor, shortId, version);
      if (approved && baseCopy(short).title.trim() === '') throw new UnprocessableEntityException('Give the short a title before you approve it.');
      await short.update(
        approved
          ? { approvedVersion: short.version, approvedAt: new Date(), approvedBy: actor.userId, ticks: neededTicks(short, truth, ticks, actor) }
          : { approvedVersion: null, approvedAt: null, approvedBy: null },
      );
      await this.record(actor, approved ? 'approve' : 'un-approve', short, baseCopy(short).title);
    });
    return this.read(actor, shortId);
  }

  /** Says whether a short may come again; its words and its approval stay as they are. */
  async setEvergreen(actor: Actor, shortId: string, { evergreen }: EvergreenForm): Promise<ShortView> {
    await this.database.transaction(async () => {
      const short = found(await Short.findOne({ where: { id: shortId, ...scoped(actor) }, lock: true }), 'short');
      if (short.evergreen === evergreen) return;
      await short.update({ evergreen });
      await this.record(actor, evergreen ? 'let-come-again' : 'let-come-once', short, baseCopy(await this.find(actor, shortId)).title);
    });
    return this.read(actor, shortId);
  }

  /** What its words say that was not said; those of a channel of another language are held to their figures and quotations. */
  private async truthOf(short: Short): Promise<Finding[]> {
    const channels = await Channel.findAll({ where: { clientId: short.clientId }, attributes: ['id', 'language'] });
    const talk = (await talkLanguages(this.database, [short.recordingId])).get(short.recordingId) ?? 'en';
    const foreign = new Set(channels.flatMap(({ id, language }) => (language === null || language === talk ? [] : [id])));
    const copies = (other: boolean) => short.copies.filter(({ channelId }) => (channelId !== null && foreign.has(channelId)) === other).map(toCopyView);
    return [...(await this.copyCheck.truthOf(short, copies(false))), ...(await this.copyCheck.truthOf(short, copies(true), true))];
  }

  /** Changes a short that is as it was seen and not approved, under its lock. */
  async change(actor: Actor, shortId: string, version: number, change: (short: Short) => Promise<void>): Promise<ShortView> {
    await this.database.transaction(async () => {
      const short = await this.lockSeen(actor, shortId, version);
      if (short.approvedVersion !== null) throw new ConflictException('The short is approved. Un-approve it to change it.');
      await change(short);
    });
    return this.read(actor, shortId);
  }

  /** The short as it is under a lock. @throws StaleWriteException when it is not the version that was seen */
  private async lockSeen(actor: Actor, shortId: string, version: number): Promise<Short> {
    found(await Short.findOne({ where: { id: shortId, ...scoped(actor) }, attributes: ['id'], lock: true }), 'short');
    const short = await this.find(actor, shortId);
    if (short.version !== version) throw new StaleWriteException('short', (await this.views([short]))[0]!);
    return short;
  }

  async record(actor: Actor, action: AuditAction, { id, clientId }: Short, title: string): Promise<void> {
    await this.audit.record({ userId: actor.userId, clientId, action, subject: 'short', subjectId: id, detail: { title } });
  }

  private async views(shorts: readonly Short[]): Promise<ShortView[]> {
    if (shorts.length === 0) return [];
    const clientIds = [...new Set(shorts.map((short) => short.clientId))];
    const channels = await Channel.findAll({
      where: { clientId: clientIds },
      include: [PlatformProfile, PostingWindow],
      order: [
        ['order', 'ASC'],
        ['name', 'ASC'],
      ],
    });
    const clients = await Client.findAll({ where: { id: clientIds }, attributes: ['id', 'voice', 'comeAgainDays'] });
    const again = new Map(clients.map((client) => [client.id, client.comeAgainDays ?? null]));
    const voices = new Map(clients.map((client) => [client.id, voiceOf(client)]));
    const users = await User.findAll({ attributes: ['id', 'name'], where: { id: [...new Set(shorts.flatMap((short) => short.approvedBy ?? []))] } });
    const posts = await this.facts.postCounts(shorts.map((short) => short.id));
    const languages = await talkLanguages(
      this.database,
      shorts.map((short) => short.recordingId),
    );
    const channelsOf = groupBy(channels, (channel) => channel.clientId);
    const names = new Map(users.map((user) => [user.id, user.name]));
    return shorts.map((short) => ({
      id: short.id,
      clientId: short.clientId,
      recordingId: short.recordingId,
      recordingTitle: short.recording.title,
      siftId: short.candidate.siftId,
      candidateId: short.candidateId,
      firstWord: short.firstWord,
      endWord: short.endWord,
      startMs: short.startMs,
      endMs: short.endMs,
      playedMs: short.playedMs,
      edit: short.edit,
      score: short.score,
      kind: short.candidate.kind,
      firstLine: short.candidate.firstLine,
      reason: short.candidate.reason,
      copy: baseCopy(short),
      channels: (channelsOf.get(short.clientId) ?? []).map((channel) =>
        toShortChannel(short, channel, voices.get(short.clientId) ?? OPEN_VOICE, languages.get(short.recordingId) ?? 'en'),
      ),
      fixedParts: [...(voices.get(short.clientId) ?? OPEN_VOICE).fixedParts],
      evergreen: short.evergreen,
      comesAgainDays: short.evergreen ? (again.get(short.clientId) ?? null) : null,
      approved: short.approvedVersion !== null,
      approvedBy: short.approvedVersion === null ? null : (names.get(short.approvedBy ?? '') ?? 'a former user'),
      postCount: posts.get(short.id) ?? 0,
      version: short.version,
    }));
  }
}

/** Another client's channel does not exist for a short. @throws NotFoundException */
async function requireChannel(short: Short, channelId: string): Promise<void> {
  found(await Channel.findOne({ where: { id: channelId, clientId: short.clientId }, attributes: ['id'] }), 'channel');
}

function groupBy<T>(values: readonly T[], keyOf: (value: T) => string): Map<string, T[]> {
  const groups = new Map<string, T[]>();
  for (const value of values) {
    const group = groups.get(keyOf(value));
    if (group === undefined) groups.set(keyOf(value), [value]);
    else group.push(value);
  }
  return groups;
}

/**
 * The ticks that the words of a short need: those that are kept, and those that come with the yes.
 * @throws UnsaidException with what has none
 */
function neededTicks(short: Short, truth: readonly Finding[], coming: readonly TickForm[], { userId }: Actor): Tick[] {
  const at = new Date().toISOString();
  const all = [...short.ticks, ...coming.filter((one) => !isTicked(one, short.ticks)).map(({ rule, text }): Tick => ({ rule, text, by: userId, at }))];
  const unsaid = truth.filter((finding) => !isTicked(finding, all));
  if (unsaid.length > 0) throw new UnsaidException(unsaid.map(({ rule, text, field, detail }) => ({ rule, text, field, detail })));
  return all.filter((tick) => truth.some((finding) => ticksIt(tick, finding)));
}
