import { describe, expect, it } from 'vitest';
import { inItsOwnProcess } from '../../../bench/reading-memory.mjs';

// A thread that runs out of memory inside one call of the engine (a split, a JSON.parse) takes its process down, and the API with it.
/** What is left of 400 MB where the API stands at 190. */
const MOST_MORE_MB = 210;

describe('a transcript of 62 MB is answered within 400 MB, whatever is in it', () => {
  it.each(['short cues of WebVTT', 'lines of Windows', 'empty lines', 'JSON of lists', 'JSON of words', 'line ends of two kinds'])('%s', async (shape) => {
    const { answer, moreMb } = (await inItsOwnProcess(shape)) as { answer: string; moreMb: number };
    expect(['refused', 'prepared']).toContain(answer);
    expect(moreMb).toBeLessThan(MOST_MORE_MB);
  });
});
