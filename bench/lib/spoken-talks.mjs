// Others' talks (../shared/editors), spoken by Debian's flite, which says when each of its sounds ends.
import { readdir, readFile } from 'node:fs/promises';
import { speakWords } from '../../scripts/lib/flite-words.mjs';

const TALKS = new URL('../../../shared/editors/talks/', import.meta.url);
const VOICES = ['slt', 'rms', 'kal16', 'awb'];
const LINES_OF_EACH = 30;

async function linesOf(name) {
  const lines = (await readFile(new URL(name, TALKS), 'utf8')).split('\n').filter((line) => line.trim() !== '' && !line.startsWith('#'));
  const speakers = new Map();
  let voice = VOICES[0];
  return lines.slice(0, LINES_OF_EACH).map((line, i) => {
    const [, speaker, text] = /^(?:([A-Z][\w .'-]{0,30}): )?(.*)$/.exec(line);
    if (speaker !== undefined) voice = speakers.get(speaker) ?? speakers.set(speaker, VOICES[speakers.size % VOICES.length]).get(speaker);
    // Short and long, as people leave them; after a silence of seconds a recogniser may lose the time.
    return { voice, text, pauseMs: [200, 350, 900, 2_600, 350, 6_000, 150][i % 7] };
  });
}

/** Pink noise (three poles, after Voss), as loud as the voice less so many decibels. */
export function noisy(samples, db) {
  const power = samples.reduce((sum, one) => sum + one * one, 0) / samples.length;
  let [seed, a, b, c] = [9, 0, 0, 0];
  const noise = Float64Array.from(samples, () => {
    seed = (seed * 1_103_515_245 + 12_345) & 0x7fffffff;
    const white = (seed / 0x7fffffff) * 2 - 1;
    a = 0.997 * a + 0.029 * white;
    b = 0.985 * b + 0.032 * white;
    c = 0.95 * c + 0.048 * white;
    return a + b + c + 0.05 * white;
  });
  const own = noise.reduce((sum, one) => sum + one * one, 0) / noise.length;
  const gain = Math.sqrt(power / own / 10 ** (db / 10));
  return Int16Array.from(samples, (one, i) => Math.max(-32_768, Math.min(32_767, one + gain * noise[i])));
}

/** So many of the talks, from all kinds, each with its samples and the times of its words. @param beside so many further on in the list */
export async function spokenTalks(count, beside = 0) {
  const all = (await readdir(TALKS)).sort();
  const talks = [];
  for (let i = 0; i < count; i += 1) {
    const name = all[(Math.floor((i * all.length) / count) + beside) % all.length];
    talks.push({ name: name.replace('.txt', ''), ...(await speakWords(await linesOf(name))) });
  }
  return talks;
}
