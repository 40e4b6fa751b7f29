import type { HeardWord } from '@sift-reel/core';

/** Where in the module the recogniser is asked for. */
export const RECOGNISER = Symbol('recogniser');

export interface RecogniserTask {
  /** RIFF WAVE, 16 bits, 16 kHz, mono; some minutes of it. */
  readonly wav: string;
  /** A folder of its own, for what it needs meanwhile. */
  readonly folder: string;
  readonly signal: AbortSignal;
}

/** Hears words in sound: roughly which, and when. */
export interface Recogniser {
  /** Names it and its version: what was heard by one is not taken for what another would hear. */
  readonly name: string;
  /** False where it hears English alone. */
  readonly anyLanguage: boolean;
  /**
   * @param expected what is being said, word by word, where that is known; null where it is not
   * @returns words in order, in ms of the sound
   * @throws RecogniserError, or `signal`'s reason
   */
  hear(task: RecogniserTask, expected: Expected | null): Promise<HeardWord[]>;
  /** Makes ready to hear many pieces of what is known to be said. */
  expect(words: readonly string[], task: Pick<RecogniserTask, 'folder' | 'signal'>): Promise<Expected>;
}

/** What a recogniser made of the words that it is to expect. */
export interface Expected {
  readonly files: Readonly<Record<string, string>>;
  /** What it calls each word, where it has names of its own. */
  readonly texts?: ReadonlyMap<string, string>;
}

/** It could not listen; the message is what the recogniser said. */
export class RecogniserError extends Error {
  override readonly name = 'RecogniserError';
}
