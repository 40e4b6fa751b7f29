// How much memory a transcript of 62 MB takes to read, in a thread as the server reads it: the highest resident size of a
// process of its own, over what it stood at after reading a short one. Shapes that are refused as too long count too.
import { fork } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { Piscina } from 'piscina';
import { row } from './measure.mjs';

const TASKS = fileURLToPath(new URL('../apps/server/dist/text/prepare-task.js', import.meta.url));
const SIZE = 62_000_000;
const stamp = (ms) => new Date(ms).toISOString().slice(11, 23);
const many = (one, length) => one.repeat(Math.ceil(length / one.length));

const SHAPES = {
  '500,000 cues of SubRip': () => many('7\n00:00:01,000 --> 00:00:02,000\nand so we went along there with it until it was dark, and back, and then\n\n', SIZE),
  'short cues of WebVTT': () => `WEBVTT\n\n${many('00:01.000 --> 00:02.000\nyes\n\n', SIZE)}`,
  'cues beyond Latin': () => `WEBVTT\n\n${many('00:01.000 --> 00:02.000\nда, и мы пошли\n\n', SIZE / 1.4)}`,
  'cues that roll': () => `WEBVTT\n\n${many('00:01.000 --> 00:02.000\nwe went\nwe went along\n\n', SIZE)}`,
  'one cue': () => `WEBVTT\n\n00:00.000 --> 59:00.000\n${many('we went along there for a while ', SIZE)}\n`,
  'empty lines': () => `WEBVTT\n\n00:00.000 --> 59:00.000\nx\n${'\n'.repeat(SIZE)}`,
  'lines of Windows': () => many('7\r\n00:00:01,000 --> 00:00:02,000\r\nso we went\r\n\r\n', SIZE),
  'stamped text': () => many('[00:01] so we went along\n', SIZE),
  'opened braces': () => `1\n00:00:00,000 --> 00:59:00,000\n${many('{\\', SIZE)}\n`,
  'no format': () => many('so we went along\n', SIZE),
  'JSON of segments': () => `{"segments":[${many('{"startTime":1,"endTime":2,"body":"so we went along"},', SIZE)}{"startTime":1,"body":"x"}]}`,
  'JSON of words': () => `{"segments":[{"startTime":1,"words":[${many('{"startTime":1,"word":"so"},', SIZE)}{"startTime":1,"word":"x"}]}]}`,
  'JSON of lists': () => `{"segments":[${many('[],', SIZE)}[]]}`,
  'JSON that ends early': () => `{"segments":[${many('{"startTime":1,"endTime":2,"body":"so we went along"},', SIZE)}`,
  'JSON of nests': () => many('{"segments":[', SIZE),
  'JSON of objects': () => `{"segments":[${many('{"a":1},', SIZE)}{}]}`,
  'JSON beside it': () => `{"other":[${many('{"a":1},', SIZE)}{}],"segments":[{"startTime":1,"body":"so we went"}]}`,
  'line ends of two kinds': () => `WEBVTT\r\n\r\n00:00.000 --> 59:00.000\r\nx\r\n${many('\r\n', SIZE)}`,
  'unreadable characters': () => many('\uFFFD', SIZE / 3),
  'blocks of no cue': () => `WEBVTT\n\n${many('a\n\n', SIZE)}`,
  'arrows of turns': () => `WEBVTT\n\n00:00.000 --> 59:00.000\n${many('>>', 4_900_000)}\n`,
  'words of one letter': () => `WEBVTT\n\n00:00.000 --> 59:00.000\n${many('a ', 4_900_000)}\n`,
  'stamps in a line': () => many('[00:01]', 4_900_000),
  'a talk of 48 hours': () =>
    Array.from(
      { length: 96_000 },
      (_, i) => `${i + 1}\n${stamp(i * 1_790).replace('.', ',')} --> ${stamp(i * 1_790 + 1_700).replace('.', ',')}\nword ${i} here, and then on it went.\n`,
    ).join('\n'),
  'a ten-hour talk': () =>
    Array.from(
      { length: 20_000 },
      (_, i) => `${i + 1}\n${stamp(i * 1_800).replace('.', ',')} --> ${stamp(i * 1_800 + 1_700).replace('.', ',')}\nword ${i} here, and then on.\n`,
    ).join('\n'),
};

/** As an upload arrives: in a buffer that can be emptied. */
function received(text) {
  const file = Buffer.from(text);
  const bytes = new Uint8Array(new ArrayBuffer(file.length, { maxByteLength: file.length }), 0, file.length);
  bytes.set(file);
  return bytes;
}

async function measureOne(name) {
  const pool = new Piscina({ filename: TASKS, maxThreads: 1, resourceLimits: { maxOldGenerationSizeMb: 320 } });
  const read = (text) => {
    const bytes = received(text);
    return pool.run({ bytes }, { name: 'prepareTranscript', transferList: [bytes.buffer] }).catch((error) => ({ kind: error.code ?? error.message }));
  };
  await read('WEBVTT\n\n00:01.000 --> 00:02.000\nso we went along\n');
  const text = SHAPES[name]();
  const bytes = received(text);
  const stood = process.memoryUsage().rss;
  let peak = stood;
  const watch = setInterval(() => void (peak = Math.max(peak, process.memoryUsage().rss)), 10);
  const from = performance.now();
  const answer = await pool
    .run({ bytes }, { name: 'prepareTranscript', transferList: [bytes.buffer] })
    .catch((error) => ({ kind: error.code ?? error.message }));
  clearInterval(watch);
  process.send({ moreMb: (peak - stood) / 1e6, seconds: (performance.now() - from) / 1_000, answer: answer.kind, detail: answer.detail ?? '' });
  await pool.destroy();
}

/** @returns what the process of its own says, or its end when it was taken down */
export function inItsOwnProcess(name) {
  return new Promise((resolve) => {
    const child = fork(fileURLToPath(import.meta.url), ['--one', name], { stdio: ['ignore', 'ignore', 'ignore', 'ipc'] });
    let said = null;
    child.on('message', (message) => (said = message));
    child.on('exit', (code, signal) => resolve(said ?? { moreMb: NaN, seconds: NaN, answer: `taken down (${signal ?? code})`, detail: '' }));
  });
}

if (process.argv[2] === '--one') await measureOne(process.argv[3]);
else if (process.argv[1] === fileURLToPath(import.meta.url)) {
  row('text of 62 MB', 'MB more', 's', 'answer');
  for (const name of Object.keys(SHAPES)) {
    const { moreMb, seconds, answer, detail } = await inItsOwnProcess(name);
    row(name, moreMb.toFixed(0), seconds.toFixed(1), answer, detail);
  }
}
