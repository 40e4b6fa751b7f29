import { buildReel, formatLength, formatTimecode, ReelRefusedError, wordsText } from '@sift-reel/core';
import { BadInputError } from './errors.js';
import { readArguments, secondsOf, siftByOptions } from './sift-file.js';

/** Common practice: a highlight reel takes 3 to 5 minutes, of parts of 15 to 60 s. */
const USUAL_LENGTH_MS = 240_000;
const PART = { min: '15', max: '60' };

/** `reel FILE`: one highlight reel of the best parts, within five seconds of the length asked for. */
export async function reelFile(args: readonly string[]): Promise<string> {
  const { path, options } = readArguments(args, 'reel');
  const lengthMs = secondsOf(options.length, '--length', USUAL_LENGTH_MS);
  const { transcript, result } = await siftByOptions(path, { ...options, ...PART });
  try {
    const reel = buildReel(result.candidates, lengthMs);
    const text = (firstWord: number, endWord: number): string => wordsText(transcript.words, firstWord, endWord);
    const parts = reel.parts.map((part) => ({
      start: part.startMs / 1_000,
      end: part.endMs / 1_000,
      rank: part.rank,
      score: part.score,
      text: text(part.firstWord, part.endWord),
    }));
    if (options.json === true) return `${JSON.stringify({ length: reel.lengthMs / 1_000, parts })}\n`;
    const lines = reel.parts.map((part, i) => `${formatTimecode(part.startMs)}  ${formatLength(part.endMs - part.startMs)}  ${parts[i]!.text.slice(0, 90)}…`);
    return `${[...lines, `${formatLength(reel.lengthMs)} in ${reel.parts.length} parts`].join('\n')}\n`;
  } catch (error) {
    if (error instanceof ReelRefusedError) throw new BadInputError(path, 1, error.message);
    throw error;
  }
}
