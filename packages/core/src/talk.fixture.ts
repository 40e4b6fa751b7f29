import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { formatTimecode } from './time/timecode.js';
import { readTranscript } from './transcript/read-transcript.js';
import type { Transcript } from './transcript/types.js';

const bytes = (text: string): Uint8Array => new TextEncoder().encode(text);

export function transcriptOf(text: string): Transcript {
  return readTranscript(bytes(text)).transcript;
}

/** A line of talk as WebVTT cues, one after the other: about 2.6 words a second, with a short pause between lines. */
export function toVtt(lines: readonly { speaker?: string; text: string }[], startMs = 0): string {
  let at = startMs;
  const cues = lines.map(({ speaker, text }) => {
    const from = at;
    at += Math.max(400, text.split(/\s+/).length * 385);
    const cue = `${formatTimecode(from, 'vtt')} --> ${formatTimecode(at, 'vtt')}\n${speaker === undefined ? '' : `<v ${speaker}>`}${text}\n`;
    at += 280;
    return cue;
  });
  return `WEBVTT\n\n${cues.join('\n')}`;
}

/** The lines of a demo recording's text. */
export function demoLines(name: string): { speaker: string; text: string }[] {
  const file = fileURLToPath(new URL(`../../../demo/recordings/${name}.txt`, import.meta.url));
  return readFileSync(file, 'utf8')
    .split('\n')
    .map((line) => /^([A-Z]\w+): (.+)$/.exec(line))
    .filter((match) => match !== null)
    .map((match) => ({ speaker: match[1]!, text: match[2]! }));
}

export const DEMO_TALKS = ['up-the-flue-12', 'up-the-flue-11', 'the-last-and-the-welt-07', 'what-goes-down-31'] as const;

export function demoTranscript(name: (typeof DEMO_TALKS)[number]): Transcript {
  return transcriptOf(toVtt(demoLines(name)));
}
