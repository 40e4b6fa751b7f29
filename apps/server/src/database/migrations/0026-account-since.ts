import type { Migration } from '../migration.js';

/** Since when a channel posts by itself: what was due before is whoever's it was, and may be out by hand already. */
export const accountSince: Migration = {
  name: '0026-account-since',
  up: (run) =>
    run(`
ALTER TABLE channels ADD COLUMN account_since timestamptz;
UPDATE channels SET account_since = now() WHERE account_id IS NOT NULL`),
  down: (run) => run('ALTER TABLE channels DROP COLUMN account_since'),
};
