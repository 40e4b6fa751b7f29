import { Inject, Injectable } from '@nestjs/common';
import type { EditedPassage } from '@sift-reel/core';
import { found } from '../identity/actor.js';
import { TranscriptRow } from '../recordings/recordings.models.js';
import type { CheckedEdit } from '../text/cut-tasks.js';
import { TextPool } from '../text/text-pool.service.js';

/** Reckons what an edit plays. It takes a thread its time, so it is done before a lock. */
@Injectable()
export class EditChecker {
  constructor(@Inject(TextPool) private readonly text: TextPool) {}

  async check(clientId: string, recordingId: string, passage: EditedPassage): Promise<CheckedEdit> {
    const { packed } = found(await TranscriptRow.findByPk(recordingId, { attributes: ['packed'] }), 'transcript');
    return this.text.checkEdit(clientId, { packed, ...passage });
  }
}
