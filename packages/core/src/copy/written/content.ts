import { STOPWORDS } from '../../text/lists/talk.js';
import { stem } from '../../text/stem.js';

/** Stems of the words that say something. */
export const contentOf = (norms: readonly string[]): ReadonlySet<string> => new Set(norms.filter((norm) => norm !== '' && !STOPWORDS.has(norm)).map(stem));

/** How much of the shorter of two lines stands in the other, 0 to 1. */
export const shared = (a: ReadonlySet<string>, b: ReadonlySet<string>): number =>
  [...a].filter((word) => b.has(word)).length / Math.max(1, Math.min(a.size, b.size));
