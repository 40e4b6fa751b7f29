import { Injectable } from '@nestjs/common';
import type { WordRange } from '@sift-reel/core';
import type { Actor } from '../identity/actor.js';
import type { CandidateRow } from './sifting.models.js';

/** A candidate that is to be kept; without an id where it is not written yet. */
export type ToKeep = Pick<CandidateRow, 'siftId' | 'clientId' | 'firstWord' | 'endWord'> & { readonly id: string | null };

/** What becomes of a candidate elsewhere. Each is called in the transaction of the change, and may refuse it by throwing. */
export interface CandidateListener {
  /**
   * Before the transaction: what takes long, and writes nothing.
   * @param wish what whoever keeps it wants of the listener; undefined where he wants nothing of his own
   * @returns what `onKept` is given
   */
  beforeKept(candidate: ToKeep, wish: unknown): Promise<unknown>;
  onKept(actor: Actor, candidate: CandidateRow, prepared: unknown): Promise<void>;
  onLeft(candidate: CandidateRow): Promise<void>;
  /** Before the transaction, as `beforeKept`. @param ends where it is to go; @returns what `onMoved` is given */
  beforeMoved(candidate: CandidateRow, ends: WordRange): Promise<unknown>;
  onMoved(candidate: CandidateRow, prepared: unknown): Promise<void>;
  /** The candidate is about to be taken away for good. */
  onRemoved(candidate: CandidateRow): Promise<void>;
}

/** Where shorts listen to what is decided about candidates; sifting itself knows of no shorts. */
@Injectable()
export class CandidateHooks {
  private readonly listeners: CandidateListener[] = [];

  listen(listener: CandidateListener): void {
    this.listeners.push(listener);
  }

  async beforeKept(candidate: ToKeep, wish?: unknown): Promise<unknown[]> {
    const prepared: unknown[] = [];
    for (const listener of this.listeners) prepared.push(await listener.beforeKept(candidate, wish));
    return prepared;
  }
  async onKept(actor: Actor, candidate: CandidateRow, prepared: readonly unknown[]): Promise<void> {
    for (const [i, listener] of this.listeners.entries()) await listener.onKept(actor, candidate, prepared[i]);
  }
  async onLeft(candidate: CandidateRow): Promise<void> {
    for (const listener of this.listeners) await listener.onLeft(candidate);
  }
  async beforeMoved(candidate: CandidateRow, ends: WordRange): Promise<unknown[]> {
    const prepared: unknown[] = [];
    for (const listener of this.listeners) prepared.push(await listener.beforeMoved(candidate, ends));
    return prepared;
  }
  async onMoved(candidate: CandidateRow, prepared: readonly unknown[]): Promise<void> {
    for (const [i, listener] of this.listeners.entries()) await listener.onMoved(candidate, prepared[i]);
  }
  async onRemoved(candidate: CandidateRow): Promise<void> {
    for (const listener of this.listeners) await listener.onRemoved(candidate);
  }
}
