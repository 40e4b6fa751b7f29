// What the passages of the words set may be about, and weights of it by what the editors name.
import { titleContext, TOPIC_FEATURES, topicDrafts, topicFeatures, topicsOf } from '@sift-reel/core/fitting';
import { fitPairwise, mean } from '@sift-reel/fitting';
import { readFlatSet } from './marked-set.mjs';
import { contentIn, groundOf, readWordsSet, subjectsOf, wordsOf } from './words-set.mjs';

/** Share of a topic's stems that a line names. */
const named = (stems, line) => stems.filter((one) => line.includes(one)).length / stems.length;
/** So many of an editor's search phrases that name it are as good as all. */
const ENOUGH_PHRASES = 2;

/** For each passage its drafts, what the editors name of them, and its topics by given weights; once with the title of the recording, once without. */
export function topicGroups() {
  const passages = readWordsSet();
  const talks = new Map(readFlatSet().map((one) => [one.name, one]));
  const subjects = subjectsOf(talks);
  const groupsOf = (called) =>
    passages.map((passage) => {
      const { transcript, firstWord, endWord } = wordsOf(talks, passage);
      const { passage: own, statistics } = titleContext(transcript, { firstWord, endWord });
      const title = called(talks.get(passage.talk));
      const ground = groundOf(subjects.get(passage.talk), title, statistics.counts);
      const drafts = topicDrafts(own, statistics, ground);
      const titles = passage.written.flatMap((one) => one.titles.map(contentIn));
      const phrases = passage.written.map(({ keywords }) => keywords.map(contentIn));
      const ofTitles = ({ stems }) => mean(titles.map((line) => named(stems, line)));
      const ofPhrases = ({ stems }) => mean(phrases.map((lines) => Math.min(1, lines.filter((line) => named(stems, line) === 1).length / ENOUGH_PHRASES)));
      const rows = topicFeatures(drafts, own, statistics, ground);
      return {
        ...{ passage, drafts, ofTitles, ofPhrases },
        topics: (weights) => topicsOf(own, statistics, ground, weights),
        values: Float32Array.from(rows.flatMap((one) => [...one])),
        worth: drafts.map((draft) => (ofTitles(draft) + ofPhrases(draft)) / 2),
      };
    });
  return { 'with the title': groupsOf(({ file }) => file.replace(/^\d+-|\.txt$/g, '')), 'without it': groupsOf(() => '') };
}

export const fitTopics = (groups) =>
  fitPairwise(groups, { prior: TOPIC_FEATURES.map(() => 0), least: 0, hold: 0.01, apart: 0.15, pairs: 12_000, steps: 200, seed: 20_261_204 });

/** Weights of each talk, fitted on the others. */
export const topicsLeftOut = (groups) =>
  new Map([...new Set(groups.map(({ passage }) => passage.talk))].map((talk) => [talk, fitTopics(groups.filter(({ passage }) => passage.talk !== talk))]));
