import { ConflictException, Inject, Injectable } from '@nestjs/common';
import { baseWeights, type Candidate, languageOf, type WordRange } from '@sift-reel/core';
import type { OwnCandidateForm } from '@sift-reel/forms';
import { Op } from 'sequelize';
import { AuditService } from '../audit/audit.service.js';
import { Database } from '../database/database.service.js';
import { type Actor, found, scoped } from '../identity/actor.js';
import { JobsService } from '../jobs/jobs.service.js';
import { RecordingsService } from '../recordings/recordings.service.js';
import { TextPool } from '../text/text-pool.service.js';
import { toBriefForm } from './brief.js';
import { CandidateHooks } from './candidate-hooks.js';
import { writeCandidates } from './candidate-rows.js';
import { SearchService } from './search.service.js';
import { SIFT } from './sift.kind.js';
import { BriefRow, CandidateRow, Sift } from './sifting.models.js';
import { knownVoice } from '../preparing/voice-tracks.js';
import type { TimesOfWords } from '../recordings/stored-talk.js';
import { embedWanted, readWanted } from './wanted.js';

/** Room enough above the ranks of any sift to move them aside. */
const ASIDE = 1_000_000;

/** A passage as the sift would have scored it, not written yet. */
export interface ScoredPassage {
  readonly sift: Sift;
  readonly candidate: Candidate;
  readonly times: TimesOfWords;
}

/** Makes candidates of what somebody found or selected: scored as the sift would have, and put at their rank. */
@Injectable()
export class OwnCandidatesService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(RecordingsService) private readonly recordings: RecordingsService,
    @Inject(SearchService) private readonly search: SearchService,
    @Inject(TextPool) private readonly text: TextPool,
    @Inject(JobsService) private readonly jobs: JobsService,
    @Inject(CandidateHooks) private readonly hooks: CandidateHooks,
    @Inject(AuditService) private readonly audit: AuditService,
  ) {}

  /** @returns the id of the candidate; of the one that is there already, where one is on the same words */
  async add(actor: Actor, siftId: string, form: OwnCandidateForm): Promise<string> {
    const sift = await this.doneSift(actor, siftId);
    const there = form.around === true ? null : await this.findOn(siftId, form);
    if (there !== null) return there;
    const scored = await this.score(actor, sift, form);
    return this.database.transaction(async () => {
      await this.hold(scored);
      return (await this.findOn(siftId, scored.candidate)) ?? this.write(actor, scored);
    });
  }

  /** Scores what is to be another candidate, whatever stands on the same words. It takes its time, so it is done before a lock. */
  async prepare(actor: Actor, siftId: string, range: WordRange): Promise<ScoredPassage> {
    return this.score(actor, await this.doneSift(actor, siftId), range);
  }

  /** In the caller's transaction: who adds several of one sift takes its lock with the first. @returns the id of the candidate */
  async addPrepared(actor: Actor, scored: ScoredPassage): Promise<string> {
    await this.hold(scored);
    return this.write(actor, scored);
  }

  /** The times it was scored by still hold, and nobody else changes the sift's ranks. */
  private async hold({ sift, times }: ScoredPassage): Promise<void> {
    await this.recordings.requireTimes(sift.recordingId, times);
    await this.lockSift(sift.id);
  }

  private async write(actor: Actor, { sift, candidate }: ScoredPassage): Promise<string> {
    const locked = await this.lockSift(sift.id);
    const rank = 1 + (await CandidateRow.count({ where: { siftId: sift.id, score: { [Op.gte]: candidate.score } } }));
    await this.shift(sift.id, rank, 1);
    const [id] = await writeCandidates(sift, [{ ...candidate, rank }], 'own');
    if (rank <= (locked.strongCount ?? 0)) await locked.increment('strongCount');
    const { title } = candidate;
    await this.audit.record({ userId: actor.userId, clientId: sift.clientId, action: 'make', subject: 'candidate', subjectId: id!, detail: { title } });
    return id!;
  }

  private async doneSift(actor: Actor, siftId: string): Promise<Sift> {
    const sift = found(await Sift.findOne({ where: { id: siftId, ...scoped(actor) }, include: [BriefRow] }), 'sift');
    if ((await this.jobs.ofSubjects(SIFT, [siftId])).get(siftId)?.state !== 'done') throw new ConflictException('The sift is not done yet.');
    return sift;
  }

  /** Takes one's own candidate away again. What the sift found stays; it can be dropped. */
  async remove(actor: Actor, candidateId: string): Promise<void> {
    const seen = found(await CandidateRow.findOne({ where: { id: candidateId, ...scoped(actor) } }), 'candidate');
    await this.database.transaction(async () => {
      const sift = await this.lockSift(seen.siftId);
      const row = found(await CandidateRow.findByPk(candidateId, { lock: true }), 'candidate');
      if (row.origin !== 'own') throw new ConflictException('The sift found this candidate; drop it instead.');
      if (row.state === 'kept') throw new ConflictException('The candidate is kept as a short. Leave it open first.');
      await this.hooks.onRemoved(row);
      await row.destroy();
      await this.shift(row.siftId, row.rank + 1, -1);
      if (row.rank <= (sift.strongCount ?? 0)) await sift.decrement('strongCount');
      const { clientId, title } = row;
      await this.audit.record({ userId: actor.userId, clientId, action: 'delete', subject: 'candidate', subjectId: candidateId, detail: { title } });
    });
  }

  /** Whoever changes the ranks of a sift holds its row: two at once take their ranks one after the other. */
  private async lockSift(siftId: string): Promise<Sift> {
    return found(await Sift.findByPk(siftId, { lock: true }), 'sift');
  }

  /** Id of the candidate that lies on some words now. */
  private async findOn(siftId: string, { firstWord, endWord }: WordRange): Promise<string | null> {
    return (await CandidateRow.findOne({ where: { siftId, firstWord, endWord }, attributes: ['id'] }))?.id ?? null;
  }

  private async score(actor: Actor, sift: Sift, { firstWord, endWord, around = false }: OwnCandidateForm): Promise<ScoredPassage> {
    const { talk, clientId, times } = await this.recordings.readTalk(actor, sift.recordingId);
    const recording = await this.recordings.find(actor, sift.recordingId);
    const brief = toBriefForm(sift.brief);
    const wanted = await readWanted(sift.clientId);
    const sentenceVectors = await this.search.knownVectors(clientId, talk.packed);
    const vectors =
      sentenceVectors === null
        ? { topicVectors: null, tagVectors: null, interestVectors: null }
        : await embedWanted(brief.topics, wanted, (texts) => this.search.embedTexts(texts));
    // The weights of the sift, not the client's of today, and sound only if the sift had heard it: it is to stand among its candidates.
    const weights = sift.weights === null ? null : baseWeights(brief.topics.length > 0, sift.weights);
    const voice = sift.limits?.includes('no-sound') === true ? null : await knownVoice(recording);
    const candidate = await this.text.scorePassage(clientId, {
      talk,
      language: sift.language === null ? null : languageOf(sift.language),
      firstWord,
      endWord,
      around,
      brief,
      ...wanted,
      weights,
      sentenceVectors,
      ...vectors,
      voice,
    });
    if (candidate === null) throw new ConflictException('The transcript ends before these words.');
    return { sift, candidate, times };
  }

  /** Moves ranks from `from` on by one; by way of high numbers, since no two may be the same at any moment. */
  private async shift(siftId: string, from: number, by: number): Promise<void> {
    for (const step of [ASIDE, by - ASIDE])
      await this.database.run('UPDATE candidates SET rank = rank + $1 WHERE sift_id = $2 AND rank >= $3', [step, siftId, step > 0 ? from : ASIDE]);
  }
}
