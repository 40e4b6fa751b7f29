import { execFile } from 'node:child_process';
import { existsSync } from 'node:fs';
import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { Injectable, ServiceUnavailableException } from '@nestjs/common';
import pLimit from 'p-limit';

/** Debian's pairs from English (apertium-eng-spa, apertium-eng-cat, apertium-en-gl), by the language that they lead to. */
const PAIRS: Readonly<Record<string, string>> = { es: 'eng-spa', ca: 'eng-cat', gl: 'en-gl' };
const PROGRAM = '/usr/bin/apertium';
const MODES = '/usr/share/apertium/modes';
const [LONGEST_MS, MOST_BYTES] = [20_000, 4_000_000];

/** Rough translations by Debian's apertium, where it is installed. A draft, until a person has read it. */
@Injectable()
export class Apertium {
  private readonly turns = pLimit(2);

  /** @param from, to codes of ISO 639-1 */
  can(from: string, to: string): boolean {
    const pair = from === 'en' ? PAIRS[to] : undefined;
    return pair !== undefined && existsSync(PROGRAM) && existsSync(`${MODES}/${pair}.mode`);
  }

  /** Each text by itself, in their order. */
  async translate(to: string, texts: readonly string[]): Promise<string[]> {
    // One line a text: the program takes every line by itself.
    const lines = texts.map((text) => text.replace(/\s+/g, ' ').trim());
    const out = (await this.turns(() => run(PAIRS[to]!, `${lines.join('\n')}\n`))).split('\n').slice(0, lines.length);
    if (out.length < lines.length)
      throw new ServiceUnavailableException('The translation program did not answer for all of it. Nothing was changed; try again.');
    return out.map((line, i) => endsAs(lines[i]!, line.replace(/\s+/g, ' ').trim()));
  }
}

/** Over a file: the program opens its input by name, which it cannot do with what Node hands a child. */
async function run(pair: string, input: string): Promise<string> {
  const folder = await mkdtemp(join(tmpdir(), 'sift-reel-draft-'));
  try {
    const file = join(folder, 'lines.txt');
    await writeFile(file, input);
    const { stdout } = await execute(PROGRAM, ['-u', '-f', 'line', pair, file], { timeout: LONGEST_MS, maxBuffer: MOST_BYTES });
    return stdout;
  } catch {
    throw new ServiceUnavailableException('The translation program failed. Nothing was changed; try again.');
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}
const execute = promisify(execFile);

/** The capital at the start and the mark at the end of the source: the program loses both, now and then. */
function endsAs(source: string, text: string): string {
  const begun = /^\p{Lu}/u.test(source) ? text.charAt(0).toUpperCase() + text.slice(1) : text;
  const mark = /[.?!…]$/.exec(source)?.[0] ?? '';
  return /[.?!…\]]$/.test(begun) ? begun : begun + mark;
}
