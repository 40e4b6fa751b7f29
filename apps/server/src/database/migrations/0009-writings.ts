import type { Migration } from '../migration.js';

/** Questions to the writing service, with what was sent and what came; and whether a client allows it: not until it says so. */
export const writings: Migration = {
  name: '0009-writings',
  up: (run) =>
    run(`
ALTER TABLE clients ADD COLUMN writing_service boolean NOT NULL DEFAULT false;
CREATE TABLE writings (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  client_id uuid NOT NULL REFERENCES clients,
  short_id uuid NOT NULL,
  asked_by uuid REFERENCES users ON DELETE SET NULL,
  created_at timestamptz NOT NULL DEFAULT now(),
  request jsonb NOT NULL,
  answer text,
  words jsonb,
  findings jsonb,
  FOREIGN KEY (short_id, client_id) REFERENCES shorts (id, client_id) ON DELETE CASCADE
);
CREATE INDEX ON writings (short_id, created_at DESC);
CREATE TRIGGER writings_forget_jobs AFTER DELETE ON writings FOR EACH ROW EXECUTE FUNCTION forget_jobs('writing')`),
  down: (run) =>
    run(`
DROP TRIGGER writings_forget_jobs ON writings;
DELETE FROM jobs WHERE kind = 'writing';
DROP TABLE writings;
ALTER TABLE clients DROP COLUMN writing_service`),
};
