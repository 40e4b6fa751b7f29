import { readFile } from 'node:fs/promises';
import { runProgram } from './run-program.js';

/** Debian's package pocketsphinx-en-us: the CMU dictionary of American English, as the model was trained on it. */
const DICTIONARY = '/usr/share/pocketsphinx/model/en-us/cmudict-en-us.dict';
/** Sentences that one run of the speaker is given. */
const AT_ONCE = 200;
/** The speaker's sounds are the dictionary's but for the weak vowel. */
const SOUNDS: ReadonlyMap<string, string> = new Map([['ax', 'AH']]);

/** Words with their sounds, as the dictionary has them: "T UW", each with its variants. */
let known: Promise<ReadonlyMap<string, readonly string[]>> | null = null;

/**
 * How words are said: as the dictionary has it, else as Debian's flite would say them, which knows figures, too.
 * @param words in the form in which they are compared: lower case, letters, digits and apostrophes
 * @returns at least one pronunciation for each word that can be said at all
 */
export async function pronounce(words: readonly string[], signal: AbortSignal): Promise<Map<string, readonly string[]>> {
  known ??= readDictionary();
  const dictionary = await known;
  const found = new Map<string, readonly string[]>();
  const unknown: string[] = [];
  for (const word of new Set(words)) {
    const sounds = dictionary.get(word);
    if (sounds !== undefined) found.set(word, sounds);
    else if (/^[a-z0-9']{1,40}$/.test(word)) unknown.push(word);
  }
  for (let from = 0; from < unknown.length; from += AT_ONCE) await guess(unknown.slice(from, from + AT_ONCE), found, signal);
  return found;
}

async function guess(words: readonly string[], found: Map<string, readonly string[]>, signal: AbortSignal): Promise<void> {
  const said = soundsOf(await runProgram('flite', ['-voice', 'kal', '-t', words.map((word) => `${word}.`).join('\n'), '-ps', '-o', 'none'], signal));
  if (said.length === words.length) words.forEach((word, i) => found.set(word, [said[i]!]));
  else if (words.length > 1) {
    // One of them is said with a pause in it.
    const half = words.length >> 1;
    await guess(words.slice(0, half), found, signal);
    await guess(words.slice(half), found, signal);
  } else if (said.length > 0) found.set(words[0]!, [said.join(' ')]);
}

/** What is said from one pause to the next. */
const soundsOf = (spoken: string): string[] =>
  spoken
    .split(/\bpau\b/)
    .map((one) =>
      one
        .trim()
        .split(/\s+/)
        .map((sound) => SOUNDS.get(sound) ?? sound.toUpperCase())
        .join(' '),
    )
    .filter((one) => one !== '');

async function readDictionary(): Promise<ReadonlyMap<string, readonly string[]>> {
  const words = new Map<string, string[]>();
  for (const line of (await readFile(DICTIONARY, 'utf8')).split('\n')) {
    const space = line.indexOf(' ');
    if (space < 1) continue;
    const word = line.slice(0, space).replace(/\(\d+\)$/, '');
    const sounds = line.slice(space + 1).trim();
    const variants = words.get(word);
    if (variants === undefined) words.set(word, [sounds]);
    else variants.push(sounds);
  }
  return words;
}
