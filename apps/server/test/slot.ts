import { join } from 'node:path';
import { settings } from '../../../scripts/lib/config.mjs';

/** Before each file: the database and the folder of the process that runs it. Processes share nothing but the server. */
const slot = process.env['VITEST_POOL_ID'] ?? '1';
const mediaDir = join(settings('test').dir, 'media', slot);
Object.assign(process.env, {
  SIFT_REEL_DATABASE_URL: process.env['SIFT_REEL_TEST_CLUSTER_URL']!.replace(/\/[^/]*$/, `/api_tests_${slot}`),
  SIFT_REEL_MEDIA_DIR: mediaDir,
  SIFT_REEL_TEST_MEDIA_DIR: mediaDir,
});
