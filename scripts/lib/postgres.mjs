// A PostgreSQL cluster of our own, on loopback, under var/. PostgreSQL refuses to run as root: then it runs as `postgres`.
import { spawn } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync } from 'node:fs';
import { chmod, chown, mkdir, readFile, rm, symlink, writeFile } from 'node:fs/promises';
import { createConnection, createServer } from 'node:net';
import { join } from 'node:path';
import { say, SetupError } from './config.mjs';
import { pgBin } from './packages.mjs';
import { run } from './run.mjs';

const asRoot = process.getuid?.() === 0;

/** A command line that runs as the cluster's user. */
function asClusterUser(command, args) {
  return asRoot ? ['setpriv', ['--reuid=postgres', '--regid=postgres', '--init-groups', command, ...args]] : [command, args];
}

/** True when nothing listens on the port. */
export function portIsFree(port, host = '127.0.0.1') {
  return new Promise((resolve) => {
    const server = createServer();
    server.once('error', () => resolve(false));
    server.listen(port, host, () => server.close(() => resolve(true)));
  });
}

/** The folder of the cluster: under var/, or, where `postgres` may not go there, in /var/tmp with a link to it. */
async function clusterDir(settings) {
  const wanted = join(settings.dir, 'postgres');
  await mkdir(settings.dir, { recursive: true });
  if (!asRoot) return wanted;
  const [command, args] = asClusterUser('test', ['-x', settings.dir]);
  const reachable = await run(command, args).then(
    () => true,
    () => false,
  );
  if (reachable) return wanted;
  const elsewhere = join('/var/tmp', `sift-reel-${createHash('sha256').update(settings.dir).digest('hex').slice(0, 16)}`);
  if (!existsSync(wanted)) await symlink(elsewhere, wanted).catch(() => undefined);
  return elsewhere;
}

async function idsOfPostgres() {
  const [uid, gid] = await Promise.all([run('id', ['-u', 'postgres']), run('id', ['-g', 'postgres'])]);
  return [Number(uid), Number(gid)];
}

async function makeCluster(bin, dir) {
  if (existsSync(join(dir, 'PG_VERSION'))) {
    const had = (await readFile(join(dir, 'PG_VERSION'), 'utf8')).trim();
    const have = bin.split('/').at(-2);
    if (had !== have)
      throw new SetupError(`The database in ${dir} was made by PostgreSQL ${had}; ${have} is installed. Install postgresql-${had}, or move the folder away.`);
    return;
  }
  say('Making a PostgreSQL cluster');
  await mkdir(dir, { recursive: true, mode: 0o700 });
  if (asRoot) await chown(dir, ...(await idsOfPostgres()));
  await chmod(dir, 0o700);
  const [command, args] = asClusterUser(join(bin, 'initdb'), ['-D', dir, '-U', 'sift_reel', '-A', 'trust', '-E', 'UTF8', '--locale=C.UTF-8', '--no-sync']);
  await run(command, args, { cwd: '/' });
}

/** A cluster that a killed start left running is stopped; one that belongs to a living start is in use. */
async function clearLeftovers(bin, dir, settings) {
  const pid = Number((await readFile(join(dir, 'postmaster.pid'), 'utf8').catch(() => '')).split('\n')[0]);
  if (!pid || !isAlive(pid)) return;
  const starter = Number(await readFile(join(settings.dir, 'start.pid'), 'utf8').catch(() => ''));
  if (starter && starter !== process.pid && isAlive(starter))
    throw new SetupError(
      `The database in ${dir} is in use: Sift Reel runs from here already (process ${starter}). Stop it first, or set SIFT_REEL_VAR_DIR to another folder.`,
    );
  const [command, args] = asClusterUser(join(bin, 'pg_ctl'), ['stop', '-D', dir, '-m', 'fast', '-w']);
  await run(command, args, { cwd: '/' });
}

function isAlive(pid) {
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    return error.code === 'EPERM';
  }
}

/**
 * Starts the cluster. @returns the address of the database, and `stop`.
 * Throws SetupError when the port or the cluster is in use.
 */
export async function startPostgres(settings) {
  const bin = pgBin();
  if (bin === null) throw new SetupError('PostgreSQL is not installed.');
  const dir = await clusterDir(settings);
  await makeCluster(bin, dir);
  await clearLeftovers(bin, dir, settings);
  await writeFile(join(settings.dir, 'start.pid'), String(process.pid));
  if (!(await portIsFree(settings.pgPort)))
    throw new SetupError(
      `The port ${settings.pgPort} is in use; the database needs it. Set SIFT_REEL_${settings.profile === 'test' ? 'TEST_' : ''}PG_PORT to another.`,
    );
  const options = [
    '-D',
    dir,
    '-p',
    String(settings.pgPort),
    '-c',
    'listen_addresses=127.0.0.1',
    '-c',
    'unix_socket_directories=',
    '-c',
    'timezone=UTC',
    '-c',
    'shared_buffers=128MB',
  ];
  if (settings.profile === 'test') options.push('-c', 'fsync=off', '-c', 'synchronous_commit=off', '-c', 'full_page_writes=off'); // its data is thrown away
  const [command, args] = asClusterUser(join(bin, 'postgres'), options);
  // Its own process group: Ctrl-C is for us, who stop it last.
  const child = spawn(command, args, { cwd: '/', stdio: ['ignore', 'ignore', 'pipe'], detached: true });
  let log = '';
  child.stderr.on('data', (chunk) => {
    log = (log + chunk).slice(-4000);
  });
  let ended = false;
  child.on('close', () => {
    ended = true;
  });
  for (let tries = 0; !(await answers(settings.pgPort)); tries += 1) {
    if (ended || tries > 300) throw new SetupError(`PostgreSQL did not start:\n${log}`);
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
  await makeDatabase(bin, settings);
  return {
    url: `postgres://sift_reel@127.0.0.1:${settings.pgPort}/sift_reel`,
    child,
    stop: async () => {
      if (!ended) {
        const closed = new Promise((resolve) => child.once('close', resolve));
        process.kill(child.pid, 'SIGINT'); // fast shutdown: open sessions are ended, nothing is lost
        await closed;
      }
      await rm(join(settings.dir, 'start.pid'), { force: true });
    },
  };
}

function answers(port) {
  return new Promise((resolve) => {
    const socket = createConnection({ port, host: '127.0.0.1' });
    socket.once('connect', () => {
      socket.destroy();
      resolve(true);
    });
    socket.once('error', () => resolve(false));
  });
}

/** `postgres` takes connections a moment before it takes queries. */
async function makeDatabase(bin, settings) {
  const psql = (database, sql) => run(join(bin, 'psql'), ['-h', '127.0.0.1', '-p', String(settings.pgPort), '-U', 'sift_reel', '-d', database, '-qtAc', sql]);
  for (let tries = 0; ; tries += 1) {
    try {
      const there = await psql('postgres', `SELECT 1 FROM pg_database WHERE datname = 'sift_reel'`);
      if (there.trim() === '') await psql('postgres', 'CREATE DATABASE sift_reel');
      return;
    } catch (error) {
      if (tries > 50) throw new SetupError(`The database does not answer: ${error.message}`);
      await new Promise((resolve) => setTimeout(resolve, 100));
    }
  }
}
