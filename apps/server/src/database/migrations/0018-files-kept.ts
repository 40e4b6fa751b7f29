import type { Migration } from '../migration.js';

/** How long a client's finished files are kept, from when, and since when it is told that one will go. */
export const filesKept: Migration = {
  name: '0018-files-kept',
  up: (run) =>
    run(`
ALTER TABLE clients ADD COLUMN files_kept_days integer CHECK (files_kept_days BETWEEN 7 AND 3650);
ALTER TABLE renders ADD COLUMN kept_from timestamptz NOT NULL DEFAULT now(), ADD COLUMN announced_at timestamptz;
UPDATE renders SET kept_from = created_at`),
  down: (run) =>
    run(`
ALTER TABLE renders DROP COLUMN announced_at, DROP COLUMN kept_from;
ALTER TABLE clients DROP COLUMN files_kept_days`),
};
