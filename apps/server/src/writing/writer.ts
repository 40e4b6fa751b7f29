import type { CopyLimits, Voice } from '@sift-reel/core';

/** What a writer is given. The passage is data: nothing in it is said to the writer. */
export interface WriterRequest {
  /** Of this form of request. */
  readonly version: 1;
  readonly passage: {
    readonly sentences: readonly { readonly speaker: string | null; readonly startMs: number; readonly endMs: number; readonly text: string }[];
  };
  readonly context: {
    /** What is said just before and after. */
    readonly before: string;
    readonly after: string;
    readonly recording: string;
    readonly client: string;
    /** Fields and terms of the whole recording, the strongest first. */
    readonly subject: readonly string[];
  };
  readonly voice: Voice;
  readonly limits: CopyLimits & { readonly coverLine: number };
  /** Of the talk, ISO 639-1. */
  readonly language: string;
  readonly wanted: { readonly titles: number };
}

/** Words as they came back, whole in form; nothing says that they are true. */
export interface WrittenWords {
  readonly titles: readonly string[];
  readonly description: string;
  readonly hashtags: readonly string[];
  readonly keywords: readonly string[];
  readonly coverLine: string;
}

/** The port: whoever proposes words for a passage. */
export interface Writer {
  /** @throws WriterError; the signal's reason when it is aborted */
  write(request: WriterRequest, signal: AbortSignal): Promise<{ readonly words: WrittenWords; readonly raw: string }>;
}

/** No words came, and why, in plain words. */
export class WriterError extends Error {
  override readonly name = 'WriterError';
  /** @param again true where the same request may do better a little later */
  constructor(
    message: string,
    readonly again: boolean,
  ) {
    super(message);
  }
}
