import { shorten } from '../copy/said-line.js';
import { type RecordingSubject, recordingSubject } from '../copy/recording-tags.js';
import { titleOf } from '../copy/written/titles.js';
import { proposeHashtags } from '../copy/hashtags.js';
import { indexPhrases, type PhraseStatistics, phraseStatistics } from '../copy/phrases.js';
import { recordingPhrases } from '../copy/recording-phrases.js';
import { winkTagger, type PosTagger } from '../text/tagger.js';
import { coverRest } from './cover-rest.js';
import { chapterTitle } from './chapter-title.js';
import { buildContext, type SiftContext } from './context.js';
import { openingWord } from './edges.js';
import { kindOf } from './kinds.js';
import { buildReason } from './reason.js';
import { weightsFor } from './reweigh.js';
import { buildScorer, chapterEnds, LONG_CUT_FROM_MS } from './score.js';
import { candidateRuns, cutSpan } from './runs.js';
import { makeUpOf } from './make-up.js';
import { joinHalves } from './join-halves.js';
import { chooseBestSet, countStrong, worthInSet } from './select.js';
import { RunTable } from './run-table.js';
import { buildSignals } from './signals/index.js';
import { type ChosenRun, withAlternatives } from './variety.js';
import { type Signal, toReading } from './signals/signal.js';
import {
  type Brief,
  BriefRefusedError,
  type Candidate,
  type Chapter,
  RIDGE_STEPS,
  type Run,
  SIGNALS,
  type SiftInput,
  type SiftLimit,
  type SiftProgress,
  type SiftResult,
  type SignalReading,
} from './types.js';
import { wordsText } from '../transcript/words-text.js';

/** The whole ranking is kept, up to this many. */
const MOST_CANDIDATES = 500;
const MOST_PHRASES = 60;

/**
 * Sifts a recording in steps; between them the caller may report, pause or stop. Same input, same result.
 * @throws BriefRefusedError when the brief cannot be used on this recording
 */
export function* siftSteps(input: SiftInput, tagger: PosTagger = winkTagger): Generator<SiftProgress, SiftResult> {
  checkBrief(input.brief, input.transcript.durationMs);
  yield { stage: 'reading', fraction: 0 };
  const context = buildContext(input, tagger);
  if (context.sentences.length === 0) return emptyResult(input);
  yield { stage: 'segments', fraction: 0.3 };
  const starts = context.chapterStarts();
  yield { stage: 'scoring', fraction: 0.55 };
  const signals = buildSignals(context);
  const runs = scoreRuns(context, signals);
  yield { stage: 'choosing', fraction: 0.8 };
  const { cutStartsMs, cutEndsMs } = context;
  const worth = (score: number, first: number, end: number): number => worthInSet(score, cutEndsMs[end - 1]! - cutStartsMs[first]!);
  const { value: standsAlone } = signals.find(({ name }) => name === 'standsAlone')!;
  const best = joinHalves(context, chooseBestSet(runs, context.sentences.length, worth), runs, standsAlone);
  const byScore = best.sort((a, b) => b.score - a.score || a.first - b.first);
  const varied = withAlternatives(context, byScore.slice(0, MOST_CANDIDATES), runs);
  // A ranking that is cut off does not hold all of the talk anyway.
  const chosen = byScore.length > MOST_CANDIDATES ? varied : coverRest(varied, runs, context.sentences.length).slice(0, MOST_CANDIDATES);
  yield { stage: 'explaining', fraction: 0.9 };
  const statistics = {
    ...phraseStatistics(context.texts, context.tags, context.stems),
    index: indexPhrases(context, 0, context.words.length, context.stems),
  };
  const ground = groundOf(context, statistics);
  return {
    chapters: toChapters(context, statistics, starts),
    candidates: chosen.map((run, i) => toCandidate(context, signals, ground, run, i + 1)),
    strongCount: countStrong(chosen.map((run) => run.score)),
    ridge: ridgeOf(context, runs),
    makeUp: makeUpOf(context),
    limits: limitsOf(input, context),
    keyPhrases: recordingPhrases(
      { words: context.words, texts: context.texts, tags: context.tags, firstWord: 0, endWord: context.words.length },
      statistics,
      context.wordOffset,
      MOST_PHRASES,
    ),
    subject: ground.subject,
    weights: weightsFor(input.brief.topics.length > 0, input.weights ?? null),
  };
}

/** Runs all steps of a sift. @throws BriefRefusedError */
export function sift(input: SiftInput, tagger: PosTagger = winkTagger): SiftResult {
  const steps = siftSteps(input, tagger);
  for (;;) {
    const step = steps.next();
    if (step.done === true) return step.value;
  }
}

export const SHORTEST_CANDIDATE_MS = 3_000;
export const LONGEST_CANDIDATE_MS = 1_800_000;

export function checkBrief(brief: Brief, durationMs: number): void {
  if (!(brief.minMs >= SHORTEST_CANDIDATE_MS && brief.minMs < brief.maxMs && brief.maxMs <= LONGEST_CANDIDATE_MS)) {
    throw new BriefRefusedError(
      'minMs',
      'out-of-range',
      `lengths must satisfy 3 s <= shortest < longest <= 30 min, found ${brief.minMs} and ${brief.maxMs} ms`,
    );
  }
  const endMs = brief.partEndMs ?? durationMs;
  if (brief.partStartMs < 0 || brief.partStartMs >= durationMs) {
    throw new BriefRefusedError('partStartMs', 'empty-part', `the part starts at ${brief.partStartMs} ms, the recording ends at ${durationMs} ms`);
  }
  if (endMs <= brief.partStartMs) {
    throw new BriefRefusedError('partEndMs', 'empty-part', `the part ends at ${endMs} ms, before it starts at ${brief.partStartMs} ms`);
  }
}

function emptyResult(input: SiftInput): SiftResult {
  return {
    chapters: [],
    candidates: [],
    strongCount: 0,
    ridge: new Array<number>(RIDGE_STEPS).fill(0),
    makeUp: null,
    limits: [...limitsOf(input, null), 'short-part'],
    keyPhrases: [],
    subject: null,
    weights: weightsFor(input.brief.topics.length > 0, input.weights ?? null),
  };
}

/** Every candidate run, scored. */
function scoreRuns(context: SiftContext, signals: readonly Signal[]): RunTable {
  const score = buildScorer(context, signals);
  const runs = new RunTable();
  for (const run of candidateRuns(context)) runs.push(run.first, run.end, score(run));
  return runs;
}

/** What the words that go with a candidate are chosen against: all of its recording. */
interface WordsGround {
  readonly statistics: PhraseStatistics;
  readonly subject: RecordingSubject | null;
}

export const groundOf = ({ texts, tags, words, language }: SiftContext, statistics: PhraseStatistics): WordsGround => ({
  statistics,
  subject: language === null ? recordingSubject(texts, tags, words) : null,
});

/** A chosen run as a candidate, with everything said of it. */
export function toCandidate(context: SiftContext, signals: readonly Signal[], ground: WordsGround, run: ChosenRun, rank: number): Candidate {
  const { statistics, subject } = ground;
  const readings = Object.fromEntries(signals.map((signal) => [signal.name, toReading(signal, run, context)])) as Record<
    (typeof SIGNALS)[number],
    SignalReading
  >;
  const firstWord = openingWord(context, run.first).word;
  const endWord = context.closings[run.end - 1]!;
  const firstLine = firstLineOf(context, run);
  const kind = kindOf(context, run);
  const passage = {
    words: context.words,
    texts: context.texts,
    tags: context.tags,
    sentences: context.sentences,
    firstWord,
    endWord,
    first: run.first,
    end: run.end,
  };
  return {
    ...cutSpan(context, run),
    rank,
    score: run.score,
    firstWord: firstWord + context.wordOffset,
    endWord: endWord + context.wordOffset,
    signals: readings,
    kind,
    reason: buildReason(kind, readings, (context.brief.kinds as readonly string[]).includes(kind), wholeOf(context, run)),
    firstLine,
    lastLine: wordsText(context.words, Math.max(firstWord, context.sentences[run.end - 1]!.firstWord), endWord).replace(/,$/, ''),
    title:
      context.language !== null
        ? shorten(firstLine, 70)
        : titleOf({ passage, tells: context.hits.slice(context.hitStarts[run.first], context.hitStarts[run.end]), statistics }, 70).text,
    hashtags: proposeHashtags({ passage, statistics, subject, clientTags: context.input.clientTags }, 5),
    alternatives: run.alternatives.map((one) => ({
      ...cutSpan(context, one),
      firstWord: openingWord(context, one.first).word + context.wordOffset,
      endWord: context.closings[one.end - 1]! + context.wordOffset,
      score: one.score,
      why: one.why,
      firstLine: firstLineOf(context, one),
    })),
  };
}

/** The first sentence of a run, as far as it is in its cut. */
function firstLineOf(context: SiftContext, { first, end }: Run): string {
  const cutOut = context.closings[end - 1]!;
  return wordsText(context.words, openingWord(context, first).word, Math.min(cutOut, context.sentences[first]!.endWord)).replace(/,$/, '');
}

/** What a long cut holds of the chapters, where it begins or ends with one. */
function wholeOf(context: SiftContext, run: ChosenRun): string | null {
  const { startMs, endMs } = cutSpan(context, run);
  if (endMs - startMs < LONG_CUT_FROM_MS) return null;
  const { begins, ends } = chapterEnds(context, run);
  if (begins && ends) return 'from the start of a chapter to the end of one';
  return begins ? 'from the start of a chapter' : ends ? 'to the end of a chapter' : null;
}

function toChapters(context: SiftContext, statistics: PhraseStatistics, starts: readonly number[]): Chapter[] {
  return starts.map((first, k) => {
    const end = starts[k + 1] ?? context.sentences.length;
    const sentence = context.sentences[first]!;
    const last = context.sentences[end - 1]!;
    return {
      startMs: sentence.startMs,
      endMs: last.endMs,
      firstWord: sentence.firstWord + context.wordOffset,
      endWord: last.endWord + context.wordOffset,
      title: chapterTitle(context, statistics, { first, end }),
    };
  });
}

/** Worth of each moment: the mean score of the runs that hold it, over the whole recording. */
function ridgeOf(context: SiftContext, runs: RunTable): number[] {
  const n = context.sentences.length;
  const sums = new Float64Array(n + 1);
  const counts = new Float64Array(n + 1);
  const { first, end, score } = runs;
  for (let row = 0; row < runs.length; row += 1) {
    sums[first[row]!]! += score[row]!;
    sums[end[row]!]! -= score[row]!;
    counts[first[row]!]! += 1;
    counts[end[row]!]! -= 1;
  }
  for (let s = 1; s <= n; s += 1) {
    sums[s]! += sums[s - 1]!;
    counts[s]! += counts[s - 1]!;
  }
  const ridge = new Array<number>(RIDGE_STEPS).fill(0);
  const stepMs = context.input.transcript.durationMs / RIDGE_STEPS;
  context.sentences.forEach((sentence, s) => {
    if (counts[s]! < 0.5) return;
    const worth = Math.round((sums[s]! / counts[s]!) * 10) / 10;
    const last = Math.min(RIDGE_STEPS - 1, Math.floor((sentence.endMs - 1) / stepMs));
    for (let step = Math.floor(sentence.startMs / stepMs); step <= last; step += 1) ridge[step] = Math.max(ridge[step]!, worth);
  });
  return ridge;
}

function limitsOf(input: SiftInput, context: SiftContext | null): SiftLimit[] {
  const limits: SiftLimit[] = [];
  if ((input.language ?? null) !== null) limits.push('other-language');
  if (input.transcript.sentenceEnds !== 'written') limits.push('no-punctuation');
  if (input.transcript.wordTimes === 'spread') limits.push('spread-times');
  if (input.transcript.speakers.length === 0) limits.push('no-speakers');
  if (input.sentenceVectors === null && (input.language ?? null) === null) limits.push('no-vectors');
  if (input.voice === undefined || input.voice === null) limits.push('no-sound');
  const last = context?.sentences.at(-1);
  if (context !== null && last !== undefined && last.endMs - context.sentences[0]!.startMs < context.brief.minMs) limits.push('short-part');
  return limits;
}
