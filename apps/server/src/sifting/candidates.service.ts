import { ConflictException, Inject, Injectable } from '@nestjs/common';
import type { CandidateState } from '@sift-reel/forms';
import type { AuditAction } from '../audit/trail-words.js';
import { AuditService } from '../audit/audit.service.js';
import { Database } from '../database/database.service.js';
import { type Actor, found, scoped } from '../identity/actor.js';
import { RecordingsService } from '../recordings/recordings.service.js';
import { TextPool } from '../text/text-pool.service.js';
import { assembleCandidates } from './candidate-views.js';
import type { ScoredPassage } from './own-candidates.service.js';
import { CandidateHooks } from './candidate-hooks.js';
import { CandidateRow, CandidateSignal, EvidenceRow, Sift } from './sifting.models.js';
import type { CandidateView } from './sifting.views.js';

const ACTIONS = { kept: 'keep', dropped: 'drop', open: 'leave' } as const;

/** What a producer decides about candidates. */
@Injectable()
export class CandidatesService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(RecordingsService) private readonly recordings: RecordingsService,
    @Inject(CandidateHooks) private readonly hooks: CandidateHooks,
    @Inject(TextPool) private readonly text: TextPool,
    @Inject(AuditService) private readonly audit: AuditService,
  ) {}

  async read(actor: Actor, candidateId: string): Promise<CandidateView> {
    return this.database.snapshot(async () => this.viewOf(await this.find(actor, candidateId)));
  }

  /** Keep, drop or leave. Keeping makes a short with proposed words; a short that stands on the schedule stays kept. */
  async setState(actor: Actor, candidateId: string, state: CandidateState): Promise<CandidateView> {
    const seen = await this.find(actor, candidateId);
    const prepared = state === 'kept' ? await this.hooks.beforeKept(seen) : [];
    const row = await this.database.transaction(async () => {
      const locked = await this.findLocked(actor, candidateId);
      if (state === 'kept') await this.hooks.onKept(actor, locked, prepared);
      else await this.hooks.onLeft(locked);
      await locked.update({ state });
      await this.record(actor, locked, ACTIONS[state]);
      return locked;
    });
    return this.viewOf(row);
  }

  /** What keeping a candidate that is not written yet will need. It takes its time, so it is done before a lock. @param wish see `CandidateListener` */
  prepareKept({ sift, candidate }: ScoredPassage, wish: unknown): Promise<unknown[]> {
    const { firstWord, endWord } = candidate;
    return this.hooks.beforeKept({ id: null, siftId: sift.id, clientId: sift.clientId, firstWord, endWord }, wish);
  }

  /** Keeps one that was prepared, in the caller's transaction. */
  async keepPrepared(actor: Actor, candidateId: string, prepared: readonly unknown[]): Promise<void> {
    const locked = await this.findLocked(actor, candidateId);
    await this.hooks.onKept(actor, locked, prepared);
    await locked.update({ state: 'kept' });
    await this.record(actor, locked, ACTIONS.kept);
  }

  /** Moves the ends of a candidate to other words; its short, where it has one, moves with it. */
  async setSpan(actor: Actor, candidateId: string, firstWord: number, endWord: number): Promise<CandidateView> {
    const seen = await this.find(actor, candidateId);
    const sift = found(await Sift.findByPk(seen.siftId, { attributes: ['recordingId'] }), 'sift');
    const { talk, times } = await this.recordings.readTalk(actor, sift.recordingId);
    const ends = await this.text.movedEnds(seen.clientId, { talk, firstWord, endWord });
    if (ends === null) throw new ConflictException('The transcript ends before these words.');
    const prepared = await this.hooks.beforeMoved(seen, { firstWord, endWord });
    const row = await this.database.transaction(async () => {
      await this.recordings.requireTimes(sift.recordingId, times);
      const locked = await this.findLocked(actor, candidateId);
      await locked.update({ ...ends, firstWord, endWord });
      await this.hooks.onMoved(locked, prepared);
      await this.record(actor, locked, 'move-ends');
      return locked;
    });
    return this.viewOf(row);
  }

  private async find(actor: Actor, candidateId: string): Promise<CandidateRow> {
    return found(await CandidateRow.findOne({ where: { id: candidateId, ...scoped(actor) } }), 'candidate');
  }

  /** Two who decide about one candidate take turns. */
  private async findLocked(actor: Actor, candidateId: string): Promise<CandidateRow> {
    return found(await CandidateRow.findOne({ where: { id: candidateId, ...scoped(actor) }, lock: true }), 'candidate');
  }

  private async record(actor: Actor, row: CandidateRow, action: AuditAction): Promise<void> {
    await this.audit.record({ userId: actor.userId, clientId: row.clientId, action, subject: 'candidate', subjectId: row.id, detail: { title: row.title } });
  }

  private async viewOf(row: CandidateRow): Promise<CandidateView> {
    const signals = await CandidateSignal.findAll({ where: { candidateId: row.id }, raw: true });
    const evidence = await EvidenceRow.findAll({ where: { candidateId: row.id }, order: ['firstWord'], raw: true });
    const sift = found(await Sift.findByPk(row.siftId, { attributes: ['language'] }), 'sift');
    return assembleCandidates([row], signals, evidence, sift.language)[0]!;
  }
}
