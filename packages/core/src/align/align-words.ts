import type { Span } from '../time/span.js';
import { matchWords } from './match-words.js';
import type { Aligned, HeardWord } from './types.js';

/** How a word is compared with what was heard: lower case, letters, digits and apostrophes; empty for what nobody says. */
export function heardForm(text: string): string {
  return text
    .toLowerCase()
    .replace(/[’‘`]/g, "'")
    .replace(/[^\p{L}\p{N}']+/gu, '')
    .replace(/^'+|'+$/g, '');
}

/** Said at most so fast, in ms a letter: what lies closer together was matched by chance. */
const FASTEST_MS_PER_LETTER = 18;
/** A match that stands alone is believed only where the matches beside it leave room for what lies between. */
const ALONE = 2;
/** What nobody heard at the end or the beginning is said about as slowly as this, in ms a letter. */
const MS_PER_LETTER = 75;
const SHORTEST_MS = 20;
/** What sums of fractions are off by. */
const HAIR_MS = 0.01;

/**
 * Gives the words of a text the times at which a recogniser heard them. A word that it misheard lies between its neighbours: over what
 * was heard there, by its length; where nothing was heard, over the time between.
 * @param texts of the words; a mark such as "[laughter]" has an empty text
 * @param heard rough words in order, in ms of the recording
 * @param lengthMs of the recording
 * @param known times that the words have so far, spread over cues; where nothing was heard, they tell how what lies between is divided
 */
export function alignWords(texts: readonly string[], heard: readonly HeardWord[], lengthMs: number, known: readonly Span[] | null = null): Aligned {
  const said = texts.map(heardForm);
  const matches = matchWords(
    said,
    heard.map(({ text }) => heardForm(text)),
  );
  dropChance(said, heard, matches);
  const spans: Span[] = [];
  let heardCount = 0;
  for (let i = 0; i < said.length;) {
    const at = matches[i]!;
    if (at >= 0) {
      spans.push({ startMs: heard[at]!.startMs, endMs: heard[at]!.endMs });
      heardCount += 1;
      i += 1;
      continue;
    }
    let to = i;
    while (to < said.length && matches[to]! < 0) to += 1;
    const before = i === 0 ? -1 : matches[i - 1]!;
    const after = to === said.length ? heard.length : matches[to]!;
    const unheard = said.slice(i, to);
    const bounds = boundsOf(unheard, heard[before], heard[after], lengthMs);
    const between = heard.slice(before + 1, after).filter(({ startMs, endMs }) => endMs > startMs);
    if (between.length === 0 && known !== null) spans.push(...stretched(known.slice(i, to), bounds));
    else spans.push(...placed(unheard, between.length === 0 ? [bounds] : between));
    i = to;
  }
  const sayable = said.filter((word) => word !== '').length;
  return { spans: inOrder(spans), share: sayable === 0 ? 0 : heardCount / sayable, used: heard.length === 0 ? 0 : heardCount / heard.length };
}

/** Takes back short islands of matches between which there is no time to say what lies between. */
function dropChance(said: readonly string[], heard: readonly HeardWord[], matches: Int32Array): void {
  const islands: { from: number; to: number }[] = [];
  for (let i = 0; i < said.length; i += 1) {
    if (matches[i]! < 0) continue;
    const last = islands.at(-1);
    if (last !== undefined && last.to === i && matches[i] === matches[i - 1]! + 1) last.to = i + 1;
    else islands.push({ from: i, to: i + 1 });
  }
  const roomBetween = (from: number, to: number): boolean => {
    let letters = 0;
    for (let i = from; i < to; i += 1) letters += said[i]!.length;
    return heard[matches[to]!]!.startMs - heard[matches[from - 1]!]!.endMs >= letters * FASTEST_MS_PER_LETTER;
  };
  let before: { readonly to: number } | null = null;
  for (const [k, island] of islands.entries()) {
    const { from, to } = island;
    const after = islands[k + 1];
    const fits = (before === null || roomBetween(before.to, from)) && (after === undefined || roomBetween(to, after.from));
    if (to - from > ALONE || fits) before = island;
    else matches.fill(-1, from, to);
  }
}

/** When what was not heard can have been said. */
function boundsOf(words: readonly string[], before: HeardWord | undefined, after: HeardWord | undefined, lengthMs: number): Span {
  const needs = words.reduce((sum, word) => sum + Math.max(1, word.length), 0) * MS_PER_LETTER;
  const startMs = before?.endMs ?? Math.max(0, (after?.startMs ?? lengthMs) - needs);
  return { startMs, endMs: Math.max(startMs, after?.startMs ?? Math.min(lengthMs, startMs + needs)) };
}

/** Known times, made to fit. */
function stretched(known: readonly Span[], { startMs, endMs }: Span): Span[] {
  const [from, to] = [known[0]!.startMs, known.at(-1)!.endMs];
  const at = (ms: number): number => startMs + ((ms - from) * (endMs - startMs)) / Math.max(1, to - from);
  return known.map((one) => ({ startMs: at(one.startMs), endMs: at(one.endMs) }));
}

/** Lays words over stretches of speech, by their length; the pauses between are left out. */
function placed(words: readonly string[], over: readonly Span[]): Span[] {
  const total = over.reduce((sum, { startMs, endMs }) => sum + endMs - startMs, 0);
  const weights = words.map((word) => Math.max(1, word.length));
  const letters = weights.reduce((sum, one) => sum + one, 0);
  // Both walk on together: a text of another sound is a hundred thousand words over as many stretches.
  let [at, passedMs, said] = [0, 0, 0];
  const long = (): number => over[at]!.endMs - over[at]!.startMs;
  const spoken = (): number => (said / letters) * total - passedMs;
  return weights.map((weight) => {
    while (spoken() > long() - HAIR_MS && at < over.length - 1) {
      passedMs += long();
      at += 1;
    }
    const startMs = over[at]!.startMs + Math.min(spoken(), long());
    said += weight;
    // The end of one stretch is the end of a word, not the beginning of the pause after it.
    while (spoken() > long() + HAIR_MS && at < over.length - 1) {
      passedMs += long();
      at += 1;
    }
    return { startMs, endMs: over[at]!.startMs + Math.min(spoken(), long()) };
  });
}

/** Whole ms, rising, none empty. */
function inOrder(spans: readonly Span[]): Span[] {
  let lastMs = 0;
  return spans.map(({ startMs, endMs }, i) => {
    const start = Math.max(lastMs, Math.round(startMs));
    const next = spans[i + 1];
    const end = Math.max(start + 1, Math.min(Math.max(Math.round(endMs), start + SHORTEST_MS), Math.max(start + 1, Math.round(next?.startMs ?? Infinity))));
    lastMs = end;
    return { startMs: start, endMs: end };
  });
}
