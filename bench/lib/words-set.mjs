// Words that editors wrote for passages of the flat talks, three times over (bench/editors/words).
import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { winkTagger } from '@sift-reel/core';
import { normaliseWords, recordingSubject, stem, STOPWORDS, titleCompounds, titleWords } from '@sift-reel/core/fitting';

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

/** Drafts of titles that were graded, by passage: 2 could be posted, with a small change at most; 1 fair; the rest 0. The forty that are judged by are not among them. */
export function readTitleGrades() {
  const found = new Map();
  for (const block of readFileSync(join(HERE, 'title-grades.txt'), 'utf8').split(/^## /m).slice(1)) {
    const [id, ...lines] = block.split('\n');
    found.set(id, new Map(lines.filter((line) => line !== '').map((line) => [line.slice(2), line.startsWith('+') ? 2 : 1])));
  }
  return found;
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

/** Stems of the words of a line, and of those that say something. */
export const wordsIn = (line) =>
  line
    .toLowerCase()
    .replace(/[’]/g, "'")
    .match(/[\p{L}\p{N}][\p{L}\p{N}'.,-]*/gu)
    ?.map((word) => stem(word.replace(/[.,'-]+$/, '').replace(/'s$/, ''))) ?? [];
export const contentIn = (line) => wordsIn(line).filter((word) => !STOPWORDS.has(word));

/** The words of a transcript that a passage holds. @param talks by name, as `readFlatSet` gives them */
export function wordsOf(talks, { talk, first, last }) {
  const { talk: told, transcript } = talks.get(talk);
  const [startMs, endMs] = [told.sentences[first - 1].startMs, told.sentences[last - 1].endMs];
  const firstWord = transcript.words.findIndex((word) => word.startMs >= startMs - 5);
  const after = transcript.words.findIndex((word) => word.startMs >= endMs);
  return { transcript, firstWord, endWord: after < 0 ? transcript.words.length : after };
}

/** What each talk is about, by its name. */
export const subjectsOf = (talks) =>
  new Map(
    [...talks].map(([name, { transcript }]) => {
      const texts = normaliseWords(transcript.words);
      return [name, recordingSubject(texts, winkTagger(texts), transcript.words)];
    }),
  );

/** What names the recording of a passage, called so. */
export const groundOf = (subject, title, counts) => ({
  subject,
  titled: titleCompounds(title, counts, winkTagger),
  titleWords: titleWords(title, counts, winkTagger),
});
