/** A typeface that text is set in: widths and outlines. */
export interface Typeface {
  /** Width of a text set at a size, in pixels. */
  width(text: string, size: number): number;
  /** Outline of a text whose baseline begins at a place, as SVG path data. */
  outline(text: string, x: number, y: number, size: number): string;
}

/** Nobody reads more than this on a picture, in characters; and no text, however long, is measured beyond it. */
const LONGEST = 600;

/** A text no longer than is ever drawn. */
export function shortened(text: string): string {
  const letters = [...text.slice(0, 2 * LONGEST + 2)];
  return letters.length <= LONGEST ? text : `${letters.slice(0, LONGEST).join('').trimEnd()}…`;
}

/** From one line to the next, in sizes. */
export const LINE_HEIGHT = 1.24;

/** In pixels. */
export interface Room {
  readonly width: number;
  readonly height: number;
}

/** A word with its width at size 1: widths grow with the size, so each is measured once. */
interface SetWord {
  readonly text: string;
  readonly width: number;
}

/** Lines of a text at the largest size at which it fits; at the smallest, what is too much is cut off. */
export function setIn(
  text: string,
  room: Room,
  sizes: { readonly largest: number; readonly smallest: number },
  typeface: Typeface,
): { lines: string[]; size: number } {
  const words = shortened(text)
    .split(/\s+/)
    .filter((one) => one !== '')
    .map((one): SetWord => ({ text: one, width: typeface.width(one, 1) }));
  const space = typeface.width(' ', 1);
  for (let size = sizes.largest; size > sizes.smallest; size *= 0.96) {
    const lines = wrap(words, space, room.width / size);
    if (lines.length * size * LINE_HEIGHT <= room.height && words.every((word) => word.width * size <= room.width)) return { lines, size };
  }
  const size = sizes.smallest;
  const most = Math.max(1, Math.floor(room.height / (size * LINE_HEIGHT)));
  const lines = wrap(words, space, room.width / size).map((line) => cutOff(line, room.width / size, typeface));
  return { lines: lines.length <= most ? lines : [...lines.slice(0, most - 1), `${lines[most - 1]!.slice(0, -1)}…`], size };
}

/** Words on lines: as many as fit. A word that is longer than a line stands alone. @param width of a line, at size 1 */
function wrap(words: readonly SetWord[], space: number, width: number): string[] {
  const lines: SetWord[] = [];
  for (const word of words) {
    const last = lines.at(-1);
    const together = (last?.width ?? 0) + space + word.width;
    if (last !== undefined && together <= width) lines[lines.length - 1] = { text: `${last.text} ${word.text}`, width: together };
    else lines.push(word);
  }
  return lines.map((line) => line.text);
}

/** As much of a line as fits, with an ellipsis where that is not all. @param width at size 1 */
export function cutOff(line: string, width: number, typeface: Typeface): string {
  const short = shortened(line);
  if (typeface.width(short, 1) <= width) return short;
  const letters = [...short];
  let [fits, tooMuch] = [0, letters.length];
  while (tooMuch - fits > 1) {
    const half = (fits + tooMuch) >> 1;
    if (typeface.width(`${letters.slice(0, half).join('')}…`, 1) <= width) fits = half;
    else tooMuch = half;
  }
  return `${letters.slice(0, fits).join('').trimEnd()}…`;
}
