import type { Migration } from '../migration.js';

/** Words are cut where their sound ends: in which sound that was heard, null where cuts go by the times alone. */
export const heardEnds: Migration = {
  name: '0021-heard-ends',
  up: (run) => run('ALTER TABLE transcripts ADD COLUMN ends_heard_in text'),
  down: (run) => run('ALTER TABLE transcripts DROP COLUMN ends_heard_in'),
};
