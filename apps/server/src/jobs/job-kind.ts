/** Kinds of one queue share its slots. Slots count on each worker. */
export interface JobQueue {
  readonly name: string;
  /** Jobs of the queue that one worker runs at once. */
  readonly slots: number;
  /** Of those, what long jobs may take; at least one slot is left for short ones. */
  readonly longSlots: number;
  /**
   * When what a job makes is needed, as SQL on its row, `jobs`; null for no time. What is needed soonest goes first, before turns are
   * taken between clients.
   */
  readonly neededAt?: string;
}

/** One kind of background work: all that the common part must know of it. */
export interface JobKind {
  readonly name: string;
  readonly queue: JobQueue;
  /** Runs that end in a fault of the program before the job is given up. */
  readonly attempts: number;
  /** Wait before the next run, after the `faults`-th fault, in ms. */
  backOffMs(faults: number): number;
  /** What only one job may work on at a time, such as the recording. */
  lockKey(subjectId: string): string;
  /** Names of its stages, in order. */
  readonly stages: readonly string[];
}

export const JOB_STATES = ['waiting', 'running', 'done', 'failed', 'cancelled'] as const;
export type JobState = (typeof JOB_STATES)[number];
export type JobSize = 'short' | 'long';

/** A run that is killed counts against its job; a job that took so many workers down is set aside. */
export const MOST_CRASHES = 3;

/** @throws Error when the kind cannot be worked on as it describes itself */
export function defineJobKind(kind: JobKind): JobKind {
  const { slots, longSlots } = kind.queue;
  if (!(slots >= 2 && longSlots >= 1 && longSlots < slots)) throw new Error(`${kind.name}: its queue must leave a slot to short jobs`);
  if (kind.attempts < 1) throw new Error(`${kind.name}: at least one attempt`);
  return kind;
}

/** The job cannot be done, whoever tries; the message says why, for the producer. It is not tried again. */
export class JobRefusedError extends Error {
  override readonly name = 'JobRefusedError';
}

/** Not this time, and through no fault of the program; the message says why, for the producer, should it stay so. */
export class JobLaterError extends Error {
  override readonly name = 'JobLaterError';
  /** @param afterMs to wait at least, or null for the kind's own back-off */
  constructor(
    message: string,
    readonly afterMs: number | null = null,
  ) {
    super(message);
  }
}

/** This run of the job is over: it was cancelled, taken over or handed back. What it does now must not be written. */
export class JobOverError extends Error {
  override readonly name = 'JobOverError';
}
