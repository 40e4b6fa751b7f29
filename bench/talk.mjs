// Talk of any length from the demo's lines, in an order that a seeded generator changes; for measuring speed only.
import { readFileSync, readdirSync } from 'node:fs';

const FOLDER = new URL('../demo/recordings/', import.meta.url);
const LINES = readdirSync(FOLDER)
  .filter((name) => name.endsWith('.txt'))
  .sort()
  .flatMap((name) =>
    readFileSync(new URL(name, FOLDER), 'utf8')
      .split('\n')
      .map((line) => /^([A-Z]\w+): (.+)$/.exec(line))
      .filter((match) => match !== null)
      .map((match) => ({ speaker: match[1], text: match[2] })),
  );

const stamp = (ms) => new Date(ms).toISOString().slice(11, 23);

/** WebVTT of about `hours` of talk, one cue a sentence, 2.6 words a second. */
export function talkOf(hours) {
  const cues = [];
  let seed = 42;
  for (let at = 0, i = 0; at < hours * 3_600_000; i += 1) {
    seed = (Math.imul(seed, 1_664_525) + 1_013_904_223) >>> 0;
    const line = LINES[(i + (seed % 5)) % LINES.length];
    for (const text of line.text.split(/(?<=[.?!]) (?=[A-Z])/)) {
      const endMs = at + Math.max(400, text.split(' ').length * 380);
      cues.push(`${stamp(at)} --> ${stamp(endMs)}\n<v ${line.speaker}>${text.replace('thing', `thing ${i % 97}`)}\n`);
      at = endMs + 260;
    }
  }
  return `WEBVTT\n\n${cues.join('\n')}`;
}
