import { joinSplitWords } from './join-words.js';
import type { RawCue, Repair } from './types.js';

/** A cue whose times can be trusted: in order, positive length, not overlapping its neighbours. */
export interface Cue extends RawCue {
  readonly endMs: number;
}

/** Slow talk is about 11 characters a second; a cue without a believable end is given that pace. Common practice. */
const MS_PER_CHARACTER = 90;
const SHORTEST_CUE_MS = 300;
/** Captions stay on the screen for seconds; one that stays for two minutes was left open by mistake. */
const ENDLESS_MS = 120_000;

function speakingMs(text: string): number {
  return Math.max(SHORTEST_CUE_MS, text.trim().length * MS_PER_CHARACTER);
}

/**
 * Puts right what can only be meant one way: order, empty cues, times below zero, ends before starts, ends that never
 * come, overlaps, captions that roll up (each cue repeating the line before), and words split over lines or cues. Every
 * repair is listed.
 */
export function repairCues(raw: readonly RawCue[]): { cues: Cue[]; repairs: Repair[] } {
  const repairs: Repair[] = [];
  const kept = dropEmpty(raw, repairs);
  const ordered = putInOrder(
    kept.map((cue) => liftNegative(cue, repairs)),
    repairs,
  );
  const fresh = joinSplitWords(dropRepeats(ordered, repairs), repairs);
  return { cues: closeAndSeparate(fresh, repairs), repairs };
}

function dropEmpty(raw: readonly RawCue[], repairs: Repair[]): RawCue[] {
  return raw.filter((cue) => {
    if (cue.text.trim() !== '') return true;
    repairs.push({ line: cue.line, code: 'empty', detail: 'a cue without words was left out' });
    return false;
  });
}

function liftNegative(cue: RawCue, repairs: Repair[]): RawCue {
  if (cue.startMs >= 0) return cue;
  repairs.push({ line: cue.line, code: 'negative-time', detail: `starts ${-cue.startMs} ms before the recording; moved to its start` });
  return { ...cue, startMs: 0, endMs: cue.endMs !== null && cue.endMs > 0 ? cue.endMs : null };
}

function putInOrder(cues: RawCue[], repairs: Repair[]): RawCue[] {
  let latest = -1;
  let unordered = false;
  for (const cue of cues) {
    if (cue.startMs < latest) {
      unordered = true;
      repairs.push({ line: cue.line, code: 'unordered', detail: 'starts before the cue above it; sorted by time' });
    }
    latest = Math.max(latest, cue.startMs);
  }
  return unordered ? [...cues].sort((a, b) => a.startMs - b.startMs) : cues; // the sort is stable
}

/** The first and the last line of a cue, which are one where it has no more. */
function edgeLines(text: string): { first: string; last: string; several: boolean } {
  const whole = text.trim();
  const firstEnd = whole.indexOf('\n');
  if (firstEnd < 0) return { first: whole, last: whole, several: false };
  return { first: whole.slice(0, firstEnd).trim(), last: whole.slice(whole.lastIndexOf('\n') + 1).trim(), several: true };
}

/** Captions roll when many cues show the line before once more above their own. People repeat each other, too: one is no proof. */
const ROLLING_SHARE = 0.1;

/** Rolling captions: a cue that starts with the whole last line of the cue before it says only what follows. */
function dropRepeats(cues: readonly RawCue[], repairs: Repair[]): RawCue[] {
  const lines = cues.map(({ text }) => edgeLines(text));
  const repeats = (i: number): boolean => i > 0 && lines[i]!.first === lines[i - 1]!.last;
  const rolling = lines.filter((own, i) => own.several && repeats(i)).length;
  if (rolling === 0 || rolling < ROLLING_SHARE * cues.length) return [...cues];
  const fresh: RawCue[] = [];
  cues.forEach((cue, i) => {
    if (!repeats(i)) {
      fresh.push(cue);
      return;
    }
    const first = lines[i]!.first;
    repairs.push({ line: cue.line, code: 'repeated-line', detail: `repeats “${first.slice(0, 40)}”` });
    if (!lines[i]!.several) return;
    const cutAt = cue.text.indexOf(first) + first.length;
    const stamps = cue.stamps?.filter((stamp) => stamp.at >= cutAt).map((stamp) => ({ ...stamp, at: stamp.at - cutAt }));
    fresh.push({ ...cue, text: cue.text.slice(cutAt), ...(stamps === undefined ? {} : { stamps }) });
  });
  return fresh;
}

function closeAndSeparate(cues: readonly RawCue[], repairs: Repair[]): Cue[] {
  const closed = cues.map((cue, i) => closeCue(cue, cues[i + 1], repairs));
  for (let i = 0; i + 1 < closed.length; i += 1) separate(closed, i, repairs);
  return closed;
}

function closeCue(cue: RawCue, next: RawCue | undefined, repairs: Repair[]): Cue {
  const guess = cue.startMs + speakingMs(cue.text);
  const untilNext = next !== undefined && next.startMs > cue.startMs ? Math.min(guess, next.startMs) : guess;
  if (cue.endMs === null) return { ...cue, endMs: untilNext };
  if (cue.endMs <= cue.startMs) {
    repairs.push({ line: cue.line, code: 'negative-length', detail: 'ends before it starts; given the time its words take' });
    return { ...cue, endMs: untilNext };
  }
  if (cue.endMs - cue.startMs > ENDLESS_MS && cue.endMs - cue.startMs > 3 * speakingMs(cue.text)) {
    repairs.push({ line: cue.line, code: 'endless', detail: `stays for ${Math.round((cue.endMs - cue.startMs) / 1_000)} s; given the time its words take` });
    return { ...cue, endMs: untilNext };
  }
  return { ...cue, endMs: cue.endMs };
}

/** Two cues over one another: the earlier ends where the later starts, or both share the time where they start together. */
function separate(cues: Cue[], i: number, repairs: Repair[]): void {
  const cue = cues[i]!;
  let next = cues[i + 1]!;
  if (next.startMs < cue.startMs) next = { ...next, startMs: cue.startMs, endMs: Math.max(next.endMs, cue.startMs + 1) }; // pushed on by one before
  cues[i + 1] = next;
  if (cue.endMs <= next.startMs) return;
  repairs.push({ line: next.line, code: 'overlap', detail: `starts ${cue.endMs - next.startMs} ms before the cue above ends` });
  if (next.startMs - cue.startMs >= SHORTEST_CUE_MS) {
    cues[i] = { ...cue, endMs: next.startMs };
    return;
  }
  const endMs = Math.max(cue.endMs, next.endMs, cue.startMs + 2);
  const share = cue.text.length / (cue.text.length + next.text.length);
  const cut = Math.min(endMs - 1, Math.max(cue.startMs + 1, Math.round(cue.startMs + (endMs - cue.startMs) * share)));
  cues[i] = { ...cue, endMs: cut };
  cues[i + 1] = { ...next, startMs: cut, endMs: Math.max(cut + 1, next.endMs) };
}
