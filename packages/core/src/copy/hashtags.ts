import { phraseAt, stem, topicWords } from '../text/stem.js';
import { keyPhrases, type Passage, type PhraseStatistics } from './phrases.js';
import type { RecordingSubject, SubjectTerm } from './recording-tags.js';

/** A phrase as a hashtag without `#`: letters and digits only, lower case. */
export function toHashtag(phrase: string): string {
  return phrase
    .toLowerCase()
    .normalize('NFC')
    .replace(/[^\p{L}\p{N}]+/gu, '');
}

/** What tags are chosen from: the passage, what is said in the whole recording, and the client's own. */
export interface TagSource {
  readonly passage: Passage;
  readonly statistics: PhraseStatistics;
  /** What the recording is about; null for talk that is not English. */
  readonly subject: RecordingSubject | null;
  readonly clientTags: readonly string[];
}

/** A term that the passage says counts this much more than one of the recording alone. */
const SAID_HERE = 1.8;
/** Said so often, a compound is a subject of the recording, and so of each of its passages. */
const OF_RECORDING = 3;
const [MOST_COMPOUNDS, MOST_SINGLES] = [3, 3];
/** Of each, so many that the passage does not say: every short of a recording would carry the same ones. */
const MOST_FROM_ELSEWHERE = 1;

/**
 * Hashtags for a passage, from the particular to the general: the client's own tags that the passage touches, then compounds and
 * words that tell what it and its recording are about. Nothing that is not said in the recording or not the client's. Without `#`.
 */
export function proposeHashtags({ passage, statistics, subject, clientTags }: TagSource, most: number): string[] {
  const said = clientTags.filter((tag) => {
    const words = topicWords(tag.replace(/([a-z])([A-Z])/g, '$1 $2'));
    for (let i = passage.firstWord; i < passage.endWord; i += 1) if (words.length > 0 && phraseAt(passage.texts, i, words)) return true;
    return false;
  });
  const phrases = keyPhrases(passage, statistics, most).map((phrase) => phrase.text);
  const tags: string[] = [];
  for (const tag of [...said, ...(subject === null ? [] : ofSubject(passage, subject)), ...phrases].map(toHashtag)) {
    if (tag.length >= 3 && tag.length <= 30 && !tags.includes(tag)) tags.push(tag);
  }
  return tags.slice(0, most);
}

/** Compounds first, then single words; what the passage says before what only the recording says, no two of one meaning. */
function ofSubject(passage: Passage, subject: RecordingSubject): string[] {
  const here = new Set<string>();
  for (let i = passage.firstWord; i < passage.endWord; i += 1) here.add(stem(passage.texts[i]!));
  const isHere = (term: SubjectTerm): boolean => term.stems.every((one) => here.has(one));
  const weigh = (term: SubjectTerm): number => term.weight * (isHere(term) ? SAID_HERE : 1);
  const strongest = (terms: readonly SubjectTerm[]): SubjectTerm[] => [...terms].sort((a, b) => weigh(b) - weigh(a));
  const taken = new Set<string>();
  const chosen: string[] = [];
  let elsewhere = 0;
  for (const term of strongest(subject.compounds)) {
    if (chosen.length === MOST_COMPOUNDS) break;
    if (!isHere(term) && (elsewhere += 1) > MOST_FROM_ELSEWHERE) continue;
    if (term.stems.every((one) => taken.has(one)) || (term.count < OF_RECORDING && !isHere(term))) continue;
    for (const one of term.stems) taken.add(one);
    chosen.push(term.text);
  }
  const singles = strongest(subject.singles);
  const [said, others] = [singles.filter(isHere), singles.filter((term) => !isHere(term))];
  return [...chosen, ...[...said.slice(0, MOST_SINGLES - 1), ...others.slice(0, MOST_FROM_ELSEWHERE)].map(({ text }) => text)];
}
