import { rm } from 'node:fs/promises';
import { fileURLToPath } from 'node:url';
import type { TestProject } from 'vitest/node';
import { buildServer } from '../../../scripts/lib/build.mjs';
import { bundle } from '../../../scripts/lib/bundle.mjs';
import { settings } from '../../../scripts/lib/config.mjs';
import { startPostgres } from '../../../scripts/lib/postgres.mjs';
import { freshDatabase } from './database.js';

/**
 * The test cluster, with an empty database of the newest schema for each process that runs API tests beside others: see `slot.ts`.
 * One after another, the files of a process share its database.
 */
export default async function setup({ config }: TestProject): Promise<() => Promise<void>> {
  const test = settings('test');
  await buildServer(() => true);
  // It is started again and again.
  await bundle([fileURLToPath(new URL('jobs-worker.mjs', import.meta.url))], 'bundled-tests');
  const postgres = await startPostgres(test);
  for (let slot = 1; slot <= Number(config.maxWorkers); slot += 1) await freshDatabase(postgres.url, `api_tests_${slot}`);
  await rm(test.mediaDir, { recursive: true, force: true });
  Object.assign(process.env, { SIFT_REEL_TEST_CLUSTER_URL: postgres.url, SIFT_REEL_LOG_LEVEL: 'silent', SIFT_REEL_VECTOR_THREADS: '1' });
  return () => postgres.stop();
}
