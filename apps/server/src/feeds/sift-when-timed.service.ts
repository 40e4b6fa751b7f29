import { Inject, Injectable, type OnModuleInit } from '@nestjs/common';
import type { BriefForm } from '@sift-reel/forms';
import { Client } from '../clients/clients.models.js';
import { BriefRefusedException } from '../problems/refusals.js';
import { RecordingFacts } from '../recordings/recording-facts.js';
import { SiftingService } from '../sifting/sifting.service.js';
import { Fetch } from './feeds.models.js';

/** Sifts what was fetched to be sifted, with the client's standing brief, as soon as its words have times; wherever those come from. */
@Injectable()
export class SiftWhenTimed implements OnModuleInit {
  constructor(
    @Inject(RecordingFacts) private readonly facts: RecordingFacts,
    @Inject(SiftingService) private readonly sifting: SiftingService,
  ) {}

  onModuleInit(): void {
    this.facts.whenTimed((recordingId) => this.begin(recordingId));
  }

  /** Inside the transaction in which the words come. */
  private async begin(recordingId: string): Promise<void> {
    const row = await Fetch.findOne({ where: { recordingId, thenSift: true } });
    if (row === null || (await this.facts.latestSifts([recordingId])).has(recordingId)) return;
    const client = await Client.findByPk(row.clientId, { attributes: ['standingBrief'], rejectOnEmpty: true });
    const actor = { userId: row.askedBy, clientIds: [row.clientId] };
    try {
      await this.sifting.begin(actor, recordingId, client.standingBrief as BriefForm);
    } catch (error) {
      if (!(error instanceof BriefRefusedException)) throw error;
      // Nothing was written: the brief is looked at first.
      await row.update({ notes: [...row.notes, `It was not sifted, as the standing brief does not fit it: ${error.message}`] });
    }
  }
}
