import { winkTagger, type PosTagger } from '../../text/tagger.js';
import type { Sentence, Word } from '../../transcript/types.js';
import { findTells, type Hit, normaliseWords } from '../../text/tells/find-tells.js';
import type { RoleInput } from './surface.js';

/** Reads words and sentences for the role model. */
export function readForRoles(words: readonly Word[], sentences: readonly Sentence[], tagger: PosTagger = winkTagger): RoleInput {
  const texts = normaliseWords(words);
  const tags = tagger(texts);
  const hits = findTells(words, texts, tags);
  return { words, texts, tags, sentences, hits, hitStarts: indexHits(hits, sentences) };
}

/** First hit of each sentence in `hits`, and one more for the end. */
export function indexHits(hits: readonly Hit[], sentences: readonly Sentence[]): Int32Array {
  const starts = new Int32Array(sentences.length + 1);
  let h = 0;
  sentences.forEach((sentence, s) => {
    while (h < hits.length && hits[h]!.firstWord < sentence.firstWord) h += 1;
    starts[s] = h;
  });
  starts[sentences.length] = hits.length;
  return starts;
}
