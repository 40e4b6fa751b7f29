import type { VectorCache } from '@sift-reel/embedder';
import type { Database } from '../database/database.service.js';
import { SentenceVector } from './sifting.models.js';

const KEYS_AT_ONCE = 2_000;

/** Sentence vectors in PostgreSQL, by content: what a killed worker had computed is there when the next one starts. */
export function databaseVectorCache(database: Database): VectorCache {
  return {
    async read(keys) {
      const found = new Map<string, Float32Array>();
      for (let from = 0; from < keys.length; from += KEYS_AT_ONCE) {
        const rows = await database.rows<{ key: string; vector: Buffer }>('SELECT key, vector FROM sentence_vectors WHERE key = ANY ($1)', [
          keys.slice(from, from + KEYS_AT_ONCE),
        ]);
        for (const { key, vector } of rows) found.set(key, new Float32Array(vector.buffer.slice(vector.byteOffset, vector.byteOffset + vector.byteLength)));
      }
      return found;
    },
    async write(rows) {
      const values = [...rows].map(([key, vector]) => ({ key, vector: Buffer.from(vector.buffer, vector.byteOffset, vector.byteLength) }));
      if (values.length > 0) await SentenceVector.bulkCreate(values, { ignoreDuplicates: true, returning: false });
    },
  };
}
