import type { Sentence, Word, WordTimes } from '../../transcript/types.js';
import { TERMINAL } from '../sentences.js';
import type { PartOfSpeech } from '../tagger.js';
import { readGaps } from './gap-model.js';
import { heardWith, pauseBefore } from './heard.js';
import { type PauseOdds, tellPauses } from './pauses.js';

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
  const heard = heardWith(words, pausesOf(words, sentences, restored), wordTimes);
  sentences.forEach(({ firstWord: k }, s) => {
    if (!restored[s]!) return;
    const { end, clause } = read(k);
    doubts[s] = 1 / (1 + Math.exp(end + heard(k, clause)));
  });
  return doubts;
}

/** What pauses tell of restored ends, by the ends found. */
function pausesOf(words: readonly Word[], sentences: readonly Sentence[], restored: readonly boolean[]): PauseOdds {
  const gaps: { isEnd: boolean; pauseMs: number }[] = [];
  sentences.forEach(({ firstWord, endWord }, s) => {
    for (let i = Math.max(1, firstWord); i < endWord; i += 1) {
      if (i > firstWord || restored[s]!) gaps.push({ isEnd: i === firstWord, pauseMs: pauseBefore(words, i) });
    }
  });
  return tellPauses(gaps);
}
