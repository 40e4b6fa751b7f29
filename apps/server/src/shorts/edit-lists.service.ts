import { isDeepStrictEqual } from 'node:util';
import { Inject, Injectable, UnprocessableEntityException } from '@nestjs/common';
import type { EditedPassage, WordRange } from '@sift-reel/core';
import { type EditListForm, type KeepPassagesForm, MOST_PARTS } from '@sift-reel/forms';
import { type Actor, found, scoped } from '../identity/actor.js';
import { Recording } from '../recordings/recordings.models.js';
import { RecordingsService } from '../recordings/recordings.service.js';
import { Sift } from '../sifting/sifting.models.js';
import { TextPool } from '../text/text-pool.service.js';
import type { EditListView } from './cutting.views.js';
import { editRateOf } from './edit-rate.js';
import { KeptPassages } from './kept-passages.service.js';
import { ShortsService } from './shorts.service.js';
import type { ShortView } from './shorts.views.js';

/** What a passage plays; how its words read is not in an edit list. */
const playedOf = ({ firstWord, endWord, edit: { removed, pauses, before, after } }: EditedPassage): unknown => {
  const plain = (runs: readonly WordRange[]) => runs.map((run) => [run.firstWord, run.endWord]);
  return [firstWord, endWord, plain(removed), pauses.map((one) => [one.afterWord, one.leftMs]), plain(before), plain(after)];
};

/** Takes over what was cut elsewhere: an edit list is read and shown, and what is wanted of it becomes shorts. */
@Injectable()
export class EditListsService {
  constructor(
    @Inject(RecordingsService) private readonly recordings: RecordingsService,
    @Inject(KeptPassages) private readonly kept: KeptPassages,
    @Inject(ShortsService) private readonly shorts: ShortsService,
    @Inject(TextPool) private readonly text: TextPool,
  ) {}

  /**
   * What an edit list plays of the sift's recording. Nothing is kept yet.
   * @throws UnprocessableEntityException with its line, for what is no edit list
   */
  async read(actor: Actor, siftId: string, { name, text, asOne }: EditListForm): Promise<EditListView> {
    const { recordingId, clientId } = await this.siftOf(actor, siftId);
    const recording = found(await Recording.findByPk(recordingId), 'recording');
    const { talk } = await this.recordings.readTalk(actor, recordingId);
    const rate = editRateOf(recording);
    const outcome = await this.text.readEditList(clientId, { talk, text, rate, asOne, lengthMs: recording.durationMs ?? Infinity, mostParts: MOST_PARTS });
    if (outcome.refused !== null) {
      const { line, detail } = outcome.refused;
      throw new UnprocessableEntityException(`${name}${line === 0 ? '' : `, line ${line}`}: ${detail}.`);
    }
    const kept = await this.shorts.list(actor, { recordingId });
    const isKept = (one: EditedPassage): boolean => kept.some((short) => isDeepStrictEqual(playedOf(short), playedOf(one)));
    return { passages: outcome.passages.map(({ found: passage, ...about }) => ({ ...about, passage, kept: passage !== null && isKept(passage) })) };
  }

  /** Keeps passages as shorts, each with its cut and its title: all of them, or none. In the order that they are given in. */
  keep(actor: Actor, siftId: string, { passages }: KeepPassagesForm): Promise<ShortView[]> {
    return this.kept.keep(
      actor,
      siftId,
      passages.map(({ title, ...passage }) => ({ ...passage, title: title === '' ? null : title })),
    );
  }

  private async siftOf(actor: Actor, siftId: string): Promise<Sift> {
    return found(await Sift.findOne({ where: { id: siftId, ...scoped(actor) }, attributes: ['recordingId', 'clientId'] }), 'sift');
  }
}
