import { spawn } from 'node:child_process';
import { limited } from '../media/limited.js';
import { RecogniserError } from './recogniser.js';

const MOST_SAID = 32_000_000;
const FAULT_CHARACTERS = 300;
const LONGEST_MS = 30 * 60_000;
/** What env, nice and prlimit end with where the program is not there or may not be run. */
const NOT_THERE: ReadonlySet<number | null> = new Set([126, 127]);

/**
 * Runs a program that listens, with fixed arguments, no shell, and within bounds of time and memory; it gives way to whatever else the
 * machine has to do.
 * @returns what it wrote
 * @throws RecogniserError, or `signal`'s reason
 */
export async function runProgram(program: string, args: readonly string[], signal: AbortSignal): Promise<string> {
  signal.throwIfAborted();
  const [starter, given] = limited(program, args, true);
  const child = spawn(starter, given, { stdio: ['ignore', 'pipe', 'pipe'] });
  let late = false;
  const kill = (): void => void child.kill('SIGKILL');
  const timer = setTimeout(() => {
    late = true;
    kill();
  }, LONGEST_MS);
  signal.addEventListener('abort', kill);
  const said: Buffer[] = [];
  let bytes = 0;
  let fault = '';
  child.stdout.on('data', (piece: Buffer) => {
    bytes += piece.length;
    if (bytes > MOST_SAID) kill();
    else said.push(piece);
  });
  child.stderr.setEncoding('utf8').on('data', (text: string) => (fault = (fault + text).slice(-FAULT_CHARACTERS)));
  try {
    const code = await new Promise<number | null>((resolve, reject) => {
      child.once('error', reject);
      child.once('close', resolve);
    });
    signal.throwIfAborted();
    if (late) throw new RecogniserError(`it took longer than ${LONGEST_MS / 60_000} minutes`);
    if (bytes > MOST_SAID) throw new RecogniserError('it wrote more than any talk holds');
    if (NOT_THERE.has(code)) throw new RecogniserError(`${program} is not installed on this machine`);
    if (code !== 0) throw new RecogniserError(fault.trim() || `${program} ended with ${code ?? 'a signal'}`);
    return Buffer.concat(said).toString('utf8');
  } finally {
    clearTimeout(timer);
    signal.removeEventListener('abort', kill);
    kill();
  }
}
