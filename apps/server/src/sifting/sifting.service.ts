import { ConflictException, Inject, Injectable } from '@nestjs/common';
import { describeMakeUp, languageOf, type Brief, BriefRefusedError, checkBrief, weightsFor } from '@sift-reel/core';
import type { BriefForm } from '@sift-reel/forms';
import { BriefRefusedException } from '../problems/refusals.js';
import { AuditService } from '../audit/audit.service.js';
import { InterestRow } from '../clients/clients.models.js';
import { Database } from '../database/database.service.js';
import { type Actor, found, scoped } from '../identity/actor.js';
import { User } from '../identity/identity.models.js';
import { JobsService } from '../jobs/jobs.service.js';
import { Recording } from '../recordings/recordings.models.js';
import { RecordingsService } from '../recordings/recordings.service.js';
import { toBriefForm } from './brief.js';
import { assembleCandidates } from './candidate-views.js';
import { SIFT, siftSize } from './sift.kind.js';
import { BriefRow, CandidateRow, Sift } from './sifting.models.js';
import type { KeyPhraseView, RankingView, SiftView } from './sifting.views.js';

const SIGNALS_OF_SIFT = `SELECT s.candidate_id AS "candidateId", s.signal, s.value, s.sentence
FROM candidate_signals s JOIN candidates c ON c.id = s.candidate_id WHERE c.sift_id = $1`;
const EVIDENCE_OF_SIFT = `SELECT e.candidate_id AS "candidateId", e.signal, e.first_word AS "firstWord", e.end_word AS "endWord"
FROM evidence e JOIN candidates c ON c.id = e.candidate_id WHERE c.sift_id = $1 ORDER BY e.first_word`;
const COUNTS = `SELECT sift_id AS "siftId", count(*)::int AS n, count(*) FILTER (WHERE state = 'kept')::int AS kept
FROM candidates WHERE sift_id = ANY ($1) GROUP BY sift_id`;

/** On whose behalf a sift begins. */
type Who = Pick<Actor, 'clientIds'> & { readonly userId: string | null };

@Injectable()
export class SiftingService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(JobsService) private readonly jobs: JobsService,
    @Inject(RecordingsService) private readonly recordings: RecordingsService,
    @Inject(AuditService) private readonly audit: AuditService,
  ) {}

  /** A brief and its sift, with the job, in one transaction. The recording's row is held, so that its transcript stays what it is. */
  async start(actor: Actor, recordingId: string, form: BriefForm): Promise<SiftView> {
    return this.read(actor, await this.begin(actor, recordingId, form));
  }

  /** As `start`, without reading it. @returns the sift's id */
  async begin(actor: Who, recordingId: string, form: BriefForm): Promise<string> {
    return this.database.transaction(async () => {
      await Recording.findByPk(recordingId, { attributes: ['id'], lock: true });
      const recording = await this.recordings.find(actor, recordingId);
      if (recording.transcript === null || recording.durationMs === null)
        throw new ConflictException('The recording has no transcript yet. Bring one in, then sift.');
      checkBriefFor(form, recording.durationMs);
      const { clientId, title } = recording;
      const owner = { recordingId, clientId, createdBy: actor.userId };
      const brief = await BriefRow.create({ ...form, ...owner });
      const sift = await Sift.create({ ...owner, briefId: brief.id });
      const size = siftSize(recording.transcript.wordCount);
      await this.jobs.enqueue(SIFT, { subjectId: sift.id, clientId, about: { recordingId }, size });
      await this.audit.record({ userId: actor.userId, clientId, action: 'start', subject: 'sift', subjectId: sift.id, detail: { title } });
      return sift.id;
    });
  }

  async list(actor: Actor, recordingId: string): Promise<SiftView[]> {
    await this.recordings.find(actor, recordingId);
    return this.database.snapshot(async () =>
      this.views(await Sift.findAll({ where: { recordingId, ...scoped(actor) }, include: [BriefRow], order: [['createdAt', 'DESC']] })),
    );
  }

  async read(actor: Actor, siftId: string): Promise<SiftView> {
    return this.database.snapshot(async () => (await this.views([await this.find(actor, siftId)]))[0]!);
  }

  readRanking(actor: Actor, siftId: string): Promise<RankingView> {
    return this.database.snapshot(() => this.ranking(actor, siftId));
  }

  private async ranking(actor: Actor, siftId: string): Promise<RankingView> {
    const sift = await this.find(actor, siftId);
    const [view] = await this.views([sift]);
    const rows = await CandidateRow.findAll({ where: { siftId }, order: ['rank'], raw: true });
    const signals = await this.database.rows<{ candidateId: string; signal: string; value: number; sentence: string }>(SIGNALS_OF_SIFT, [siftId]);
    const evidence = await this.database.rows<{ candidateId: string; signal: string; firstWord: number; endWord: number }>(EVIDENCE_OF_SIFT, [siftId]);
    const keyPhrases = await this.withInterest(sift);
    return {
      sift: view!,
      chapters: sift.chapters ?? [],
      ridge: sift.ridge ?? [],
      strongCount: sift.strongCount ?? 0,
      limits: sift.limits ?? [],
      language: sift.language === null ? null : languageOf(sift.language).name,
      makeUp:
        sift.makeUp === null
          ? null
          : {
              shares: [...sift.makeUp.shares],
              steps: [...sift.makeUp.steps],
              sentence: describeMakeUp(
                sift.makeUp,
                rows.map((row) => row.score),
              ),
            },
      keyPhrases,
      weights: sift.weights ?? weightsFor(sift.brief.topics.length > 0),
      candidates: assembleCandidates(rows, signals, evidence, sift.language),
    };
  }

  /** Key phrases of a sift with what the client's interest list knows of them now. */
  private async withInterest(sift: Sift): Promise<KeyPhraseView[]> {
    const terms = await InterestRow.findAll({ where: { clientId: sift.clientId }, raw: true });
    const known = new Map(terms.map((term) => [term.term, term]));
    return sift.keyPhrases.map((phrase) => {
      const { volume = null, competition = null, change = null } = known.get(phrase.text) ?? {};
      return { ...phrase, firstWords: [...phrase.firstWords], volume, competition, change };
    });
  }

  /** Ends a sift that waits or is at work, at once. */
  async cancel(actor: Actor, siftId: string): Promise<SiftView> {
    const sift = await this.find(actor, siftId);
    await this.database.transaction(async () => {
      if (!(await this.jobs.cancel(SIFT, siftId))) throw new ConflictException('The sift is over; there is nothing to cancel.');
      await this.audit.record({ userId: actor.userId, clientId: sift.clientId, action: 'cancel', subject: 'sift', subjectId: siftId });
    });
    return this.read(actor, siftId);
  }

  async retry(actor: Actor, siftId: string): Promise<SiftView> {
    const sift = await this.find(actor, siftId);
    const recording = await this.recordings.find(actor, sift.recordingId);
    await this.database.transaction(async () => {
      const about = { recordingId: sift.recordingId };
      const size = siftSize(recording.transcript?.wordCount ?? 0);
      if (!(await this.jobs.enqueue(SIFT, { subjectId: siftId, clientId: sift.clientId, about, size })))
        throw new ConflictException('Only a failed or cancelled sift can be run again.');
      await this.audit.record({ userId: actor.userId, clientId: sift.clientId, action: 'retry', subject: 'sift', subjectId: siftId });
    });
    return this.read(actor, siftId);
  }

  private async find(actor: Actor, siftId: string): Promise<Sift> {
    return found(await Sift.findOne({ where: { id: siftId, ...scoped(actor) }, include: [BriefRow] }), 'sift');
  }

  private async views(sifts: readonly Sift[]): Promise<SiftView[]> {
    if (sifts.length === 0) return [];
    const ids = sifts.map((sift) => sift.id);
    const counts = await this.database.rows<{ siftId: string; n: number; kept: number }>(COUNTS, [ids]);
    const jobs = await this.jobs.ofSubjects(SIFT, ids);
    const users = await User.findAll({ attributes: ['id', 'name'], where: { id: sifts.flatMap((sift) => sift.createdBy ?? []) } });
    const names = new Map(users.map((user) => [user.id, user.name]));
    const countOf = new Map(counts.map((row) => [row.siftId, row]));
    return sifts.map((sift) => {
      const job = jobs.get(sift.id);
      return {
        id: sift.id,
        recordingId: sift.recordingId,
        brief: toBriefForm(sift.brief),
        state: job?.state ?? 'waiting',
        stage: job?.stage ?? 'waiting',
        fraction: job?.fraction ?? 0,
        leftMs: job?.leftMs ?? null,
        failure: job?.failure ?? null,
        candidateCount: countOf.get(sift.id)?.n ?? 0,
        keptCount: countOf.get(sift.id)?.kept ?? 0,
        createdBy: names.get(sift.createdBy ?? '') ?? 'a former user',
        createdAt: sift.createdAt.toISOString(),
      };
    });
  }
}

function checkBriefFor(brief: Brief, durationMs: number): void {
  try {
    checkBrief(brief, durationMs);
  } catch (error) {
    if (error instanceof BriefRefusedError) throw new BriefRefusedException(error.field, error.message);
    throw error;
  }
}
