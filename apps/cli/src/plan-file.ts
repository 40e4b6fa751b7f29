import { readFile } from 'node:fs/promises';
import { parseArgs } from 'node:util';
import { explainPlan, formatMinute, ProblemRefusedError, readProblem, solvePlan } from '@sift-reel/core/planning';
import { findNodeAtLocation, type Node, type ParseError, parseTree, printParseErrorCode } from 'jsonc-parser';
import { BadInputError, UsageError } from './errors.js';

/** `plan PROBLEM.json`: the best posts for a planning problem, with a bound on the best there are. The form is in docs/guide.md. */
export async function planFile(args: readonly string[]): Promise<string> {
  const { path, json } = readArguments(args);
  const problem = await readProblemFile(path);
  const { posts, unplaced, value, bound } = explainPlan(problem, solvePlan(problem));
  const rows = posts.map(({ short, channel, atMs, local, weight, why }) => ({
    short,
    channel,
    at: new Date(atMs).toISOString(),
    local: `${local.date}T${formatMinute(local.minute)}`,
    weight,
    why,
  }));
  const left = unplaced.map(({ short, channel, why }) => ({ short, channel, why }));
  if (json) return `${JSON.stringify({ posts: rows, unplaced: left, value, bound })}\n`;
  const share = bound === 0 ? '' : `, at least ${((100 * value) / bound).toFixed(1)} % of the best there is`;
  return [
    ...rows.map((row) => `${row.local.replace('T', ' ')}  ${row.channel}  ${row.short}  ${row.why}`),
    ...left.map((row) => `not placed        ${row.channel}  ${row.short}  ${row.why}`),
    `${rows.length} posts, worth ${value.toFixed(1)}${share}`,
    '',
  ].join('\n');
}

function readArguments(args: readonly string[]): { path: string; json: boolean } {
  try {
    const { values, positionals } = parseArgs({ args: [...args], options: { json: { type: 'boolean' } }, allowPositionals: true });
    const [path, ...more] = positionals;
    if (path === undefined) throw new UsageError('plan: a file is missing');
    if (more.length > 0) throw new UsageError('plan: one file at a time');
    return { path, json: values.json === true };
  } catch (error) {
    if (error instanceof UsageError) throw error;
    throw new UsageError(`plan: ${(error as Error).message}`);
  }
}

async function readProblemFile(path: string): Promise<ReturnType<typeof readProblem>> {
  let text: string;
  try {
    text = await readFile(path, 'utf8');
  } catch (error) {
    const { code } = error as NodeJS.ErrnoException;
    throw new BadInputError(path, 1, code === 'ENOENT' ? 'no such file' : `cannot be read (${code ?? String(error)})`);
  }
  const lineAt = (offset: number): number => text.slice(0, offset).split('\n').length;
  const errors: ParseError[] = [];
  const tree = parseTree(text, errors, { allowTrailingComma: false, disallowComments: true });
  const wrong = errors[0];
  if (wrong !== undefined || tree === undefined)
    throw new BadInputError(path, lineAt(wrong?.offset ?? 0), `not JSON${wrong === undefined ? '' : ` (${printParseErrorCode(wrong.error)})`}`);
  try {
    return readProblem(JSON.parse(text));
  } catch (error) {
    if (error instanceof ProblemRefusedError) throw new BadInputError(path, lineAt(offsetOf(tree, error.field)), error.message);
    throw error;
  }
}

/** Where a field stands, or the nearest thing around it that is there. */
function offsetOf(tree: Node, field: string): number {
  const steps = [...field.matchAll(/[^.[\]]+/g)].map(([step]) => (/^\d+$/.test(step) ? Number(step) : step));
  for (let n = steps.length; n > 0; n -= 1) {
    const node = findNodeAtLocation(tree, steps.slice(0, n));
    if (node !== undefined) return node.offset;
  }
  return 0;
}
