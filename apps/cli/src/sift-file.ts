import { parseArgs } from 'node:util';
import {
  type Brief,
  BriefRefusedError,
  type Candidate,
  formatLength,
  formatTimecode,
  parseClock,
  sentenceTexts,
  sift,
  SIGNALS,
  type SiftResult,
  type Transcript,
  wordsText,
  describeMakeUp,
  type Language,
} from '@sift-reel/core';
import { Embedder } from '@sift-reel/embedder';
import { BadInputError, UsageError } from './errors.js';
import { readTranscriptFile } from './read-file.js';

const OPTIONS = {
  min: { type: 'string' },
  max: { type: 'string' },
  count: { type: 'string' },
  from: { type: 'string' },
  to: { type: 'string' },
  about: { type: 'string' },
  length: { type: 'string' },
  json: { type: 'boolean' },
} as const;

/** `sift FILE`: the ranking of a transcript as JSON, or as a readable list. */
export async function siftFile(args: readonly string[]): Promise<string> {
  const { path, options } = readArguments(args, 'sift');
  const { transcript, brief, result, language } = await siftByOptions(path, options);
  const shown = options.count === undefined ? result.candidates : result.candidates.slice(0, brief.roughCount);
  return options.json === true
    ? `${JSON.stringify({ ...toJson(transcript, result, shown), language: language?.name ?? null })}\n`
    : aboutTalk(result, language) + toText(shown, result.strongCount);
}

/** Reads a transcript, computes its vectors and sifts it. @throws BadInputError, UsageError */
export async function siftByOptions(
  path: string,
  options: Options,
): Promise<{ transcript: Transcript; brief: Brief; result: SiftResult; language: Language | null }> {
  const { transcript } = await readTranscriptFile(path);
  const brief = briefOf(options);
  const embedder = new Embedder();
  try {
    const sentenceVectors = await embedder.embed(sentenceTexts(transcript));
    const topicVectors = brief.topics.length === 0 ? null : await embedder.embed(brief.topics);
    const { findLanguage } = await import('@sift-reel/core/language');
    const language = findLanguage(transcript.words);
    return { transcript, brief, language, result: sift({ transcript, language, brief, clientTags: [], sentenceVectors, topicVectors }) };
  } catch (error) {
    if (error instanceof BriefRefusedError) throw error.code === 'empty-part' ? new BadInputError(path, 1, error.message) : new UsageError(error.message);
    throw error;
  } finally {
    await embedder.close();
  }
}

export type Options = {
  min?: string | undefined;
  max?: string | undefined;
  count?: string | undefined;
  from?: string | undefined;
  to?: string | undefined;
  about?: string | undefined;
  length?: string | undefined;
  json?: boolean | undefined;
};

export function readArguments(args: readonly string[], command: 'sift' | 'reel'): { path: string; options: Options } {
  let parsed: { values: Options; positionals: string[] };
  try {
    parsed = parseArgs({ args: [...args], options: OPTIONS, allowPositionals: true });
  } catch (error) {
    throw new UsageError(error instanceof Error ? error.message : String(error));
  }
  const [path, ...more] = parsed.positionals;
  if (path === undefined || more.length > 0) throw new UsageError(`${command} takes one FILE`);
  const foreign = (command === 'sift' ? (['length'] as const) : (['min', 'max', 'count'] as const)).find((name) => parsed.values[name] !== undefined);
  if (foreign !== undefined) throw new UsageError(`${command} has no --${foreign}`);
  return { path, options: parsed.values };
}

function briefOf(options: Options): Brief {
  const minMs = secondsOf(options.min, '--min', 30_000);
  const maxMs = secondsOf(options.max, '--max', Math.max(60_000, minMs * 2));
  const count = options.count === undefined ? 12 : Number(options.count);
  if (!Number.isInteger(count) || count < 1 || count > 500) throw new UsageError('--count takes a whole number from 1 to 500');
  const topics = (options.about ?? '')
    .split(/[,;]/)
    .map((topic) => topic.trim())
    .filter((topic) => topic !== '');
  return {
    partStartMs: clockOf(options.from, '--from') ?? 0,
    partEndMs: clockOf(options.to, '--to'),
    minMs,
    maxMs,
    roughCount: Math.min(200, count),
    topics,
    kinds: [],
    avoid: [],
  };
}

export function secondsOf(text: string | undefined, name: string, fallback: number): number {
  if (text === undefined) return fallback;
  const seconds = Number(text);
  if (text.trim() === '' || !Number.isFinite(seconds) || seconds <= 0) throw new UsageError(`${name} takes seconds, found “${text}”`);
  return Math.round(seconds * 1_000);
}

function clockOf(text: string | undefined, name: string): number | null {
  if (text === undefined) return null;
  const ms = parseClock(text);
  if (ms === null) throw new UsageError(`${name} takes seconds, mm:ss or hh:mm:ss, found “${text}”`);
  return ms;
}

const seconds = (ms: number): number => ms / 1_000;

/** What kind of recording it is, and what of it cannot be known. */
function aboutTalk({ makeUp, candidates }: SiftResult, language: Language | null): string {
  if (language !== null) return `The talk is in ${language.name}: Opening and Charge cannot be known.\n`;
  const scores = candidates.map(({ score }) => score);
  return makeUp === null ? '' : `${describeMakeUp(makeUp, scores)}\n`;
}

function toJson(transcript: Transcript, result: SiftResult, shown: readonly Candidate[]): object {
  const text = (firstWord: number, endWord: number): string => wordsText(transcript.words, firstWord, endWord);
  return {
    duration: seconds(transcript.durationMs),
    sentences: transcript.sentences.length,
    chapters: result.chapters.map((chapter) => ({ start: seconds(chapter.startMs), title: chapter.title })),
    candidates: shown.map((candidate) => ({
      rank: candidate.rank,
      start: seconds(candidate.startMs),
      end: seconds(candidate.endMs),
      score: candidate.score,
      signals: Object.fromEntries(SIGNALS.map((name) => [name, candidate.signals[name].value])),
      kind: candidate.kind,
      reason: candidate.reason,
      evidence: SIGNALS.flatMap((name) =>
        candidate.signals[name].evidence.map((range) => ({
          signal: name,
          start: seconds(transcript.words[range.firstWord]!.startMs),
          end: seconds(transcript.words[range.endWord - 1]!.endMs),
          text: text(range.firstWord, range.endWord),
        })),
      ),
      firstLine: candidate.firstLine,
      lastLine: candidate.lastLine,
      title: candidate.title,
      hashtags: candidate.hashtags,
    })),
  };
}

function toText(shown: readonly Candidate[], strongCount: number): string {
  if (shown.length === 0) return 'No passage of this length with clean edges was found.\n';
  const lines = shown.flatMap((candidate) => [
    ...(candidate.rank === strongCount + 1 ? [`   ---- below here scores fall away: ${strongCount} strong ----`] : []),
    `${String(candidate.rank).padStart(3)}  ${candidate.score.toFixed(1).padStart(5)}  ${formatTimecode(candidate.startMs)}  ${formatLength(candidate.endMs - candidate.startMs)}  ${candidate.title}`,
    `     ${candidate.reason}`,
  ]);
  return `${lines.join('\n')}\n`;
}
