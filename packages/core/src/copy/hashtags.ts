import { phraseAt, topicWords } from '../text/stem.js';
import { keyPhrases, type Passage, type PhraseStatistics } from './phrases.js';

/** A phrase as a hashtag without `#`: letters and digits only, lower case. */
export function toHashtag(phrase: string): string {
  return phrase
    .toLowerCase()
    .normalize('NFC')
    .replace(/[^\p{L}\p{N}]+/gu, '');
}

/**
 * Hashtags for a passage: the client's own tags that the passage touches, then its key phrases. Nothing that is not said
 * or not the client's. Without `#`.
 */
export function proposeHashtags(passage: Passage, statistics: PhraseStatistics, clientTags: readonly string[], most: number): string[] {
  const said = clientTags.filter((tag) => {
    const words = topicWords(tag.replace(/([a-z])([A-Z])/g, '$1 $2'));
    for (let i = passage.firstWord; i < passage.endWord; i += 1) if (words.length > 0 && phraseAt(passage.texts, i, words)) return true;
    return false;
  });
  const phrases = keyPhrases(passage, statistics, most).map((phrase) => phrase.text);
  const tags: string[] = [];
  for (const tag of [...said, ...phrases].map(toHashtag)) {
    if (tag.length >= 3 && tag.length <= 30 && !tags.includes(tag)) tags.push(tag);
  }
  return tags.slice(0, most);
}
