// npm run bench [-- NAME…]: every benchmark prints ratios measured in one run. Without names: text, reading, reading-memory,
// vectors, screen and editors. `flat`, `words`, `truth`, `summaries`, `roles`, `ends`, `segments`, `stand-out`, `weights`, `rough`, `listen` and `render` run when named;
// `--write` makes roles, ends, stand-out and weights write what they fitted into the core.
import { join } from 'node:path';
import { buildServer } from './lib/build.mjs';
import { ROOT, runMain, say } from './lib/config.mjs';
import { needDebian, needNodeModules } from './lib/packages.mjs';
import { runShown } from './lib/run.mjs';

await runMain(async () => {
  await needDebian(['postgresql', 'ffmpeg', 'chromium']);
  await needNodeModules();
  await buildServer();
  const flags = process.argv.slice(2).filter((word) => word.startsWith('--'));
  const wanted = process.argv.slice(2).filter((word) => !word.startsWith('--'));
  for (const name of [
    'text',
    'reading',
    'reading-memory',
    'vectors',
    'screen',
    'editors',
    'flat',
    'words',
    'truth',
    'summaries',
    'roles',
    'ends',
    'segments',
    'stand-out',
    'weights',
    'rough',
    'listen',
    'render',
  ]) {
    if (
      wanted.length > 0
        ? !wanted.includes(name)
        : ['flat', 'words', 'truth', 'summaries', 'roles', 'ends', 'segments', 'stand-out', 'weights', 'rough', 'listen', 'render'].includes(name)
    )
      continue;
    say(`\n== ${name}`);
    const code = await runShown(process.execPath, [join(ROOT, 'bench', `${name}.mjs`), ...flags], { cwd: ROOT });
    if (code !== 0) process.exitCode = code;
  }
});
