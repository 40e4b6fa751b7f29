import { Inject, Injectable } from '@nestjs/common';
import { type Edit, tidyEdit, type WordRange } from '@sift-reel/core';
import { Database } from '../database/database.service.js';
import { type Actor, found } from '../identity/actor.js';
import { CandidatesService } from '../sifting/candidates.service.js';
import { OwnCandidatesService, type ScoredPassage } from '../sifting/own-candidates.service.js';
import type { KeptWish } from './kept-candidates.service.js';
import { Short } from './shorts.models.js';
import { ShortsService } from './shorts.service.js';
import type { ShortView } from './shorts.views.js';

export interface PassageToKeep extends WordRange {
  readonly edit: Edit;
  /** Null where one is proposed. */
  readonly title: string | null;
}

/** Makes shorts of passages with their cut: each candidate is one's own, beside whatever stands on the same words. */
@Injectable()
export class KeptPassages {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(OwnCandidatesService) private readonly own: OwnCandidatesService,
    @Inject(CandidatesService) private readonly candidates: CandidatesService,
    @Inject(ShortsService) private readonly shorts: ShortsService,
  ) {}

  /**
   * All of them, or none, in their order. Scores, words and cuts are reckoned first: the sift is held only while they are written.
   * @throws InvalidFormException naming the field of the first cut that cannot be played
   */
  async keep(actor: Actor, siftId: string, passages: readonly PassageToKeep[]): Promise<ShortView[]> {
    const prepared: { scored: ScoredPassage; kept: unknown[] }[] = [];
    for (const { firstWord, endWord, title, edit } of passages) {
      const scored = await this.own.prepare(actor, siftId, { firstWord, endWord });
      const wish: KeptWish = { title, edit: tidyEdit(edit) };
      prepared.push({ scored, kept: await this.candidates.prepareKept(scored, wish) });
    }
    const ids = await this.database.transaction(async () => {
      const made: string[] = [];
      for (const { scored, kept } of prepared) {
        const candidateId = await this.own.addPrepared(actor, scored);
        await this.candidates.keepPrepared(actor, candidateId, kept);
        made.push(found(await Short.findOne({ where: { candidateId }, attributes: ['id'] }), 'short').id);
      }
      return made;
    });
    const views = new Map((await this.shorts.list(actor, { ids })).map((short) => [short.id, short]));
    return ids.flatMap((id) => views.get(id) ?? []);
  }
}
