import pg from 'pg';
import { migrate } from '../dist/database/migrate.js';

/** An empty database of this name on the server of `url`, with the newest schema unless `bare`. @returns its address */
export async function freshDatabase(url: string, name: string, kind: 'migrated' | 'bare' = 'migrated'): Promise<string> {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    await client.query(`DROP DATABASE IF EXISTS ${name} WITH (FORCE)`);
    await client.query(`CREATE DATABASE ${name}`);
  } finally {
    await client.end();
  }
  const address = url.replace(/\/[^/]*$/, `/${name}`);
  if (kind === 'migrated') await migrate(address);
  return address;
}
