// What the editors say a passage is about (bench/editors/words): how many of their six titles and of their search phrases name the
// topic that is found first, by weights fitted with the talk left out; once with the title of the recording and once without. The
// titles are the names of the talks' files, by whoever wrote the talks, which flatters. `--show` prints them, `--write` the weights.
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { TOPIC_FEATURES } from '@sift-reel/core/fitting';
import { mean } from '@sift-reel/fitting';
import { fitTopics, topicGroups, topicsLeftOut } from './lib/topics-set.mjs';
import { row } from './measure.mjs';

const cases = topicGroups();
const every = Object.values(cases).flat();
const leftOut = topicsLeftOut(every);

row('', 'titles name it', 'no title does', 'search phrases', 'the best topic', 'titles, worst talk');
for (const [name, groups] of Object.entries(cases)) {
  const found = groups.map(({ passage, drafts, topics, ofTitles, ofPhrases }) => {
    const [first = { stems: [], text: '' }, ...more] = topics(leftOut.get(passage.talk));
    if (process.argv.includes('--show'))
      process.stdout.write(`${passage.id}: ${[first, ...more.slice(0, 3)].map(({ text, worth }) => `${text} ${worth?.toFixed(1)}`).join('; ')}\n`);
    return { talk: passage.talk, titles: ofTitles(first), phrases: ofPhrases(first), best: Math.max(0, ...drafts.map(ofTitles)) };
  });
  const ofTalks = [...leftOut.keys()].map((talk) => found.filter((one) => one.talk === talk));
  row(
    name,
    mean(found.map(({ titles }) => titles)).toFixed(3),
    mean(found.map(({ titles }) => Number(titles === 0))).toFixed(3),
    mean(found.map(({ phrases }) => phrases)).toFixed(3),
    mean(found.map(({ best }) => best)).toFixed(3),
    Math.min(...ofTalks.map((some) => mean(some.map(({ titles }) => titles)))).toFixed(3),
  );
}
if (process.argv.includes('--write'))
  writeFileSync(
    join(import.meta.dirname, '../packages/core/src/copy/topics/topic-weights.ts'),
    `/** Weights of \`TOPIC_FEATURES\`, in order. Written by \`npm run bench -- topics --write\`. */\nexport const TOPIC_WEIGHTS: readonly number[] = [\n${fitTopics(
      every,
    )
      .map((weight, k) => `  ${weight.toFixed(4)}, // ${TOPIC_FEATURES[k]}`)
      .join('\n')}\n];\n`,
  );
