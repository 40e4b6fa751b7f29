// The command line. Installs and builds what is missing, saying so on standard error only; then runs the command.
import { join } from 'node:path';
import { buildServer } from './lib/build.mjs';
import { ROOT, runMain } from './lib/config.mjs';
import { needNodeModules } from './lib/packages.mjs';
import { runShown } from './lib/run.mjs';

const quietly = (text) => process.stderr.write(`${text}\n`);

await runMain(async () => {
  await needNodeModules(quietly);
  await buildServer(quietly);
  // npm changes to the project's folder; files are named from where the user stands.
  process.exitCode = await runShown(process.execPath, [join(ROOT, 'apps/cli/dist/main.js'), ...process.argv.slice(2)], {
    cwd: process.env.INIT_CWD ?? process.cwd(),
  });
});
