// Listening to a sound: how much of it is our analysis beside ffmpeg's decoding alone, and how much faster than it lasts.
import { execFileSync, spawnSync } from 'node:child_process';
import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { performance } from 'node:perf_hooks';
import { listenTo } from '../apps/server/dist/media/listen.js';
import { ratio, row } from './measure.mjs';

const SECONDS = 1_800;
const folder = join(import.meta.dirname, '..', 'var', 'bench');
const file = join(folder, 'voice.ogg');
mkdirSync(folder, { recursive: true });
// A tone with overtones that swings as a voice does, three seconds of it in four, with some noise.
const voice = 'if(lt(mod(t,4),3),0.2*(sin(2*PI*130*t+6*sin(2*PI*0.7*t))+0.5*sin(4*PI*130*t+12*sin(2*PI*0.7*t))),0)+0.005*(random(0)-0.5)';
execFileSync('ffmpeg', ['-v', 'error', '-y', '-f', 'lavfi', '-i', `aevalsrc='${voice}':s=16000:d=${SECONDS}`, '-c:a', 'libopus', '-b:a', '24k', file]);

const timed = async (work) => {
  const from = performance.now();
  await work();
  return performance.now() - from;
};
const decode = () => spawnSync('ffmpeg', ['-v', 'error', '-i', file, '-ac', '1', '-ar', '8000', '-f', 's16le', '-y', '/dev/null']);
const listen = (loudness = false) => listenTo(file, { signal: new AbortController().signal, track: 0, loudness, onHeard: () => undefined });
await timed(listen);
const rounds = [];
for (let i = 0; i < 3; i += 1)
  rounds.push({ decode: await timed(async () => decode()), listen: await timed(listen), measured: await timed(() => listen(true)) });
rounds.sort((a, b) => a.listen / a.decode - b.listen / b.decode);
const { decode: decodeMs, listen: listenMs, measured: measuredMs } = rounds[1];
row('listening / decoding alone', ratio(listenMs, decodeMs));
row('listening and measuring loudness / decoding alone', ratio(measuredMs, decodeMs));
row('times faster than the sound lasts', Math.round((SECONDS * 1_000) / listenMs));
