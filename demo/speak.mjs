// Speaks a recording's text with flite, utterance by utterance, so that the time of every cue and of every word is true, and writes the
// sound (Ogg Opus) with its transcript (WebVTT with voices and times of words) beside it. Run by the set-up; see demo/README.md.
import { spawn } from 'node:child_process';
import { createHash } from 'node:crypto';
import { mkdir, mkdtemp, readFile, rename, rm, writeFile } from 'node:fs/promises';
import { once } from 'node:events';
import { availableParallelism, tmpdir } from 'node:os';
import { basename, join } from 'node:path';
import { aloneSounds, placeSpoken, soundsOf, spokenWords } from '../scripts/lib/flite-words.mjs';

const RATE = 16_000; // flite's clear voices speak at 16 kHz, mono
const BETWEEN_TURNS_MS = 260;
const LAUGH_MS = 950;

/** Parses a recording's text: head lines `key: value`, then `Name: words`, and `~ ms` for a pause. */
export function parseRecording(text, file) {
  const [head, ...rest] = text.split('\n\n');
  const fields = Object.fromEntries(head.split('\n').map((line) => [line.slice(0, line.indexOf(':')), line.slice(line.indexOf(':') + 1).trim()]));
  const voices = new Map(
    fields.voices.split(',').map((part) => {
      const [, name, voice, stretch] = /^\s*(\S+)=(\w+)\*([\d.]+)\s*$/.exec(part);
      return [name, { voice, stretch }];
    }),
  );
  const lines = [];
  rest
    .join('\n\n')
    .split('\n')
    .forEach((line, i) => {
      if (line.trim() === '') return;
      const pause = /^~ (\d+)$/.exec(line);
      if (pause) return void lines.push({ pauseMs: Number(pause[1]) });
      const said = /^([A-Z]\w+): (.+)$/.exec(line);
      if (!said || !voices.has(said[1])) throw new Error(`${file}: line ${i + 6}: expected “Name: words”, found “${line.slice(0, 40)}”`);
      // Each sentence is an utterance of its own, so that its time in the transcript is the time in the sound.
      for (const text of said[2].split(/(?<=[.?!]) (?=[A-Z[])/)) {
        const laugh = text === '[laughter]';
        if (laugh) lines.at(-1).laugh = true;
        else lines.push({ speaker: said[1], text });
      }
    });
  return { title: fields.title, client: fields.client, voices, lines };
}

function run(command, args, input) {
  return new Promise((resolve, reject) => {
    const child = spawn(command, args, { stdio: ['pipe', 'pipe', 'pipe'] });
    const out = [];
    let err = '';
    child.stdout.on('data', (chunk) => out.push(chunk));
    child.stderr.on('data', (chunk) => {
      err += chunk;
    });
    child.on('error', reject);
    child.on('close', (code) => (code === 0 ? resolve(Buffer.concat(out)) : reject(new Error(`${command} ended with ${code}: ${err.slice(-400)}`))));
    child.stdin.end(input);
  });
}

/** What is said of a line; what is heard beside it stands in brackets. */
const bare = (text) => text.replace(/\[[^\]]*\]/g, '');

/** Samples of a WAV file, without its header and without the silence flite adds at both ends; and how much was cut at the beginning. */
function samplesOf(wav) {
  const at = wav.indexOf('data');
  const pcm = wav.subarray(at + 8);
  const samples = new Int16Array(pcm.buffer.slice(pcm.byteOffset, pcm.byteOffset + (pcm.length & ~1)));
  const loud = (value) => Math.abs(value) > 250;
  let first = samples.findIndex(loud);
  let last = samples.length - 1;
  while (last > first && !loud(samples[last])) last -= 1;
  first = Math.max(0, first - RATE * 0.02);
  return { samples: samples.slice(first, Math.min(samples.length, last + RATE * 0.05)), cutMs: (first * 1_000) / RATE };
}

/** A soft burst of noise, three pulses: nobody laughs like this, but it is heard where the transcript says so. */
function laughter() {
  const samples = new Int16Array((RATE * LAUGH_MS) / 1000);
  let seed = 7;
  for (let i = 0; i < samples.length; i += 1) {
    seed = (seed * 1103515245 + 12345) & 0x7fffffff;
    const pulse = Math.max(0, Math.sin((i / samples.length) * Math.PI * 6)) ** 2;
    samples[i] = ((seed / 0x7fffffff) * 2 - 1) * 1500 * pulse * (1 - i / samples.length);
  }
  return samples;
}

const stamp = (ms) =>
  `${String(Math.floor(ms / 3600000)).padStart(2, '0')}:${String(Math.floor(ms / 60000) % 60).padStart(2, '0')}:${String(Math.floor(ms / 1000) % 60).padStart(2, '0')}.${String(Math.round(ms) % 1000).padStart(3, '0')}`;

/**
 * Speaks one recording into `folder`. Skips it when sound and transcript of the same text are there already.
 * @param log told in words, and what share is spoken
 */
export async function speakRecording(textFile, folder, log = () => {}) {
  const text = await readFile(textFile, 'utf8');
  const name = basename(textFile, '.txt');
  const soundFile = join(folder, `${name}.ogg`);
  const transcriptFile = join(folder, `${name}.vtt`);
  const markFile = join(folder, `${name}.made`);
  const mark = createHash('sha256')
    .update(text)
    .update(await readFile(new URL(import.meta.url)))
    .update(await readFile(new URL('../scripts/lib/flite-words.mjs', import.meta.url)))
    .digest('hex');
  const recording = parseRecording(text, textFile);
  const made = { ...recording, soundFile, transcriptFile, mark };
  if ((await readFile(markFile, 'utf8').catch(() => '')) === mark) return made;
  await mkdir(folder, { recursive: true });
  // Whoever waits for them must not be given those of another text.
  for (const file of [markFile, soundFile, transcriptFile]) await rm(file, { force: true });
  const temp = await mkdtemp(join(tmpdir(), 'sift-reel-speak-'));
  try {
    const spoken = await speakLines(recording, temp, (done, total) => log(`${recording.title}: spoken ${done} of ${total} lines`, done / total));
    await writeSound(spoken, `${soundFile}.partial.ogg`);
    await writeFile(`${transcriptFile}.partial`, toWebVtt(recording.title, spoken));
    await rename(`${transcriptFile}.partial`, transcriptFile);
    await rename(`${soundFile}.partial.ogg`, soundFile);
    await writeFile(markFile, mark);
  } finally {
    await rm(temp, { recursive: true, force: true });
  }
  return made;
}

async function speakLines(recording, temp, onProgress) {
  const spoken = recording.lines.map((line) => ({ ...line, samples: null }));
  const alone = await aloneSounds(spoken.flatMap(({ text }) => (text === undefined ? [] : spokenWords(bare(text)))));
  let next = 0;
  let done = 0;
  const work = async () => {
    while (next < spoken.length) {
      const index = next;
      next += 1;
      const line = spoken[index];
      if (line.text !== undefined) {
        const { voice, stretch } = recording.voices.get(line.speaker);
        const wav = join(temp, `${index}.wav`);
        const sounds = await run('flite', ['-voice', voice, '--setf', `duration_stretch=${stretch}`, '-t', bare(line.text), '-psdur', '-o', wav]);
        const { samples, cutMs } = samplesOf(await readFile(wav));
        line.samples = samples;
        line.words = placeSpoken(spokenWords(bare(line.text)), soundsOf(sounds.toString('utf8')), alone).map(
          (span) => span && Math.max(0, span.startMs - cutMs),
        );
        await rm(wav);
      }
      done += 1;
      if (done % 100 === 0) onProgress(done, spoken.length);
    }
  };
  await Promise.all(Array.from({ length: availableParallelism() }, work));
  return spoken;
}

/** Puts the lines one after the other; adds `startMs`, `endMs` and, where somebody laughs, `laughEndMs`. */
async function writeSound(spoken, file) {
  const encoder = spawn(
    'ffmpeg',
    ['-v', 'error', '-y', '-f', 's16le', '-ar', String(RATE), '-ac', '1', '-i', '-', '-c:a', 'libopus', '-b:a', '24k', '-application', 'voip', file],
    { stdio: ['pipe', 'ignore', 'pipe'] },
  );
  let err = '';
  encoder.stderr.on('data', (chunk) => {
    err += chunk;
  });
  const closed = once(encoder, 'close');
  let at = 0;
  const ms = () => Math.round((at * 1000) / RATE);
  const put = async (samples) => {
    at += samples.length;
    if (!encoder.stdin.write(Buffer.from(samples.buffer, samples.byteOffset, samples.byteLength))) await once(encoder.stdin, 'drain');
  };
  const silence = (length) => put(new Int16Array(Math.round((RATE * length) / 1000)));
  await silence(400);
  for (const [i, line] of spoken.entries()) {
    if (line.pauseMs !== undefined) {
      await silence(line.pauseMs);
      continue;
    }
    line.startMs = ms();
    await put(line.samples);
    line.endMs = ms();
    if (line.laugh) {
      await put(laughter());
      line.laughEndMs = ms();
    }
    await silence(spoken[i + 1]?.speaker === line.speaker ? 340 : BETWEEN_TURNS_MS);
  }
  encoder.stdin.end();
  const [code] = await closed;
  if (code !== 0) throw new Error(`ffmpeg ended with ${code}: ${err.slice(-400)}`);
}

/** The text of a line with the time of each word before it, but for the first, which begins with the cue. */
function timed({ text, words, startMs, endMs }) {
  let [next, lastMs] = [0, startMs];
  return text
    .split(/\s+/)
    .map((word) => {
      const written = word.replace(/&/g, '&amp;').replace(/</g, '&lt;');
      if (!/[\p{L}\p{N}]/u.test(word) || word.startsWith('[')) return written;
      const at = words[next++];
      const ms = at === null || at === undefined ? null : Math.round(startMs + at);
      if (next === 1 || ms === null || ms <= lastMs || ms >= endMs) return written;
      lastMs = ms;
      return `<${stamp(ms)}>${written}`;
    })
    .join(' ');
}

function toWebVtt(title, spoken) {
  const cues = [];
  for (const line of spoken) {
    if (line.text === undefined) continue;
    cues.push(`${stamp(line.startMs)} --> ${stamp(line.endMs)}\n<v ${line.speaker}>${timed(line)}\n`);
    if (line.laughEndMs !== undefined) cues.push(`${stamp(line.endMs)} --> ${stamp(line.laughEndMs)}\n<v ${line.speaker}>[laughter]\n`);
  }
  return `WEBVTT\n\nNOTE ${title}; spoken by a machine from a made-up text\n\n${cues.join('\n')}`;
}
