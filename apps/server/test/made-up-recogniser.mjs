// Hears what it is told to expect, evenly over the sound: a made-up program behind the same interface as a real recogniser. Each time it
// is asked it writes a line into the file that its last argument names.
import { appendFile, readFile } from 'node:fs/promises';
import { setTimeout } from 'node:timers/promises';

const [wav, expected, calls] = process.argv.slice(2);
const seconds = (await readFile(wav)).readUInt32LE(40) / 32_000;
const words = (await readFile(expected, 'utf8')).trim().split('\n');
await appendFile(calls, `${Math.round(seconds)}\n`);
await setTimeout(1_200);
const each = (seconds * 1_000) / words.length;
process.stdout.write(JSON.stringify({ words: words.map((text, i) => ({ text, startMs: i * each, endMs: (i + 0.7) * each })) }));
