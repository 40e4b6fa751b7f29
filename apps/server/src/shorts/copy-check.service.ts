import { Inject, Injectable } from '@nestjs/common';
import { type Copy, type Finding, isTruth } from '@sift-reel/core';
import { Client, voiceOf } from '../clients/clients.models.js';
import { found } from '../identity/actor.js';
import { storedTalk } from '../recordings/stored-talk.js';
import type { CheckedCopies } from '../text/check-task.js';
import { TextPool } from '../text/text-pool.service.js';
import { ProposalsService } from './proposals.service.js';
import { passageOf, type Short, type Tick } from './shorts.models.js';

/** Checks the words of a short against what was said in it, and against its client's voice. */
@Injectable()
export class CopyCheck {
  constructor(
    @Inject(TextPool) private readonly text: TextPool,
    @Inject(ProposalsService) private readonly proposals: ProposalsService,
  ) {}

  /** `tellLanguage`: also find the language of the words, which come from somebody else. `foreign`: they are in another language than the talk. */
  async check(
    short: Short,
    copies: readonly Copy[],
    { tellLanguage = false, foreign = false }: { tellLanguage?: boolean; foreign?: boolean } = {},
  ): Promise<CheckedCopies> {
    const { clientId, recordingId, recording } = short;
    const talk = await storedTalk(recordingId);
    const client = found(await Client.findByPk(clientId), 'client');
    const { language } = await this.proposals.knownOf(recordingId);
    const around = [recording.title, client.name];
    const [passage, english] = [{ talk, ...passageOf(short) }, language === null && !foreign];
    return this.text.checkCopies(clientId, { ...passage, copies, voice: voiceOf(client), around, english, tellLanguage });
  }

  /** What the words of a short say that was not said. */
  async truthOf(short: Short, copies: readonly Copy[], foreign = false): Promise<Finding[]> {
    return copies.length === 0 ? [] : (await this.check(short, copies, { foreign })).findings.flat().filter(isTruth);
  }
}

export const isTicked = (finding: Pick<Finding, 'rule' | 'text'>, ticks: readonly Pick<Tick, 'rule' | 'text'>[]): boolean =>
  ticks.some((tick) => ticksIt(tick, finding));
export const ticksIt = (tick: Pick<Tick, 'rule' | 'text'>, { rule, text }: Pick<Finding, 'rule' | 'text'>): boolean =>
  tick.rule === rule && tick.text === text.slice(0, LONGEST_TICK);
/** As long as a tick may be. */
const LONGEST_TICK = 400;
