// Seals the tokens of every account with the first of SIFT_REEL_SEALING_KEYS. The database must be running: `npm start`, or yours.
import { join } from 'node:path';
import { ROOT, runMain, settings } from './lib/config.mjs';
import { buildServer } from './lib/build.mjs';
import { run } from './lib/run.mjs';
import { serviceEnv } from './lib/services.mjs';
import { liveUrl } from './lib/postgres.mjs';

await runMain(async () => {
  await buildServer(() => undefined);
  const live = settings('live');
  const url = process.env.SIFT_REEL_DATABASE_URL ?? (await liveUrl(live));
  const out = await run(process.execPath, [join(ROOT, 'apps/server/dist/publishing/seal-anew.main.js')], {
    cwd: ROOT,
    env: { ...serviceEnv(live, url), SIFT_REEL_LOG_LEVEL: 'error' },
  });
  process.stdout.write(out);
});
