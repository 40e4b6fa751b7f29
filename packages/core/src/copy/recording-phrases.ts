import { stem } from '../text/stem.js';
import { keyPhrases, type Passage, type PhraseStatistics } from './phrases.js';

/** A key phrase of a whole recording and where it is said. */
export interface RecordingPhrase {
  /** As it was said, lower case. */
  readonly text: string;
  readonly count: number;
  /** First words of the places where it is said, in order; at most 200. Counted from the start of the transcript. */
  readonly firstWords: readonly number[];
  /** Number of its words. */
  readonly length: number;
}

const MOST_PLACES = 200;
/** A phrase said once tells nothing of an hour. */
const SAID_AT_LEAST = 2;

/**
 * Key phrases of a recording, strongest first: the phrases of `keyPhrases` over all of it that are said at least twice,
 * inflections counted together.
 * @param statistics of the whole recording, its index as well where there is one, @param offset added to every place, @param most 1 to 200
 */
export function recordingPhrases(
  passage: Omit<Passage, 'sentences' | 'first' | 'end'>,
  statistics: PhraseStatistics,
  offset: number,
  most: number,
): RecordingPhrase[] {
  const stems = statistics.index?.stems ?? passage.texts.map(stem);
  const phrases = keyPhrases(passage, statistics, 2 * most).map(({ text }) => ({ text, wanted: text.split(' ').map(stem) }));
  const byFirst = new Map<string, number[]>(phrases.map(({ wanted }) => [wanted[0]!, []]));
  stems.forEach((one, i) => byFirst.get(one)?.push(i));
  return phrases
    .map(({ text, wanted }) => {
      const places = (byFirst.get(wanted[0]!) ?? []).filter((i) => wanted.every((one, k) => stems[i + k] === one));
      return { text, count: places.length, firstWords: places.slice(0, MOST_PLACES).map((i) => i + offset), length: wanted.length };
    })
    .filter(({ count }) => count >= SAID_AT_LEAST)
    .slice(0, most);
}
