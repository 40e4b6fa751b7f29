import { shared } from '../copy/written/content.js';
import type { WrittenSentence, WrittenTalk } from './written-talk.js';

/** How much it counts that each chapter has its say, beside that what is said often is said here. Common practice. */
const SPREAD = 0.6;
/** What says so much of a chosen sentence again adds nothing. */
const SAME = 0.6;
/** What is said of oneself tells less of the subject. Common practice. */
const OF_ONESELF = 0.75;

/**
 * Sentences that together say most of the recording, in their order: what they cover of its telling words, each counted once, and
 * how many chapters have a say, with less for every further sentence of one. Such a sum has diminishing returns (it is monotone and
 * submodular), and taking the sentence that adds most for its length does well on it: H. Lin, J. Bilmes, "A Class of Submodular
 * Functions for Document Summarization", ACL 2011 (from memory).
 * @param most characters
 */
export function summarise({ sentences, stemWeights }: Pick<WrittenTalk, 'sentences' | 'stemWeights'>, most: number): WrittenSentence[] {
  const able = sentences.filter((one) => !one.leans && !one.asks && one.words.size >= LEAST_CONTENT && one.text.length <= LONGEST);
  const covered = new Set<string>();
  const ofChapter = new Map<number, number>();
  const chosen: WrittenSentence[] = [];
  let room = most;
  const strengthOf = (one: WrittenSentence): number =>
    one.worth * (0.5 + 0.5 * one.tells) * (/^(?:i|i'\w+|my|we|we'\w+|he|she|he's|she's)$/.test(one.line[0]?.norm ?? '') ? OF_ONESELF : 1);
  const whole = [...stemWeights.values()].reduce((sum, value) => sum + value, 0) || 1;
  const gain = (one: WrittenSentence): number => {
    const adds = [...one.words].reduce((sum, key) => sum + (covered.has(key) ? 0 : (stemWeights.get(key) ?? 0)), 0) / whole;
    const before = ofChapter.get(one.chapter) ?? 0;
    return adds * COVERS + SPREAD * (Math.sqrt(before + strengthOf(one)) - Math.sqrt(before));
  };
  for (;;) {
    let best: { one: WrittenSentence; value: number } | null = null;
    for (const one of able) {
      if (one.text.length + 1 > room || chosen.some((other) => other === one || shared(other.words, one.words) >= SAME)) continue;
      const value = gain(one) / one.text.length ** BY_LENGTH;
      if (best === null || value > best.value) best = { one, value };
    }
    if (best === null) break;
    const { one } = best;
    chosen.push(one);
    room -= one.text.length + 1;
    for (const key of one.words) covered.add(key);
    ofChapter.set(one.chapter, (ofChapter.get(one.chapter) ?? 0) + strengthOf(one));
  }
  return chosen.sort((a, b) => a.index - b.index);
}
/** A sentence of a summary is read at once: characters. Common practice. */
const LONGEST = 170;
/** A sentence that says something has so many telling words. */
const LEAST_CONTENT = 4;
/** Brings what a sentence covers of a recording to the size of a chapter's say. */
const COVERS = 16;
/** How much a longer sentence must say more ("r" there; 0.3 there for short documents). */
const BY_LENGTH = 0.2;
