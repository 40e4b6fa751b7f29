import type { Migration } from '../migration.js';

/** Documents of recordings, with what they were; and how a client's quote cards look. */
export const documents: Migration = {
  name: '0011-documents',
  up: (run) =>
    run(`
ALTER TABLE clients ADD COLUMN card_style jsonb NOT NULL DEFAULT '{}';
CREATE TABLE documents (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  client_id uuid NOT NULL REFERENCES clients,
  recording_id uuid NOT NULL,
  kind text NOT NULL,
  content jsonb NOT NULL,
  version integer NOT NULL DEFAULT 1,
  created_at timestamptz NOT NULL DEFAULT now(),
  UNIQUE (id, client_id),
  UNIQUE (recording_id, kind),
  FOREIGN KEY (recording_id, client_id) REFERENCES recordings (id, client_id) ON DELETE CASCADE
);
CREATE TABLE document_versions (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  client_id uuid NOT NULL REFERENCES clients,
  document_id uuid NOT NULL,
  written_by uuid REFERENCES users ON DELETE SET NULL,
  proposed boolean NOT NULL DEFAULT false,
  written_at timestamptz NOT NULL DEFAULT now(),
  content jsonb NOT NULL,
  FOREIGN KEY (document_id, client_id) REFERENCES documents (id, client_id) ON DELETE CASCADE
);
CREATE INDEX ON document_versions (document_id, written_at DESC)`),
  down: (run) =>
    run(`
DROP TABLE document_versions;
DROP TABLE documents;
ALTER TABLE clients DROP COLUMN card_style`),
};
