import { isDeepStrictEqual } from 'node:util';
import { ConflictException, Inject, Injectable, type OnModuleInit } from '@nestjs/common';
import { type Copy, type Edit, NO_EDIT, type WordRange } from '@sift-reel/core';
import { Op } from 'sequelize';
import { AuditService } from '../audit/audit.service.js';
import type { Actor } from '../identity/actor.js';
import { InvalidFormException } from '../problems/refusals.js';
import { RecordingFacts } from '../recordings/recording-facts.js';
import { CandidateHooks, type CandidateListener, type ToKeep } from '../sifting/candidate-hooks.js';
import { type CandidateRow, Sift } from '../sifting/sifting.models.js';
import { CopyHistory } from './copy-history.service.js';
import type { CheckedEdit } from '../text/cut-tasks.js';
import { EditChecker } from './edit-checker.service.js';
import { ProposalsService } from './proposals.service.js';
import { ShortFacts } from './short-facts.js';
import { CopyRow, Short } from './shorts.models.js';

/** What a short would play between other ends, with the edit that this was reckoned of. */
type Moved = CheckedEdit & { readonly edit: Edit };

interface Prepared {
  readonly recordingId: string;
  readonly copy: Copy;
  /** Whether a person gave it its title. */
  readonly titled: boolean;
  readonly edit: Edit;
  /** Null where it plays all that lies between its ends. */
  readonly playedMs: number | null;
}

/** What a short is to be from its beginning: its cut, and its title where it is not to be proposed. */
export interface KeptWish {
  readonly title: string | null;
  readonly edit: Edit;
}

/** A kept candidate is a short; one that is left keeps its row, so that its words are not lost. */
@Injectable()
export class KeptCandidates implements CandidateListener, OnModuleInit {
  constructor(
    @Inject(CandidateHooks) private readonly hooks: CandidateHooks,
    @Inject(RecordingFacts) private readonly recordings: RecordingFacts,
    @Inject(ProposalsService) private readonly proposals: ProposalsService,
    @Inject(EditChecker) private readonly edits: EditChecker,
    @Inject(CopyHistory) private readonly history: CopyHistory,
    @Inject(ShortFacts) private readonly facts: ShortFacts,
    @Inject(AuditService) private readonly audit: AuditService,
  ) {}

  onModuleInit(): void {
    this.hooks.listen(this);
    this.recordings.object('replace-sound', async (recordingId) => {
      const approved = await Short.count({ where: { recordingId, approvedVersion: { [Op.ne]: null } } });
      return approved === 0 ? null : `Approved shorts are cut from this sound (${approved}). Un-approve them before you replace it.`;
    });
    this.recordings.removeWith(async (recordingId) => {
      await Short.destroy({ where: { recordingId } });
    });
  }

  /** @throws InvalidFormException naming the field of the wished cut that cannot be played */
  async beforeKept({ id, siftId, clientId, firstWord, endWord }: ToKeep, wish: unknown): Promise<Prepared | null> {
    if (id !== null && (await Short.count({ where: { candidateId: id } })) > 0) return null;
    const sift = await Sift.findByPk(siftId, { attributes: ['recordingId'] });
    if (sift === null) return null;
    const { recordingId } = sift;
    const { title, edit } = (wish ?? { title: null, edit: NO_EDIT }) as KeptWish;
    const checked = edit === NO_EDIT ? null : await this.edits.check(clientId, recordingId, { firstWord, endWord, edit });
    if (checked !== null && checked.problem !== null)
      throw new InvalidFormException([{ field: `edit.${checked.problem.field}`, detail: checked.problem.detail }]);
    const proposed = await this.proposals.propose(clientId, recordingId, { firstWord, endWord });
    const copy = title === null ? proposed : { ...proposed, title };
    return { recordingId, copy, titled: title !== null, edit, playedMs: checked?.playedMs ?? null };
  }

  async onKept(actor: Actor, candidate: CandidateRow, prepared: unknown): Promise<void> {
    const { id: candidateId, clientId, firstWord, endWord, startMs, endMs, score } = candidate;
    if ((await Short.count({ where: { candidateId } })) > 0) return; // there already, with its words
    if (prepared === null) throw new ConflictException('The candidate was changed just now. Try again.');
    const { recordingId, copy, titled, edit, playedMs } = prepared as Prepared;
    const plays = { edit, playedMs: playedMs ?? endMs - startMs };
    const short = await Short.create({ candidateId, clientId, recordingId, firstWord, endWord, startMs, endMs, score, ...plays });
    await CopyRow.create({ ...copy, shortId: short.id, clientId, channelId: null });
    await this.history.add({ short, channelId: null, copy, by: titled ? actor.userId : null });
    await this.audit.record({ userId: actor.userId, clientId, action: 'make', subject: 'short', subjectId: short.id, detail: { title: copy.title } });
  }

  async onLeft(candidate: CandidateRow): Promise<void> {
    const short = await lockShortOf(candidate);
    if (short !== null && (await this.facts.postCounts([short.id])).has(short.id))
      throw new ConflictException('Its short stands on the schedule. Take it off there first.');
  }

  /** What its short would play between the new ends; null where it has none. */
  async beforeMoved({ id: candidateId, clientId }: CandidateRow, ends: WordRange): Promise<Moved | null> {
    const short = await Short.findOne({ where: { candidateId } });
    if (short === null) return null;
    const { edit, recordingId } = short;
    return { edit, ...(await this.edits.check(clientId, recordingId, { ...ends, edit })) };
  }

  async onMoved(candidate: CandidateRow, prepared: unknown): Promise<void> {
    const short = await lockShortOf(candidate);
    if (short === null) return;
    const moved = prepared as Moved | null;
    if (moved === null || !isDeepStrictEqual(short.edit, moved.edit)) throw new ConflictException('Its short was changed just now. Try again.');
    if (moved.problem !== null) throw new ConflictException('Every word between these ends is struck out of its short. Bring some back first.');
    if (short.approvedVersion !== null && candidate.state === 'kept') throw new ConflictException('Its short is approved. Un-approve it to move its ends.');
    const { firstWord, endWord, startMs, endMs } = candidate;
    await short.update({ firstWord, endWord, startMs, endMs, playedMs: moved.playedMs });
  }

  async onRemoved(candidate: CandidateRow): Promise<void> {
    await this.onLeft(candidate);
    await Short.destroy({ where: { candidateId: candidate.id } });
  }
}

function lockShortOf(candidate: CandidateRow): Promise<Short | null> {
  return Short.findOne({ where: { candidateId: candidate.id }, lock: true });
}
