import type { Database } from '../database/database.service.js';

/** Codes of the languages that recordings are spoken in, as their last sifts found; English before the first. */
export async function talkLanguages(database: Database, recordingIds: readonly string[]): Promise<Map<string, string>> {
  const rows = await database.rows<{ id: string; language: string }>('SELECT id, talk_language(id) AS language FROM unnest($1::uuid[]) AS id', [
    [...new Set(recordingIds)],
  ]);
  return new Map(rows.map(({ id, language }) => [id, language]));
}
