import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { SOUND_INPUT } from './ffmpeg.js';
import { VOICE_RATE, VoiceAnalyser, type VoiceTrack } from '@sift-reel/core';

const BYTES = 2;
const FAULT_CHARACTERS = 300;

/** A sound file that cannot be listened to; the message is what ffmpeg said. */
export class DeafError extends Error {
  override readonly name = 'DeafError';
}

/**
 * Listens to a sound file from end to end, in memory for a few seconds of it at a time.
 * @param onHeard told how much was heard, in ms, piece by piece; what it throws ends the listening
 * @throws DeafError when ffmpeg cannot read the file, or `signal`'s reason
 */
export async function listenTo(path: string, signal: AbortSignal, onHeard: (ms: number) => void): Promise<VoiceTrack> {
  signal.throwIfAborted();
  const args = ['-v', 'error', '-nostdin', ...SOUND_INPUT, '-i', path, '-map', 'a:0', '-ac', '1', '-ar', String(VOICE_RATE), '-f', 's16le', 'pipe:1'];
  const child = spawn('ffmpeg', args, { stdio: ['ignore', 'pipe', 'pipe'] });
  const ended = once(child, 'close') as Promise<[number | null]>;
  ended.catch(() => undefined); // where ffmpeg is not there at all, the stream ends too, and it is thrown below
  let fault = '';
  child.stderr.setEncoding('utf8').on('data', (text: string) => (fault = (fault + text).slice(0, FAULT_CHARACTERS)));
  const analyser = new VoiceAnalyser();
  let odd: Buffer = Buffer.alloc(0);
  let samples = 0;
  try {
    for await (const piece of child.stdout as AsyncIterable<Buffer>) {
      signal.throwIfAborted();
      const bytes = odd.length === 0 ? piece : Buffer.concat([odd, piece]);
      const whole = bytes.length - (bytes.length % BYTES);
      odd = bytes.subarray(whole);
      analyser.push(samplesOf(bytes, whole));
      samples += whole / BYTES;
      onHeard((samples / VOICE_RATE) * 1_000);
    }
  } finally {
    child.kill('SIGKILL');
  }
  const code = await ended.then(
    ([status]) => status,
    (error: unknown) => String(error),
  );
  if (code !== 0 || samples === 0) throw new DeafError(fault.trim() || `ffmpeg ended with ${code ?? 'a signal'}`);
  return analyser.finish();
}

/** Little-endian samples, wherever in the buffer they begin. */
function samplesOf(bytes: Buffer, length: number): Int16Array {
  const samples = new Int16Array(length / BYTES);
  for (let i = 0; i < samples.length; i += 1) samples[i] = bytes.readInt16LE(i * BYTES);
  return samples;
}
