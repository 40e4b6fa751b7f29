// How well the ranking agrees with the marks of bench/editors: 0 is a random passage, 1 is one reader judged by the others.
import { sift } from '@sift-reel/core';
import { judge, judgeByLater, mean, randomPassages, TOP } from '@sift-reel/fitting';
import { byExamples, byWordLists, examples, firstPassages } from './lib/baselines.mjs';
import { BRIEF, embedAll, joinTalks, readMarkedSet, SPLIT, textsOf } from './lib/marked-set.mjs';
import { row } from './measure.mjs';

const wanted = process.argv.includes('--fit') ? ['fit'] : ['fit', 'heldOut'];
const input = (one, sentenceVectors) => ({ transcript: one.transcript, brief: BRIEF, clientTags: [], sentenceVectors, topicVectors: null });

const NAMES = { words: 'engine without vectors', first: 'first passages' };
/** What a producer looks at first in an hour of talk. */
const FIRST = 10;
const figures = (list, keys) => keys.map((key) => mean(list.map((one) => one[key])).toFixed(3));
const averaged = (list) => Object.fromEntries(Object.keys(list[0]).map((key) => [key, mean(list.map((one) => one[key]))]));

const KEYS = ['agreement', 'never', 'edges', 'edgesOfReaders', 'kept', 'keptOfReaders'];

/**
 * Judged by three readings that know nothing of one another: one of the first session's in turn, and each later one.
 * Null where a later reader left the talk out.
 */
function bySessions(one, ranked, count = TOP) {
  if (one.later.includes(null)) return null;
  return averaged(one.marks.map((marks) => judge({ talk: one.talk, marks: [marks, ...one.later] }, ranked, count)));
}

const [wantedVectors] = await embedAll([examples()]);

for (const part of wanted) {
  const set = readMarkedSet(SPLIT[part]);
  const vectors = await embedAll(set.map((one) => textsOf(one.transcript)));
  const judged = set.map((one, i) => {
    const withVectors = sift(input(one, vectors[i])).candidates;
    return {
      name: one.file,
      engine: judge(one, withVectors),
      sessions: bySessions(one, withVectors),
      later: one.later.map((list) => list && judgeByLater(one, list, withVectors)),
      words: judge(one, sift(input(one, null)).candidates),
      'word lists': judge(one, byWordLists(one.transcript, textsOf(one.transcript))),
      'vectors alone': judge(one, byExamples(one.transcript, vectors[i], wantedVectors)),
      first: judge(one, firstPassages(one.talk)),
      random: averaged(Array.from({ length: 60 }, (_, i) => judge(one, randomPassages(one.talk, TOP, 100 + i)))),
    };
  });
  row(`-- ${part}`, 'agreement', 'nDCG', 'never', 'edges', 'of readers', 'kept', 'of readers', 'no vectors');
  for (const one of judged)
    row(
      one.name,
      one.engine.agreement.toFixed(2),
      one.engine.ndcg.toFixed(2),
      one.engine.never.toFixed(3),
      one.engine.edges.toFixed(2),
      one.engine.edgesOfReaders.toFixed(2),
      one.engine.kept.toFixed(2),
      one.engine.keptOfReaders.toFixed(2),
      one.words.agreement.toFixed(2),
    );
  for (const kind of ['engine', 'words', 'word lists', 'vectors alone', 'first', 'random'])
    row(
      `mean, ${NAMES[kind] ?? kind}`,
      mean(judged.map((one) => one[kind].agreement)).toFixed(3),
      mean(judged.map((one) => one[kind].ndcg)).toFixed(3),
      mean(judged.map((one) => one[kind].never)).toFixed(3),
      mean(judged.map((one) => one[kind].edges)).toFixed(3),
      mean(judged.map((one) => one[kind].edgesOfReaders)).toFixed(3),
      mean(judged.map((one) => one[kind].kept)).toFixed(3),
      mean(judged.map((one) => one[kind].keptOfReaders)).toFixed(3),
    );
  const hour = joinTalks(set);
  const [hourVectors] = await embedAll([textsOf(hour.transcript)]);
  const ranked = sift(input(hour, hourVectors)).candidates;
  const ofHour = judge(hour, ranked, FIRST);
  row(
    `first ${FIRST} of ${Math.round(hour.talk.durationMs / 60_000)} min joined`,
    '',
    '',
    ...figures([ofHour], ['never', 'edges', 'edgesOfReaders', 'kept', 'keptOfReaders']),
  );
  row('by readers of three sessions', 'agreement', 'never', 'edges', 'of readers', 'kept', 'of readers');
  const talks = judged.map((one) => one.sessions).filter((one) => one !== null);
  row(`mean of ${talks.length} talks, engine`, ...figures(talks, KEYS));
  const hourBySessions = bySessions(hour, ranked, FIRST);
  if (hourBySessions !== null) row(`first ${FIRST} of the hour`, ...figures([hourBySessions], KEYS));
  for (const [r, list] of hour.later.entries()) {
    row(`by later reader ${r + 1}`, 'agreement', 'never', 'edges', 'of readers', 'kept', 'of readers');
    row(
      'mean, engine',
      ...figures(
        judged.map((one) => one.later[r]).filter((one) => one !== null),
        KEYS,
      ),
    );
    if (list !== null) row(`first ${FIRST} of the hour`, ...figures([judgeByLater(hour, list, ranked, FIRST)], KEYS));
  }
}
