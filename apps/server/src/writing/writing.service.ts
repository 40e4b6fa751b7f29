import { ConflictException, Inject, Injectable } from '@nestjs/common';
import type { WhereOptions } from 'sequelize';
import { AuditService } from '../audit/audit.service.js';
import { Client, voiceOf } from '../clients/clients.models.js';
import { CONFIG, type Config } from '../config/config.module.js';
import { Database } from '../database/database.service.js';
import { type Actor, found, scoped } from '../identity/actor.js';
import { User } from '../identity/identity.models.js';
import type { Job } from '../jobs/job.model.js';
import { JobsService } from '../jobs/jobs.service.js';
import { storedTalk } from '../recordings/stored-talk.js';
import { isTicked } from '../shorts/copy-check.service.js';
import { ProposalsService } from '../shorts/proposals.service.js';
import { ShortsService } from '../shorts/shorts.service.js';
import { passageOf, type Short } from '../shorts/shorts.models.js';
import { TextPool } from '../text/text-pool.service.js';
import { COVER_LINE_LIMIT, type Finding } from '@sift-reel/core';
import { WRITING } from './writing.kind.js';
import { Writing } from './writing.models.js';
import type { WritingServiceView, WritingView } from './writing.views.js';
import type { WriterRequest } from './writer.js';

const TITLES_WANTED = 3;
/** What is kept of a short's questions is all; what is shown is the last few. */
const MOST_SHOWN = 10;

/** Asks the writing service for words of a short, where the client allows it, and shows what came. */
@Injectable()
export class WritingService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(JobsService) private readonly jobs: JobsService,
    @Inject(ShortsService) private readonly shorts: ShortsService,
    @Inject(ProposalsService) private readonly proposals: ProposalsService,
    @Inject(TextPool) private readonly text: TextPool,
    @Inject(AuditService) private readonly audit: AuditService,
    @Inject(CONFIG) private readonly config: Config,
  ) {}

  service(): WritingServiceView {
    return { configured: this.config.writingUrl !== null };
  }

  async ask(actor: Actor, shortId: string): Promise<WritingView> {
    const short = await this.shorts.find(actor, shortId);
    if (this.config.writingUrl === null) throw new ConflictException('No writing service is configured.');
    const request = await this.requestFor(short);
    const id = await this.database.transaction(async () => {
      // Under a lock: a client that says no at this moment has said no.
      const client = found(await Client.findOne({ where: { id: short.clientId }, lock: true }), 'client');
      if (!client.writingService) throw new ConflictException(`“${client.name}” does not allow the writing service. It is allowed on the client's page.`);
      if (await this.isAsked(shortId)) throw new ConflictException('The writing service is being asked already. Wait for its words, or stop waiting.');
      const writing = await Writing.create({ clientId: short.clientId, shortId, askedBy: actor.userId, request });
      await this.jobs.enqueue(WRITING, { subjectId: writing.id, clientId: short.clientId, about: { shortId }, size: 'short' });
      await this.audit.record({ userId: actor.userId, clientId: short.clientId, action: 'ask-for-words', subject: 'short', subjectId: shortId });
      return writing.id;
    });
    return (await this.views(short, { id }))[0]!;
  }

  /** The last questions of a short, the newest first. */
  async list(actor: Actor, shortId: string): Promise<WritingView[]> {
    const short = await this.shorts.find(actor, shortId);
    return this.views(short, { shortId, ...scoped(actor) });
  }

  async cancel(actor: Actor, writingId: string): Promise<void> {
    const writing = found(await Writing.findOne({ where: { id: writingId, ...scoped(actor) }, attributes: ['id'] }), 'question');
    if (!(await this.jobs.cancel(WRITING, writing.id))) throw new ConflictException('The question is answered; there is nothing to cancel.');
  }

  /** Whether a question of the short is still open. Its last one tells: the client's lock lets only one be put at a time. */
  private async isAsked(shortId: string): Promise<boolean> {
    const last = await Writing.findOne({ where: { shortId }, attributes: ['id'], order: [['createdAt', 'DESC']] });
    const state = last === null ? undefined : (await this.jobs.ofSubjects(WRITING, [last.id])).get(last.id)?.state;
    return state === 'waiting' || state === 'running';
  }

  private async read(where: WhereOptions<Writing>): Promise<{ rows: Writing[]; jobs: Map<string, Job>; users: User[] }> {
    const rows = await Writing.findAll({ where, order: [['createdAt', 'DESC']], limit: MOST_SHOWN });
    const jobs = await this.jobs.ofSubjects(
      WRITING,
      rows.map(({ id }) => id),
    );
    const users = await User.findAll({ attributes: ['id', 'name'], where: { id: rows.flatMap(({ askedBy }) => askedBy ?? []) } });
    return { rows, jobs, users };
  }

  private async requestFor(short: Short): Promise<WriterRequest> {
    const { clientId, recordingId } = short;
    const client = found(await Client.findByPk(clientId), 'client');
    const { language, subject } = await this.proposals.knownOf(recordingId);
    const { sentences, before, after } = await this.text.passage(clientId, { talk: await storedTalk(recordingId), ...passageOf(short) });
    const terms = subject === null ? [] : [...subject.fields.map(({ tag }) => tag), ...subject.compounds.slice(0, 5).map(({ text }) => text)];
    const { title, description, hashtags } = await this.proposals.limitsOf(clientId, null);
    return {
      version: 1,
      passage: { sentences },
      context: { before, after, recording: short.recording.title, client: client.name, subject: terms },
      voice: voiceOf(client),
      limits: { title, description, hashtags, coverLine: COVER_LINE_LIMIT },
      language: language ?? 'en',
      wanted: { titles: TITLES_WANTED },
    };
  }

  private async views(short: Short, where: WhereOptions<Writing>): Promise<WritingView[]> {
    const { rows, jobs, users } = await this.database.snapshot(() => this.read(where));
    const names = new Map(users.map(({ id, name }) => [id, name]));
    const shown = (list: readonly Finding[]) => list.map((one) => ({ ...one, ticked: isTicked(one, short.ticks) }));
    return rows.map(({ id, shortId, askedBy, createdAt, request, answer, words, findings }) => {
      const job = jobs.get(id);
      return {
        id,
        shortId,
        askedBy: names.get(askedBy ?? '') ?? 'a former user',
        askedAt: createdAt.toISOString(),
        state: job?.state ?? 'waiting',
        failure: job?.failure ?? null,
        titles: (words?.titles ?? []).map((text, i) => ({ text, findings: shown(findings?.titles[i] ?? []) })),
        description: words?.description ?? '',
        hashtags: [...(words?.hashtags ?? [])],
        keywords: [...(words?.keywords ?? [])],
        coverLine: words?.coverLine ?? '',
        findings: shown(findings?.rest ?? []),
        otherLanguage: findings?.otherLanguage ?? null,
        speaksToProgram: findings?.speaksToProgram ?? false,
        sent: JSON.stringify(request, null, 2),
        came: answer,
      };
    });
  }
}
