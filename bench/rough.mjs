// How far the eye holds when talk comes worse than it was written: without punctuation, without names, rolling, and with
// fillers, words said twice and starts begun again. Fitting talks only; see editors.mjs for what the figures mean.
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { readTranscript, sift } from '@sift-reel/core';
import { judge, mean, readTalk, toCaptions } from '@sift-reel/fitting';
import { BRIEF, embedAll, readMarkedSet, SPLIT, textsOf } from './lib/marked-set.mjs';
import { roughen } from './lib/roughen.mjs';
import { row } from './measure.mjs';

const set = readMarkedSet(SPLIT.fit);
const CASES = [
  ['as written', false, 'written', 'lines', 'named'],
  ['bare', false, 'none', 'lines', 'named'],
  ['bare, nameless', false, 'none', 'lines', 'nameless'],
  ['bare, nameless, rolling', false, 'none', 'rolling', 'nameless'],
  ['rough', true, 'written', 'lines', 'named'],
  ['rough, nameless', true, 'written', 'lines', 'nameless'],
  ['rough, bare', true, 'none', 'lines', 'named'],
  ['rough, bare, nameless', true, 'none', 'lines', 'nameless'],
];

row('fitting talks', 'agreement', 'nDCG', 'never', 'no vectors');
for (const [name, rough, punctuation, cues, speakers] of CASES) {
  const talks = set.map((one) => {
    const text = readFileSync(join(import.meta.dirname, 'editors', 'talks', one.file), 'utf8');
    const talk = readTalk(rough ? roughen(text, Number(one.name)) : text, Number(one.name));
    return { ...one, talk, ...readTranscript(new TextEncoder().encode(toCaptions(talk, { punctuation, cues, speakers }))) };
  });
  const vectors = await embedAll(talks.map((one) => textsOf(one.transcript)));
  const judged = (withVectors) =>
    talks.map((one, i) =>
      judge(
        one,
        sift({ transcript: one.transcript, brief: BRIEF, clientTags: [], sentenceVectors: withVectors ? vectors[i] : null, topicVectors: null }).candidates,
      ),
    );
  const [full, words] = [judged(true), judged(false)];
  const of = (list, key) => mean(list.map((one) => one[key]));
  row(name, of(full, 'agreement').toFixed(3), of(full, 'ndcg').toFixed(3), of(full, 'never').toFixed(3), of(words, 'agreement').toFixed(3));
}
