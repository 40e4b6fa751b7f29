import type { Migration } from '../migration.js';

/** Private addresses at which a client's posts are read as a calendar. Only a hash of what opens one is kept. */
export const calendars: Migration = {
  name: '0023-calendars',
  up: (run) =>
    run(`
CREATE TABLE calendars (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  client_id uuid NOT NULL REFERENCES clients ON DELETE CASCADE,
  name text NOT NULL,
  token_hash text NOT NULL UNIQUE,
  read_at timestamptz,
  created_by uuid REFERENCES users ON DELETE SET NULL,
  created_at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX calendars_of_client ON calendars (client_id)`),
  down: (run) => run('DROP TABLE calendars'),
};
