import type { Migration } from '../migration.js';

/** Shorts that may come again on a channel, after as many days as the client says. What stands when is told under the schedule's locks. */
export const evergreen: Migration = {
  name: '0024-evergreen',
  up: (run) =>
    run(`
ALTER TABLE clients ADD COLUMN come_again_days integer CHECK (come_again_days BETWEEN 14 AND 730);
ALTER TABLE shorts ADD COLUMN evergreen boolean NOT NULL DEFAULT false;
ALTER TABLE posts DROP CONSTRAINT posts_channel_id_short_id_key;
CREATE INDEX posts_of_channel_and_short ON posts (channel_id, short_id)`),
  // Of a short that stands twice on a channel the first post stays.
  down: (run) =>
    run(`
DROP INDEX posts_of_channel_and_short;
DELETE FROM posts later USING posts earlier WHERE later.channel_id = earlier.channel_id AND later.short_id = earlier.short_id AND later.at > earlier.at;
ALTER TABLE posts ADD CONSTRAINT posts_channel_id_short_id_key UNIQUE (channel_id, short_id) DEFERRABLE;
ALTER TABLE shorts DROP COLUMN evergreen;
ALTER TABLE clients DROP COLUMN come_again_days`),
};
