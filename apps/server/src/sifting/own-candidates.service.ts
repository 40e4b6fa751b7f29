import { ConflictException, Inject, Injectable } from '@nestjs/common';
import { InjectConnection } from '@nestjs/sequelize';
import { baseWeights, type Candidate, type WordRange } from '@sift-reel/core';
import type { OwnCandidateForm } from '@sift-reel/forms';
import { QueryTypes, type Transaction } from 'sequelize';
import { Sequelize } from 'sequelize-typescript';
import { AuditService } from '../audit/audit.service.js';
import { type Actor, found, scoped } from '../identity/actor.js';
import { TextPool } from '../jobs/text-pool.service.js';
import { unpackRow } from '../jobs/text-tasks.js';
import { RecordingsService } from '../recordings/recordings.service.js';
import { toBriefForm } from './brief.js';
import { writeCandidates } from './candidate-rows.js';
import { SearchService } from './search.service.js';
import { BriefRow, CandidateRow, Sift } from './sifting.models.js';
import { knownVoice } from './voice-tracks.js';
import { embedWanted, readWanted } from './wanted.js';

/** Room enough above the ranks of any sift to move them aside. */
const ASIDE = 1_000_000;

/** Makes candidates of what somebody found or selected: scored as the sift would have, and put at their rank. */
@Injectable()
export class OwnCandidatesService {
  constructor(
    @InjectConnection() private readonly sequelize: Sequelize,
    @Inject(RecordingsService) private readonly recordings: RecordingsService,
    @Inject(SearchService) private readonly search: SearchService,
    @Inject(TextPool) private readonly pool: TextPool,
    @Inject(AuditService) private readonly audit: AuditService,
  ) {}

  /** @returns the id of the candidate; one that is there already on the same words is handed back as it is */
  async add(actor: Actor, siftId: string, form: OwnCandidateForm): Promise<string> {
    const sift = found(await Sift.findOne({ where: { id: siftId, ...scoped(actor) }, include: [BriefRow] }), 'sift');
    if (sift.state !== 'done') throw new ConflictException('The sift is not done yet.');
    const there = form.around === true ? null : await this.findOn(siftId, form);
    if (there !== null) return there;
    const candidate = await this.score(actor, sift, form);
    return this.sequelize.transaction(async (transaction) => {
      await Sift.findByPk(siftId, { transaction, lock: true }); // two people at once take their ranks one after the other
      const same = await this.findOn(siftId, candidate, transaction);
      if (same !== null) return same;
      const rank = await this.makeRoom(siftId, candidate.score, transaction);
      const [id] = await writeCandidates(sift, [{ ...candidate, rank }], 'own', transaction);
      if (rank <= (sift.strongCount ?? 0)) await Sift.increment('strongCount', { by: 1, where: { id: siftId }, transaction });
      await this.audit.record(
        { userId: actor.userId, clientId: sift.clientId, action: 'make', subject: 'candidate', subjectId: id!, detail: { title: candidate.title } },
        transaction,
      );
      return id!;
    });
  }

  /** Takes one's own candidate away again. What the sift found stays; it can be dropped. */
  async remove(actor: Actor, candidateId: string): Promise<void> {
    const row = found(await CandidateRow.findOne({ where: { id: candidateId, ...scoped(actor) } }), 'candidate');
    if (row.origin !== 'own') throw new ConflictException('The sift found this candidate; drop it instead.');
    if (row.state === 'kept') throw new ConflictException('The candidate is kept as a short. Leave it open first.');
    await this.sequelize.transaction(async (transaction) => {
      const sift = found(await Sift.findByPk(row.siftId, { transaction, lock: true }), 'sift');
      const { rank, siftId } = row;
      await row.destroy({ transaction });
      await this.shift(siftId, rank + 1, -1, transaction);
      if (rank <= (sift.strongCount ?? 0)) await Sift.decrement('strongCount', { by: 1, where: { id: siftId }, transaction });
      await this.audit.record(
        { userId: actor.userId, clientId: row.clientId, action: 'delete', subject: 'candidate', subjectId: candidateId, detail: { title: row.title } },
        transaction,
      );
    });
  }

  /** Id of the candidate that lies on some words now. */
  private async findOn(siftId: string, { firstWord, endWord }: WordRange, transaction?: Transaction): Promise<string | null> {
    return (
      (await CandidateRow.findOne({ where: { siftId, firstWord, endWord }, attributes: ['id'], ...(transaction === undefined ? {} : { transaction }) }))?.id ??
      null
    );
  }

  private async score(actor: Actor, sift: Sift, { firstWord, endWord, around = false }: OwnCandidateForm): Promise<Candidate> {
    const packed = await this.recordings.readPacked(actor, sift.recordingId);
    const { soundFile } = await this.recordings.find(actor, sift.recordingId);
    const transcript = unpackRow(packed);
    if (endWord > transcript.words.length) throw new ConflictException(`The transcript ends at word ${transcript.words.length}.`);
    const brief = toBriefForm(sift.brief);
    const wanted = await readWanted(sift.clientId);
    const sentenceVectors = await this.search.knownVectors(transcript);
    const vectors =
      sentenceVectors === null
        ? { topicVectors: null, tagVectors: null, interestVectors: null }
        : await embedWanted(brief.topics, wanted, (texts) => this.search.embedTexts(texts));
    // The weights of the sift, not the client's of today, and sound only if the sift had heard it: it is to stand among its candidates.
    const weights = sift.weights === null ? null : baseWeights(brief.topics.length > 0, sift.weights);
    const voice = sift.limits?.includes('no-sound') === true ? null : await knownVoice(sift.recordingId, soundFile);
    return this.pool.scorePassage({ packed, firstWord, endWord, around, brief, ...wanted, weights, sentenceVectors, ...vectors, voice });
  }

  /** Frees the rank that a score takes: below all that score at least as much. */
  private async makeRoom(siftId: string, score: number, transaction: Transaction): Promise<number> {
    const rank =
      1 +
      (await CandidateRow.count({ where: this.sequelize.literal(`sift_id = ${this.sequelize.escape(siftId)} AND score >= ${Number(score)}`), transaction }));
    await this.shift(siftId, rank, 1, transaction);
    return rank;
  }

  /** Moves ranks from `from` on by one; by way of high numbers, since no two may be the same at any moment. */
  private async shift(siftId: string, from: number, by: number, transaction: Transaction): Promise<void> {
    for (const step of [ASIDE, by - ASIDE]) {
      await this.sequelize.query(`UPDATE candidates SET rank = rank + :step WHERE sift_id = :siftId AND rank >= :from`, {
        replacements: { step, siftId, from: step > 0 ? from : ASIDE },
        type: QueryTypes.UPDATE,
        transaction,
      });
    }
  }
}
