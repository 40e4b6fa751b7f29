import type { Migration } from '../migration.js';

/** Posts that laying out may move on their channel. */
export const movablePosts: Migration = {
  name: '0028-movable-posts',
  up: (run) => run('ALTER TABLE posts ADD COLUMN movable boolean NOT NULL DEFAULT false'),
  down: (run) => run('ALTER TABLE posts DROP COLUMN movable'),
};
