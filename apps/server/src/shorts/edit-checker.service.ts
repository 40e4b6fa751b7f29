import { Inject, Injectable } from '@nestjs/common';
import type { EditedPassage } from '@sift-reel/core';
import { storedTalk } from '../recordings/stored-talk.js';
import type { CheckedEdit } from '../text/cut-tasks.js';
import { TextPool } from '../text/text-pool.service.js';

/** Reckons what an edit plays. It takes a thread its time, so it is done before a lock. */
@Injectable()
export class EditChecker {
  constructor(@Inject(TextPool) private readonly text: TextPool) {}

  async check(clientId: string, recordingId: string, passage: EditedPassage): Promise<CheckedEdit> {
    return this.text.checkEdit(clientId, { talk: await storedTalk(recordingId), ...passage });
  }
}
