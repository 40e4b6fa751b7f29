import { TranscriptRefusedError, type Repair } from './types.js';

export type TextEncodingName = 'utf-8' | 'utf-16le' | 'utf-16be' | 'windows-1252';

interface DecodedText {
  readonly text: string;
  readonly encoding: TextEncodingName;
  readonly repairs: readonly Repair[];
}

/**
 * Turns a file's bytes into text: a byte order mark decides; without one, UTF-16 shows by its zero bytes, valid UTF-8
 * is UTF-8, and everything else is read as Windows-1252 (which has a meaning for every byte, as the WHATWG Encoding
 * Standard defines it). Line ends of all kinds become `\n`.
 * @throws TranscriptRefusedError `not-text` for bytes that are no text at all (zero bytes that are not UTF-16)
 */
export function decodeText(bytes: Uint8Array): DecodedText {
  const encoding = detectEncoding(bytes);
  const raw = encoding === 'windows-1252' ? decodeWindows1252(bytes) : new TextDecoder(encoding).decode(bytes); // drops the byte order mark itself
  const text = raw.replace(/\r\n?|\u2028|\u2029|\u0085/g, '\n');
  const zeroAt = text.indexOf('\0');
  if (zeroAt >= 0) {
    const line = text.slice(0, zeroAt).split('\n').length;
    throw new TranscriptRefusedError(line, 'not-text', 'the file holds zero bytes, so it is not a text file');
  }
  const repairs: Repair[] = [];
  if (encoding !== 'utf-8') repairs.push({ line: 1, code: 'encoding', detail: `read as ${encoding}` });
  const lost = text.split('\uFFFD').length - 1;
  if (lost > 0) {
    const line = text.slice(0, text.indexOf('\uFFFD')).split('\n').length;
    repairs.push({ line, code: 'unreadable-bytes', detail: `${lost} unreadable character${lost === 1 ? '' : 's'} shown as \uFFFD` });
  }
  return { text, encoding, repairs };
}

/** Characters of the bytes 0x80 to 0x9F, from the WHATWG Encoding Standard's index (bytes without one keep their number). */
const WINDOWS_1252 = '€\u0081‚ƒ„…†‡ˆ‰Š‹Œ\u008DŽ\u008F\u0090‘’“”•–—˜™š›œ\u009DžŸ';

/** Node 20's own decoder reads these bytes as Latin-1, so that every typographic quote would be lost. */
function decodeWindows1252(bytes: Uint8Array): string {
  const pieces: string[] = [];
  for (let from = 0; from < bytes.length; from += 8_192) {
    let piece = '';
    for (const byte of bytes.subarray(from, from + 8_192)) piece += byte >= 0x80 && byte <= 0x9f ? WINDOWS_1252[byte - 0x80]! : String.fromCharCode(byte);
    pieces.push(piece);
  }
  return pieces.join('');
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
  try {
    new TextDecoder('utf-8', { fatal: true }).decode(bytes);
    return 'utf-8';
  } catch {
    return 'windows-1252';
  }
}
