import type { Migration } from '../migration.js';

/** How often a platform took a post and turned it down: what is sent after that has a mark of its own, or it would be answered with the old refusal. */
export const turnedDown: Migration = {
  name: '0027-turned-down',
  up: (run) => run('ALTER TABLE posts ADD COLUMN turned_down integer NOT NULL DEFAULT 0'),
  down: (run) => run('ALTER TABLE posts DROP COLUMN turned_down'),
};
