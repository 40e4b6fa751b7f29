import { Inject, Injectable } from '@nestjs/common';
import type { DocumentContent } from '@sift-reel/core';
import { Database } from '../database/database.service.js';
import { User } from '../identity/identity.models.js';
import { type DocumentRow, DocumentVersion } from './documents.models.js';
import type { DocumentVersionView } from './documents.views.js';

/** A document saves by itself while somebody types: what one person writes within so long is one version. */
const ONE_SITTING = '5 minutes';
const MOST_SHOWN = 30;

/** Puts the text into the last version where the same person wrote it just now. @returns a row where it did */
const ADD_TO_SITTING = `
UPDATE document_versions SET content = $3, written_at = now()
WHERE id = (SELECT id FROM document_versions WHERE document_id = $1 ORDER BY written_at DESC, id LIMIT 1)
  AND written_by = $2 AND written_at > now() - interval '${ONE_SITTING}'
RETURNING id`;

const ADD = 'INSERT INTO document_versions (document_id, written_by, content, client_id, proposed) VALUES ($1, $2, $3, $4, $5)';

/** Of each document, who wrote it last and when. */
const LAST = `
SELECT DISTINCT ON (document_id) document_id AS "documentId", written_by AS "writtenBy", proposed, written_at AS "writtenAt"
FROM document_versions WHERE document_id = ANY ($1) ORDER BY document_id, written_at DESC, id`;

export interface LastWritten {
  readonly writtenAt: string;
  readonly writtenBy: string | null;
}

/** Who wrote what of a document, and when. Writing joins the caller's transaction. */
@Injectable()
export class DocumentHistory {
  constructor(@Inject(Database) private readonly database: Database) {}

  /** @param by null where the program proposed it */
  async add({ id, clientId }: Pick<DocumentRow, 'id' | 'clientId'>, content: DocumentContent, by: string | null): Promise<void> {
    const json = JSON.stringify(content);
    if (by !== null && (await this.database.run(ADD_TO_SITTING, [id, by, json])).length > 0) return;
    await this.database.run(ADD, [id, by, json, clientId, by === null]);
  }

  /** The newest first. */
  async of({ id, clientId }: DocumentRow): Promise<DocumentVersionView[]> {
    const rows = await DocumentVersion.findAll({
      where: { documentId: id, clientId },
      order: [
        ['writtenAt', 'DESC'],
        ['id', 'ASC'],
      ],
      limit: MOST_SHOWN,
    });
    const names = await namesOf(rows.map(({ writtenBy }) => writtenBy));
    return rows.map((row) => ({ id: row.id, writtenAt: row.writtenAt.toISOString(), writtenBy: nameOf(row, names), content: row.content }));
  }

  async last(documentIds: readonly string[]): Promise<Map<string, LastWritten>> {
    const rows = await this.database.rows<{ documentId: string; writtenBy: string | null; proposed: boolean; writtenAt: Date }>(LAST, [documentIds]);
    const names = await namesOf(rows.map(({ writtenBy }) => writtenBy));
    return new Map(rows.map((row) => [row.documentId, { writtenAt: row.writtenAt.toISOString(), writtenBy: nameOf(row, names) }]));
  }
}

async function namesOf(ids: readonly (string | null)[]): Promise<Map<string, string>> {
  const users = await User.findAll({ attributes: ['id', 'name'], where: { id: [...new Set(ids.flatMap((id) => id ?? []))] } });
  return new Map(users.map(({ id, name }) => [id, name]));
}

const nameOf = (
  { writtenBy, proposed }: { readonly writtenBy: string | null; readonly proposed: boolean },
  names: ReadonlyMap<string, string>,
): string | null => (proposed ? null : (names.get(writtenBy ?? '') ?? 'a former user'));
