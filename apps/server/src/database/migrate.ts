import pg from 'pg';
import { QueryTypes, Sequelize } from 'sequelize';
import { Umzug, type UmzugStorage } from 'umzug';
import { firstLight } from './migrations/0001-first-light.js';
import { betterEye } from './migrations/0002-better-eye.js';
import { heardVoices } from './migrations/0003-heard-voices.js';
import { firmGround } from './migrations/0004-firm-ground.js';
import { madeOf } from './migrations/0005-made-of.js';
import { subject } from './migrations/0006-subject.js';
import { fields } from './migrations/0007-fields.js';
import { voice } from './migrations/0008-voice.js';
import { writings } from './migrations/0009-writings.js';
import { copyVersions } from './migrations/0010-copy-versions.js';
import { documents } from './migrations/0011-documents.js';
import { translations } from './migrations/0012-translations.js';
import { renders } from './migrations/0013-renders.js';
import { edits } from './migrations/0014-edits.js';
import { preparations } from './migrations/0015-preparations.js';
import { alignments } from './migrations/0016-alignments.js';
import { feeds } from './migrations/0017-feeds.js';
import { filesKept } from './migrations/0018-files-kept.js';
import { platformLoudness } from './migrations/0019-platform-loudness.js';
import { pages } from './migrations/0020-pages.js';
import { heardEnds } from './migrations/0021-heard-ends.js';
import { movablePosts } from './migrations/0028-movable-posts.js';
import { turnedDown } from './migrations/0027-turned-down.js';
import { accountSince } from './migrations/0026-account-since.js';
import { publishing } from './migrations/0025-publishing.js';
import { evergreen } from './migrations/0024-evergreen.js';
import { calendars } from './migrations/0023-calendars.js';
import { installation } from './migrations/0022-installation.js';
import type { Migration } from './migration.js';

export const MIGRATIONS: readonly Migration[] = [
  firstLight,
  betterEye,
  heardVoices,
  firmGround,
  madeOf,
  subject,
  fields,
  voice,
  writings,
  copyVersions,
  documents,
  translations,
  renders,
  edits,
  preparations,
  alignments,
  feeds,
  filesKept,
  platformLoudness,
  pages,
  heardEnds,
  installation,
  calendars,
  evergreen,
  publishing,
  accountSince,
  turnedDown,
  movablePosts,
];

/** The names of the steps that were taken stand in a table of their own; each step writes its mark itself, with what it does. */
function tableStorage(sequelize: Sequelize): UmzugStorage {
  return {
    logMigration: () => Promise.resolve(),
    unlogMigration: () => Promise.resolve(),
    async executed() {
      await sequelize.query('CREATE TABLE IF NOT EXISTS schema_steps (name text PRIMARY KEY, taken_at timestamptz NOT NULL DEFAULT now())');
      const rows = await sequelize.query<{ name: string }>('SELECT name FROM schema_steps ORDER BY name', { type: QueryTypes.SELECT });
      return rows.map((row) => row.name);
    },
  };
}

const MARKS = { up: 'INSERT INTO schema_steps (name) VALUES ($1)', down: 'DELETE FROM schema_steps WHERE name = $1' } as const;

/** The migrator of a database. A step and its mark are one transaction: both, or neither. */
export function migrator(sequelize: Sequelize, migrations: readonly Migration[] = MIGRATIONS): Umzug {
  return new Umzug({
    migrations: migrations.map((migration) => {
      const step = (way: 'up' | 'down') => () =>
        sequelize.transaction(async (transaction) => {
          await migration[way](async (sql) => {
            await sequelize.query(sql, { transaction, raw: true });
          });
          await sequelize.query(MARKS[way], { bind: [migration.name], transaction, type: QueryTypes.RAW });
        });
      return { name: migration.name, up: step('up'), down: step('down') };
    }),
    storage: tableStorage(sequelize),
    logger: undefined,
  });
}

/** Brings the database at `url` to the newest schema. Two at once take turns; the second finds nothing left to do. */
export async function migrate(url: string, migrations: readonly Migration[] = MIGRATIONS): Promise<string[]> {
  const turn = new pg.Client({ connectionString: url });
  const sequelize = new Sequelize(url, { logging: false });
  await turn.connect();
  try {
    await turn.query(`SELECT pg_advisory_lock(hashtextextended('sift-reel migrations', 0))`);
    const taken = await migrator(sequelize, migrations).up();
    return taken.map((step) => step.name);
  } finally {
    await sequelize.close();
    await turn.end(); // and the lock with it
  }
}
