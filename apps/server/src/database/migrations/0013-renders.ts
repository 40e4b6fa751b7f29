import type { Migration } from '../migration.js';

/** Whether a recording has a picture, and files that were made of shorts. The same inputs make one file: `key` is their address. */
export const renders: Migration = {
  name: '0013-renders',
  up: (run) =>
    run(`
ALTER TABLE recordings ADD COLUMN picture jsonb;
CREATE TABLE renders (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  client_id uuid NOT NULL REFERENCES clients,
  short_id uuid NOT NULL,
  key text NOT NULL,
  shape text NOT NULL,
  plan jsonb NOT NULL,
  of_version integer NOT NULL,
  asked_by uuid REFERENCES users ON DELETE SET NULL,
  created_at timestamptz NOT NULL DEFAULT now(),
  file text,
  bytes bigint,
  UNIQUE (short_id, key),
  CHECK ((file IS NULL) = (bytes IS NULL)),
  FOREIGN KEY (short_id, client_id) REFERENCES shorts (id, client_id) ON DELETE CASCADE
);
CREATE TRIGGER renders_forget_jobs AFTER DELETE ON renders FOR EACH ROW EXECUTE FUNCTION forget_jobs('render')`),
  down: (run) =>
    run(`
DROP TRIGGER renders_forget_jobs ON renders;
DELETE FROM jobs WHERE kind = 'render';
DROP TABLE renders;
ALTER TABLE recordings DROP COLUMN picture`),
};
