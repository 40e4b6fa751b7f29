// How far the words of a text are placed from where they are said: others' talks (../shared/editors), spoken by Debian's flite, which
// says when each of its sounds ends. Asked: median 0.15 s or less, 95 % within 0.5 s. Talks and voices that nothing was tuned on.
import { mkdtemp, readdir, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { alignWords } from '@sift-reel/core';
import { Pocketsphinx } from '../apps/server/dist/aligning/pocketsphinx.js';
import { RATE, speakWords, writeWav } from '../scripts/lib/flite-words.mjs';

const TALKS = new URL('../../shared/editors/talks/', import.meta.url);
const VOICES = ['slt', 'rms', 'kal16', 'awb'];
const [count = '4', sentencesOfEach = '60', first = '0'] = process.argv.slice(2);

const say = (line) => process.stdout.write(`${line}\n`);
const signal = new AbortController().signal;
const share = (values, within) => values.filter((one) => one <= within).length / values.length;
const at = (values, share) => [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(values.length * share))];

const names = (await readdir(TALKS))
  .sort()
  .filter((_, i) => i % Math.max(1, Math.floor(33 / Number(count))) === Number(first))
  .slice(0, Number(count));
const rows = [];
for (const name of names) {
  const lines = (await readFile(new URL(name, TALKS), 'utf8')).split('\n').filter((line) => line.trim() !== '' && !line.startsWith('#'));
  const speakers = new Map();
  let voice = VOICES[0];
  const sentences = lines.slice(0, Number(sentencesOfEach)).map((line) => {
    const [, speaker, text] = /^(?:([A-Z][\w .'-]{0,30}): )?(.*)$/.exec(line);
    if (speaker !== undefined) voice = speakers.get(speaker) ?? speakers.set(speaker, VOICES[speakers.size % VOICES.length]).get(speaker);
    return { voice, text };
  });
  const { samples, words } = await speakWords(sentences);
  const folder = await mkdtemp(join(tmpdir(), 'sift-reel-align-'));
  const wav = join(folder, 'talk.wav');
  await writeWav(wav, samples);
  const lengthMs = (samples.length / RATE) * 1_000;
  const texts = words.map(({ text }) => text);
  const began = performance.now();
  const recogniser = new Pocketsphinx();
  const heard = await recogniser.hear({ wav, folder, signal }, await recogniser.expect(texts, { folder, signal }));
  const tookMs = performance.now() - began;
  const { spans, share: heardShare } = alignWords(texts, heard, lengthMs);
  const errors = spans.map(({ startMs }, i) => Math.abs(startMs - words[i].startMs));
  const ends = spans.map(({ endMs }, i) => Math.abs(endMs - words[i].endMs));
  rows.push({ errors, ends });
  const worst = errors
    .map((ms, i) => ({ ms, i }))
    .sort((a, b) => b.ms - a.ms)
    .slice(0, 3);
  say(
    `${name.padEnd(38)} ${(lengthMs / 1_000).toFixed(0).padStart(5)} s ${String(words.length).padStart(5)} words  heard ${heardShare.toFixed(3)}  ` +
      `median ${at(errors, 0.5).toFixed(0)} ms  95 % ${at(errors, 0.95).toFixed(0)} ms  within 0.5 s ${share(errors, 500).toFixed(3)}  ` +
      `ends: median ${at(ends, 0.5).toFixed(0)}, within 0.5 s ${share(ends, 500).toFixed(3)}  takes ${(tookMs / lengthMs).toFixed(3)} of the length`,
  );
  if (process.env.SHOW === '1')
    for (const { ms, i } of worst)
      say(`   ${ms.toFixed(0)} ms at ${(words[i].startMs / 1_000).toFixed(1)} s: ${texts.slice(Math.max(0, i - 3), i + 4).join(' ')}`);
  await rm(folder, { recursive: true, force: true });
}
const all = rows.flatMap(({ errors }) => errors);
const worst = Math.min(...rows.map(({ errors }) => share(errors, 500)));
say(
  `all: ${all.length} words, median ${at(all, 0.5).toFixed(0)} ms, 95 % ${at(all, 0.95).toFixed(0)} ms, within 0.5 s ${share(all, 500).toFixed(4)}; the worst talk ${worst.toFixed(4)}`,
);
