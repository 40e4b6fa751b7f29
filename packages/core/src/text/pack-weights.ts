/**
 * Numbers as text, for weights that are versioned as source: blocks of 64 numbers share one scale, each number one byte.
 * The error is at most 1/254 of the largest number of the block.
 */
export interface PackedNumbers {
  readonly scales: string;
  readonly bytes: string;
}

const BLOCK = 64;

export function packNumbers(values: Float32Array): PackedNumbers {
  const scales = new Float32Array(Math.ceil(values.length / BLOCK));
  const bytes = new Int8Array(values.length);
  for (let b = 0; b < scales.length; b += 1) {
    const block = values.subarray(b * BLOCK, (b + 1) * BLOCK);
    let most = 0;
    for (const value of block) most = Math.max(most, Math.abs(value));
    const scale = most / 127;
    scales[b] = scale;
    if (scale > 0) block.forEach((value, i) => (bytes[b * BLOCK + i] = Math.round(value / scale)));
  }
  return { scales: toText(new Uint8Array(scales.buffer)), bytes: toText(new Uint8Array(bytes.buffer)) };
}

export function unpackNumbers(packed: PackedNumbers): Float32Array {
  const bytes = new Int8Array(fromText(packed.bytes).buffer);
  const scales = new Float32Array(fromText(packed.scales).buffer);
  return Float32Array.from(bytes, (byte, i) => byte * scales[Math.floor(i / BLOCK)]!);
}

// `atob` and `btoa` are in every browser and in Node, and are no I/O; the numbers are little-endian, as all machines that run this are.
export function toText(bytes: Uint8Array): string {
  let text = '';
  for (const byte of bytes) text += String.fromCharCode(byte);
  return btoa(text);
}

export function fromText(text: string): Uint8Array {
  return Uint8Array.from(atob(text), (character) => character.charCodeAt(0));
}
