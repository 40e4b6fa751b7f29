import type { Sentence, Word, WordTimes } from '../../transcript/types.js';
import { TERMINAL } from '../sentences.js';
import type { PartOfSpeech } from '../tagger.js';
import { shapesOf, tellCapitals } from './capitals.js';
import { readGaps } from './gap-model.js';
import { heardWith, pauseBefore } from './heard.js';
import { tellPauses } from './pauses.js';

/**
 * How doubtful it is that a sentence begins where one was restored, 0 to 1: 0 where the end before it was written or
 * somebody else speaks, little where a long pause is heard; one more for the end of the text, which is certain. About as
 * many are wrong as it says: of the marked talks without punctuation, 17 % of those below 0.3 and 63 % of those above 0.6.
 * @param texts normalised words, @param tags their parts of speech
 */
export function doubtfulStarts(
  words: readonly Word[],
  texts: readonly string[],
  tags: readonly PartOfSpeech[],
  sentences: readonly Sentence[],
  wordTimes: WordTimes,
): Float64Array {
  const doubts = new Float64Array(sentences.length + 1);
  const restored = sentences.map(({ firstWord, speaker }, s) => {
    const before = words[firstWord - 1];
    return s > 0 && before !== undefined && before.speaker === speaker && before.kind !== 'mark' && !TERMINAL.test(before.text);
  });
  if (!restored.includes(true)) return doubts;
  const read = readGaps(texts, tags);
  const gaps = gapsOf(sentences, restored);
  const shapes = shapesOf(words, NO_LINES);
  const written = tellCapitals(
    gaps.map(({ isEnd }) => isEnd),
    gaps.map(({ i }) => shapes[i]!),
  );
  const heard = heardWith(words, tellPauses(gaps.map(({ i, isEnd }) => ({ isEnd, pauseMs: pauseBefore(words, i) }))), wordTimes);
  sentences.forEach(({ firstWord: k }, s) => {
    if (!restored[s]!) return;
    const { end, clause } = read(k);
    doubts[s] = 1 / (1 + Math.exp(end + written(shapes[k]!) + heard(k, clause)));
  });
  return doubts;
}

/** Where the lines of the file were is not kept; where each begins with a capital, capitals are found at other words as well. */
const NO_LINES: ReadonlySet<number> = new Set();

/** The gaps where no end was written, by the word after each, with the ends found. */
function gapsOf(sentences: readonly Sentence[], restored: readonly boolean[]): { readonly i: number; readonly isEnd: boolean }[] {
  const gaps: { i: number; isEnd: boolean }[] = [];
  sentences.forEach(({ firstWord, endWord }, s) => {
    for (let i = Math.max(1, firstWord); i < endWord; i += 1) {
      if (i > firstWord || restored[s]!) gaps.push({ i, isEnd: i === firstWord });
    }
  });
  return gaps;
}
