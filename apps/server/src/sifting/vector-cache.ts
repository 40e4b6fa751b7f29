import type { VectorCache } from '@sift-reel/embedder';
import { QueryTypes, type Sequelize } from 'sequelize';

const KEYS_AT_ONCE = 2_000;

/** Sentence vectors in PostgreSQL, by content: what a killed worker had computed is there when the next one starts. */
export function databaseVectorCache(sequelize: Sequelize): VectorCache {
  return {
    async read(keys) {
      const found = new Map<string, Float32Array>();
      for (let from = 0; from < keys.length; from += KEYS_AT_ONCE) {
        const rows = await sequelize.query<{ key: string; vector: Buffer }>('SELECT key, vector FROM sentence_vectors WHERE key IN (:keys)', {
          replacements: { keys: keys.slice(from, from + KEYS_AT_ONCE) },
          type: QueryTypes.SELECT,
        });
        for (const { key, vector } of rows) found.set(key, new Float32Array(vector.buffer.slice(vector.byteOffset, vector.byteOffset + vector.byteLength)));
      }
      return found;
    },
    async write(rows) {
      const values = [...rows].map(([key, vector]) => ({ key, vector: Buffer.from(vector.buffer, vector.byteOffset, vector.byteLength) }));
      if (values.length === 0) return;
      await sequelize.getQueryInterface().bulkInsert('sentence_vectors', values, { ignoreDuplicates: true } as object);
    },
  };
}
