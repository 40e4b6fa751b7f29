// Preparing a recording beside decoding it once: a minute of 1080p with a moving picture and a voice-like sound, as cameras write
// it. With a file for browsers, because its whole pictures stand ten seconds apart, and without, where the original is played. An hour
// (`node bench/prepare.mjs 60`) is the minute again and again, and only as it is played: converting one takes most of an hour.
import { execFile } from 'node:child_process';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { performance } from 'node:perf_hooks';
import { promisify } from 'node:util';
import { listenTo } from '../apps/server/dist/media/listen.js';
import { whyProxy } from '../apps/server/dist/media/playable.js';
import { probe, wholePictureGapMs } from '../apps/server/dist/media/probe.js';
import { runFfmpeg } from '../apps/server/dist/media/run-ffmpeg.js';
import { proxyArgs } from '../apps/server/dist/preparing/proxy.js';
import { spriteArgs, spriteOf } from '../apps/server/dist/preparing/sprite.js';
import { ratio, row } from './measure.mjs';

const MINUTES = Number(process.argv[2] ?? 1);
const MINUTE_S = 60;
const SECONDS = MINUTES * MINUTE_S;
const run = promisify(execFile);
const { signal } = new AbortController();
const timed = async (work) => {
  const from = performance.now();
  await work();
  return performance.now() - from;
};
const ffmpeg = (args) => runFfmpeg(args, { signal, longestMs: 3_600_000 });

const folder = await mkdtemp(join(tmpdir(), 'sift-reel-prepare-'));
try {
  const film = async (name, gop) => {
    const path = join(folder, name);
    const voice = 'if(lt(mod(t,4),3),0.2*(sin(2*PI*130*t+6*sin(2*PI*0.7*t))+0.5*sin(4*PI*130*t+12*sin(2*PI*0.7*t))),0)+0.005*(random(0)-0.5)';
    const inputs = ['-f', 'lavfi', '-i', `testsrc2=s=1920x1080:r=25:d=${MINUTE_S}`, '-f', 'lavfi', '-i', `aevalsrc='${voice}':s=48000:d=${MINUTE_S}`];
    const coded = ['-c:v', 'libx264', '-preset', 'veryfast', '-g', String(gop), '-pix_fmt', 'yuv420p', '-c:a', 'aac'];
    await run('ffmpeg', ['-v', 'error', '-nostdin', '-y', ...inputs, ...coded, path]);
    if (MINUTES === 1) return path;
    const long = join(folder, `long-${name}`);
    await run('ffmpeg', ['-v', 'error', '-nostdin', '-y', '-stream_loop', String(MINUTES - 1), '-i', path, '-c', 'copy', long]);
    return long;
  };
  row('prepared', 'of decoding once', 'of its length');
  for (const [name, gop] of [...(MINUTES === 1 ? [['whole pictures ten seconds apart', 250]] : []), ['whole pictures one second apart', 25]]) {
    const path = await film(`${gop}.mp4`, gop);
    const probed = await probe(path, name);
    const why = whyProxy(probed, 0, await wholePictureGapMs(path));
    const decodeMs = await timed(() => run('ffmpeg', ['-v', 'error', '-nostdin', '-i', path, '-f', 'null', '-']));
    const preparedMs = await timed(async () => {
      await listenTo(path, { signal, track: 0, loudness: true, onHeard: () => undefined });
      const proxy = join(folder, 'proxy.mp4');
      if (why.length > 0) await ffmpeg(proxyArgs(path, probed, 0, why, proxy));
      await ffmpeg(spriteArgs(why.length > 0 ? proxy : path, spriteOf(probed.picture, probed.durationMs), join(folder, 'sheet.jpg')));
    });
    row(`${name}${why.length === 0 ? ', played as it is' : ''}`, ratio(preparedMs, decodeMs), ratio(preparedMs, SECONDS * 1_000));
  }
} finally {
  await rm(folder, { recursive: true, force: true });
}
