import type { Word, WordRange } from '../transcript/types.js';
import { cutListOf } from './cut-list.js';
import { type Edit, type EditedPassage, NO_EDIT, pauseAfter, playedRuns, tidyEdit } from './edit.js';
import { cutFrames, frameAt, type FrameRate, frameStartMs, type FrameSpan } from './frames.js';
import { spanEndMs, spanStartMs } from './word-span.js';

/** What a passage of the transcript plays that is nearest to frames somebody cut elsewhere. */
export interface FoundEdit {
  readonly passage: EditedPassage;
  /** How far the end of a span lies at most from where it was cut, in ms: ends fall between words here. 0 where every frame is the same. */
  readonly offMs: number;
}

/** Words that one span plays, and the span in ms. */
interface Heard extends WordRange {
  readonly span: FrameSpan;
  readonly startMs: number;
  readonly endMs: number;
}

/** What lies further apart is another part of the recording, not something taken out of this one. */
const FAR_MS = 20_000;

/**
 * The passage, with its edit, that plays some frames of a recording: words between two spans are taken out, a pause that is cut into
 * is cut down, what stands out of order or far away is another part. The longest part is the passage.
 * @param words of the transcript, in order
 * @param spans as they are played, of the source at `rate`
 * @returns null where nobody speaks in any of them
 */
export function editOfFrames(words: readonly Word[], spans: readonly FrameSpan[], rate: FrameRate): FoundEdit | null {
  const joined = joinedFrames(spans);
  const simple = readingOf(words, joined, joined, rate);
  // Where no frame is left out between two spans, less than a frame may be: it is looked for where the rest is not the same.
  if (simple === null) return null;
  const close = simple.wrong === 0 || joined.length === spans.length ? null : readingOf(words, spans, joined, rate);
  const { passage, offMs } = close !== null && close.wrong < simple.wrong ? close : simple;
  return { passage, offMs };
}

/** @param joined the same spans, of which each is compared @returns with how many frames are not the same */
function readingOf(words: readonly Word[], spans: readonly FrameSpan[], joined: readonly FrameSpan[], rate: FrameRate): (FoundEdit & { wrong: number }) | null {
  const heard = together(
    words,
    spans.flatMap((span) => heardIn(words, span, rate)),
  );
  if (heard.length === 0) return null;
  const plain = passageOf(words, partsOf(words, heard, FAR_MS));
  // Where one part takes out what another plays, every span is a part of its own.
  const passage = fitPauses(words, plays(words, plain, heard) ? plain : passageOf(words, partsOf(words, heard, 0)), heard, rate);
  const wrong = wrongFrames(framesOfPassage(words, passage, rate), joined);
  return { passage, wrong, offMs: wrong === 0 ? 0 : offBy(words, passage, joined, rate) };
}

/** Words whose middle lies in a span of source time; nothing where nobody speaks. */
function heardIn(words: readonly Word[], span: FrameSpan, rate: FrameRate): Heard[] {
  const [startMs, endMs] = [frameStartMs(span.startFrame, rate), frameStartMs(span.endFrame, rate)];
  const [firstWord, endWord] = [firstAfter(words, startMs), firstAfter(words, endMs)];
  return endWord > firstWord ? [{ firstWord, endWord, span, startMs, endMs }] : [];
}

/** Spans that go on where the last one ended, between words without a pause, are one: there is nothing to cut. */
function together(words: readonly Word[], heard: readonly Heard[]): Heard[] {
  const out: Heard[] = [];
  for (const one of heard) {
    const last = out.at(-1);
    if (last?.endWord === one.firstWord && last.span.endFrame === one.span.startFrame && pauseAfter(words, last.endWord - 1) === 0)
      out[out.length - 1] = { ...last, endWord: one.endWord, endMs: one.endMs, span: { ...last.span, endFrame: one.span.endFrame } };
    else out.push(one);
  }
  return out;
}

/** The first word whose middle is at a time, or after it. */
function firstAfter(words: readonly Word[], ms: number): number {
  let [from, to] = [0, words.length];
  while (from < to) {
    const at = (from + to) >> 1;
    if (words[at]!.startMs + words[at]!.endMs < 2 * ms) from = at + 1;
    else to = at;
  }
  return from;
}

/** Spans that go on in order, with less than so much between them, are one part. */
function partsOf(words: readonly Word[], heard: readonly Heard[], farMs: number): Heard[][] {
  const parts: Heard[][] = [];
  for (const one of heard) {
    const last = parts.at(-1)?.at(-1);
    const betweenMs = last === undefined ? 0 : words[one.firstWord]!.startMs - words[last.endWord - 1]!.endMs;
    if (last !== undefined && one.firstWord >= last.endWord && (one.firstWord === last.endWord || betweenMs < farMs)) parts.at(-1)!.push(one);
    else parts.push([one]);
  }
  return parts;
}

const rangeOf = (part: readonly Heard[]): WordRange => ({ firstWord: part[0]!.firstWord, endWord: part.at(-1)!.endWord });
const wordsIn = ({ firstWord, endWord }: WordRange): number => endWord - firstWord;

function passageOf(words: readonly Word[], parts: readonly (readonly Heard[])[]): EditedPassage {
  const ranges = parts.map(rangeOf);
  const longest = Math.max(...ranges.map(wordsIn));
  const main = ranges.findIndex((one) => wordsIn(one) === longest);
  const removed: WordRange[] = [];
  const pauses: { afterWord: number; leftMs: number }[] = [];
  for (const part of parts)
    for (let i = 1; i < part.length; i += 1) {
      const [last, next] = [part[i - 1]!, part[i]!];
      if (next.firstWord > last.endWord) removed.push({ firstWord: last.endWord, endWord: next.firstWord });
      else {
        const afterWord = last.endWord - 1;
        const leftMs = Math.max(0, last.endMs - words[afterWord]!.endMs) + Math.max(0, words[next.firstWord]!.startMs - next.startMs);
        const pauseMs = pauseAfter(words, afterWord);
        // Less than a frame may be gone; where nothing is, it is left out again.
        if (pauseMs > 0) pauses.push({ afterWord, leftMs: Math.min(leftMs, pauseMs - 1) });
      }
    }
  const edit: Edit = { ...NO_EDIT, removed, pauses, before: ranges.slice(0, main), after: ranges.slice(main + 1) };
  return { ...ranges[main]!, edit: tidyEdit(edit) };
}

/** Whether a passage plays the words that were heard, in their order. */
function plays(words: readonly Word[], passage: EditedPassage, heard: readonly Heard[]): boolean {
  const order = (runs: readonly WordRange[]): string =>
    runs.flatMap(({ firstWord, endWord }) => Array.from({ length: endWord - firstWord }, (_, i) => firstWord + i)).join();
  return order(playedRuns(words, passage)) === order(heard);
}

const framesOfPassage = (words: readonly Word[], passage: EditedPassage, rate: FrameRate): FrameSpan[] =>
  cutFrames(cutListOf(words, playedRuns(words, passage)), rate);

/** A way to cut the pauses so far: the last choice, and the way before it. */
interface Way {
  readonly leftMs: number | null;
  readonly before: Way | null;
}

/**
 * What is left of a pause is known to a frame only, and what was rounded away before counts for every later frame. So the lengths are
 * tried together: by what is carried on from span to span, each sum once. Where no lengths play the frames, those are left that were
 * found.
 */
function fitPauses(words: readonly Word[], passage: EditedPassage, heard: readonly Heard[], rate: FrameRate): EditedPassage {
  const way = wayThrough(words, passage, heard, rate);
  let edit = passage.edit;
  if (way !== null) {
    const left = new Map<number, number>();
    for (let [at, k]: [Way | null, number] = [way, heard.length - 1]; at !== null; at = at.before, k -= 1)
      if (at.leftMs !== null) left.set(heard[k]!.endWord - 1, at.leftMs);
    edit = { ...edit, pauses: edit.pauses.map(({ afterWord, leftMs }) => ({ afterWord, leftMs: left.get(afterWord) ?? leftMs })) };
  }
  return { ...passage, edit };
}

function wayThrough(words: readonly Word[], { edit }: EditedPassage, heard: readonly Heard[], rate: FrameRate): Way | null {
  const found = new Map(edit.pauses.map(({ afterWord, leftMs }) => [afterWord, leftMs]));
  const reachMs = 2 * Math.ceil((1_000 * rate.denominator) / rate.numerator);
  const beginsAt = (ms: number, k: number): boolean => k >= heard.length || frameAt(ms, rate) === heard[k]!.span.startFrame;
  const firstMs = spanStartMs(words, heard[0]!.firstWord);
  let ways = new Map<number, Way | null>(beginsAt(firstMs, 0) ? [[-firstMs, null]] : []);
  let frames = 0;
  for (const [k, { endWord, span }] of heard.entries()) {
    frames += span.endFrame - span.startFrame;
    const next = heard[k + 1];
    const near = next?.firstWord === endWord ? found.get(endWord - 1) : undefined;
    const most = pauseAfter(words, endWord - 1);
    const lefts = near === undefined ? [null] : Array.from({ length: 2 * reachMs + 1 }, (_, i) => near + i - reachMs).filter((ms) => ms >= 0 && ms < most);
    const choices = lefts.flatMap((leftMs) => {
      const tailMs = leftMs === null ? undefined : Math.ceil(leftMs / 2);
      const endMs = tailMs === undefined ? spanEndMs(words, endWord) : words[endWord - 1]!.endMs + tailMs;
      const nextMs = next === undefined ? 0 : tailMs === undefined ? spanStartMs(words, next.firstWord) : words[endWord]!.startMs - (leftMs! - tailMs);
      return beginsAt(nextMs, k + 1) ? [{ leftMs, endMs, nextMs }] : [];
    });
    const on = new Map<number, Way>();
    for (const [carried, before] of ways)
      for (const { leftMs, endMs, nextMs } of choices)
        if (frameAt(carried + endMs, rate) === frames && !on.has(carried + endMs - nextMs)) on.set(carried + endMs - nextMs, { leftMs, before });
    ways = on;
  }
  return ways.values().next().value ?? null;
}

/** Frames by which ends differ, all together; beyond all where there are not as many spans. */
function wrongFrames(played: readonly FrameSpan[], spans: readonly FrameSpan[]): number {
  const [a, b] = [joinedFrames(played), joinedFrames(spans)];
  if (a.length !== b.length) return Number.MAX_SAFE_INTEGER;
  return a.reduce((sum, one, i) => sum + Math.abs(one.startFrame - b[i]!.startFrame) + Math.abs(one.endFrame - b[i]!.endFrame), 0);
}

/** Spans between which no frame is left out are one. */
export function joinedFrames(spans: readonly FrameSpan[]): FrameSpan[] {
  const out: FrameSpan[] = [];
  for (const one of spans) {
    const last = out.at(-1);
    if (last?.endFrame === one.startFrame) out[out.length - 1] = { startFrame: last.startFrame, endFrame: one.endFrame };
    else out.push(one);
  }
  return out;
}

function offBy(words: readonly Word[], passage: EditedPassage, joined: readonly FrameSpan[], rate: FrameRate): number {
  const ends = cutListOf(words, playedRuns(words, passage)).flatMap(({ startMs, endMs }) => [startMs, endMs]);
  const nearest = (ms: number): number => Math.min(...ends.map((end) => Math.abs(end - ms)));
  const offs = joined.flatMap((span) => {
    const [startMs, endMs] = [frameStartMs(span.startFrame, rate), frameStartMs(span.endFrame, rate)];
    // Where nobody speaks, nothing is played.
    return heardIn(words, span, rate).length === 0 ? [endMs - startMs] : [nearest(startMs), nearest(endMs)];
  });
  return Math.max(...offs);
}
