// How near the summary of a recording comes to one written by hand (bench/summaries), by ROUGE-1 and ROUGE-L of Lin (2004), beside
// the first sentences and sentences at random, all as long; and how many of the chapters have a say. `--show` prints them.
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { OPEN_VOICE, sift } from '@sift-reel/core';
import { stem, STOPWORDS, summarise, writtenTalk } from '@sift-reel/core/fitting';
import { mean, rouge1, rougeL } from '@sift-reel/fitting';
import { readFlatSet } from './lib/marked-set.mjs';
import { row } from './measure.mjs';

const HERE = join(import.meta.dirname, 'summaries');
const BRIEF = { partStartMs: 0, partEndMs: null, minMs: 15_000, maxMs: 60_000, roughCount: 12, topics: [], kinds: [], avoid: [] };
const LENGTH = 600;
const DRAWS = 200;
const words = (text) =>
  text
    .toLowerCase()
    .match(/[\p{L}\p{N}]+/gu)
    .map(stem);
const content = (text) => words(text).filter((word) => !STOPWORDS.has(word));
const joined = (sentences) => sentences.map(({ text }) => text).join(' ');

/** As many of the sentences, in the order given, as fit. */
function fill(sentences) {
  const taken = [];
  let room = LENGTH;
  for (const one of sentences) if (one.text.length + 1 <= room && taken.push(one)) room -= one.text.length + 1;
  return taken;
}
/** The same draws each time. */
function* numbers(seed) {
  for (let state = seed; ;) yield (state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0) / 2 ** 32;
}
const judge = (sentences, reference) => {
  const text = joined(sentences);
  return { recall: rouge1(content(text), content(reference)).recall, one: rouge1(words(text), words(reference)).f, l: rougeL(words(text), words(reference)).f };
};
const average = (all) => Object.fromEntries(Object.keys(all[0]).map((key) => [key, mean(all.map((one) => one[key]))]));

const talks = readFlatSet();
const results = readdirSync(HERE)
  .filter((file) => file.endsWith('.txt'))
  .map((file) => {
    const { transcript } = talks.find(({ name }) => name === file.slice(0, 2));
    const reference = readFileSync(join(HERE, file), 'utf8');
    const { chapters, candidates } = sift({ transcript, brief: BRIEF, clientTags: [], sentenceVectors: null, topicVectors: null });
    const moments = candidates.slice(0, 40).map(({ firstWord, endWord, score }) => ({ firstWord, endWord, score, kept: false, title: null }));
    const talk = writtenTalk({ transcript, title: file, chapters, moments, language: null, voice: OPEN_VOICE });
    const made = summarise(talk, LENGTH);
    const chance = numbers(7);
    const shuffled = () =>
      talk.sentences
        .map((one) => [chance.next().value, one])
        .sort((a, b) => a[0] - b[0])
        .map(([, one]) => one);
    if (process.argv.includes('--show')) process.stdout.write(`\n${file}\n${joined(made)}\n`);
    return {
      file,
      made: judge(made, reference),
      first: judge(fill(talk.sentences), reference),
      random: average(Array.from({ length: DRAWS }, () => judge(fill(shuffled()), reference))),
      chapters: new Set(made.map(({ chapter }) => chapter)).size / chapters.length,
    };
  });

const shown = (one) => [one.recall, one.one, one.l].map((value) => value.toFixed(3));
row('talk', 'summary', 'recall', 'ROUGE-1', 'ROUGE-L');
for (const { file, ...of } of results) for (const kind of ['made', 'first', 'random']) row(file, kind, ...shown(of[kind]));
for (const kind of ['made', 'first', 'random']) row('mean', kind, ...shown(average(results.map((one) => one[kind]))));
row('chapters that have a say', mean(results.map(({ chapters }) => chapters)).toFixed(2));
