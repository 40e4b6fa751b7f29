import { decodeHTML } from 'entities';
import { boundWords } from '../bound-words.js';
import { type RawCue, TranscriptRefusedError } from '../types.js';
import { CueList, type ReadCues } from './cue-list.js';
import { splitSpeakerLabel } from './cue-text.js';
import { LineCursor } from './line-cursor.js';

const TIME = String.raw`(\d{1,3}):(\d{2})(?:[.:](\d{1,3}))?`;
const LINE_TIME = new RegExp(String.raw`^\s*\[${TIME}\]`);
const WORD_TIME = new RegExp(String.raw`<${TIME}>`, 'g');
/** Tags that name the piece; what stands in brackets and is none of them is no tag. */
const ID_TAG = /^\s*\[(ti|ar|al|au|lr|length|by|offset|re|tool|ve|#):?([^\]]*)\]\s*$/i;
const MOST_TIMES = 200;

/** True where lines are timed as in LRC and not only stamped: it names itself, times words, or repeats a line at several times. */
export function isLrc(text: string): boolean {
  let looked = 0;
  let timed = false;
  let named = false;
  for (const lines = new LineCursor(text); !lines.done && looked < 400; lines.next(), looked += 1) {
    const line = lines.text;
    if (line.length > 5_000) return false;
    named ||= ID_TAG.test(line);
    const first = LINE_TIME.exec(line);
    if (first === null) continue;
    timed = true;
    if (LINE_TIME.test(line.slice(first[0].length)) || /<\d{1,3}:\d{2}[.:]\d{1,3}>/.test(line)) return true;
  }
  return named && timed;
}

/**
 * Reads LRC, the lyrics file as players take it (no standard; common practice): `[mm:ss.xx]` before a line, several of them where it
 * comes again, `<mm:ss.xx>` before a word, `[offset:±ms]` for all, where a positive one makes lines come sooner.
 * @throws TranscriptRefusedError `bad-time` for a time such as [02:75.00]
 */
export function readLrc(text: string): ReadCues {
  const found = new CueList();
  let offsetMs = 0;
  const cues: RawCue[] = [];
  for (const lines = new LineCursor(text); !lines.done; lines.next()) {
    const number = lines.number;
    let line = found.payload(lines.text, number);
    const tag = ID_TAG.exec(line);
    if (tag !== null) {
      if (tag[1]!.toLowerCase() === 'offset') offsetMs = offsetOf(tag[2]!, number);
      continue;
    }
    const starts: number[] = [];
    for (let time = LINE_TIME.exec(line); time !== null; time = LINE_TIME.exec(line)) {
      if (starts.length >= MOST_TIMES) throw new TranscriptRefusedError(number, 'bad-time', `more than ${MOST_TIMES} times before one line`);
      starts.push(msOf(time, number));
      line = line.slice(time[0].length);
    }
    if (starts.length === 0) {
      if (line.trim() !== '') found.note({ line: number, code: 'unknown-block', detail: `“${line.trim().slice(0, 40)}” has no time and was left out` });
      continue;
    }
    const said = wordsOf(line, number);
    // An empty line ends the one before it, and says nothing itself.
    for (const startMs of starts) {
      found.count(said.text.length, number);
      found.room(cues.length, number);
      cues.push({
        line: number,
        startMs,
        endMs: null,
        speaker: said.speaker,
        text: said.text,
        // Times of words are those of the first time: where a line comes again, they move with it.
        ...(said.stamps.length === 0 ? {} : { stamps: said.stamps.map((one) => ({ at: one.at, startMs: one.startMs + startMs - starts[0]! })) }),
      });
    }
  }
  cues.sort((a, b) => a.startMs - b.startMs);
  for (const [i, cue] of cues.entries())
    if (cue.text !== '')
      found.add({
        ...cue,
        startMs: Math.max(0, cue.startMs - offsetMs),
        endMs: cues[i + 1] === undefined ? null : Math.max(0, cues[i + 1]!.startMs - offsetMs),
        ...(cue.stamps === undefined ? {} : { stamps: cue.stamps.map((one) => ({ at: one.at, startMs: Math.max(0, one.startMs - offsetMs) })) }),
      });
  return found;
}

function msOf([whole, minutes, seconds, fraction = '0']: RegExpMatchArray, line: number): number {
  if (Number(seconds) > 59) throw new TranscriptRefusedError(line, 'bad-time', `“${whole.trim()}” is no time; expected [mm:ss.xx]`);
  return (Number(minutes) * 60 + Number(seconds)) * 1_000 + Math.round(Number(`0.${fraction}`) * 1_000);
}

function offsetOf(value: string, line: number): number {
  if (!/^\s*[+-]?\d{1,8}\s*$/.test(value)) throw new TranscriptRefusedError(line, 'bad-field', `“${value.slice(0, 20)}” is no number of ms`, 'offset');
  return Number(value);
}

function wordsOf(line: string, number: number): { text: string; speaker: string | null; stamps: { at: number; startMs: number }[] } {
  const stamps: { at: number; startMs: number }[] = [];
  let text = '';
  let last = 0;
  const add = (piece: string): void => {
    const plain = boundWords(decodeHTML(piece)).replace(/\s+/g, ' ');
    text += text === '' || text.endsWith(' ') ? plain.trimStart() : plain;
  };
  for (const mark of line.matchAll(WORD_TIME)) {
    add(line.slice(last, mark.index));
    stamps.push({ at: text.length, startMs: msOf(mark, number) });
    last = mark.index + mark[0].length;
  }
  add(line.slice(last));
  const label = stamps.length === 0 ? splitSpeakerLabel(text) : { speaker: null, text };
  // A time after the last word ends it and begins none.
  return { text: label.text.trimEnd(), speaker: label.speaker, stamps: stamps.filter(({ at }) => at < text.trimEnd().length) };
}
