import type { Sentence, Transcript, Word } from '../transcript/types.js';
import { type PlayedRun, spanOfRun } from './cut-list.js';
import { correctedWords, type EditedPassage, playedRuns } from './edit.js';

/**
 * What is said in a passage as it is played: its words, one after the other, with the times at which they are heard. A sentence
 * that is cut into stays one; one that another part tears apart becomes two. `durationMs` is as long as the cut list.
 */
export function playedTalk(transcript: Transcript, passage: EditedPassage): Transcript {
  const { words, sentences } = transcript;
  const texts = correctedWords(words, passage.edit.corrected);
  const said: Word[] = [];
  const ends: Sentence[] = [];
  let playedMs = 0;
  let last: PlayedRun | null = null;
  let sentence = -1;
  for (const run of playedRuns(words, passage)) {
    const span = spanOfRun(words, run);
    const shift = playedMs - span.startMs;
    playedMs += span.endMs - span.startMs;
    const leaps = last === null || run.firstWord < last.endWord || sentenceOf(sentences, run.firstWord) !== sentence;
    for (let i = run.firstWord; i < run.endWord; i += 1) {
      const word = texts[i]!;
      const before = said.at(-1);
      const here: number = sentence !== -1 && i < sentences[sentence]!.endWord && i >= sentences[sentence]!.firstWord ? sentence : sentenceOf(sentences, i);
      const opens = here !== sentence || (i === run.firstWord && leaps);
      sentence = here;
      if (word.text === '' && before !== undefined) {
        said[said.length - 1] = { ...before, endMs: word.endMs + shift };
        continue;
      }
      said.push({ ...word, startMs: word.startMs + shift, endMs: word.endMs + shift });
      const open = ends.at(-1);
      if (open !== undefined && !opens) ends[ends.length - 1] = { ...open, endWord: said.length, endMs: word.endMs + shift };
      else ends.push({ firstWord: said.length - 1, endWord: said.length, startMs: word.startMs + shift, endMs: word.endMs + shift, speaker: word.speaker });
    }
    last = run;
  }
  return { ...transcript, words: said, sentences: ends, durationMs: playedMs };
}

/** The sentence that a word belongs to; they are in order, and no word is without one. */
function sentenceOf(sentences: readonly Sentence[], word: number): number {
  let [low, high] = [0, sentences.length];
  while (low < high) {
    const middle = (low + high) >>> 1;
    if (sentences[middle]!.firstWord <= word) low = middle + 1;
    else high = middle;
  }
  return low - 1;
}
