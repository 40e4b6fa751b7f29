// How many of the proposed search phrases come near one that an editor wrote for the passage (bench/editors/words): two words that
// say something in common, or one where both have no more. Weights fitted with the talk left out, once with the title of the
// recording and once without; the titles are the names of the talks' files, by whoever wrote the talks, which flatters.
// `--show N` prints every Nth passage, `--write` the weights.
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { proposeKeywords, SEARCH_FEATURES, searchDrafts, searchFeatures, titleContext } from '@sift-reel/core/fitting';
import { fitPairwise, mean } from '@sift-reel/fitting';
import { readFlatSet } from './lib/marked-set.mjs';
import { contentIn, groundOf, readWordsSet, subjectsOf, wordsOf } from './lib/words-set.mjs';
import { row } from './measure.mjs';

const MOST = 8;
const passages = readWordsSet();
const talks = new Map(readFlatSet().map((one) => [one.name, one]));
const subjects = subjectsOf(talks);
const near = (a, b) => {
  const [mine, theirs] = [contentIn(a), contentIn(b)];
  const both = mine.filter((word) => theirs.includes(word)).length;
  return both >= 2 || (both === 1 && mine.length === 1 && theirs.length === 1);
};
const isNear = (text, lists) => lists.filter((list) => list.some((other) => near(text, other))).length;

const groupsOf = (called) =>
  passages.map((passage) => {
    const { transcript, firstWord, endWord } = wordsOf(talks, passage);
    const context = titleContext(transcript, { firstWord, endWord });
    const { counts } = context.statistics;
    const title = called(talks.get(passage.talk));
    const ground = groundOf(subjects.get(passage.talk), title, counts);
    const drafts = searchDrafts(context.passage, ground);
    const written = passage.written.map(({ keywords }) => keywords);
    const rows = searchFeatures(drafts, context.passage, context.statistics, ground);
    return {
      passage,
      context,
      ground,
      written,
      values: Float32Array.from(rows.flatMap((one) => [...one])),
      worth: drafts.map(({ text }) => isNear(text, written) / written.length),
    };
  });
const cases = {
  'with the title': groupsOf(({ file }) => file.replace(/^\d+-|\.txt$/g, '')),
  'without it': groupsOf(() => ''),
};
const every = Object.values(cases).flat();
const fitOn = (groups) =>
  fitPairwise(groups, { prior: SEARCH_FEATURES.map(() => 0), least: 0, hold: 0.01, apart: 0.2, pairs: 12_000, steps: 200, seed: 20_261_203 });
const leftOut = new Map([...talks.keys()].map((talk) => [talk, fitOn(every.filter(({ passage }) => passage.talk !== talk))]));

const SHOW = process.argv.includes('--show') ? Number(process.argv[process.argv.indexOf('--show') + 1]) : 0;
row('', 'near', 'of a passage', 'written found', 'none', 'worst talk');
for (const [name, groups] of Object.entries(cases)) {
  const found = groups.map(({ passage, context, ground, written }, n) => {
    const phrases = proposeKeywords(context, ground, MOST, leftOut.get(passage.talk));
    const hits = phrases.filter((text) => isNear(text, written) > 0);
    if (SHOW > 0 && n % SHOW === 0)
      process.stdout.write(`${passage.id}: ${phrases.map((text) => (hits.includes(text) ? `*${text}` : text)).join('; ')}\n    ${written[1].join('; ')}\n`);
    const all = written.flat();
    return { hits: hits.length, phrases: phrases.length, covered: all.filter((other) => phrases.some((text) => near(text, other))).length / all.length };
  });
  const share = (list) =>
    list.reduce((sum, { hits }) => sum + hits, 0) /
    Math.max(
      1,
      list.reduce((sum, { phrases }) => sum + phrases, 0),
    );
  const ofTalk = [...talks.keys()]
    .map((talk) => found.filter((_, n) => groups[n].passage.talk === talk))
    .filter((list) => list.some(({ phrases }) => phrases > 0));
  row(
    name,
    share(found).toFixed(3),
    mean(found.map(({ phrases }) => phrases)).toFixed(2),
    mean(found.map(({ covered }) => covered)).toFixed(3),
    found.filter(({ phrases }) => phrases === 0).length,
    Math.min(...ofTalk.map(share)).toFixed(2),
  );
}
const manners = passages.flatMap(({ written }) =>
  written.flatMap(({ keywords }, k) => {
    const others = written.filter((_, j) => j !== k).map((one) => one.keywords);
    return keywords.map((text) => Number(isNear(text, others) > 0));
  }),
);
row('one editor by the other two', mean(manners).toFixed(3));
if (process.argv.includes('--write')) {
  const lines = fitOn(every).map((weight, k) => `  ${weight.toFixed(4)}, // ${SEARCH_FEATURES[k]}`);
  writeFileSync(
    join(import.meta.dirname, '../packages/core/src/copy/search/search-weights.ts'),
    `/** Weights of \`SEARCH_FEATURES\`, in order. Written by \`npm run bench -- searches --write\`. */\nexport const SEARCH_WEIGHTS: readonly number[] = [\n${lines.join('\n')}\n];\n`,
  );
}
