import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { biasedModel, heardForm, type HeardWord } from '@sift-reel/core';
import { pronounce } from './pronunciations.js';
import { type Expected, type Recogniser, RecogniserError, type RecogniserTask } from './recogniser.js';
import { runProgram } from './run-program.js';

const NAME = 'pocketsphinx 0.8+5prealpha, en-us';
/**
 * Silence is listened to like all else: where the program leaves it out, it begins a new utterance, and times of the one after a long
 * silence come out seconds late.
 */
const ALL_OF_IT = ['-remove_silence', 'no'];
/** A word, its variant, from, to, and how sure: as Debian's pocketsphinx writes them. */
const WORD = /^([^\s<[(]+)(?:\(\d+\))? (\d+\.\d+) (\d+\.\d+) \d/;

/** Debian's pocketsphinx, which ships with the app: small, rough, and good enough to tell when a known word is said. */
export class Pocketsphinx implements Recogniser {
  readonly name = NAME;
  readonly anyLanguage = false;

  /** A model and a dictionary of the text alone. Words get names of their own: what is written in a text can be anything. */
  async expect(words: readonly string[], { folder, signal }: Pick<RecogniserTask, 'folder' | 'signal'>): Promise<Expected> {
    const forms = words.map(heardForm).filter((word) => word !== '');
    const sounds = await pronounce(forms, signal);
    if (sounds.size === 0) throw new RecogniserError('none of its words can be said in English');
    const names = new Map([...sounds.keys()].map((form, i) => [form, `w${i}`]));
    const files = { model: join(folder, 'expected.lm'), dictionary: join(folder, 'expected.dict') };
    const lines = [...sounds].flatMap(([form, variants]) => variants.map((said, k) => `${names.get(form)!}${k === 0 ? '' : `(${k + 1})`} ${said}`));
    await writeFile(files.dictionary, `${lines.join('\n')}\n`);
    await writeFile(files.model, biasedModel(forms.flatMap((form) => names.get(form) ?? [])));
    return { files, texts: new Map([...names].map(([form, name]) => [name, form])) };
  }

  async hear({ wav, signal }: RecogniserTask, expected: Expected | null): Promise<HeardWord[]> {
    const biased = expected === null ? [] : ['-lm', expected.files['model']!, '-dict', expected.files['dictionary']!];
    const said = await runProgram('pocketsphinx_continuous', ['-infile', wav, '-time', 'yes', ...ALL_OF_IT, '-logfn', '/dev/null', ...biased], signal);
    return said.split('\n').flatMap((line) => {
      const [, name, from, to] = WORD.exec(line) ?? [];
      const text = name === undefined ? undefined : (expected?.texts?.get(name) ?? name);
      return text === undefined ? [] : [{ text, startMs: Math.round(Number(from) * 1_000), endMs: Math.round(Number(to) * 1_000) }];
    });
  }
}
