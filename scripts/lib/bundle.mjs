// Puts what the server's processes and threads are made of into few files: reading thousands of small ones takes most of a start.
import { rm } from 'node:fs/promises';
import { basename, join, resolve } from 'node:path';
import { rolldown } from 'rolldown';
import { ROOT } from './config.mjs';

const SERVER = join(ROOT, 'apps/server/dist');
/** Lie flat beside one another, so that each finds the others whichever file it ends up in. */
const ENTRIES = ['api.js', 'worker.js', 'text/text-tasks.js', 'text/prepare-task.js', 'sifting/sift-task.js'];
/** Packages of hundreds of small files. All others are read where they are installed: some look for files beside their own. */
const TAKEN_IN =
  /^(?:@sift-reel\/(?:core|forms)|@nestjs|class-transformer|class-validator|dottie|es-toolkit|inflection|iterare|libphonenumber-js|lodash|moment|moment-timezone|reflect-metadata|retry-as-promised|rxjs|sequelize|sequelize-typescript|toposort-class|uid|validator|wkx)(?:\/|$)/;
/** What Nest asks for only where a program has it. */
const OPTIONAL = /^@nestjs\/(?:microservices|websockets)/;

export const bundleServer = () => bundle(ENTRIES, 'bundled');

/**
 * @param entries files inside the server's build, or paths to it; each becomes one of its own name
 * @param into a folder inside the server's build
 * @throws where a module of ours, or of a package that is taken in, is not found
 */
export async function bundle(entries, into) {
  const names = entries.map((entry) => basename(entry).replace(/\.m?js$/, ''));
  const to = join(SERVER, into);
  await rm(to, { recursive: true, force: true });
  const missing = [];
  const made = await rolldown({
    input: Object.fromEntries(entries.map((entry, i) => [names[i], resolve(SERVER, entry)])),
    platform: 'node',
    external: (id) => OPTIONAL.test(id) || (!/^[./]/.test(id) && !TAKEN_IN.test(id)),
    plugins: [
      {
        name: 'what-is-beside',
        transform(code, id) {
          for (const [, beside] of code.matchAll(/new URL\(['"]\.\/([^'"]+)\.js['"], import\.meta\.url\)/g))
            if (!names.includes(beside)) throw new Error(`${id} looks for ${beside}.js beside itself, which is not bundled`);
        },
      },
    ],
    onLog: (level, log) => level === 'warn' && log.code === 'UNRESOLVED_IMPORT' && missing.push(log.message),
  });
  await made.write({ dir: to, format: 'esm', entryFileNames: '[name].js', chunkFileNames: '[name]-[hash].js', keepNames: true });
  await made.close();
  if (missing.length > 0) throw new Error(missing.join('\n'));
}
