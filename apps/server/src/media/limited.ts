import { execFile } from 'node:child_process';
import { promisify } from 'node:util';

const run = promisify(execFile);
/** Of addresses, in bytes: what is worked on at once is some frames of each input, whatever the length of the file. */
const MOST_MEMORY = 6 * 1_024 ** 3;
const SPOKEN_BYTES = 4_000_000;

/**
 * How a program that reads what somebody brought in is started: no shell, memory within bounds. prlimit (util-linux, on every
 * Debian) becomes the program, so what is killed is the program itself.
 * @param patient whether it gives way to whatever else the machine has to do
 */
export function limited(program: string, args: readonly string[], patient = false): readonly [string, readonly string[]] {
  const bounded = [`--as=${MOST_MEMORY}`, program, ...args];
  return patient ? ['nice', ['-n', '10', 'prlimit', ...bounded]] : ['prlimit', bounded];
}

/** What ffprobe says. @throws Error when it cannot read the file, or takes longer than a minute */
export async function ffprobe(args: readonly string[]): Promise<string> {
  const [program, given] = limited('ffprobe', args);
  const { stdout } = await run(program, given, { timeout: 60_000, maxBuffer: SPOKEN_BYTES, killSignal: 'SIGKILL' });
  return stdout;
}
