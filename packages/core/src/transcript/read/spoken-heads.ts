import { LineCursor } from './line-cursor.js';

const TIME = String.raw`(?:\d{1,2}:)?\d{1,3}:\d{2}(?:[.,]\d{1,3})?`;
/** White space as people write it: without an end, three of it in a row would be tried in every way. */
const SPACE = String.raw`\s{0,4}`;
const TO = String.raw`(?:${SPACE}(?:-{1,2}>?|–|—|→|to)${SPACE}${TIME})?`;
/** A speaker's name: up to four capitalised words or numbers, and no full stop. */
export const NAME = String.raw`\p{Lu}[\p{L}\p{N}'’-]*(?: (?:\p{Lu}[\p{L}\p{N}'’-]*|\p{N}{1,3}(?![\p{N}:]))){0,3}`;
const BETWEEN = String.raw`${SPACE}[,|–—-]?${SPACE}`;

/** "Ann Lee 00:01:23", "Ann Lee | 0:03 – 0:09" */
const NAME_TIME = new RegExp(String.raw`^\s*(${NAME})${SPACE}:?${BETWEEN}(${TIME})${TO}${SPACE}:?\s*$`, 'u');
/** "Ann Lee 00:01:23: so…" */
const NAME_TIME_SAID = new RegExp(String.raw`^\s*(${NAME})\s+(${TIME})${TO}${SPACE}:\s+(?=\S)`, 'u');
/** "00:01:23 Ann Lee", with what is said on the next line */
const TIME_NAME = new RegExp(String.raw`^\s*(${TIME})${TO}${BETWEEN}(${NAME})${SPACE}:?\s*$`, 'u');
/** "00:01 – 00:09 so…" */
const TIME_TO_TIME = new RegExp(String.raw`^\s*(${TIME})\s*(?:-{1,2}|–|—|→|to)\s*${TIME}\s*[:,|–—-]?\s*`);
const BRACKETS = new RegExp(String.raw`[[(](${TIME})\s*(?:-{1,2}>?|–|—|→|to)\s*${TIME}[\])]`, 'g');
/** Without the `g` flag, which would carry a position from one line to the next. */
const BRACKETED_RANGE = new RegExp(BRACKETS.source);
const BRACKETED = new RegExp(String.raw`[[(]${TIME}[\])]`);

/** How a text has it where a name stands alone after its time. */
export interface HeadStyle {
  readonly timeThenName: boolean;
}

/** Most of what stands alone after a time is a name only where that is how the whole text is written: “0:15 Right” is mostly said. */
const STYLE_SHARE = 0.5;

export function headStyleOf(text: string): HeadStyle {
  let [timed, named] = [0, 0];
  for (const lines = new LineCursor(text); !lines.done; lines.next()) {
    const line = lines.text;
    if (line.length > 300 || !/\d:\d\d/.test(line)) continue;
    timed += 1;
    const { following } = lines;
    if (TIME_NAME.test(line) && following.trim() !== '' && !/^\s*[[(]?\d{1,3}:\d\d/.test(following)) named += 1;
  }
  return { timeThenName: named >= 2 && named >= timed * STYLE_SHARE };
}

/** A line as the reader of stamped text takes it: name, time in brackets, what is said. Other lines stay as they are. */
export function withStamp(line: string, { timeThenName }: HeadStyle): string {
  if (line.length > 5_000 || !/\d:\d\d/.test(line)) return line;
  const plain = line.replace(BRACKETS, '[$1]');
  if (BRACKETED.test(plain)) return plain;
  if (NAME_TIME.test(plain)) return plain.replace(NAME_TIME, '$1 [$2]');
  if (NAME_TIME_SAID.test(plain)) return plain.replace(NAME_TIME_SAID, '$1 [$2] ');
  if (timeThenName && TIME_NAME.test(plain)) return plain.replace(TIME_NAME, '$2 [$1]');
  return plain.replace(TIME_TO_TIME, '[$1] ');
}

/** True where a line names who speaks and when without brackets, or a range of times within. */
export const isHead = (line: string): boolean => line.length <= 300 && (NAME_TIME.test(line) || NAME_TIME_SAID.test(line) || BRACKETED_RANGE.test(line));
