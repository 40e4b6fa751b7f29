// How far the eye holds when talk comes worse than it was written: without punctuation, without names, rolling, with
// fillers, words said twice and starts begun again, with words heard wrongly, and with somebody who keeps saying "yeah". Fitting talks only; see editors.mjs for what the figures mean.
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { readTranscript, sift } from '@sift-reel/core';
import { judge, mean, readTalk, toCaptions } from '@sift-reel/fitting';
import { BRIEF, embedAll, readMarkedSet, SPLIT, textsOf } from './lib/marked-set.mjs';
import { mishearer, roughen, talkedOver } from './lib/roughen.mjs';
import { row } from './measure.mjs';

const set = readMarkedSet(SPLIT.fit);
const written = set.map((one) => readFileSync(join(import.meta.dirname, 'editors', 'talks', one.file), 'utf8'));
const mishear = await mishearer(
  written
    .join(' ')
    .toLowerCase()
    .match(/[a-z']+/g),
);
const asWritten = (text) => text;
const same = (marked) => marked;
const bare = ['none', 'lines', 'nameless'];
const CASES = [
  ['as written', asWritten, same, 'written', 'lines', 'named'],
  ['bare', asWritten, same, 'none', 'lines', 'named'],
  ['bare, nameless', asWritten, same, ...bare],
  ['bare, nameless, rolling', asWritten, same, 'none', 'rolling', 'nameless'],
  ['rough', roughen, same, 'written', 'lines', 'named'],
  ['rough, bare, nameless', roughen, same, ...bare],
  ['misheard', mishear, same, 'written', 'lines', 'named'],
  ['misheard, bare, nameless', mishear, same, ...bare],
  ['talked over', asWritten, talkedOver, 'written', 'lines', 'named'],
  ['talked over, bare, nameless', asWritten, talkedOver, ...bare],
  ['all of it, named', (text, seed) => mishear(roughen(text, seed), seed), talkedOver, 'written', 'lines', 'named'],
  ['all of it, bare, nameless', (text, seed) => mishear(roughen(text, seed), seed), talkedOver, ...bare],
];

row('fitting talks', 'agreement', 'nDCG', 'never', 'edges', 'kept', 'no vectors', 'edges', 'kept');
for (const [name, change, put, punctuation, cues, speakers] of CASES) {
  const talks = set.map((one, i) => {
    const seed = Number(one.name);
    const marked = put({ ...one, talk: readTalk(change(written[i], seed), seed) }, seed);
    return { ...marked, ...readTranscript(new TextEncoder().encode(toCaptions(marked.talk, { punctuation, cues, speakers }))) };
  });
  const vectors = await embedAll(talks.map((one) => textsOf(one.transcript)));
  const judged = (withVectors) =>
    talks.map((one, i) =>
      judge(
        one,
        sift({ transcript: one.transcript, brief: BRIEF, clientTags: [], sentenceVectors: withVectors ? vectors[i] : null, topicVectors: null }).candidates,
      ),
    );
  const figures = (list, keys) => keys.map((key) => mean(list.map((one) => one[key])).toFixed(3));
  row(name, ...figures(judged(true), ['agreement', 'ndcg', 'never', 'edges', 'kept']), ...figures(judged(false), ['agreement', 'edges', 'kept']));
}
