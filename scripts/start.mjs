// npm start: from a machine with Node, npm and apt to a running Sift Reel, with one command. See docs/architecture.md.
import { join } from 'node:path';
import { buildServer, buildWeb } from './lib/build.mjs';
import { ROOT, runMain, say, settings, SetupError } from './lib/config.mjs';
import { needDebian, needNodeModules } from './lib/packages.mjs';
import { portIsFree, startPostgres } from './lib/postgres.mjs';
import { run } from './lib/run.mjs';
import { serviceEnv, startService } from './lib/services.mjs';

const live = settings('live');
const stops = [];
let stopping = null;

/** Stops what was started, the last first. */
function stopAll() {
  stopping ??= (async () => {
    while (stops.length > 0)
      await stops
        .pop()()
        .catch((error) => process.stderr.write(`${error.message}\n`));
  })();
  return stopping;
}

for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) {
  process.on(signal, () => {
    say('\nStopping');
    void stopAll().then(() => process.exit(0));
  });
}

await runMain(async () => {
  try {
    for (const [name, port] of [
      ['PORT', live.port],
      ['MAIL_PORT', live.mailPort],
      ['STANDINS_PORT', live.standinsPort],
    ])
      if (!(await portIsFree(port))) throw new SetupError(`The port ${port} is in use. Stop what uses it, or set SIFT_REEL_${name} to another.`);
    await needDebian(['postgresql', 'ffmpeg', 'flite', 'pocketsphinx', 'pocketsphinx-en-us']);
    await needNodeModules();
    await buildServer();
    await buildWeb();
    const postgres = await startPostgres(live);
    stops.push(postgres.stop);
    if (stopping) return;
    const env = serviceEnv(live, postgres.url);
    await run(process.execPath, [join(ROOT, 'apps/server/dist/database/migrate.main.js')], { cwd: ROOT, env });
    const standins = startService('standins', env);
    stops.push(standins.stop);
    await standins.ready;
    const api = startService('api', env);
    stops.push(api.stop);
    await Promise.all([superviseWorker(env), api.ready]);
    api.ended.then(({ code, signal }) => {
      if (!stopping) {
        process.stderr.write(`The API ended (${code ?? signal}).\n`);
        void stopAll().then(() => process.exit(1));
      }
    });
    const demo = {
      url: `http://${live.host}:${live.port}`,
      databaseUrl: postgres.url,
      demoDir: live.demoDir,
      standinsUrl: `http://127.0.0.1:${live.standinsPort}`,
      say,
    };
    const [{ loadDemo, DEMO_SIGN_IN }, { growDemo, sayWhenReady }] = [await import('../demo/load.mjs'), await import('../demo/grow.mjs')];
    await sayWhenReady(live.demoDir);
    const unfinished = await loadDemo(demo);
    say(
      `\nSift Reel runs at ${demo.url}\nSign in as ${DEMO_SIGN_IN.email} with the password “${DEMO_SIGN_IN.password}”. Ctrl-C stops everything.\nMail that it sends is read at ${demo.standinsUrl}, its podcast host is ${demo.standinsUrl}/shows/what-goes-down`,
    );
    if (!unfinished) return;
    say('The demo’s recordings are being spoken, drawn, fetched and sifted meanwhile; the desk shows how far they are.\n');
    growDemo(demo).catch((error) => {
      if (!stopping) process.stderr.write(`The demo is not complete; the next start goes on with it: ${error.message}\n`);
    });
  } catch (error) {
    if (stopping) return; // asked to stop while starting: not a fault
    await stopAll();
    throw error;
  }
});

/** A worker that ends by itself is started again; what it was at goes on where it stopped. */
async function superviseWorker(env) {
  let worker = startService('worker', env);
  stops.push(() => worker.stop());
  const watch = (one) =>
    one.ended.then(({ code, signal }) => {
      if (stopping) return;
      process.stderr.write(`The worker ended (${code ?? signal}); starting it again.\n`);
      setTimeout(() => {
        if (!stopping) {
          worker = startService('worker', env);
          watch(worker);
        }
      }, 1000);
    });
  await worker.ready;
  watch(worker);
}
