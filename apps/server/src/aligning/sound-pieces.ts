import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { SOUND_INPUT } from '../media/ffmpeg.js';
import { limited } from '../media/limited.js';
import { FfmpegError } from '../media/run-ffmpeg.js';

/** What recognisers listen at, in Hz. */
export const RECOGNISER_RATE = 16_000;
const BYTES = 2;
const FAULT_CHARACTERS = 300;

/**
 * The sound of a recording, decoded once from its beginning, a piece at a time: a place is never looked for, since in some files it is
 * guessed. Only what is asked for is held; ffmpeg waits meanwhile.
 */
export class SoundPieces {
  private readonly child;
  private readonly ended: Promise<number | null>;
  private readonly stream: AsyncIterator<Buffer>;
  private left: Buffer = Buffer.alloc(0);
  private over = false;
  private said = '';

  constructor(path: string, track: number, signal: AbortSignal) {
    const heard = ['-map', `0:a:${track}`, '-af', `aresample=${RECOGNISER_RATE}:async=1:first_pts=0`, '-ac', '1', '-f', 's16le', 'pipe:1'];
    const [program, args] = limited('ffmpeg', ['-hide_banner', '-nostats', '-nostdin', '-v', 'error', ...SOUND_INPUT, '-i', path, '-vn', ...heard], true);
    this.child = spawn(program, args, { stdio: ['ignore', 'pipe', 'pipe'], signal, killSignal: 'SIGKILL' });
    this.child.on('error', () => undefined); // its stream ends too, and `ended` says why
    this.child.stderr.setEncoding('utf8').on('data', (text: string) => (this.said = (this.said + text).slice(-FAULT_CHARACTERS)));
    this.ended = (once(this.child, 'close') as Promise<[number | null]>).then(([code]) => code);
    this.ended.catch(() => undefined);
    this.stream = (this.child.stdout as AsyncIterable<Buffer>)[Symbol.asyncIterator]();
  }

  /**
   * The next so many ms; fewer only at the end.
   * @throws FfmpegError when the file cannot be read on
   */
  async next(ms: number): Promise<Int16Array> {
    const wanted = Math.round((ms * RECOGNISER_RATE) / 1_000) * BYTES;
    const parts = [this.left];
    let bytes = this.left.length;
    while (bytes < wanted && !this.over) {
      const { value, done } = await this.stream.next();
      if (done === true) {
        this.over = true;
        const code = await this.ended.catch(() => null);
        if (code !== 0) throw new FfmpegError(this.said.trim() || `ffmpeg ended with ${code ?? 'a signal'}`);
      } else {
        parts.push(value);
        bytes += value.length;
      }
    }
    const all = Buffer.concat(parts);
    const whole = Math.min(wanted, all.length - (all.length % BYTES));
    this.left = all.subarray(whole);
    return samplesOf(all.subarray(0, whole));
  }

  /** Gives the end of a piece back: the next one begins with it. */
  putBack(samples: Int16Array): void {
    this.left = Buffer.concat([Buffer.from(samples.buffer, samples.byteOffset, samples.byteLength), this.left]);
  }

  /** Goes on from there. */
  async skip(ms: number): Promise<void> {
    const piece = 60_000;
    for (let left = ms; left > 0; left -= piece) await this.next(Math.min(piece, left));
  }

  /** Leaves the rest. */
  close(): void {
    this.child.kill('SIGKILL');
  }
}

function samplesOf(bytes: Buffer): Int16Array {
  const samples = new Int16Array(bytes.length / BYTES);
  for (let i = 0; i < samples.length; i += 1) samples[i] = bytes.readInt16LE(i * BYTES);
  return samples;
}

/** A RIFF WAVE file (Multimedia Programming Interface and Data Specifications 1.0, 1991) of 16 bits, mono. */
export function wavOf(samples: Int16Array, rate = RECOGNISER_RATE): Buffer {
  const head = Buffer.alloc(44);
  head.write('RIFF', 0);
  head.writeUInt32LE(36 + samples.length * BYTES, 4);
  head.write('WAVEfmt ', 8);
  head.writeUInt32LE(16, 16);
  head.writeUInt16LE(1, 20); // PCM
  head.writeUInt16LE(1, 22);
  head.writeUInt32LE(rate, 24);
  head.writeUInt32LE(rate * BYTES, 28);
  head.writeUInt16LE(BYTES, 32);
  head.writeUInt16LE(BYTES * 8, 34);
  head.write('data', 36);
  head.writeUInt32LE(samples.length * BYTES, 40);
  return Buffer.concat([head, Buffer.from(samples.buffer, samples.byteOffset, samples.byteLength)]);
}
