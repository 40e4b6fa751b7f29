import { ConflictException, Inject, Injectable } from '@nestjs/common';
import type { WordRange } from '@sift-reel/core';
import type { ReelForm } from '@sift-reel/forms';
import { Database } from '../database/database.service.js';
import { type Actor, found, scoped } from '../identity/actor.js';
import { InvalidFormException } from '../problems/refusals.js';
import { TranscriptRow } from '../recordings/recordings.models.js';
import { CandidatesService } from '../sifting/candidates.service.js';
import { OwnCandidatesService } from '../sifting/own-candidates.service.js';
import { CandidateRow, Sift } from '../sifting/sifting.models.js';
import { CuttingService } from './cutting.service.js';
import { Short } from './shorts.models.js';
import { ShortsService } from './shorts.service.js';
import type { ShortView } from './shorts.views.js';

/** Makes a short of several parts of a recording. */
@Injectable()
export class ReelsService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(OwnCandidatesService) private readonly own: OwnCandidatesService,
    @Inject(CandidatesService) private readonly candidates: CandidatesService,
    @Inject(CuttingService) private readonly cutting: CuttingService,
    @Inject(ShortsService) private readonly shorts: ShortsService,
  ) {}

  /**
   * Keeps a reel as one short: the best of its parts is the passage, whose words propose the short's, and the others are played before
   * and after it. The candidate is one's own, beside that of the part. All of it, or nothing.
   */
  async keep(actor: Actor, siftId: string, { parts }: ReelForm): Promise<ShortView> {
    const sift = found(await Sift.findOne({ where: { id: siftId, ...scoped(actor) }, attributes: ['recordingId'] }), 'sift');
    const transcript = found(await TranscriptRow.findByPk(sift.recordingId, { attributes: ['wordCount'] }), 'transcript');
    const beyond = parts.findIndex(({ endWord }) => endWord > transcript.wordCount);
    if (beyond >= 0) throw new InvalidFormException([{ field: `parts.${beyond}`, detail: `is no run of the ${transcript.wordCount} words` }]);
    const late = parts.findIndex(({ firstWord }, i) => i > 0 && firstWord < parts[i - 1]!.endWord);
    if (late >= 0) throw new InvalidFormException([{ field: `parts.${late}`, detail: 'begins before the part before it ends' }]);
    const best = await this.bestOf(siftId, parts);
    const plain = parts.map(({ firstWord, endWord }) => ({ firstWord, endWord }));
    const [before, passage, after] = [plain.slice(0, best), plain[best]!, plain.slice(best + 1)];
    const shortId = await this.database.transaction(async () => {
      const candidateId = await this.own.add(actor, siftId, passage, { anew: true });
      await this.candidates.setState(actor, candidateId, 'kept');
      const short = await Short.findOne({ where: { candidateId }, attributes: ['id', 'version'] });
      if (short === null) throw new ConflictException('The reel was taken away just now. Try again.');
      const edit = { removed: [], pauses: [], corrected: [], before, after };
      await this.cutting.save(actor, short.id, { edit, version: short.version });
      return short.id;
    });
    return this.shorts.read(actor, shortId);
  }

  /** Which of the parts the sift scored highest; the first where it knows none of them. */
  private async bestOf(siftId: string, parts: readonly WordRange[]): Promise<number> {
    const rows = await CandidateRow.findAll({ where: { siftId }, attributes: ['firstWord', 'endWord', 'score', 'alternatives'] });
    const scoreOf = ({ firstWord, endWord }: WordRange): number =>
      Math.max(
        -1,
        ...rows.flatMap((row) => [row, ...row.alternatives].flatMap((one) => (one.firstWord === firstWord && one.endWord === endWord ? one.score : []))),
      );
    const scores = parts.map(scoreOf);
    return scores.indexOf(Math.max(...scores));
  }
}
