import { BadInputError, UsageError } from './errors.js';

const USAGE = `usage:
  sift-reel sift FILE [--min S] [--max S] [--count N] [--from T] [--to T] [--about "words"] [--json]
  sift-reel reel FILE [--length S] [--from T] [--to T] [--about "words"] [--json]
  sift-reel convert IN OUT
  sift-reel plan PROBLEM.json [--json]
FILE and IN: WebVTT, SubRip, podcast JSON or stamped text. OUT: the format by its ending (.vtt .srt .json .txt).
PROBLEM.json: channels, shorts and posts that stand; the form is in docs/guide.md.
S: seconds. T: seconds, mm:ss or hh:mm:ss.`;

/** Each is loaded when it is called: what reads talk takes a second to load. */
const COMMANDS: Readonly<Record<string, (args: readonly string[]) => Promise<string>>> = {
  sift: async (args) => (await import('./sift-file.js')).siftFile(args),
  reel: async (args) => (await import('./reel-file.js')).reelFile(args),
  convert: async (args) => (await import('./convert.js')).convert(args),
  plan: async (args) => (await import('./plan-file.js')).planFile(args),
};

/** Runs a command. Exit code 0; 1 for bad input, with `file:line: reason`; 2 for wrong use. */
export async function main(args: readonly string[]): Promise<number> {
  const [name = '', ...rest] = args;
  if (name === 'help' || name === '--help') {
    process.stdout.write(`${USAGE}\n`);
    return 0;
  }
  try {
    const command = COMMANDS[name];
    if (command === undefined) throw new UsageError(name === '' ? 'a command is missing' : `no command “${name}”`);
    const output = await command(rest);
    if (output !== '') await new Promise<void>((resolve) => process.stdout.write(output, () => resolve()));
    return 0;
  } catch (error) {
    if (error instanceof UsageError) {
      process.stderr.write(`sift-reel: ${error.message}\n${USAGE}\n`);
      return 2;
    }
    if (error instanceof BadInputError) {
      process.stderr.write(`${error.message}\n`);
      return 1;
    }
    throw error;
  }
}

process.exitCode = await main(process.argv.slice(2));
