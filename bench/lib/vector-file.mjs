// A cache of sentence vectors in one file under var/, so that fitting again does not compute them again.
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';

const FILE = join(import.meta.dirname, '..', '..', 'var', 'bench', 'vectors.bin');
const KEY = 64;
const DIMENSIONS = 512;
const ROW = KEY + 4 * DIMENSIONS;

export function fileCache() {
  const kept = new Map();
  if (existsSync(FILE)) {
    const bytes = readFileSync(FILE);
    for (let at = 0; at + ROW <= bytes.length; at += ROW) {
      const vector = new Float32Array(DIMENSIONS);
      new Uint8Array(vector.buffer).set(bytes.subarray(at + KEY, at + ROW));
      kept.set(bytes.toString('latin1', at, at + KEY), vector);
    }
  }
  const before = kept.size;
  return {
    read: async (keys) => new Map(keys.filter((key) => kept.has(key)).map((key) => [key, kept.get(key)])),
    write: async (rows) => {
      for (const [key, vector] of rows) kept.set(key, vector);
    },
    save() {
      if (kept.size === before) return;
      mkdirSync(dirname(FILE), { recursive: true });
      writeFileSync(
        FILE,
        Buffer.concat(
          [...kept].map(([key, vector]) => Buffer.concat([Buffer.from(key, 'latin1'), Buffer.from(vector.buffer, vector.byteOffset, 4 * DIMENSIONS)])),
        ),
      );
    },
  };
}
