import { runMain } from './lib/config.mjs';
import { needNodeModules } from './lib/packages.mjs';
import { buildServer, buildWeb } from './lib/build.mjs';

await runMain(async () => {
  await needNodeModules();
  await buildServer();
  await buildWeb();
});
