// Reading is linear, whatever is thrown at it: the time for 2 and 4 MB over the time for 1 MB, of texts that were made to
// be slow to read. 2 and 4 are linear, 4 and 16 quadratic.
import { readTranscript } from '@sift-reel/core';
import { best, row } from './measure.mjs';

const cue = (text) => `WEBVTT\n\n00:00.000 --> 59:00.000\n${text}\n`;
const SHAPES = {
  'one word without end': (n) => cue('a'.repeat(n)),
  'no spaces, commas': (n) => cue('word,'.repeat(n / 5)),
  'opened braces': (n) => `1\n00:00:00,000 --> 00:59:00,000\n${'{\\'.repeat(n / 2)}\n`,
  'opened tags': (n) => cue('<v '.repeat(n / 3)),
  'full stops': (n) => cue('.'.repeat(n)),
  'no line ends': (n) => cue('we went along there for a while '.repeat(n / 32)),
  'empty lines': (n) => `WEBVTT\n\n00:00.000 --> 59:00.000\nx\n${'\n'.repeat(n)}`,
};

row('text', '2 MB / 1 MB', '4 MB / 1 MB', '1 MB, ms');
for (const [name, make] of Object.entries(SHAPES)) {
  const times = [1, 2, 4].map((mb) => {
    const bytes = new TextEncoder().encode(make(mb * 1_000_000));
    return best(3, () => {
      try {
        readTranscript(bytes);
      } catch (error) {
        if (error.name !== 'TranscriptRefusedError') throw error; // to be refused is an answer, too
      }
    });
  });
  row(name, (times[1] / times[0]).toFixed(1), (times[2] / times[0]).toFixed(1), times[0].toFixed(0));
}
