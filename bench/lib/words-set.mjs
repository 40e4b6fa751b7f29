// Words that editors wrote for passages of the flat talks, three times over (bench/editors/words).
import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';

const HERE = join(import.meta.dirname, '..', 'editors', 'words');

/** @returns for each passage its talk, its sentences (both ends inside) and the words of each editor */
export function readWordsSet() {
  const editors = readdirSync(HERE)
    .filter((file) => file.startsWith('editor-'))
    .sort()
    .map((file) => blocks(readFileSync(join(HERE, file), 'utf8')));
  return [...editors[0].keys()].map((id) => {
    const [talk, first, last] = id.match(/\d+/g);
    return { id, talk, first: Number(first), last: Number(last), written: editors.map((one) => one.get(id)) };
  });
}

function blocks(text) {
  const found = new Map();
  for (const block of text.split(/^## /m).slice(1)) {
    const [id, ...lines] = block.split('\n');
    const field = (name) => lines.filter((line) => line.startsWith(`${name}:`)).map((line) => line.slice(name.length + 1).trim());
    found.set(id.trim(), {
      titles: field('title'),
      cover: field('cover')[0],
      text: field('text')[0],
      tags: field('tags')[0].split(/,\s*/),
      keywords: field('keywords')[0].split(/;\s*/),
    });
  }
  return found;
}
