export const SPELLINGS = ['any', 'british', 'american'] as const;
export const CAPITALS = ['any', 'sentence', 'title'] as const;
export const SERIAL_COMMAS = ['any', 'always', 'never'] as const;
export const PERSONS = ['any', 'we', 'I'] as const;
export const ADDRESSES = ['any', 'Sie', 'du'] as const;
export const EMOJI_USES = ['none', 'texts', 'everywhere'] as const;

/** A word that the client says in place of another. */
export interface PreferredWord {
  readonly say: string;
  readonly not: string;
}

/** How a client's words sound. Every part may be left open. */
export interface Voice {
  readonly use: readonly PreferredWord[];
  /** Words and phrases that are never used. */
  readonly avoid: readonly string[];
  /** English spelling. */
  readonly spelling: (typeof SPELLINGS)[number];
  /** Capitals in titles and cover lines: only the first word and names, or every word but the small ones. */
  readonly capitals: (typeof CAPITALS)[number];
  /** The comma before the last "and" of a list. */
  readonly serialComma: (typeof SERIAL_COMMAS)[number];
  /** Who speaks, outside of quotations. */
  readonly person: (typeof PERSONS)[number];
  /** How a viewer is spoken to in German. */
  readonly address: (typeof ADDRESSES)[number];
  readonly emoji: (typeof EMOJI_USES)[number];
  /** Characters, where the client wants less than a platform takes; null for no limit of its own. */
  readonly longestTitle: number | null;
  readonly longestText: number | null;
  /** Lines that stand under every text: link, call to action, credits. */
  readonly fixedParts: readonly string[];
  /** Titles that were good: what is proposed is to be like them. */
  readonly examples: readonly string[];
  /** Hashtags that every short carries, and those that none does. */
  readonly alwaysTags: readonly string[];
  readonly neverTags: readonly string[];
}

/** A client that has said nothing yet. */
export const OPEN_VOICE: Voice = {
  use: [],
  avoid: [],
  spelling: 'any',
  capitals: 'any',
  serialComma: 'any',
  person: 'any',
  address: 'any',
  emoji: 'texts',
  longestTitle: null,
  longestText: null,
  fixedParts: [],
  examples: [],
  alwaysTags: [],
  neverTags: [],
};
