// How far the eye holds when talk comes worse than it was written: without punctuation, without names, rolling, with
// fillers, words said twice and starts begun again, with words heard wrongly, and with somebody who keeps saying "yeah". Fitting talks only; see editors.mjs for what the figures mean.
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { sift } from '@sift-reel/core';
import { judge, mean } from '@sift-reel/fitting';
import { BRIEF, embedAll, heardAs, readMarkedSet, SPLIT, textsOf } from './lib/marked-set.mjs';
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
const WRITTEN = { punctuation: 'written', speakers: 'named' };
const BARE = { punctuation: 'none', speakers: 'nameless' };
const allOfIt = { change: (text, seed) => mishear(roughen(text, seed), seed), put: talkedOver };
const CASES = [
  ['as written', WRITTEN],
  ['bare', { ...WRITTEN, punctuation: 'none' }],
  ['bare, nameless', BARE],
  ['bare, nameless, rolling', { ...BARE, cues: 'rolling' }],
  ['rough', { ...WRITTEN, change: roughen }],
  ['rough, bare, nameless', { ...BARE, change: roughen }],
  ['misheard', { ...WRITTEN, change: mishear }],
  ['misheard, bare, nameless', { ...BARE, change: mishear }],
  ['talked over', { ...WRITTEN, put: talkedOver }],
  ['talked over, bare, nameless', { ...BARE, put: talkedOver }],
  ['all of it, named', { ...WRITTEN, ...allOfIt }],
  ['all of it, bare, nameless', { ...BARE, ...allOfIt }],
];

row('fitting talks', 'agreement', 'nDCG', 'never', 'edges', 'kept', 'no vectors', 'edges', 'kept');
for (const [name, as] of CASES) {
  const talks = set.map((one) => heardAs(one, as));
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
