import { spawn } from 'node:child_process';
import { limited } from './limited.js';

/** The end of what it says is kept: the measures of a filter, or the fault. */
const SAID_CHARACTERS = 8_000;
const SHOWN_CHARACTERS = 300;

/** ffmpeg could not do it; the message is the last that it said. */
export class FfmpegError extends Error {
  override readonly name = 'FfmpegError';
}

export interface FfmpegOptions {
  readonly signal: AbortSignal;
  /** It is killed after so long. */
  readonly longestMs: number;
  /** It gives way to whatever else the machine has to do. */
  readonly patient?: boolean;
  /** Told how much has been written, in ms of the result. */
  readonly onProgress?: (ms: number) => void;
}

/**
 * Runs Debian's ffmpeg with fixed arguments and no shell. Killed, with nothing left running, when the signal says so.
 * @returns what it said at its end
 * @throws FfmpegError, or `signal`'s reason
 */
export async function runFfmpeg(args: readonly string[], { signal, longestMs, patient = false, onProgress }: FfmpegOptions): Promise<string> {
  signal.throwIfAborted();
  const [program, given] = limited('ffmpeg', ['-hide_banner', '-nostdin', '-nostats', '-y', '-progress', 'pipe:1', ...args], patient);
  const child = spawn(program, given, { stdio: ['ignore', 'pipe', 'pipe'] });
  const kill = (): void => {
    child.kill('SIGKILL');
  };
  let late = false;
  const timer = setTimeout(() => {
    late = true;
    kill();
  }, longestMs);
  signal.addEventListener('abort', kill);
  let said = '';
  child.stderr.setEncoding('utf8').on('data', (text: string) => (said = (said + text).slice(-SAID_CHARACTERS)));
  child.stdout.setEncoding('utf8').on('data', (text: string) => {
    const at = [...text.matchAll(/^out_time_us=(\d+)$/gm)].at(-1)?.[1];
    if (at === undefined || signal.aborted) return;
    try {
      onProgress?.(Number(at) / 1_000);
    } catch {
      kill(); // the run is over; its signal says so
    }
  });
  try {
    const code = await new Promise<number | null>((resolve, reject) => {
      child.once('error', reject);
      child.once('close', resolve);
    });
    signal.throwIfAborted();
    if (late) throw new FfmpegError(`took longer than ${Math.round(longestMs / 1_000)} s`);
    if (code !== 0) throw new FfmpegError(said.trim().split('\n').slice(-3).join(' ').slice(-SHOWN_CHARACTERS) || `ffmpeg ended with ${code ?? 'a signal'}`);
    return said;
  } finally {
    clearTimeout(timer);
    signal.removeEventListener('abort', kill);
    kill();
  }
}
