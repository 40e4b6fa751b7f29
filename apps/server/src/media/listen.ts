import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { VOICE_RATE, VoiceAnalyser, type VoiceTrack } from '@sift-reel/core';
import { SOUND_INPUT } from './ffmpeg.js';
import { type HeardLoudness, LoudnessReader } from './heard-loudness.js';
import { limited } from './limited.js';
import { FfmpegError } from './run-ffmpeg.js';

const BYTES = 2;
const FAULT_CHARACTERS = 300;

/** A sound file that cannot be listened to; the message is what ffmpeg said. */
export class DeafError extends Error {
  override readonly name = 'DeafError';
}

export interface Listening {
  readonly signal: AbortSignal;
  /** Which of the file's sound tracks, from 0. */
  readonly track: number;
  /** Whether to measure the loudness too; it takes three times as long. */
  readonly loudness: boolean;
  /** It gives way to whatever else the machine has to do. */
  readonly patient?: boolean;
  /** Told how much was heard, in ms, piece by piece; what it throws ends the listening. */
  readonly onHeard: (ms: number) => void;
}

export interface Heard {
  readonly voice: VoiceTrack;
  /** Null for silence, and where it was not asked for. */
  readonly loudness: HeardLoudness | null;
  /** How long the sound is, counted, not as the file says. */
  readonly lengthMs: number;
}

function argsOf(path: string, { track, loudness }: Listening): string[] {
  const voice = `aresample=${VOICE_RATE},aformat=sample_fmts=s16:channel_layouts=mono`;
  const filter = loudness
    ? `[0:a:${track}]asplit[loud][voice];[loud]ebur128=peak=true:framelog=info,anullsink;[voice]${voice}[heard]`
    : `[0:a:${track}]${voice}[heard]`;
  return [
    ...['-hide_banner', '-nostats', '-v', loudness ? 'info' : 'error', '-nostdin', ...SOUND_INPUT, '-i', path],
    ...['-filter_complex', filter, '-map', '[heard]', '-f', 's16le', 'pipe:1'],
  ];
}

/**
 * Listens to a sound file from end to end, in memory for a few seconds of it at a time.
 * @throws DeafError when ffmpeg cannot read the file, FfmpegError when somebody killed it, or `signal`'s reason
 */
export async function listenTo(path: string, listening: Listening): Promise<Heard> {
  const { signal, onHeard } = listening;
  signal.throwIfAborted();
  const [program, given] = limited('ffmpeg', argsOf(path, listening), listening.patient);
  const child = spawn(program, given, { stdio: ['ignore', 'pipe', 'pipe'] });
  const ended = once(child, 'close') as Promise<[number | null]>;
  ended.catch(() => undefined); // where ffmpeg is not there at all, the stream ends too, and it is thrown below
  const kill = (): void => void child.kill('SIGKILL');
  signal.addEventListener('abort', kill); // it may be silent for long: nobody would look at the signal meanwhile
  const reader = new LoudnessReader();
  let said = '';
  child.stderr.setEncoding('utf8').on('data', (text: string) => {
    said = (said + text).slice(-FAULT_CHARACTERS);
    if (listening.loudness) reader.push(text);
  });
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
  } catch (error) {
    kill();
    throw error;
  } finally {
    signal.removeEventListener('abort', kill);
  }
  const code = await ended.then(
    ([status]) => status,
    (error: unknown) => String(error),
  );
  signal.throwIfAborted();
  if (code === null) throw new FfmpegError('it was killed while it listened');
  if (code !== 0 || samples === 0) throw new DeafError(said.trim() || `ffmpeg ended with ${code}`);
  return { voice: analyser.finish(), loudness: listening.loudness ? reader.finish() : null, lengthMs: Math.round((samples / VOICE_RATE) * 1_000) };
}

/** Little-endian samples, wherever in the buffer they begin. */
function samplesOf(bytes: Buffer, length: number): Int16Array {
  const samples = new Int16Array(length / BYTES);
  for (let i = 0; i < samples.length; i += 1) samples[i] = bytes.readInt16LE(i * BYTES);
  return samples;
}
