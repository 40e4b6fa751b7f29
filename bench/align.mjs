// How far the words of a text are placed from where they are said: others' talks (../shared/editors), spoken by Debian's flite, which
// says when each of its sounds ends. Asked: median 0.15 s or less, 95 % within 0.5 s. Clean, and with noise ten decibels below the voice;
// then each talk's sound with the text of another, which must not be taken for its own.
import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { alignWords, belongs } from '@sift-reel/core';
import { Pocketsphinx } from '../apps/server/dist/aligning/pocketsphinx.js';
import { wavOf } from '../apps/server/dist/aligning/sound-pieces.js';
import { RATE } from '../scripts/lib/flite-words.mjs';
import { noisy, spokenTalks } from './lib/spoken-talks.mjs';
import { row } from './measure.mjs';

const TALKS_TAKEN = 8;
const NOISE_DB = 10;
const { signal } = new AbortController();

const at = (values, share) => [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(values.length * share))];
const within = (values, ms) => values.filter((one) => one <= ms).length / values.length;

async function align(texts, samples) {
  const folder = await mkdtemp(join(tmpdir(), 'sift-reel-align-'));
  try {
    const wav = join(folder, 'talk.wav');
    await writeFile(wav, wavOf(samples));
    const from = performance.now();
    const recogniser = new Pocketsphinx();
    const heard = await recogniser.hear({ wav, folder, signal }, await recogniser.expect(texts, { folder, signal }));
    const lengthMs = (samples.length / RATE) * 1_000;
    return { ...alignWords(texts, heard, lengthMs), ofLength: (performance.now() - from) / lengthMs };
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

const talks = await spokenTalks(TALKS_TAKEN);

row('starts of words', 'median, ms', '95 %, ms', 'within 0.5 s', 'heard', 'of its length');
const pooled = { clean: [], noise: [] };
for (const { name, samples, words } of talks)
  for (const [way, sound] of [
    ['clean', samples],
    ['noise', noisy(samples, NOISE_DB)],
  ]) {
    const { spans, share, ofLength } = await align(
      words.map(({ text }) => text),
      sound,
    );
    const errors = spans.map(({ startMs }, i) => Math.abs(startMs - words[i].startMs));
    pooled[way].push(errors);
    row(`${name}, ${way}`, at(errors, 0.5).toFixed(0), at(errors, 0.95).toFixed(0), within(errors, 500).toFixed(3), share.toFixed(3), ofLength.toFixed(3));
  }
for (const [way, lists] of Object.entries(pooled)) {
  const every = lists.flat();
  row(`all, ${way}: ${every.length} words`, at(every, 0.5).toFixed(0), at(every, 0.95).toFixed(0), within(every, 500).toFixed(4));
  row(
    `worst talk, ${way}`,
    Math.max(...lists.map((one) => at(one, 0.5))).toFixed(0),
    Math.max(...lists.map((one) => at(one, 0.95))).toFixed(0),
    Math.min(...lists.map((one) => within(one, 500))).toFixed(4),
  );
}
row('with the text of another talk', 'share', 'used', 'taken for its own');
for (const [i, { samples, name }] of talks.entries()) {
  const { share, used } = await align(
    talks[(i + 3) % talks.length].words.map(({ text }) => text),
    samples,
  );
  row(name, share.toFixed(2), used.toFixed(2), belongs({ share, used }) ? 'yes' : 'no');
}
