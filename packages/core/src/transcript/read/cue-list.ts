import { type RawCue, type Repair, TranscriptRefusedError } from '../types.js';

export interface ReadCues {
  readonly cues: readonly RawCue[];
  readonly repairs: readonly Repair[];
}

/**
 * Far more than the 48 hours a recording may last hold (300 words a minute are 5 million characters); more is something
 * else, and would take the machine's memory.
 */
const MOST_CUES = 500_000;
const MOST_CHARACTERS = 5_000_000;
const MOST_REPAIRS = 500_000;

/** Cues as they are read. What is too much is refused while it comes, not when it is all there. */
export class CueList implements ReadCues {
  readonly cues: RawCue[] = [];
  readonly repairs: Repair[] = [];
  private characters = 0;

  /** @throws TranscriptRefusedError `too-long` */
  add(cue: RawCue): void {
    this.room(this.cues.length, cue.line);
    this.count(cue.text.length, cue.line);
    this.cues.push(cue);
  }

  /** Refuses one more cue beside so many, for a reader that gathers before it adds. @throws TranscriptRefusedError `too-long` */
  room(cues: number, line: number): void {
    if (cues >= MOST_CUES) throw new TranscriptRefusedError(line, 'too-long', `more than ${MOST_CUES} cues; is it one recording?`);
  }

  /** Counts text that will be part of a cue. @throws TranscriptRefusedError `too-long` */
  count(characters: number, line: number): void {
    this.characters += characters;
    if (this.characters > MOST_CHARACTERS)
      throw new TranscriptRefusedError(line, 'too-long', `more than ${MOST_CHARACTERS} characters of talk; is it one recording?`);
  }

  /** Refuses a cue that is being gathered as soon as it is too long. @throws TranscriptRefusedError `too-long` */
  expect(characters: number, line: number): void {
    if (this.characters + characters > MOST_CHARACTERS) this.count(characters, line);
  }

  /** Text with its marks as the file has it, of one cue. @throws TranscriptRefusedError `too-long` */
  payload(text: string, line: number): string {
    if (text.length > MOST_CHARACTERS) throw new TranscriptRefusedError(line, 'too-long', `one cue of more than ${MOST_CHARACTERS} characters`);
    return text;
  }

  /** @throws TranscriptRefusedError `too-long` */
  note(repair: Repair): void {
    if (this.repairs.length >= MOST_REPAIRS)
      throw new TranscriptRefusedError(repair.line, 'too-long', `more than ${MOST_REPAIRS} places to put right; is it a transcript?`);
    this.repairs.push(repair);
  }
}
