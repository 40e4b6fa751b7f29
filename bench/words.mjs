// How near the proposed words come to those that three editors wrote for 165 passages of the flat talks (bench/editors/words),
// beside one editor's words judged by the other two. Recall of content words, ROUGE-1 and ROUGE-L (F), the best of those proposed
// against each written one; tags found in any written set. `--show N` prints every Nth passage.
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { proposeCopy } from '@sift-reel/core';
import {
  describePassage,
  proposeTitles,
  stem,
  TEXT_FEATURES,
  textDrafts,
  TITLE_FEATURES,
  titleContext,
  titleDrafts,
  titleFeatures,
  topicLacking,
} from '@sift-reel/core/fitting';
import { fitPairwise, mean, rouge1, rougeL } from '@sift-reel/fitting';
import { readFlatSet } from './lib/marked-set.mjs';
import { topicGroups, topicsLeftOut } from './lib/topics-set.mjs';
import { contentIn as content, readTitleGrades, readWordsSet, wordsIn as words, wordsOf } from './lib/words-set.mjs';
import { row } from './measure.mjs';

const LIMITS = { title: 60, description: 200, hashtags: 5 };
const passages = readWordsSet();
const talks = new Map(readFlatSet().map((one) => [one.name, one]));

/** What some titles are worth to a list of written ones. */
function judgeTitles(proposed, written) {
  const best = (score) => mean(written.map((one) => Math.max(0, ...proposed.map((other) => score(other, one)))));
  return {
    recall: best((a, b) => rouge1(content(a), content(b)).recall),
    one: best((a, b) => rouge1(words(a), words(b)).f),
    l: best((a, b) => rougeL(words(a), words(b)).f),
  };
}
const judgeTags = (proposed, written) => {
  const known = new Set(written.flatMap((one) => one.tags.map(stem)));
  return proposed.length === 0 ? 0 : proposed.filter((tag) => known.has(stem(tag))).length / 5;
};

// What a draft is worth: how it was graded, and how near it comes to the written title that is nearest.
const worthOf = (text, written) => Math.max(...written.map((one) => (rouge1(content(text), content(one)).f + rougeL(words(text), words(one)).f) / 2));
const NEARNESS = 1;
/** Weights are in pairwise odds; a client's manner is in tenths of that. */
const UNIT = 0.05;
/** What few drafts show and no reader forgives: held at half of this at the least. */
const RULES = {
  broken: -5,
  'leans on what nobody hears': -1.4,
  'calls first': -1,
  'no clause': -1.6,
  'brings somebody in': -1.2,
  'says twice': -0.8,
  housekeeping: -6,
};
const PRIOR = TITLE_FEATURES.map((feature) => RULES[feature] ?? 0);
const grades = readTitleGrades();
const groups = passages.map((passage) => {
  const { transcript, firstWord, endWord } = wordsOf(talks, passage);
  const context = titleContext(transcript, { firstWord, endWord });
  const drafts = titleDrafts(context.passage, LIMITS.title);
  const written = passage.written.flatMap((one) => one.titles);
  return {
    passage,
    transcript,
    firstWord,
    endWord,
    context,
    drafts,
    written,
    rows: titleFeatures(drafts, context),
    worth: drafts.map(({ text }) => worthOf(text, written)),
    grade: grades.has(passage.id) ? drafts.map(({ text }) => grades.get(passage.id).get(text) ?? 0) : null,
  };
});
/** @param features the first so many, @param hold how firmly weights are held to their prior */
const fitGraded = (some, features, hold) =>
  fitPairwise(
    some
      .filter(({ grade }) => grade !== null)
      .map(({ rows, worth, grade }) => ({
        values: Float32Array.from(rows.flatMap((row) => [...row.subarray(0, features)])),
        worth: grade.map((one, i) => one + NEARNESS * worth[i]),
      })),
    { prior: PRIOR.slice(0, features), least: 0.5, hold, apart: 0.5, pairs: 12_000, steps: 240, seed: 20_261_201 },
  );
/** How a line is said is forty features more: held less firmly, they learn the graded talks by heart. */
const fitOn = (some) => fitGraded(some, TITLE_FEATURES.length, 0.1).map((weight) => weight * UNIT);
const withoutTalk = (fit) => new Map([...talks.keys()].map((talk) => [talk, fit(groups.filter(({ passage }) => passage.talk !== talk))]));
const leftOut = withoutTalk(fitOn);

// Sentences of texts: written as titles are, whose weights they begin from, but for what is a matter of a title's length; what they are
// worth is how much of the editors' texts they hold.
const OF_TITLES = new Set([
  ...['long', 'very long', 'very short', 'few words', 'some words', 'one comma', 'commas', 'content words'],
  ...['tells of the passage', 'tells of the recording'],
]);
/** Share of content words in common, the text's own counting half: a sentence is a part of it. */
const held = (sentence, text) => {
  const [mine, theirs] = [content(sentence), content(text)];
  return (2 * mine.filter((word) => theirs.includes(word)).length) / Math.max(1, mine.length + 0.5 * theirs.length);
};
const textGroups = new Map(
  groups.map((group) => {
    const drafts = textDrafts(group.context, LIMITS.description);
    const worth = drafts.map((draft) => mean(group.passage.written.map(({ text }) => held(draft.text, text))));
    return [group, { values: Float32Array.from(titleFeatures(drafts, group.context).flatMap((row) => [...row.subarray(0, TEXT_FEATURES.length)])), worth }];
  }),
);
const fitTextsOn = (some) => {
  const prior = fitGraded(some, TEXT_FEATURES.length, 0.01).map((weight, k) => (OF_TITLES.has(TEXT_FEATURES[k]) ? 0 : weight));
  const options = { prior, least: 0.5, hold: 0.05, apart: 0.08, pairs: 12_000, steps: 200, seed: 20_261_202 };
  return fitPairwise(
    some.map((group) => textGroups.get(group)),
    options,
  ).map((weight) => weight * UNIT);
};
const textsLeftOut = withoutTalk(fitTextsOn);
const judgeText = (proposed, written) => ({
  recall: mean(written.map((one) => rouge1(content(proposed), content(one)).recall)),
  one: mean(written.map((one) => rouge1(words(proposed), words(one)).f)),
  l: mean(written.map((one) => rougeL(words(proposed), words(one)).f)),
});
const texts = { proposed: [], 'one manner by the other two': [] };

// Topics, too, are found by weights that have not seen the talk.
const topics = topicGroups();
const topicWeights = topicsLeftOut(Object.values(topics).flat());
const SHOW = process.argv.includes('--show') ? Number(process.argv[process.argv.indexOf('--show') + 1]) : 0;
const graded = [];
const madeOf = [];
const results = {
  'the first, by weights that have seen the talks': [],
  'the first': [],
  'the first, no topic before it': [],
  'proposed, no topic before any': [],
  proposed: [],
  'best of all drafts': [],
  ...{ P: [], Q: [], R: [] },
};
groups.forEach(({ passage, transcript, firstWord, endWord, context, drafts, written, worth, grade }, n) => {
  // What the editors were told of the recording is its title: the name of its file, as it often is.
  const title = talks.get(passage.talk).file.replace(/^\d+-|\.txt$/g, '');
  const copy = proposeCopy(transcript, { firstWord, endWord, title, clientTags: [], limits: LIMITS });
  const about = topics['with the title'][n].topics(topicWeights.get(passage.talk));
  const lacking = drafts.filter(({ line, text }) => {
    const topic = topicLacking(
      line.map(({ norm }) => norm),
      about,
    );
    return topic !== null && topic.text.length + 2 + text.length <= LIMITS.title;
  });
  madeOf.push(drafts.length + lacking.length);
  const titlesFor = (own, most) => proposeTitles(own, LIMITS.title, most, leftOut.get(passage.talk)).map(({ text }) => text);
  const titles = titlesFor({ ...context, topics: about }, 3);
  // What was graded is the line, without a topic before it.
  if (grade !== null) {
    const known = new Map(drafts.map(({ text }, i) => [text, grade[i]]));
    graded.push({ best: Math.max(...grade), found: titlesFor(context, 3).map((text) => known.get(text)) });
  }
  results['the first'].push({ ...judgeTitles(titles.slice(0, 1), written), tags: 0 });
  results['the first, no topic before it'].push({ ...judgeTitles(titlesFor(context, 1), written), tags: 0 });
  results['proposed, no topic before any'].push({ ...judgeTitles(titlesFor(context, 3), written), tags: 0 });
  const told = passage.written.map(({ text }) => text);
  texts.proposed.push(judgeText(describePassage(context, titlesFor(context, 1)[0] ?? '', LIMITS.description, textsLeftOut.get(passage.talk)), told));
  for (const [k, one] of told.entries())
    texts['one manner by the other two'].push(
      judgeText(
        one,
        told.filter((_, j) => j !== k),
      ),
    );
  const order = worth.map((_, i) => i).sort((a, b) => worth[b] - worth[a]);
  const tags = judgeTags(copy.hashtags, passage.written);
  results['the first, by weights that have seen the talks'].push({ ...judgeTitles([copy.title], written), tags });
  results.proposed.push({ ...judgeTitles(titles, written), tags });
  results['best of all drafts'].push({
    ...judgeTitles(
      order.slice(0, 3).map((i) => drafts[i].text),
      written,
    ),
    tags: 0,
  });
  ['P', 'Q', 'R'].forEach((manner, k) => {
    const others = passage.written.filter((_, j) => j !== k);
    results[manner].push({
      ...judgeTitles(
        passage.written[k].titles,
        others.flatMap((one) => one.titles),
      ),
      tags: judgeTags(passage.written[k].tags, others),
    });
  });
  if (SHOW > 0 && n % SHOW === 0)
    process.stdout.write(
      `\n${passage.id} (${drafts.length} drafts)\n${titles.map((one) => `  > ${one}`).join('\n')}\n  * ${drafts[order[0]]?.text}\n${written.map((one) => `    ${one}`).join('\n')}\n  # ${copy.hashtags.join(' ')}\n    ${passage.written[0].tags.join(' ')}\n  = ${copy.description}\n    ${passage.written[0].text}\n`,
    );
});
row('', 'recall', 'ROUGE-1', 'ROUGE-L', 'tags');
for (const [name, list] of Object.entries(results))
  row(
    /^[PQR]$/.test(name) ? `manner ${name} by the other two` : name,
    ...['recall', 'one', 'l', 'tags'].map((key) => mean(list.map((one) => one[key])).toFixed(3)),
  );
/** The lowest mean of a talk. */
const worstTalk = (values) => {
  const ofTalk = (talk) => values.filter((_, n) => groups[n].passage.talk === talk);
  return Math.min(
    ...[...talks.keys()]
      .map(ofTalk)
      .filter((some) => some.length > 0)
      .map(mean),
  );
};
row('proposed, the worst talk', ...['recall', 'one', 'l', 'tags'].map((key) => worstTalk(results.proposed.map((one) => one[key])).toFixed(3)));
row(
  'grades (0 to 2) of the first, of three, of the best of three',
  ...[(found) => found[0], mean, (found) => Math.max(...found)].map((of) => mean(graded.map(({ found }) => of(found))).toFixed(2)),
  `the best draft ${mean(graded.map(({ best }) => best)).toFixed(2)}`,
);
const ofForty = (list) => mean(list.filter((_, n) => n % 4 === 0));
row(
  'the forty that were not graded: recall, ROUGE-1, ROUGE-L',
  ...['recall', 'one', 'l'].map((key) => ofForty(results.proposed.map((one) => one[key])).toFixed(3)),
);
row('texts', 'recall', 'ROUGE-1', 'ROUGE-L');
for (const [name, list] of Object.entries(texts)) row(name, ...['recall', 'one', 'l'].map((key) => mean(list.map((one) => one[key])).toFixed(3)));
row('texts, the worst talk', ...['recall', 'one', 'l'].map((key) => worstTalk(texts.proposed.map((one) => one[key])).toFixed(3)));
row('lines a passage', mean(groups.map(({ drafts }) => drafts.length)).toFixed(0));
row('titles made a passage, with the topics that lines lack before them', mean(madeOf).toFixed(0));
if (process.argv.includes('--write')) {
  const write = (name, features, what, weights) =>
    writeFileSync(
      join(import.meta.dirname, `../packages/core/src/copy/written/${name}-weights.ts`),
      `/** Weights of \`${features}\`${what}, in order. Written by \`npm run bench -- words --write\`. */\nexport const ${name.toUpperCase()}_WEIGHTS: readonly number[] = [\n${weights.map((weight, k) => `  ${weight.toFixed(4)}, // ${TITLE_FEATURES[k]}`).join('\n')}\n];\n`,
    );
  write('title', 'TITLE_FEATURES', '', fitOn(groups));
  write('text', 'TEXT_FEATURES', ' for sentences of texts', fitTextsOn(groups));
}
