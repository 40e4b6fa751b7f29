import { phraseStatistics } from '../copy/phrases.js';
import { spanOfWords } from '../cut/word-span.js';
import { winkTagger, type PosTagger } from '../text/tagger.js';
import { buildContext } from './context.js';
import { kindOf } from './kinds.js';
import { buildScorer, WANTED_KIND_POINTS } from './score.js';
import { roundScore } from './scale.js';
import { toCandidate } from './sift.js';
import { buildSignals } from './signals/index.js';
import type { Candidate, SiftInput, WordRange } from './types.js';

/** A passage that cannot be scored: it holds no words of the transcript. */
export class PassageRefusedError extends Error {
  override readonly name = 'PassageRefusedError';
}

/**
 * Scores any passage as a candidate, as the sift under the same brief would have, wherever it lies and however long it is.
 * Signals are read over the sentences that hold it; its ends are exactly the words asked for.
 * @returns the candidate with rank 0: where it stands among others is not known here
 * @throws PassageRefusedError
 */
export function scorePassage(input: SiftInput, range: WordRange, tagger: PosTagger = winkTagger): Candidate {
  const { words, sentences } = input.transcript;
  if (!(range.firstWord >= 0 && range.firstWord < range.endWord && range.endWord <= words.length))
    throw new PassageRefusedError(`words ${range.firstWord} to ${range.endWord} of ${words.length}`);
  const whole = { ...input, brief: { ...input.brief, partStartMs: 0, partEndMs: null } };
  const context = buildContext(whole, tagger);
  const first = sentences.findIndex((sentence) => sentence.endWord > range.firstWord);
  const end = sentences.findLastIndex((sentence) => sentence.firstWord < range.endWord) + 1;
  const signals = buildSignals(context);
  const run = { first, end };
  const wanted = input.brief.kinds.includes(kindOf(context, run)) ? WANTED_KIND_POINTS : 0;
  const score = roundScore(buildScorer(context, signals)(run) + wanted);
  const candidate = toCandidate(context, signals, phraseStatistics(context.texts, context.tags), { ...run, score, alternatives: [] }, 0);
  const line = (from: number, to: number): string =>
    words
      .slice(from, to)
      .map((word) => word.text)
      .join(' ');
  const inside = (one: WordRange): boolean => one.firstWord >= range.firstWord && one.endWord <= range.endWord;
  return {
    ...candidate,
    ...spanOfWords(words, range.firstWord, range.endWord),
    ...range,
    signals: Object.fromEntries(
      Object.entries(candidate.signals).map(([name, reading]) => [name, { ...reading, evidence: reading.evidence.filter(inside) }]),
    ) as unknown as Candidate['signals'],
    firstLine: line(range.firstWord, Math.min(range.endWord, sentences[first]!.endWord)),
    lastLine: line(Math.max(range.firstWord, sentences[end - 1]!.firstWord), range.endWord),
  };
}
