// Films that benchmarks are made with: a moving picture, and a sound with the ups and downs of a voice.
import { execFile } from 'node:child_process';
import { promisify } from 'node:util';

const run = promisify(execFile);
export const ffmpeg = (...args) => run('ffmpeg', ['-hide_banner', '-nostdin', '-nostats', '-v', 'error', '-y', ...args], { maxBuffer: 50_000_000 });

/** A film of `seconds` at `path`, with a whole picture every `gop` pictures; then that again and again, `times` in all. */
export async function madeFilm(path, { size = '1920x1080', rate = 25, seconds = 60, gop = rate, times = 1 } = {}) {
  const voice = `aevalsrc='0.1*sin(2*PI*(180+40*sin(3*t))*t)*(1+0.7*sin(9*t))*lt(mod(t,3.1),2.7)':s=48000:d=${seconds}`;
  const once = times === 1 ? path : path.replace(/(\.\w+)$/, '-once$1');
  const inputs = ['-f', 'lavfi', '-i', `testsrc2=s=${size}:r=${rate}:d=${seconds}`, '-f', 'lavfi', '-i', voice];
  await ffmpeg(...inputs, '-c:v', 'libx264', '-preset', 'ultrafast', '-g', String(gop), '-pix_fmt', 'yuv420p', '-c:a', 'aac', '-b:a', '64k', once);
  if (times > 1) await ffmpeg('-stream_loop', String(times - 1), '-i', once, '-c', 'copy', path);
}
