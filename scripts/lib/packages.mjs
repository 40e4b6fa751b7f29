// What the machine must have: Debian's packages and the project's own node modules.
import { createHash } from 'node:crypto';
import { existsSync, readdirSync } from 'node:fs';
import { mkdir, readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { ROOT, say, SetupError } from './config.mjs';
import { run } from './run.mjs';

/** Debian package → how to tell that it is there. */
const DEBIAN = {
  postgresql: () => pgBin() !== null,
  ffmpeg: () => onPath('ffmpeg') && onPath('ffprobe'),
  flite: () => onPath('flite'),
  chromium: () => onPath('chromium'),
  // Drafts of translations; the app goes without where they are missing.
  'apertium-eng-spa': () => onPath('apertium') && existsSync('/usr/share/apertium/modes/eng-spa.mode'),
  pocketsphinx: () => onPath('pocketsphinx_continuous'),
  'pocketsphinx-en-us': () => existsSync('/usr/share/pocketsphinx/model/en-us/en-us.lm.bin'),
};

function onPath(name) {
  return (process.env.PATH ?? '').split(':').some((dir) => dir !== '' && existsSync(join(dir, name)));
}

/** Folder of PostgreSQL's programs, the newest version that is installed, or null. */
export function pgBin() {
  const base = '/usr/lib/postgresql';
  if (!existsSync(base)) return null;
  const versions = readdirSync(base)
    .filter((version) => existsSync(join(base, version, 'bin', 'postgres')) && existsSync(join(base, version, 'bin', 'initdb')))
    .sort((a, b) => Number(b) - Number(a));
  return versions.length === 0 ? null : join(base, versions[0], 'bin');
}

/** Installs what of `names` is missing, as root through apt; else says what to install, and stops. */
export async function needDebian(names) {
  const missing = names.filter((name) => !DEBIAN[name]());
  if (missing.length === 0) return;
  const command = `apt-get install -y --no-install-recommends ${missing.join(' ')}`;
  if (process.getuid?.() !== 0 || !onPath('apt-get'))
    throw new SetupError(`These Debian packages are missing: ${missing.join(', ')}.\nInstall them, then start again:\n  sudo ${command}`);
  say(`Installing from Debian: ${missing.join(', ')}`);
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  await run('apt-get', ['update', '-q'], { env }).catch(() => undefined); // an old list may still do
  try {
    await run('apt-get', ['install', '-y', '-q', '--no-install-recommends', ...missing], { env });
  } catch (error) {
    throw new SetupError(`apt could not install ${missing.join(', ')}:\n${error.message}`);
  }
  const still = missing.filter((name) => !DEBIAN[name]());
  if (still.length > 0) throw new SetupError(`apt installed ${still.join(', ')}, but the programs are not where they are expected.`);
}

/** Installs node modules when they are not those of the lock file. */
export async function needNodeModules(log = say) {
  const [major, minor] = process.versions.node.split('.').map(Number);
  if (!(major === 20 && minor >= 19) && !(major === 22 && minor >= 12) && major < 23)
    throw new SetupError(`Node.js 20.19 or newer is needed; this is ${process.versions.node}.`);
  const lock = createHash('sha256')
    .update(await readFile(join(ROOT, 'package-lock.json')))
    .digest('hex');
  const markFile = join(ROOT, 'node_modules', '.sift-reel-lock');
  if ((await readFile(markFile, 'utf8').catch(() => '')) === lock) return;
  log('Installing node modules');
  try {
    await run('npm', ['ci', '--no-audit', '--no-fund'], { cwd: ROOT });
  } catch (error) {
    throw new SetupError(`npm could not install the node modules:\n${error.message}`);
  }
  await mkdir(join(ROOT, 'node_modules'), { recursive: true });
  await writeFile(markFile, lock);
}
