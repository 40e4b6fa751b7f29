import { QueryTypes, Sequelize } from 'sequelize';
import { Umzug, type UmzugStorage } from 'umzug';
import { firstLight } from './migrations/0001-first-light.js';
import { betterEye } from './migrations/0002-better-eye.js';
import { heardVoices } from './migrations/0003-heard-voices.js';
import type { Migration } from './migration.js';

export const MIGRATIONS: readonly Migration[] = [firstLight, betterEye, heardVoices];

/** The names of the steps that were taken stand in a table of their own. */
function tableStorage(sequelize: Sequelize): UmzugStorage {
  return {
    async logMigration({ name }) {
      await sequelize.query('INSERT INTO schema_steps (name) VALUES (:name)', { replacements: { name } });
    },
    async unlogMigration({ name }) {
      await sequelize.query('DELETE FROM schema_steps WHERE name = :name', { replacements: { name } });
    },
    async executed() {
      await sequelize.query('CREATE TABLE IF NOT EXISTS schema_steps (name text PRIMARY KEY, taken_at timestamptz NOT NULL DEFAULT now())');
      const rows = await sequelize.query<{ name: string }>('SELECT name FROM schema_steps ORDER BY name', { type: QueryTypes.SELECT });
      return rows.map((row) => row.name);
    },
  };
}

/** The migrator of a database. Each step runs in one transaction: it is taken whole or not at all. */
export function migrator(sequelize: Sequelize): Umzug {
  return new Umzug({
    migrations: MIGRATIONS.map((migration) => {
      const step = (way: 'up' | 'down') => () =>
        sequelize.transaction((transaction) =>
          migration[way](async (sql) => {
            await sequelize.query(sql, { transaction, raw: true });
          }),
        );
      return { name: migration.name, up: step('up'), down: step('down') };
    }),
    storage: tableStorage(sequelize),
    logger: undefined,
  });
}

/** Brings the database at `url` to the newest schema. */
export async function migrate(url: string): Promise<string[]> {
  const sequelize = new Sequelize(url, { logging: false });
  try {
    const taken = await migrator(sequelize).up();
    return taken.map((step) => step.name);
  } finally {
    await sequelize.close();
  }
}
