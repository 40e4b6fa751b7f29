/** A file that a feed names. */
export interface FeedFile {
  /** Absolute, http or https. */
  readonly url: string;
  /** As the feed says, in small letters and without parameters; empty where it says nothing. */
  readonly type: string;
}

export interface FeedEnclosure extends FeedFile {
  /** As the feed says; null where it says nothing that can be so. */
  readonly bytes: number | null;
}

export interface FeedTranscript extends FeedFile {
  /** As the feed says, such as `en`; empty where it says nothing. */
  readonly language: string;
}

export interface FeedPerson {
  readonly name: string;
  /** Such as `host` or `guest`. */
  readonly role: string;
}

export interface FeedEpisode {
  /** What the feed calls it for good: its guid, or the address of its file. */
  readonly guid: string;
  readonly title: string;
  /** What it is about, as plain text on one line, at most 600 characters. */
  readonly summary: string;
  readonly link: string | null;
  /** Ms since 1970; null where the feed says no day that can be read. */
  readonly publishedMs: number | null;
  readonly durationMs: number | null;
  readonly enclosure: FeedEnclosure;
  /** Best first: in the language of the feed before others, then times by the word or the cue before plain text. */
  readonly transcripts: readonly FeedTranscript[];
  readonly chapters: FeedFile | null;
  readonly persons: readonly FeedPerson[];
  readonly season: number | null;
  readonly seasonName: string;
  /** As it is to be shown, such as `12` or `12a`; empty where the feed says nothing. */
  readonly number: string;
}

export interface Feed {
  readonly title: string;
  readonly link: string | null;
  /** Hosts and others of every episode that names none of its own. */
  readonly persons: readonly FeedPerson[];
  /** Where older episodes stand (RFC 5005, section 3); null on the last page. */
  readonly nextUrl: string | null;
  /** How long the feed says that it stays as it is, in minutes (RSS 2.0, ttl); null where it says nothing. */
  readonly ttlMinutes: number | null;
  /** In the feed's order. */
  readonly episodes: readonly FeedEpisode[];
  /** Items that are no episodes: without a file, or with one that is neither sound nor picture. */
  readonly passedOver: number;
}

export interface GivenChapter {
  readonly startMs: number;
  readonly title: string;
}

export type FeedFault = 'bad-xml' | 'not-a-feed' | 'too-long' | 'bad-chapters';

/** A feed, or what goes with it, cannot be read. */
export class FeedRefusedError extends Error {
  override readonly name = 'FeedRefusedError';
  /** @param line of the file, from 1 */
  constructor(
    readonly line: number,
    readonly code: FeedFault,
    readonly detail: string,
  ) {
    super(`line ${line}: ${detail}`);
  }
}
