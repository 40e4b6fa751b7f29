import type { Migration } from '../migration.js';

/** What the words of a short were, and who wrote them. */
export const copyVersions: Migration = {
  name: '0010-copy-versions',
  up: (run) =>
    run(`
CREATE TABLE copy_versions (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  client_id uuid NOT NULL REFERENCES clients,
  short_id uuid NOT NULL,
  channel_id uuid REFERENCES channels ON DELETE CASCADE,
  written_by uuid REFERENCES users ON DELETE SET NULL,
  proposed boolean NOT NULL DEFAULT false,
  written_at timestamptz NOT NULL DEFAULT now(),
  title text NOT NULL,
  description text NOT NULL,
  hashtags text[] NOT NULL,
  keywords text[] NOT NULL,
  cover_line text NOT NULL,
  FOREIGN KEY (short_id, client_id) REFERENCES shorts (id, client_id) ON DELETE CASCADE
);
CREATE INDEX ON copy_versions (short_id, written_at DESC);
INSERT INTO copy_versions (client_id, short_id, channel_id, title, description, hashtags, keywords, cover_line)
  SELECT client_id, short_id, channel_id, title, description, hashtags, keywords, cover_line FROM copies`),
  down: (run) => run('DROP TABLE copy_versions'),
};
