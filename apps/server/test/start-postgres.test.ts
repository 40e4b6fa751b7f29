import { execFile } from 'node:child_process';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { expect, it } from 'vitest';
import { pgBin } from '../../../scripts/lib/packages.mjs';
import { portIsFree, startPostgres } from '../../../scripts/lib/postgres.mjs';
import { ownCluster } from './own-cluster.js';

const run = promisify(execFile);

it('a cluster that somebody restarted under us is stopped all the same', async () => {
  const dir = await mkdtemp(join(tmpdir(), 'sift-reel-cluster-'));
  const own = ownCluster('restart', dir);
  const started = await startPostgres(own);
  try {
    const data = (await run(join(pgBin()!, 'psql'), [started.adminUrl, '-qtAc', 'SHOW data_directory'])).stdout.trim();
    const restart = [join(pgBin()!, 'pg_ctl'), 'restart', '-D', data, '-m', 'fast', '-w', '-l', '/dev/null'];
    const command = process.getuid?.() === 0 ? ['setpriv', '--reuid=postgres', '--regid=postgres', '--init-groups', ...restart] : restart;
    await run(command[0]!, command.slice(1), { cwd: '/' });
    expect(await portIsFree(own.pgPort)).toBe(false);
  } finally {
    await started.stop();
    await rm(dir, { recursive: true, force: true });
  }
  expect(await portIsFree(own.pgPort)).toBe(true);
});
