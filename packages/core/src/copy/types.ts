/** The words that go with a short. Hashtags without `#`. */
export interface Copy {
  readonly title: string;
  readonly description: string;
  readonly hashtags: readonly string[];
  readonly keywords: readonly string[];
  readonly coverLine: string;
}

/** What a channel allows; counts of characters (graphemes) and of hashtags. */
export interface CopyLimits {
  readonly title: number;
  readonly description: number;
  readonly hashtags: number;
}

export interface CopyProblem {
  readonly field: keyof Copy;
  readonly found: number;
  readonly limit: number;
  readonly detail: string;
}

/** A cover line is read at a glance. Common practice. */
export const COVER_LINE_LIMIT = 36;
export const KEYWORD_LIMIT = 40;
