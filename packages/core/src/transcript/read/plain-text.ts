import { boundWords } from '../bound-words.js';
import { TranscriptRefusedError } from '../types.js';
import { splitIntoPieces } from '../words.js';
import { splitSpeakerLabel } from './cue-text.js';
import { LineCursor } from './line-cursor.js';

/** What somebody says in one paragraph. `line` counts from 1. */
export interface SaidLine {
  readonly line: number;
  readonly speaker: string | null;
  readonly text: string;
}

const FOLLOWS = '\u2060';
const MOST_WORDS = 1_000_000;
/** What has this in it was meant as something else. */
const NOT_TALK = /-->|^\s*[<{]/;

/**
 * Reads text without times: a paragraph a line, begun by a name and a colon where the speaker changes ("Ada: So…"). A paragraph without
 * a name goes on with the speaker before; a name on a line of its own speaks what follows.
 * @throws TranscriptRefusedError `unknown-format` for markup or cues, `no-cues` where there is no word, `too-long`
 */
export function readPlainText(text: string): SaidLine[] {
  const said: SaidLine[] = [];
  let speaker: string | null = null;
  let words = 0;
  for (const lines = new LineCursor(text); !lines.done; lines.next()) {
    const { number } = lines;
    const line = boundWords(lines.text).replace(/\s+/g, ' ').trim();
    if (line === '') continue;
    if (NOT_TALK.test(line)) throw new TranscriptRefusedError(number, 'unknown-format', `“${line.slice(0, 40)}” is neither talk nor a time`);
    // A name alone is a label too: something must follow it to be seen as one.
    const label = splitSpeakerLabel(line.endsWith(':') ? `${line} ${FOLLOWS}` : line);
    speaker = label.speaker ?? speaker;
    const rest = label.text.replace(FOLLOWS, '').trim();
    if (rest === '') continue;
    words += splitIntoPieces(rest).length;
    if (words > MOST_WORDS) throw new TranscriptRefusedError(number, 'too-long', `more than ${MOST_WORDS} words; is it one recording?`);
    said.push({ line: number, speaker, text: rest });
  }
  if (words === 0) throw new TranscriptRefusedError(1, 'no-cues', 'there are no words in it');
  return said;
}
