import { ConflictException, Inject, Injectable } from '@nestjs/common';
import { InjectConnection } from '@nestjs/sequelize';
import { type Brief, BriefRefusedError, checkBrief, SIGNALS, spanOfWords, weightsFor } from '@sift-reel/core';
import type { BriefForm, CandidateState } from '@sift-reel/forms';
import { QueryTypes } from 'sequelize';
import { Sequelize } from 'sequelize-typescript';
import { BriefRefusedException } from '../api/problems.js';
import { AuditService } from '../audit/audit.service.js';
import { type Actor, found, scoped } from '../identity/actor.js';
import { User } from '../identity/identity.models.js';
import { QueueService } from '../jobs/queue.service.js';
import { unpackRow } from '../jobs/text-tasks.js';
import { RecordingsService } from '../recordings/recordings.service.js';
import { ShortsService } from '../shorts/shorts.service.js';
import { toBriefForm } from './brief.js';
import { BriefRow, CandidateRow, CandidateSignal, EvidenceRow, Sift } from './sifting.models.js';
import { InterestRow } from '../clients/clients.models.js';
import type { CandidateView, KeyPhraseView, RankingView, SiftView } from './sifting.views.js';

@Injectable()
export class SiftingService {
  constructor(
    @InjectConnection() private readonly sequelize: Sequelize,
    @Inject(QueueService) private readonly queue: QueueService,
    @Inject(RecordingsService) private readonly recordings: RecordingsService,
    @Inject(ShortsService) private readonly shorts: ShortsService,
    @Inject(AuditService) private readonly audit: AuditService,
  ) {}

  /** A brief and its sift, with the job, in one transaction. */
  async start(actor: Actor, recordingId: string, form: BriefForm): Promise<SiftView> {
    const recording = await this.recordings.find(actor, recordingId);
    if (recording.transcript === null || recording.durationMs === null)
      throw new ConflictException('The recording has no transcript yet. Bring one in, then sift.');
    checkBriefFor(form, recording.durationMs);
    const id = await this.sequelize.transaction(async (transaction) => {
      const owner = { recordingId, clientId: recording.clientId, createdBy: actor.userId };
      const brief = await BriefRow.create({ ...form, ...owner }, { transaction });
      const sift = await Sift.create({ ...owner, briefId: brief.id }, { transaction });
      await this.queue.sendSift(sift.id, transaction);
      await this.audit.record(
        { userId: actor.userId, clientId: recording.clientId, action: 'start', subject: 'sift', subjectId: sift.id, detail: { title: recording.title } },
        transaction,
      );
      return sift.id;
    });
    return this.read(actor, id);
  }

  async list(actor: Actor, recordingId: string): Promise<SiftView[]> {
    await this.recordings.find(actor, recordingId);
    return this.views(await Sift.findAll({ where: { recordingId, ...scoped(actor) }, include: [BriefRow], order: [['createdAt', 'DESC']] }));
  }

  async read(actor: Actor, siftId: string): Promise<SiftView> {
    return (await this.views([await this.find(actor, siftId)]))[0]!;
  }

  async readRanking(actor: Actor, siftId: string): Promise<RankingView> {
    const sift = await this.find(actor, siftId);
    const [view] = await this.views([sift]);
    const rows = await CandidateRow.findAll({ where: { siftId }, order: ['rank'], raw: true });
    const [signals, evidence] =
      rows.length === 0
        ? [[], []]
        : await Promise.all([
            this.sequelize.query<{ candidateId: string; signal: string; value: number; sentence: string }>(
              'SELECT s.candidate_id AS "candidateId", s.signal, s.value, s.sentence FROM candidate_signals s JOIN candidates c ON c.id = s.candidate_id WHERE c.sift_id = :siftId',
              { replacements: { siftId }, type: QueryTypes.SELECT },
            ),
            this.sequelize.query<{ candidateId: string; signal: string; firstWord: number; endWord: number }>(
              'SELECT e.candidate_id AS "candidateId", e.signal, e.first_word AS "firstWord", e.end_word AS "endWord" FROM evidence e JOIN candidates c ON c.id = e.candidate_id WHERE c.sift_id = :siftId ORDER BY e.first_word',
              { replacements: { siftId }, type: QueryTypes.SELECT },
            ),
          ]);
    return {
      sift: view!,
      chapters: sift.chapters ?? [],
      ridge: sift.ridge ?? [],
      strongCount: sift.strongCount ?? 0,
      limits: sift.limits ?? [],
      keyPhrases: await this.withInterest(sift),
      weights: sift.weights ?? weightsFor(sift.brief.topics.length > 0),
      candidates: assemble(rows, signals, evidence),
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

  /** Asks a sift to stop; one that still waits is stopped at once. */
  async cancel(actor: Actor, siftId: string): Promise<SiftView> {
    const sift = await this.find(actor, siftId);
    await this.sequelize.transaction(async (transaction) => {
      const [waiting] = await Sift.update(
        { state: 'cancelled', cancelAsked: true, finishedAt: new Date() },
        { where: { id: siftId, state: 'waiting' }, transaction },
      );
      if (waiting === 0) {
        const [running] = await Sift.update({ cancelAsked: true }, { where: { id: siftId, state: 'running' }, transaction });
        if (running === 0) throw new ConflictException('The sift is over; there is nothing to cancel.');
      }
      await this.audit.record({ userId: actor.userId, clientId: sift.clientId, action: 'cancel', subject: 'sift', subjectId: siftId }, transaction);
    });
    return this.read(actor, siftId);
  }

  async retry(actor: Actor, siftId: string): Promise<SiftView> {
    const sift = await this.find(actor, siftId);
    await this.sequelize.transaction(async (transaction) => {
      const [changed] = await Sift.update(
        { state: 'waiting', stage: 'waiting', fraction: 0, leftMs: null, failure: null, cancelAsked: false, finishedAt: null },
        { where: { id: siftId, state: ['failed', 'cancelled'] }, transaction },
      );
      if (changed === 0) throw new ConflictException('Only a failed or cancelled sift can be run again.');
      await this.queue.sendSift(siftId, transaction);
      await this.audit.record({ userId: actor.userId, clientId: sift.clientId, action: 'retry', subject: 'sift', subjectId: siftId }, transaction);
    });
    return this.read(actor, siftId);
  }

  async readCandidate(actor: Actor, candidateId: string): Promise<CandidateView> {
    return this.viewOf(await this.findCandidate(actor, candidateId));
  }

  /** Keep, drop or leave. Keeping makes a short with proposed copy; a short that stands on the schedule stays kept. */
  async setState(actor: Actor, candidateId: string, state: CandidateState): Promise<CandidateView> {
    const row = await this.findCandidate(actor, candidateId);
    if (state === 'kept') await this.shorts.ensureFor(actor, row);
    else await this.shorts.requireUnposted(row.id);
    await this.sequelize.transaction(async (transaction) => {
      await row.update({ state }, { transaction });
      const action = { kept: 'keep', dropped: 'drop', open: 'leave' }[state];
      await this.audit.record(
        { userId: actor.userId, clientId: row.clientId, action, subject: 'candidate', subjectId: row.id, detail: { title: row.title } },
        transaction,
      );
    });
    return this.viewOf(row);
  }

  /** Moves the ends of a candidate to other words; its short, where it has one, moves with it. */
  async setSpan(actor: Actor, candidateId: string, firstWord: number, endWord: number): Promise<CandidateView> {
    const row = await this.findCandidate(actor, candidateId);
    const sift = found(await Sift.findByPk(row.siftId, { attributes: ['recordingId'] }), 'sift');
    const transcript = unpackRow(await this.recordings.readPacked(actor, sift.recordingId));
    if (endWord > transcript.words.length) throw new ConflictException(`The transcript ends at word ${transcript.words.length}.`);
    const span = spanOfWords(transcript.words, firstWord, endWord);
    const line = (from: number, to: number): string =>
      transcript.words
        .slice(from, to)
        .map((word) => word.text)
        .join(' ');
    const firstSentence = transcript.sentences.find((sentence) => sentence.endWord > firstWord)!;
    const lastSentence = transcript.sentences.findLast((sentence) => sentence.firstWord < endWord)!;
    await this.sequelize.transaction(async (transaction) => {
      await row.update(
        {
          ...span,
          firstWord,
          endWord,
          firstLine: line(firstWord, Math.min(endWord, firstSentence.endWord)),
          lastLine: line(Math.max(firstWord, lastSentence.firstWord), endWord),
        },
        { transaction },
      );
      await this.shorts.moveWith(row, transaction);
      await this.audit.record(
        { userId: actor.userId, clientId: row.clientId, action: 'move-ends', subject: 'candidate', subjectId: row.id, detail: { title: row.title } },
        transaction,
      );
    });
    return this.viewOf(row);
  }

  private async find(actor: Actor, siftId: string): Promise<Sift> {
    return found(await Sift.findOne({ where: { id: siftId, ...scoped(actor) }, include: [BriefRow] }), 'sift');
  }

  private async findCandidate(actor: Actor, candidateId: string): Promise<CandidateRow> {
    return found(await CandidateRow.findOne({ where: { id: candidateId, ...scoped(actor) } }), 'candidate');
  }

  private async viewOf(row: CandidateRow): Promise<CandidateView> {
    const [signals, evidence] = await Promise.all([
      CandidateSignal.findAll({ where: { candidateId: row.id }, raw: true }),
      EvidenceRow.findAll({ where: { candidateId: row.id }, order: ['firstWord'], raw: true }),
    ]);
    return assemble([row], signals, evidence)[0]!;
  }

  private async views(sifts: readonly Sift[]): Promise<SiftView[]> {
    if (sifts.length === 0) return [];
    const counts = await this.sequelize.query<{ siftId: string; n: number; kept: number }>(
      `SELECT sift_id AS "siftId", count(*)::int AS n, count(*) FILTER (WHERE state = 'kept')::int AS kept FROM candidates WHERE sift_id IN (:ids) GROUP BY sift_id`,
      { replacements: { ids: sifts.map((sift) => sift.id) }, type: QueryTypes.SELECT },
    );
    const users = new Map((await User.findAll({ attributes: ['id', 'name'] })).map((user) => [user.id, user.name]));
    return sifts.map((sift) => {
      const count = counts.find((row) => row.siftId === sift.id);
      return {
        id: sift.id,
        recordingId: sift.recordingId,
        brief: toBriefForm(sift.brief),
        state: sift.state,
        stage: sift.stage,
        fraction: sift.fraction,
        leftMs: sift.leftMs ?? null,
        failure: sift.failure ?? null,
        candidateCount: count?.n ?? 0,
        keptCount: count?.kept ?? 0,
        createdBy: users.get(sift.createdBy ?? '') ?? 'a former user',
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

type Fields = Pick<
  CandidateRow,
  | 'id'
  | 'rank'
  | 'score'
  | 'startMs'
  | 'endMs'
  | 'firstWord'
  | 'endWord'
  | 'foundFirstWord'
  | 'foundEndWord'
  | 'kind'
  | 'reason'
  | 'firstLine'
  | 'lastLine'
  | 'title'
  | 'hashtags'
  | 'alternatives'
  | 'origin'
  | 'state'
>;

function assemble(
  rows: readonly Fields[],
  signals: readonly { candidateId: string; signal: string; value: number; sentence: string }[],
  evidence: readonly { candidateId: string; signal: string; firstWord: number; endWord: number }[],
): CandidateView[] {
  const ranges = new Map<string, number[]>();
  for (const row of evidence) {
    const key = `${row.candidateId} ${row.signal}`;
    const list = ranges.get(key) ?? [];
    list.push(row.firstWord, row.endWord);
    ranges.set(key, list);
  }
  const readings = new Map(signals.map((row) => [`${row.candidateId} ${row.signal}`, row]));
  return rows.map((row) => ({
    id: row.id,
    rank: row.rank,
    score: row.score,
    startMs: row.startMs,
    endMs: row.endMs,
    firstWord: row.firstWord,
    endWord: row.endWord,
    foundFirstWord: row.foundFirstWord,
    foundEndWord: row.foundEndWord,
    kind: row.kind,
    reason: row.reason,
    firstLine: row.firstLine,
    lastLine: row.lastLine,
    title: row.title,
    hashtags: row.hashtags,
    alternatives: row.alternatives,
    origin: row.origin,
    state: row.state,
    signals: SIGNALS.map((signal) => {
      const reading = readings.get(`${row.id} ${signal}`);
      return { signal, value: reading?.value ?? 0, sentence: reading?.sentence ?? '', evidence: ranges.get(`${row.id} ${signal}`) ?? [] };
    }),
  }));
}
