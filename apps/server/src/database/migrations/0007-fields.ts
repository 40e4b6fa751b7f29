import type { Migration } from '../migration.js';

/** What a recording is about tells its fields, too; what was found before them is found again where it is asked for. */
export const fields: Migration = {
  name: '0007-fields',
  up: (run) => run('UPDATE sifts SET subject = NULL'),
  down: () => Promise.resolve(),
};
