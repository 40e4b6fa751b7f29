// Builds what changed since the last build, told by the content of the sources.
import { createHash } from 'node:crypto';
import { existsSync } from 'node:fs';
import { mkdir, readdir, readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { ROOT, say, SetupError } from './config.mjs';
import { run } from './run.mjs';

async function hashFolders(folders) {
  const hash = createHash('sha256');
  const visit = async (path) => {
    for (const entry of (await readdir(path, { withFileTypes: true })).sort((a, b) => (a.name < b.name ? -1 : 1))) {
      if (['node_modules', 'dist', 'var'].includes(entry.name) || entry.name.endsWith('.tsbuildinfo')) continue;
      const child = join(path, entry.name);
      if (entry.isDirectory()) await visit(child);
      else hash.update(child.slice(ROOT.length)).update(await readFile(child));
    }
  };
  for (const folder of folders) await visit(join(ROOT, folder));
  return hash
    .update(await readFile(join(ROOT, 'tsconfig.base.json')))
    .update(await readFile(join(ROOT, 'package-lock.json')))
    .digest('hex');
}

async function once(name, folders, proof, act, log) {
  const markFile = join(ROOT, 'node_modules', `.sift-reel-built-${name}`);
  const mark = await hashFolders(folders);
  if (existsSync(join(ROOT, proof)) && (await readFile(markFile, 'utf8').catch(() => '')) === mark) return;
  log(`Building ${name}`);
  try {
    await act();
  } catch (error) {
    throw new SetupError(`The build of ${name} failed:\n${error.out ?? ''}${error.err ?? error.message}`);
  }
  await mkdir(join(ROOT, 'node_modules'), { recursive: true });
  await writeFile(markFile, mark);
}

const bin = (name) => join(ROOT, 'node_modules/.bin', name);

/** Packages, server and command line: one build, by TypeScript's own references; then what is started as processes and threads. */
export function buildServer(log = say) {
  const act = async () => {
    await run(bin('tsc'), ['-b'], { cwd: ROOT });
    const { bundleServer } = await import('./bundle.mjs'); // it is there once packages are installed
    await bundleServer();
  };
  return once('server', ['packages', 'apps/server', 'apps/cli', 'apps/standins', 'scripts/lib'], 'apps/server/dist/bundled/api.js', act, log);
}

export function buildWeb(log = say) {
  return once(
    'web',
    ['packages', 'apps/web'],
    'apps/web/dist/index.html',
    () => run('npm', ['run', 'build', '--silent', '-w', 'apps/web'], { cwd: ROOT }),
    log,
  );
}
