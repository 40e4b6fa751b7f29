// npm run bench [-- text|vectors|screen]: every benchmark prints ratios measured in one run.
import { join } from 'node:path';
import { buildServer } from './lib/build.mjs';
import { ROOT, runMain, say } from './lib/config.mjs';
import { needDebian, needNodeModules } from './lib/packages.mjs';
import { runShown } from './lib/run.mjs';

await runMain(async () => {
  await needDebian(['postgresql', 'ffmpeg', 'chromium']);
  await needNodeModules();
  await buildServer();
  const wanted = process.argv.slice(2);
  for (const name of ['text', 'vectors', 'screen']) {
    if (wanted.length > 0 && !wanted.includes(name)) continue;
    say(`\n== ${name}`);
    const code = await runShown(process.execPath, [join(ROOT, 'bench', `${name}.mjs`)], { cwd: ROOT });
    if (code !== 0) process.exitCode = code;
  }
});
