// How soon posts leave when 500 are due in one minute, over 40 accounts of four platforms (the fifth is handed over ahead of its time), with
// two workers, by the time of day. Asked: 99 % within 30 s of their minute. Takes some ten minutes, most of it waiting for the minute.
import { mkdtemp, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { runShown } from '../scripts/lib/run.mjs';
import { row } from './measure.mjs';

const folder = await mkdtemp(join(tmpdir(), 'sift-reel-punctual-'));
const file = join(folder, 'report.json');
try {
  const env = { ...process.env, SIFT_REEL_STORM: 'punctual', SIFT_REEL_STORM_REPORT: file };
  const code = await runShown('npx', ['vitest', 'run', '--project', 'api', 'publishing-crash'], { env });
  if (code !== 0) process.exit(code);
  const { posts, first, half, most, last } = JSON.parse(await readFile(file, 'utf8'));
  row(
    `${posts} posts due in one minute left after`,
    `first ${first.toFixed(1)} s, half ${half.toFixed(1)} s, 99 % ${most.toFixed(1)} s, last ${last.toFixed(1)} s`,
  );
} finally {
  await rm(folder, { recursive: true, force: true });
}
