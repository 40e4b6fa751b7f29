import type { Migration } from '../migration.js';

/** How a client's words sound; and what was not said in a passage and a person says is right all the same, with who and when. */
export const voice: Migration = {
  name: '0008-voice',
  up: (run) => run(`ALTER TABLE clients ADD COLUMN voice jsonb NOT NULL DEFAULT '{}'; ALTER TABLE shorts ADD COLUMN ticks jsonb NOT NULL DEFAULT '[]'`),
  down: (run) => run('ALTER TABLE shorts DROP COLUMN ticks; ALTER TABLE clients DROP COLUMN voice'),
};
