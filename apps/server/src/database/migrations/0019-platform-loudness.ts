import type { Migration } from '../migration.js';

/** What a platform's players even out to: files for it are made as loud. What stands plays at what was common until now. */
export const platformLoudness: Migration = {
  name: '0019-platform-loudness',
  up: (run) =>
    run(`
ALTER TABLE platform_profiles
  ADD COLUMN loudness double precision NOT NULL DEFAULT -14 CHECK (loudness BETWEEN -36 AND -8),
  ADD COLUMN true_peak double precision NOT NULL DEFAULT -1 CHECK (true_peak BETWEEN -8 AND 0)`),
  down: (run) => run(`ALTER TABLE platform_profiles DROP COLUMN true_peak, DROP COLUMN loudness`),
};
