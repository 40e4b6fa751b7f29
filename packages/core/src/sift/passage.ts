import { phraseStatistics } from '../copy/phrases.js';
import { spanOfWords } from '../cut/word-span.js';
import { winkTagger, type PosTagger } from '../text/tagger.js';
import { spanMs } from '../time/span.js';
import { buildContext, type SiftContext } from './context.js';
import { openingWord } from './edges.js';
import { candidateRuns, cutSpan } from './runs.js';
import { buildScorer } from './score.js';
import { worthInSet } from './select.js';
import { groundOf, toCandidate } from './sift.js';
import { buildSignals } from './signals/index.js';
import type { Signal } from './signals/signal.js';
import type { Candidate, Run, SiftInput } from './types.js';
import { wordsText } from '../transcript/words-text.js';
import type { WordRange } from '../transcript/types.js';

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
  return candidateOf(readWhole(input, range, tagger), range);
}

/**
 * The best candidate that holds some words: of all clean cuts in the brief's length band, wherever in the recording, the one
 * that would be chosen. Where no cut holds them, the sentences they stand in.
 * @returns the candidate with rank 0
 * @throws PassageRefusedError
 */
export function bestAround(input: SiftInput, range: WordRange, tagger: PosTagger = winkTagger): Candidate {
  const reading = readWhole(input, range, tagger);
  const { context } = reading;
  const { first, end } = sentencesOf(context, range);
  let best = { first, end, worth: -1 };
  for (const run of candidateRuns(context)) {
    if (run.first > first || run.end < end || leavesOut(context, run.first, range)) continue;
    const worth = worthInSet(reading.score(run), spanMs(cutSpan(context, run)));
    if (worth > best.worth) best = { ...run, worth };
  }
  const { said, word } = openingWord(context, best.first);
  const firstWord = leavesOut(context, best.first, range) ? said : word;
  return candidateOf(reading, { firstWord, endWord: context.closings[best.end - 1]! });
}

/** Whether a cut that begins with a sentence leaves out some of the words, since it comes in at a clause behind them. */
function leavesOut(context: SiftContext, first: number, range: WordRange): boolean {
  const { said, word } = openingWord(context, first);
  return range.firstWord < word && said < range.endWord && said < word;
}

/** A recording read as under a brief for all of it. */
interface WholeReading {
  readonly context: SiftContext;
  readonly signals: readonly Signal[];
  score(run: Run): number;
}

function readWhole(input: SiftInput, range: WordRange, tagger: PosTagger): WholeReading {
  const { words } = input.transcript;
  if (!(range.firstWord >= 0 && range.firstWord < range.endWord && range.endWord <= words.length))
    throw new PassageRefusedError(`words ${range.firstWord} to ${range.endWord} of ${words.length}`);
  const context = buildContext({ ...input, brief: { ...input.brief, partStartMs: 0, partEndMs: null } }, tagger);
  const signals = buildSignals(context);
  return { context, signals, score: buildScorer(context, signals) };
}

/** The sentences that hold words. */
function sentencesOf({ sentences }: SiftContext, range: WordRange): Run {
  const first = sentences.findIndex((sentence) => sentence.endWord > range.firstWord);
  return { first, end: sentences.findLastIndex((sentence) => sentence.firstWord < range.endWord) + 1 };
}

function candidateOf({ context, signals, score }: WholeReading, range: WordRange): Candidate {
  const { words, sentences } = context;
  const run = sentencesOf(context, range);
  const statistics = phraseStatistics(context.texts, context.tags);
  const candidate = toCandidate(context, signals, groundOf(context, statistics), { ...run, score: score(run), alternatives: [] }, 0);
  const inside = (one: WordRange): boolean => one.firstWord >= range.firstWord && one.endWord <= range.endWord;
  return {
    ...candidate,
    ...spanOfWords(words, range.firstWord, range.endWord),
    ...range,
    signals: Object.fromEntries(
      Object.entries(candidate.signals).map(([name, reading]) => [name, { ...reading, evidence: reading.evidence.filter(inside) }]),
    ) as unknown as Candidate['signals'],
    firstLine: wordsText(words, range.firstWord, Math.min(range.endWord, sentences[run.first]!.endWord)),
    lastLine: wordsText(words, Math.max(range.firstWord, sentences[run.end - 1]!.firstWord), range.endWord),
  };
}
