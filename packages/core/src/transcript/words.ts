import type { Cue } from './repair-cues.js';
import { TranscriptRefusedError, type Word, type WordKind, type WordTimes } from './types.js';

const SOUNDS =
  'laugh|laughs|laughter|laughing|chuckles?|giggles?|applause|clapping|cheer(?:s|ing)?|music|inaudible|unintelligible|crosstalk|sighs?|coughs?|pause|silence|indistinct|noise|beep|gasps?|sniffs?|whistles?|snorts?|groans?|bell|ringing|static';
const MARK_IN_PARENS = new RegExp(`^\\((?:[^()]{0,24}\\b)?(?:${SOUNDS})\\b[^()]{0,24}\\)`, 'i');
const MARK_IN_STARS = new RegExp(`^\\*(?:${SOUNDS})\\*`, 'i');

/** Splits cue text at white space, keeping a mark such as "[dog barks]" or "♪ la la ♪" as one piece. */
export function splitIntoPieces(text: string): { text: string; kind: WordKind; at: number }[] {
  const pieces: { text: string; kind: WordKind; at: number }[] = [];
  const space = /\s+/y;
  const bracket = /\[[^\]\n]{1,80}\]|[♪♫♬]+[^♪♫♬]*[♪♫♬]*/y;
  const bare = /[^\s[♪♫♬]+|\S/y;
  let at = 0;
  while (at < text.length) {
    space.lastIndex = at;
    if (space.test(text)) {
      at = space.lastIndex;
      continue;
    }
    const rest = text.slice(at, at + 80);
    const inParens = MARK_IN_PARENS.exec(rest) ?? MARK_IN_STARS.exec(rest);
    bracket.lastIndex = at;
    bare.lastIndex = at;
    const mark = inParens?.[0] ?? bracket.exec(text)?.[0];
    const piece = mark ?? bare.exec(text)![0];
    pieces.push({ text: piece.replace(/\s+/g, ' ').trim(), kind: mark === undefined ? 'word' : 'mark', at });
    at += piece.length;
  }
  return pieces.filter((piece) => piece.kind === 'mark' || /[\p{L}\p{N}$€£%&+]/u.test(piece.text) || joinPunctuation(piece.text));
}

/** Lone punctuation ("-", "…") is no word; it is dropped rather than given a time of its own. */
function joinPunctuation(text: string): boolean {
  return /\p{Emoji_Presentation}/u.test(text);
}

/** A slow speaker takes about 130 ms a character; words are not stretched further over a cue that stays long. */
const SLOWEST_MS_PER_CHARACTER = 130;

interface SpokenWords {
  readonly words: Word[];
  readonly speakers: string[];
  readonly wordTimes: WordTimes;
  /** Words at which the file says that somebody else begins to speak, though not always who. */
  readonly turnStarts: ReadonlySet<number>;
  /** Words that begin a line or a cue of the file. */
  readonly lineStarts: ReadonlySet<number>;
  /** For each word, the line of the file it came from. */
  readonly lines: Int32Array;
}

/** 48 hours at 350 words a minute, which nobody keeps up. */
const MOST_WORDS = 1_000_000;

/**
 * Words with times: stamps inside the cue where there are some, else the cue's time spread by the length of the words.
 * @throws TranscriptRefusedError `too-long`
 */
export function wordsFromCues(cues: readonly Cue[]): SpokenWords {
  const words: Word[] = [];
  const lines: number[] = [];
  const turnStarts = new Set<number>();
  const lineStarts = new Set<number>();
  const speakers = new Map<string, number>();
  let stamped = 0;
  let lastEndMs = 0;
  for (const cue of cues) {
    const pieces = splitIntoPieces(cue.text);
    if (words.length + pieces.length > MOST_WORDS)
      throw new TranscriptRefusedError(cue.line, 'too-long', `more than ${MOST_WORDS} words; is it one recording?`);
    const speaker = cue.speaker === null ? -1 : (speakers.get(cue.speaker) ?? speakers.set(cue.speaker, speakers.size).get(cue.speaker)!);
    const times = timesOf(pieces, cue);
    if (cue.turn === true) turnStarts.add(words.length);
    if (cue.stamps !== undefined && cue.stamps.length > 0) stamped += pieces.length;
    pieces.forEach((piece, k) => {
      if (k === 0 || cue.text.slice(pieces[k - 1]!.at, piece.at).includes('\n')) lineStarts.add(words.length);
      const startMs = Math.max(lastEndMs, times[k]!.startMs);
      const endMs = Math.max(startMs + 1, times[k]!.endMs);
      words.push({ text: piece.text, kind: piece.kind, speaker, startMs, endMs });
      lines.push(cue.line);
      lastEndMs = endMs;
    });
  }
  const wordTimes = words.length > 0 && stamped >= words.length / 2 ? 'given' : 'spread';
  return { words, speakers: [...speakers.keys()], wordTimes, turnStarts, lineStarts, lines: Int32Array.from(lines) };
}

function timesOf(pieces: readonly { text: string; at: number }[], cue: Cue): { startMs: number; endMs: number }[] {
  const stamps = (cue.stamps ?? []).filter((stamp) => stamp.startMs >= cue.startMs && stamp.startMs < cue.endMs);
  const times: { startMs: number; endMs: number }[] = [];
  let from = 0;
  let startMs = cue.startMs;
  for (let s = 0; s <= stamps.length; s += 1) {
    const stamp = stamps[s];
    let to = from;
    while (to < pieces.length && (stamp === undefined || pieces[to]!.at < stamp.at)) to += 1;
    const nextMs = Math.max(startMs, stamp?.startMs ?? cue.endMs);
    const saidUntil = stamps[s - 1]?.endMs ?? null; // where the file says how long a word lasts, it lasts no longer
    if (saidUntil !== null && saidUntil > startMs) spread(pieces.slice(from, to), startMs, Math.min(nextMs, saidUntil), times, Infinity);
    else spread(pieces.slice(from, to), startMs, nextMs, times);
    from = to;
    startMs = stamp?.startMs ?? startMs;
  }
  return times;
}

function spread(
  pieces: readonly { text: string }[],
  startMs: number,
  endMs: number,
  into: { startMs: number; endMs: number }[],
  slowestMs = SLOWEST_MS_PER_CHARACTER,
): void {
  const weights = pieces.map((piece) => piece.text.length + 2); // two for the onset, so that "I" is not over at once
  const total = weights.reduce((sum, weight) => sum + weight, 0);
  const length = Math.min(endMs - startMs, total * slowestMs);
  let before = 0;
  for (const weight of weights) {
    const from = startMs + Math.round((length * before) / total);
    before += weight;
    into.push({ startMs: from, endMs: startMs + Math.round((length * before) / total) });
  }
}
