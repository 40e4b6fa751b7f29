import { STOPWORDS } from '../text/lists/talk.js';
import { stem } from '../text/stem.js';
import type { Transcript } from '../transcript/types.js';
import { cosine } from './lexical-vectors.js';
import type { Vectors } from './types.js';
import { normalise } from '../text/normalise.js';

/** A sentence that a search found. */
export interface SearchHit {
  /** Index of the sentence in the transcript. */
  readonly sentence: number;
  /** 0 to 1 beside the best hit of its kind. */
  readonly score: number;
  readonly by: 'words' | 'meaning';
}

/** Robertson's defaults for BM25; k1 how soon a word said often stops counting, b how much length counts. */
const K1 = 1.2;
const B = 0.75;

/**
 * BM25 of each text for a query (Robertson & Zaragoza 2009), with the idf that is never negative, ln(1 + (N - n + ½) /
 * (n + ½)). 0 where no word of the query stands.
 * @param texts lists of terms, @param query terms; a term that stands twice counts twice
 */
export function bm25(texts: readonly (readonly string[])[], query: readonly string[], k1 = K1, b = B): Float64Array {
  const mean = texts.reduce((sum, terms) => sum + terms.length, 0) / Math.max(1, texts.length);
  const scores = new Float64Array(texts.length);
  for (const term of query) {
    const counts = texts.map((terms) => terms.reduce((n, one) => n + (one === term ? 1 : 0), 0));
    const holding = counts.reduce((n, count) => n + (count > 0 ? 1 : 0), 0);
    if (holding === 0) continue;
    const idf = Math.log(1 + (texts.length - holding + 0.5) / (holding + 0.5));
    counts.forEach((count, i) => {
      if (count > 0) scores[i]! += (idf * count * (k1 + 1)) / (count + k1 * (1 - b + (b * texts[i]!.length) / mean));
    });
  }
  return scores;
}

const MOST_HITS = 40;
/** A sentence counts as meant when it stands this many standard deviations above the recording's usual likeness. */
const MEANT_FROM = 2.2;

/**
 * Searches a transcript by words (BM25 over stems, function words left out unless nothing else was asked) and, where
 * vectors are at hand, by meaning.
 * @returns hits of each kind, best first, at most 40; a sentence found by its words is not listed again by meaning
 */
export function searchTranscript(transcript: Transcript, query: string, vectors: { sentences: Vectors; query: Vectors } | null): SearchHit[] {
  const stems = (words: readonly string[]): string[] =>
    words
      .map(normalise)
      .filter((word) => word !== '')
      .map(stem);
  const asked = query
    .split(/\s+/)
    .map(normalise)
    .filter((word) => word !== '');
  const telling = asked.filter((word) => !STOPWORDS.has(word));
  const texts = transcript.sentences.map(({ firstWord, endWord }) => stems(transcript.words.slice(firstWord, endWord).map((word) => word.text)));
  const byWords = best(bm25(texts, stems(telling.length > 0 ? telling : asked)), 0, 'words');
  if (vectors === null) return byWords;
  const known = new Set(byWords.map((hit) => hit.sentence));
  const likeness = Float64Array.from(texts, (_, s) => cosine(vectors.sentences, s, vectors.query, 0));
  const mean = likeness.reduce((sum, value) => sum + value, 0) / Math.max(1, likeness.length);
  const spread = Math.sqrt(likeness.reduce((sum, value) => sum + (value - mean) ** 2, 0) / Math.max(1, likeness.length));
  return [...byWords, ...best(likeness, mean + MEANT_FROM * spread, 'meaning').filter((hit) => !known.has(hit.sentence))];
}

function best(scores: Float64Array, above: number, by: SearchHit['by']): SearchHit[] {
  const found = [...scores.keys()].filter((s) => scores[s]! > above).sort((a, b) => scores[b]! - scores[a]! || a - b);
  const most = scores[found[0] ?? 0] ?? 1;
  return found.slice(0, MOST_HITS).map((sentence) => ({ sentence, score: Math.round((1000 * scores[sentence]!) / most) / 1000, by }));
}
