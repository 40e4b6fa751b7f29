import { Inject, Injectable } from '@nestjs/common';
import { NO_EDIT, type WordRange } from '@sift-reel/core';
import type { ReelForm } from '@sift-reel/forms';
import { type Actor, found, scoped } from '../identity/actor.js';
import { InvalidFormException } from '../problems/refusals.js';
import { TranscriptRow } from '../recordings/recordings.models.js';
import { CandidateRow, Sift } from '../sifting/sifting.models.js';
import { KeptPassages } from './kept-passages.service.js';
import type { ShortView } from './shorts.views.js';

/** Makes a short of several parts of a recording. */
@Injectable()
export class ReelsService {
  constructor(@Inject(KeptPassages) private readonly kept: KeptPassages) {}

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
    const [short] = await this.kept.keep(actor, siftId, [{ ...passage, title: null, edit: { ...NO_EDIT, before, after } }]);
    return found(short, 'short');
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
