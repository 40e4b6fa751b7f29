// Writes the API document and the web's client made from it. `--check` writes nothing and fails when they differ.
import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { generateEndpoints } from '@rtk-query/codegen-openapi';
import { buildServer } from './lib/build.mjs';
import { ROOT, runMain, say, settings } from './lib/config.mjs';
import { needDebian, needNodeModules } from './lib/packages.mjs';
import { startPostgres } from './lib/postgres.mjs';
import { run } from './lib/run.mjs';
import { serviceEnv } from './lib/services.mjs';

const DOCUMENT = join(ROOT, 'apps/web/src/app/api.json');
const CLIENT = join(ROOT, 'apps/web/src/app/generated-api.ts');

/** Client code made from the document at `documentFile`. */
export async function clientFrom(documentFile) {
  const folder = join(ROOT, 'apps/web/src/app');
  const temp = await mkdtemp(join(folder, '.client-'));
  const outputFile = join(temp, 'generated-api.ts');
  try {
    await generateEndpoints({
      schemaFile: documentFile,
      apiFile: join(folder, 'base-api.ts'),
      apiImport: 'baseApi',
      exportName: 'generatedApi',
      hooks: true,
      tag: true,
      flattenArg: true,
      outputFile,
      filterEndpoints: (name) => !/^(?:export|print|readSound|bringIn|addFiles)/.test(name),
    });
    const code = await readFile(outputFile, 'utf8');
    return `// Made from the API document by \`npm run api-client\`. Not written by hand.\n${code.replace(/from "[^"]*base-api"/, "from './base-api.js'")}`;
  } finally {
    await rm(temp, { recursive: true, force: true });
  }
}

if (process.argv[1]?.endsWith('api-client.mjs')) {
  await runMain(async () => {
    await needDebian(['postgresql']);
    await needNodeModules();
    await buildServer();
    const test = settings('test');
    const postgres = await startPostgres(test);
    try {
      const env = serviceEnv(test, postgres.url, { SIFT_REEL_LOG_LEVEL: 'silent' });
      delete env.SIFT_REEL_WEB_DIR;
      const document = await run(process.execPath, [join(ROOT, 'apps/server/dist/api/document.main.js')], { cwd: ROOT, env });
      await writeFile(DOCUMENT, document);
      await writeFile(CLIENT, await clientFrom(DOCUMENT));
      const { default: prettier } = await import('prettier');
      for (const file of [DOCUMENT, CLIENT])
        await writeFile(file, await prettier.format(await readFile(file, 'utf8'), { ...(await prettier.resolveConfig(file)), filepath: file }));
      say('Wrote the API document and the web’s client.');
    } finally {
      await postgres.stop();
    }
  });
}
