// The marked talks of bench/editors and the labelled sentences of bench/roles, read from their files.
import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { readTranscript, sentenceTexts } from '@sift-reel/core';
import { readMarks, readTalk, toCaptions } from '@sift-reel/fitting';
import { fileCache } from './vector-file.mjs';
import { Embedder } from '@sift-reel/embedder';

const HERE = join(import.meta.dirname, '..', 'editors');
export const SPLIT = JSON.parse(readFileSync(join(HERE, 'split.json'), 'utf8'));

/** What kind of recording each talk is. */
export const KINDS = JSON.parse(readFileSync(join(HERE, 'kinds.json'), 'utf8'));

/** The flat talks (bench/editors/flat) as captions with names give them, with their three readings. */
export function readFlatSet() {
  const folder = join(HERE, 'flat');
  const marks = readersIn(join('flat', 'marks'));
  return readdirSync(join(folder, 'talks'))
    .sort()
    .map((file) => {
      const name = file.slice(0, 2);
      const path = join(folder, 'talks', file);
      const talk = readTalk(readFileSync(path, 'utf8'), Number(name));
      const captions = toCaptions(talk, { punctuation: 'written', cues: 'lines', speakers: 'named' });
      const { transcript } = readTranscript(new TextEncoder().encode(captions));
      return { name, file, path, talk, transcript, marks: marks.map((list) => list.filter((mark) => mark.talk === name)), later: [] };
    });
}

/** The talks named, each with its transcript as a file would give it, its readers' marks, and a list for each later reader, null where one left the talk out. */
export function readMarkedSet(names) {
  const marks = readersIn('marks');
  const later = readersIn('later');
  const files = readdirSync(join(HERE, 'talks')).sort();
  return names.map((name) => {
    const file = files.find((one) => one.startsWith(`${name}-`));
    const talk = readTalk(readFileSync(join(HERE, 'talks', file), 'utf8'), Number(name));
    const bare = SPLIT.unpunctuated.includes(name) || SPLIT.rolling.includes(name);
    const captions = toCaptions(talk, {
      punctuation: bare ? 'none' : 'written',
      cues: SPLIT.rolling.includes(name) ? 'rolling' : 'lines',
      speakers: SPLIT.nameless.includes(name) ? 'nameless' : 'named',
    });
    const { transcript } = readTranscript(new TextEncoder().encode(captions));
    return {
      name,
      file,
      path: join(HERE, 'talks', file),
      talk,
      transcript,
      marks: marks.map((list) => list.filter((mark) => mark.talk === name)),
      later: later.map((list) => list.filter((mark) => mark.talk === name)).map((list) => (list.length === 0 ? null : list)),
    };
  });
}

const readersIn = (folder) =>
  readdirSync(join(HERE, folder))
    .sort()
    .map((file) => readMarks(file, readFileSync(join(HERE, folder, file), 'utf8')));

/**
 * A marked talk as it may come otherwise: its text changed line by line, and as captions of a sort.
 * @param change of the text of the file and a seed, @param put of the marked talk and a seed
 */
export function heardAs(one, { change = (text) => text, put = (marked) => marked, punctuation, cues = 'lines', speakers }) {
  const seed = Number(one.name);
  const text = readFileSync(one.path, 'utf8');
  const marked = put({ ...one, talk: readTalk(change(text, seed), seed) }, seed);
  return { ...marked, ...readTranscript(new TextEncoder().encode(toCaptions(marked.talk, { punctuation, cues, speakers }))) };
}

/** Talks one after another as one recording, written, with the marks of all: an hour or so, as producers have it. */
export function joinTalks(set, seed = 77) {
  const texts = set.map((one) => readFileSync(one.path, 'utf8').trim());
  const talk = readTalk(texts.join('\n\n'), seed);
  let before = 0;
  const moved = set.map((one) => {
    const by = before;
    before += one.talk.sentences.length;
    const move = (list) => list.map((mark) => ({ ...mark, first: mark.first + by, end: mark.end + by }));
    return { marks: one.marks.map(move), later: one.later.map((list) => list && move(list)) };
  });
  const { transcript } = readTranscript(new TextEncoder().encode(toCaptions(talk, { punctuation: 'written', cues: 'lines', speakers: 'named' })));
  return {
    talk,
    transcript,
    marks: set[0].marks.map((_, r) => moved.flatMap((one) => one.marks[r])),
    later: set[0].later.map((_, r) => (moved.some((one) => one.later[r] === null) ? null : moved.flatMap((one) => one.later[r]))),
  };
}

export const textsOf = sentenceTexts;

/** Vectors of texts, kept in a file under var/ between runs. */
export async function embedAll(lists) {
  const cache = fileCache();
  const embedder = new Embedder({ cache, batch: 32 });
  try {
    const all = [];
    for (const texts of lists) all.push(await embedder.embed(texts));
    return all;
  } finally {
    await embedder.close();
    cache.save();
  }
}

/** What producers ask for most: 20 to 75 s. */
export const BRIEF = { partStartMs: 0, partEndMs: null, minMs: 20_000, maxMs: 75_000, roughCount: 10, topics: [], kinds: [], avoid: [] };
