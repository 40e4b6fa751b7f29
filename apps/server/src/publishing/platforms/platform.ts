// One side of the table: all that the rest of Sift Reel knows of a platform. How to add one is on one page: docs/adding-a-platform.md.
import type { Shape } from '@sift-reel/core';

/** What goes out, fixed. */
export interface Content {
  /** By which it is found again there: short, of letters, digits and dashes, another for every post. */
  readonly mark: string;
  readonly title: string;
  readonly description: string;
  readonly hashtags: readonly string[];
  readonly coverLine: string;
  /** SubRip. */
  readonly captions: string;
  readonly shape: Shape;
  readonly lengthMs: number;
  readonly bytes: number;
  /** The minute that it is planned for, ms since 1970. */
  readonly atMs: number;
  /** The file, or a piece of it. */
  file(from?: number, to?: number): Promise<Blob>;
  /** An address at which it can be fetched for an hour, without a sign-in. */
  address(): string;
}

/** What an adapter has to remember of a post between calls, such as the name of an upload. */
export type Kept = Readonly<Record<string, string | number>>;

/** What is asked of a platform: below its interface, with a token that this adds. */
export interface Ask {
  readonly method: 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE';
  readonly path: string;
  readonly json?: object;
  readonly body?: Blob | FormData;
  readonly headers?: Readonly<Record<string, string>>;
}

export interface Reply {
  readonly status: number;
  /** The body where it is JSON; else null. */
  // eslint-disable-next-line @typescript-eslint/no-explicit-any -- each adapter knows the bodies of its platform
  readonly body: any;
  readonly headers: Headers;
}

/** A line to a platform, for one account and one piece of work. It keeps to the account's pace and renews its token. */
export interface Line {
  /**
   * @returns an answer of 200 to 299
   * @throws RefusedError, LaterError, RightGoneError: then nothing came of it. NoAnswerError: then that is not known.
   */
  ask(ask: Ask): Promise<Reply>;
  /** Keeps what has to be remembered, at once and for good. */
  keep(kept: Kept): Promise<void>;
  /** A moment as the platform's clock tells it, by what its answers were dated. */
  theirs(ms: number): number;
}

/** What came of a post. */
export type Outcome =
  | { readonly state: 'posted'; readonly remoteId: string; readonly address: string }
  /** Taken, and to be asked about later; or before, where it calls back. */
  | { readonly state: 'processing'; readonly remoteId: string; readonly askAfterMs: number }
  | { readonly state: 'refused'; readonly words: string };

/** What an error of theirs says. */
export interface SaidError {
  /** In their words. */
  readonly words: string;
  /** `duplicate`: it may be there already. `later`: it would be taken another time. */
  readonly kind: 'refused' | 'duplicate' | 'later';
}

export interface Words {
  readonly title: string;
  readonly description: string;
  readonly hashtags: readonly string[];
}

/**
 * A platform, as we see it. An adapter holds no state and knows no database: it says which calls are made and reads their answers.
 */
export interface PostingPlatform {
  /** As configuration and platform profiles name it. */
  readonly name: string;
  /** As people do. */
  readonly title: string;
  readonly scopes: readonly string[];
  /** So many calls of an account in so long, as they say; less is asked. */
  readonly pace: { readonly calls: number; readonly perMs: number };
  /**
   * How posting twice is kept from happening. `key`: the same call again has no second effect for so long. `mark`: it is looked for, no
   * sooner than a call that seemed lost can still take effect there.
   */
  readonly once: { readonly by: 'key'; readonly lifeMs: number } | { readonly by: 'mark'; readonly settleMs: number };
  /** So long before its minute it is handed over; where that is not 0, the platform puts it out at the minute by itself. */
  readonly aheadMs: number;

  readError(status: number, body: unknown): SaidError;
  /** Whose account it is. */
  who(line: Line): Promise<{ readonly remoteId: string; readonly name: string }>;
  /** All that can be done before, such as the upload: may break off anywhere, and is called again with what was kept. */
  prepare?(content: Content, kept: Kept, line: Line): Promise<void>;
  /** The one call that puts it before the public. */
  publish(content: Content, kept: Kept, line: Line): Promise<Outcome>;
  /** Looks whether it is there, by its mark. */
  look(content: Content, kept: Kept, line: Line): Promise<Outcome | null>;
  /** What has become of what was taken. */
  progress(remoteId: string, line: Line): Promise<Outcome>;
  /** Changes the words of what is there; left out where the platform allows none. */
  correct?(remoteId: string, words: Words, line: Line, content: Content): Promise<void>;
  takeDown(remoteId: string, line: Line): Promise<void>;
}

/** They will not have it; nothing came of it. */
export class RefusedError extends Error {
  override readonly name = 'RefusedError';
  constructor(
    words: string,
    readonly isDuplicate = false,
    readonly status = 0,
  ) {
    super(words);
  }
}

/** Not now; nothing came of it. */
export class LaterError extends Error {
  override readonly name = 'LaterError';
  /** @param afterMs to wait, or null where they do not say */
  constructor(
    words: string,
    readonly afterMs: number | null,
  ) {
    super(words);
  }
}

/** The right to post is gone, or lacks something; nothing came of it. */
export class RightGoneError extends Error {
  override readonly name = 'RightGoneError';
  constructor(
    words: string,
    readonly state: 'revoked' | 'lacking',
  ) {
    super(words);
  }
}

/** The line broke, nothing was heard, or the answer says no more than that something went wrong there: what came of it is not known. */
export class NoAnswerError extends Error {
  override readonly name = 'NoAnswerError';
}

/** What is in the body of an answer; for adapters. */
export const at = (body: unknown, ...path: readonly string[]): unknown =>
  path.reduce<unknown>((value, key) => (typeof value === 'object' && value !== null ? (value as Record<string, unknown>)[key] : undefined), body);

export const textAt = (body: unknown, ...path: readonly string[]): string => {
  const value = at(body, ...path);
  return typeof value === 'string' || typeof value === 'number' ? String(value) : '';
};

/** Words with hashtags under them, for platforms that keep no list of them. */
export const withTags = (text: string, hashtags: readonly string[]): string =>
  [text, hashtags.map((tag) => `#${tag}`).join(' ')].filter((part) => part !== '').join('\n\n');
