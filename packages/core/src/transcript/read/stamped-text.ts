import { decodeHTML } from 'entities';
import { parseClock } from '../../time/timecode.js';
import { type RawCue, TranscriptRefusedError } from '../types.js';
import { boundWords } from '../bound-words.js';
import { CueList, type ReadCues } from './cue-list.js';
import { splitSpeakerLabel } from './cue-text.js';
import { LineCursor } from './line-cursor.js';
import { headStyleOf, isHead, NAME, withStamp } from './spoken-heads.js';

const STAMP = /[[(]((?:\d{1,2}:)?\d{1,3}:\d{2}(?:[.,]\d{1,3})?)[\])]/g;
/** Without the `g` flag, which would carry a position from one line to the next. */
const ANY_STAMP = new RegExp(STAMP.source);
const BARE_LINE = /^\s*((?:\d{1,2}:)?\d{1,3}:\d{2}(?:[.,]\d{1,3})?)\s+(?=\S)/;

const LONGEST_NAME = 200;
/** A speaker's name before a stamp: nothing else stands there. */
const NAME_ALONE = new RegExp(String.raw`^\s*(${NAME})\s*:?\s*$`, 'u');

/** True when a line carries a stamp `[mm:ss]` or `[hh:mm:ss]`, starts with a bare one, or names who speaks and when. */
export function hasStamp(line: string): boolean {
  return ANY_STAMP.test(line) || BARE_LINE.test(line) || isHead(line);
}

/** A line that goes on with what was said, or in which somebody else begins whose name was seen before. */
interface RunOn {
  readonly line: number;
  readonly text: string;
}

/**
 * Reads plain text with times in brackets, anywhere in the line, or bare at its beginning; text runs on until the next stamp. A
 * speaker may be named before or after the stamp ("Obi [02:14]: Right", "[02:14] Obi: Right", "Obi 02:14" above what he says, "02:14
 * Obi" where the whole text is like that), and where somebody takes over between two stamps ("Ada: …"), what is between them is spread
 * over their words. Text before the first stamp is a title block and is left out, which is said in the repairs.
 * @throws TranscriptRefusedError `bad-time` for a stamp that is no time, such as [02:75]
 */
export function readStampedText(text: string): ReadCues {
  const found = new CueList();
  const style = headStyleOf(text);
  const named = new Set<string>();
  const cues: (RawCue & { readonly own: boolean })[] = [];
  let speaker: string | null = null;
  const runOn = new Map<number, RunOn[]>();
  let said = 0;
  for (const lines = new LineCursor(text); !lines.done; lines.next()) {
    const number = lines.number;
    const written = withStamp(found.payload(lines.text, number), style);
    const line = boundWords(decodeHTML(written.replace(BARE_LINE, '[$1] ')));
    const lead = line.slice(0, ANY_STAMP.exec(line)?.index).trim();
    let own = false;
    if (lead !== '') {
      const alone = lead.length <= LONGEST_NAME ? NAME_ALONE.exec(lead) : null;
      if (alone !== null && ANY_STAMP.test(line)) {
        speaker = alone[1]!;
        named.add(speaker);
        own = true;
      } else if (cues.length === 0)
        found.note({ line: number, code: 'unknown-block', detail: `“${lead.slice(0, 40)}” stands before the first time and was left out` });
      else {
        found.count(lead.length, number);
        gather(runOn, cues.length - 1, { line: number, text: lead });
      }
    }
    for (const piece of cutAtStamps(line, number)) {
      const label = splitSpeakerLabel(piece.text.replace(/^\s*[:\-–—]\s+/, ''));
      if (label.speaker !== null) {
        speaker = label.speaker;
        named.add(speaker);
      }
      found.room(cues.length, number);
      found.expect((said += label.text.length), number);
      cues.push({ line: number, startMs: piece.startMs, endMs: null, speaker, text: label.text.trim(), own: own || label.speaker !== null });
      own = false;
    }
  }
  for (const cue of takeOver(cues, runOn, named)) found.add(cue);
  return found;
}

/** Said in a second by somebody who speaks fast, in characters; only where no later time tells. */
const CHARACTERS_A_SECOND = 15;

/** Cues with what runs on in them; those in which somebody takes over are cut there. */
function* takeOver(
  cues: readonly (RawCue & { readonly own: boolean })[],
  runOn: ReadonlyMap<number, readonly RunOn[]>,
  named: ReadonlySet<string>,
): Generator<RawCue> {
  const known = namesOf(runOn, named);
  let last: string | null = null;
  for (const [i, { own, ...cue }] of cues.entries()) {
    const parts: { line: number; speaker: string | null; texts: string[] }[] = [
      { line: cue.line, speaker: own ? cue.speaker : (last ?? cue.speaker), texts: [cue.text] },
    ];
    for (const { line, text } of runOn.get(i) ?? []) {
      const label = splitSpeakerLabel(text);
      if (label.speaker !== null && known.has(label.speaker)) parts.push({ line, speaker: label.speaker, texts: [label.text] });
      else parts.at(-1)!.texts.push(text);
    }
    last = parts.at(-1)!.speaker;
    // Joined once: a text of a million lines would be copied as often else.
    const said = parts.map(({ line, speaker, texts }) => ({ line, speaker, text: texts.join(' ').trim() }));
    const characters = said.reduce((sum, { text }) => sum + text.length, 0);
    const nextMs = cues[i + 1]?.startMs ?? -1;
    const lengthMs = nextMs > cue.startMs ? nextMs - cue.startMs : (characters / CHARACTERS_A_SECOND) * 1_000;
    let before = 0;
    for (const [k, { line, speaker, text }] of said.entries()) {
      const startMs = k === 0 ? cue.startMs : cue.startMs + Math.round((lengthMs * before) / Math.max(1, characters));
      before += text.length;
      yield { ...cue, line, startMs, speaker, text };
    }
  }
}

/** What is said from each stamp of a line to the next, one after another. */
function* cutAtStamps(line: string, lineNumber: number): Generator<{ startMs: number; text: string }> {
  let last: { startMs: number; from: number } | null = null;
  for (const mark of line.matchAll(STAMP)) {
    if (last !== null) yield { startMs: last.startMs, text: line.slice(last.from, mark.index) };
    const startMs = parseClock(mark[1]!);
    if (startMs === null) throw new TranscriptRefusedError(lineNumber, 'bad-time', `“${mark[0]}” is no time; expected [mm:ss] or [hh:mm:ss]`);
    last = { startMs, from: mark.index + mark[0].length };
  }
  if (last !== null) yield { startMs: last.startMs, text: line.slice(last.from) };
}

/** Names that stand at a time somewhere, or before a colon more than once: what does so once is mostly said. */
function namesOf(runOn: ReadonlyMap<number, readonly RunOn[]>, named: ReadonlySet<string>): Set<string> {
  const seen = new Map<string, number>();
  for (const lines of runOn.values())
    for (const { text } of lines) {
      const { speaker } = splitSpeakerLabel(text);
      if (speaker !== null) seen.set(speaker, (seen.get(speaker) ?? 0) + 1);
    }
  return new Set([...named, ...[...seen].filter(([, times]) => times > 1).map(([name]) => name)]);
}

function gather(runOn: Map<number, RunOn[]>, at: number, line: RunOn): void {
  const lines = runOn.get(at);
  if (lines === undefined) runOn.set(at, [line]);
  else lines.push(line);
}
