import { rm } from 'node:fs/promises';
import { buildServer } from '../../../scripts/lib/build.mjs';
import { settings } from '../../../scripts/lib/config.mjs';
import { startPostgres } from '../../../scripts/lib/postgres.mjs';
import { freshDatabase } from './database.js';

/** The test cluster with an empty database of the newest schema, for all API tests of a run. */
export default async function setup(): Promise<() => Promise<void>> {
  const test = settings('test');
  await buildServer(() => true);
  const postgres = await startPostgres(test);
  const url = await freshDatabase(postgres.url, 'api_tests');
  await rm(test.mediaDir, { recursive: true, force: true });
  Object.assign(process.env, { SIFT_REEL_DATABASE_URL: url, SIFT_REEL_MEDIA_DIR: test.mediaDir, SIFT_REEL_LOG_LEVEL: 'silent', SIFT_REEL_VECTOR_THREADS: '2' });
  return () => postgres.stop();
}
