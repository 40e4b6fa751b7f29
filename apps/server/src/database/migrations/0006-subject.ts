import type { Migration } from '../migration.js';

/** What a recording is about, as a sift finds it: words are proposed by it without reading the whole transcript again. */
export const subject: Migration = {
  name: '0006-subject',
  up: (run) => run('ALTER TABLE sifts ADD COLUMN subject jsonb'),
  down: (run) => run('ALTER TABLE sifts DROP COLUMN subject'),
};
