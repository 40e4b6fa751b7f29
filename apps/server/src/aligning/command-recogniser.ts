import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { HeardWord } from '@sift-reel/core';
import { type Expected, type Recogniser, RecogniserError, type RecogniserTask } from './recogniser.js';
import { runProgram } from './run-program.js';

const WAV = '{wav}';
const EXPECTED = '{expected}';
const MOST_WORDS = 200_000;
const LONGEST_WORD = 120;

/**
 * Another program that hears words, by a template of its command: `my-recogniser --sound {wav} --hint {expected}`. Parts are divided at
 * white space, and no shell reads them. `{wav}` becomes the path of a RIFF WAVE file (16 bits, 16 kHz, mono), `{expected}` that of a text
 * with the words to expect, one a line; where none are known, the part that holds it is left out. It writes JSON to standard output:
 * `{"words":[{"text":"so","startMs":120,"endMs":310}]}`, in order, in ms of the file.
 */
export class CommandRecogniser implements Recogniser {
  readonly name: string;
  readonly anyLanguage = true;
  private readonly parts: readonly string[];

  /** @throws RangeError when the template names no program or no `{wav}` */
  constructor(template: string) {
    this.parts = template.trim().split(/\s+/);
    if (this.parts[0] === '' || this.parts[0]!.includes('{') || !template.includes(WAV)) throw new RangeError('expected a program and {wav}');
    this.name = template;
  }

  async expect(words: readonly string[], { folder }: Pick<RecogniserTask, 'folder'>): Promise<Expected> {
    const list = join(folder, 'expected.txt');
    await writeFile(list, `${words.join('\n')}\n`);
    return { files: { list } };
  }

  async hear({ wav, signal }: RecogniserTask, expected: Expected | null): Promise<HeardWord[]> {
    const list = expected?.files['list'] ?? null;
    const [program, ...args] = this.parts
      .filter((part) => list !== null || !part.includes(EXPECTED))
      .map((part) => part.replaceAll(WAV, wav).replaceAll(EXPECTED, list ?? ''));
    return wordsOf(await runProgram(program!, args, signal));
  }
}

/** @throws RecogniserError naming the field that is wrong */
function wordsOf(output: string): HeardWord[] {
  let told: unknown;
  try {
    told = JSON.parse(output);
  } catch {
    throw new RecogniserError('it wrote no JSON');
  }
  const words = (told as { words?: unknown } | null)?.words;
  if (!Array.isArray(words)) throw new RecogniserError('words: expected a list');
  if (words.length > MOST_WORDS) throw new RecogniserError(`words: more than ${MOST_WORDS}`);
  let lastMs = 0;
  return words.map((one: unknown, i) => {
    const { text, startMs, endMs } = (one ?? {}) as Record<string, unknown>;
    const wrong = (field: string, expected: string): RecogniserError => new RecogniserError(`words[${i}].${field}: expected ${expected}`);
    if (typeof text !== 'string' || text === '' || text.length > LONGEST_WORD || /\s/.test(text)) throw wrong('text', 'one word');
    if (typeof startMs !== 'number' || !(startMs >= lastMs)) throw wrong('startMs', `${lastMs} or later`);
    if (typeof endMs !== 'number' || !(endMs >= startMs)) throw wrong('endMs', `${startMs} or later`);
    lastMs = startMs;
    return { text, startMs: Math.round(startMs), endMs: Math.round(endMs) };
  });
}
