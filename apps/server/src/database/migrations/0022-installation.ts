import type { Migration } from '../migration.js';

/** Which installation this database is of: a name for places outside of it that only one may write to. */
export const installation: Migration = {
  name: '0022-installation',
  up: (run) =>
    run(`
CREATE TABLE installation (id uuid NOT NULL DEFAULT gen_random_uuid(), one boolean PRIMARY KEY DEFAULT true CHECK (one));
INSERT INTO installation DEFAULT VALUES`),
  down: (run) => run('DROP TABLE installation'),
};
