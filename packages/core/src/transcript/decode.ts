import { TranscriptRefusedError, type Repair } from './types.js';

export type TextEncodingName = 'utf-8' | 'utf-16le' | 'utf-16be' | 'windows-1252';

export interface DecodedText {
  readonly text: string;
  readonly encoding: TextEncodingName;
  readonly repairs: readonly Repair[];
}

/**
 * Turns a file's bytes into text: a byte order mark decides; without one, UTF-16 shows by its zero bytes, valid UTF-8
 * is UTF-8, and everything else is read as Windows-1252 (which has a meaning for every byte, as the WHATWG Encoding
 * Standard defines it). Line ends of all kinds become `\n`.
 * @param bytes of the whole file; those of UTF-8 are changed: line ends are folded in place
 * @throws TranscriptRefusedError `not-text` for bytes that are no text at all (zero bytes that are not UTF-16)
 */
export function decodeText(bytes: Uint8Array): DecodedText {
  const encoding = detectEncoding(bytes);
  const text = decode(bytes, encoding);
  const zeroAt = text.indexOf('\0');
  if (zeroAt >= 0) throw new TranscriptRefusedError(count(text, '\n', zeroAt) + 1, 'not-text', 'the file holds zero bytes, so it is not a text file');
  const repairs: Repair[] = [];
  if (encoding !== 'utf-8') repairs.push({ line: 1, code: 'encoding', detail: `read as ${encoding}` });
  const lost = count(text, '\uFFFD', text.length);
  if (lost > 0) {
    const line = count(text, '\n', text.indexOf('\uFFFD')) + 1;
    repairs.push({ line, code: 'unreadable-bytes', detail: `${lost} unreadable character${lost === 1 ? '' : 's'} shown as \uFFFD` });
  }
  return { text, encoding, repairs };
}

/** Characters of the bytes 0x80 to 0x9F, from the WHATWG Encoding Standard's index (bytes without one keep their number). */
const WINDOWS_1252 = '€\u0081‚ƒ„…†‡ˆ‰Š‹Œ\u008DŽ\u008F\u0090‘’“”•–—˜™š›œ\u009DžŸ';

/** UTF-8 is decoded at one go: its line ends are folded in the bytes themselves, so that 60 MB are never held a third time. */
function decode(bytes: Uint8Array, encoding: TextEncodingName): string {
  return encoding === 'utf-8' ? new TextDecoder().decode(foldLineEnds(bytes)) : decodeInPieces(bytes, encoding);
}

const [LF, CR] = [0x0a, 0x0d];

/** Writes line ends of all kinds as one line feed, in place; none of them is shorter. What is left over at the end are line ends too. */
function foldLineEnds(bytes: Uint8Array): Uint8Array {
  let to = 0;
  for (let at = 0; at < bytes.length; to += 1) {
    const length = lineEndAt(bytes, at);
    bytes[to] = length === 0 ? bytes[at]! : LF;
    at += Math.max(1, length);
  }
  bytes.fill(LF, to);
  return bytes.subarray(0, to);
}

/** How many bytes of UTF-8 a line end takes: U+000D with and without U+000A, U+0085, U+2028 and U+2029; 0 where none begins. */
function lineEndAt(bytes: Uint8Array, at: number): number {
  const byte = bytes[at];
  if (byte === CR) return bytes[at + 1] === LF ? 2 : 1;
  if (byte === 0xc2) return bytes[at + 1] === 0x85 ? 2 : 0;
  return byte === 0xe2 && bytes[at + 1] === 0x80 && (bytes[at + 2] === 0xa8 || bytes[at + 2] === 0xa9) ? 3 : 0;
}

const PIECE = 65_536;

/** Piece by piece, so that a file of nothing but line ends needs no more memory than any other. */
function decodeInPieces(bytes: Uint8Array, encoding: TextEncodingName): string {
  const decoder = new TextDecoder(encoding); // drops the byte order mark itself
  const decodePiece = (piece: Uint8Array, stream: boolean): string =>
    encoding === 'windows-1252' ? decodeWindows1252(piece) : decoder.decode(piece, { stream });
  const pieces: string[] = [];
  let held = ''; // a carriage return at the end of a piece may have its line feed in the next
  for (let from = 0; from < bytes.length; from += PIECE) {
    const piece = held + decodePiece(bytes.subarray(from, from + PIECE), from + PIECE < bytes.length);
    held = piece.endsWith('\r') ? '\r' : '';
    pieces.push(oneLineEnd(held === '' ? piece : piece.slice(0, -1)));
  }
  pieces.push(oneLineEnd(held));
  return pieces.join('');
}

const LINE_ENDS = ['\r\n', '\r', '\u2028', '\u2029', '\u0085'];

/** By `split`: `replace` keeps the memory of every end it finds until all the text is read (V8 11.3). */
const oneLineEnd = (text: string): string => LINE_ENDS.reduce((done, end) => (done.includes(end) ? done.split(end).join('\n') : done), text);

/** Node 20's own decoder reads these bytes as Latin-1, so that every typographic quote would be lost. */
function decodeWindows1252(bytes: Uint8Array): string {
  let text = '';
  for (const byte of bytes) text += byte >= 0x80 && byte <= 0x9f ? WINDOWS_1252[byte - 0x80]! : String.fromCharCode(byte);
  return text;
}

/** How often a character stands before `until`. */
function count(text: string, character: string, until: number): number {
  let found = 0;
  for (let at = text.indexOf(character); at >= 0 && at < until; at = text.indexOf(character, at + 1)) found += 1;
  return found;
}

function detectEncoding(bytes: Uint8Array): TextEncodingName {
  const [a, b, c] = bytes;
  if (a === 0xef && b === 0xbb && c === 0xbf) return 'utf-8';
  if (a === 0xff && b === 0xfe) return 'utf-16le';
  if (a === 0xfe && b === 0xff) return 'utf-16be';
  const sample = bytes.subarray(0, 4_096);
  const zeros = [0, 0];
  for (let i = 0; i < sample.length; i += 1) if (sample[i] === 0) zeros[i & 1]! += 1;
  // Latin text in UTF-16 has a zero in every second byte; a third of them leaves room for other scripts.
  if (zeros[1]! > sample.length / 6 && zeros[0]! < zeros[1]! / 8) return 'utf-16le';
  if (zeros[0]! > sample.length / 6 && zeros[1]! < zeros[0]! / 8) return 'utf-16be';
  return isUtf8(bytes) ? 'utf-8' : 'windows-1252';
}

function isUtf8(bytes: Uint8Array): boolean {
  const decoder = new TextDecoder('utf-8', { fatal: true });
  try {
    for (let from = 0; from < bytes.length; from += PIECE) decoder.decode(bytes.subarray(from, from + PIECE), { stream: true });
    decoder.decode();
    return true;
  } catch {
    return false;
  }
}
