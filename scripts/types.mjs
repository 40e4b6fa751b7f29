// Checks the types of everything: packages, server and command line by their build, then web, API tests and browser tests.
import { join } from 'node:path';
import { ROOT } from './lib/config.mjs';
import { runShown } from './lib/run.mjs';

const tsc = join(ROOT, 'node_modules/.bin/tsc');
for (const args of [
  ['-b'],
  ['-p', 'apps/web', '--noEmit'],
  ['-p', 'apps/server/tsconfig.test.json'],
  ['-p', 'e2e', '--noEmit'],
  ['-p', 'tsconfig.tests.json'],
]) {
  const code = await runShown(tsc, args, { cwd: ROOT });
  if (code !== 0) process.exit(code);
}
