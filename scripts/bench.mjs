// npm run bench [-- NAME…]: every benchmark prints ratios measured in one run. Without names: text, reading, reading-memory,
// vectors, screen and editors. `flat`, `words`, `topics`, `searches`, `truth`, `summaries`, `roles`, `ends`, `segments`, `stand-out`, `weights`, `rough`, `listen`, `render`, `prepare`, `preview`, `align`, `cuts`, `twelve`, `start`, `uploads`, `fetch`, `plan`, `storm` and `punctual` run when named;
// `--write` makes roles, ends, stand-out, weights, words, topics and searches write what they fitted into the core.
import { join } from 'node:path';
import { buildServer } from './lib/build.mjs';
import { ROOT, runMain, say } from './lib/config.mjs';
import { needDebian, needNodeModules } from './lib/packages.mjs';
import { runShown } from './lib/run.mjs';

const ALWAYS = ['text', 'reading', 'reading-memory', 'vectors', 'screen', 'editors'];
const NAMED = [
  'flat',
  'words',
  'topics',
  'searches',
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
  'prepare',
  'preview',
  'align',
  'cuts',
  'twelve',
  'start',
  'uploads',
  'fetch',
  'plan',
  'storm',
  'punctual',
];

await runMain(async () => {
  await needDebian(['postgresql', 'ffmpeg', 'flite', 'pocketsphinx', 'pocketsphinx-en-us', 'chromium']);
  await needNodeModules();
  await buildServer();
  const flags = process.argv.slice(2).filter((word) => word.startsWith('--'));
  const wanted = process.argv.slice(2).filter((word) => !word.startsWith('--'));
  for (const name of wanted.length === 0 ? ALWAYS : [...ALWAYS, ...NAMED].filter((one) => wanted.includes(one))) {
    say(`\n== ${name}`);
    const code = await runShown(process.execPath, [join(ROOT, 'bench', `${name}.mjs`), ...flags], { cwd: ROOT });
    if (code !== 0) process.exitCode = code;
  }
});
