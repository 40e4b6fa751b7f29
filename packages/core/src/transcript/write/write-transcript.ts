import { formatTimecode } from '../../time/timecode.js';
import type { Transcript, WrittenFormat } from '../types.js';
import { captionCues, writeSubRip, writeWebVtt } from './captions.js';
import { wordsText } from '../words-text.js';

/** Writes a whole transcript in one of the formats; words keep their times in podcast JSON, cues keep theirs elsewhere. */
export function writeTranscript(transcript: Transcript, format: WrittenFormat): string {
  if (format === 'podcast-json') return writePodcastJson(transcript);
  if (format === 'stamped-text') return writeStampedText(transcript);
  const cues = captionCues(transcript, 0, transcript.words.length, 0, { longestLine: 84 });
  return format === 'webvtt' ? writeWebVtt(cues) : writeSubRip(cues, 'label');
}

const seconds = (ms: number): number => ms / 1_000;

function writePodcastJson(transcript: Transcript): string {
  const segments = transcript.sentences.map((sentence) => {
    const words = transcript.words.slice(sentence.firstWord, sentence.endWord);
    const speaker = transcript.speakers[sentence.speaker];
    return {
      ...(speaker === undefined ? {} : { speaker }),
      startTime: seconds(sentence.startMs),
      endTime: seconds(sentence.endMs),
      body: wordsText(words),
      words: words.map((word) => ({ startTime: seconds(word.startMs), endTime: seconds(word.endMs), word: word.text })),
    };
  });
  return `${JSON.stringify({ version: '1.0.0', segments }, null, 1)}\n`;
}

function writeStampedText(transcript: Transcript): string {
  const lines = transcript.sentences.map((sentence) => {
    const text = wordsText(transcript.words, sentence.firstWord, sentence.endWord);
    const speaker = transcript.speakers[sentence.speaker];
    const time = formatTimecode(sentence.startMs);
    return `[${time}] ${speaker === undefined ? '' : `${speaker}: `}${text}`;
  });
  return `${lines.join('\n')}\n`;
}
