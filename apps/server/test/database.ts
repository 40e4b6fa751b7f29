import pg from 'pg';
import { migrate } from '../dist/database/migrate.js';

/** An empty database of this name on the server of `url`, with the newest schema unless `bare`. @returns its address */
export async function freshDatabase(url: string, name: string, kind: 'migrated' | 'bare' = 'migrated'): Promise<string> {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    await drop(client, name);
    await client.query(`CREATE DATABASE ${name}`);
  } finally {
    await client.end();
  }
  const address = url.replace(/\/[^/]*$/, `/${name}`);
  if (kind === 'migrated') await migrate(address);
  return address;
}

/** PostgreSQL's own vacuum may be at it, and nobody but a superuser ends that (42501): it is over in a moment. */
async function drop(client: pg.Client, name: string): Promise<void> {
  for (let tries = 1; ; tries += 1) {
    try {
      await client.query(`DROP DATABASE IF EXISTS ${name} WITH (FORCE)`);
      return;
    } catch (error) {
      if ((error as { code?: unknown }).code !== '42501' || tries === 40) throw error;
      await new Promise((resolve) => {
        setTimeout(resolve, 250);
      });
    }
  }
}
