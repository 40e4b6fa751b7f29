// A thousand posts over 40 accounts of five platforms in simulated time, 30 % of the calls going wrong, workers killed with -9, PostgreSQL
// restarted twice: every post is at its platform once, or stands refused or missed with a true reason. The test of the same kind that
// `npm test` runs, larger. Takes some ten minutes.
import { mkdtemp, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { runShown } from '../scripts/lib/run.mjs';
import { row } from './measure.mjs';

const folder = await mkdtemp(join(tmpdir(), 'sift-reel-storm-'));
const file = join(folder, 'report.json');
try {
  const env = { ...process.env, SIFT_REEL_STORM: 'large', SIFT_REEL_STORM_REPORT: file };
  const code = await runShown('npx', ['vitest', 'run', '--project', 'api', 'publishing-crash'], { env });
  if (code !== 0) process.exit(code);
  const { posts, posted, refused, missed, killed, lost, found, calls } = JSON.parse(await readFile(file, 'utf8'));
  row('posts', `${posts}: ${posted} posted, ${refused} refused, ${missed} missed`);
  row('calls let through', `${calls}`);
  row('calls whose end was not known', `${lost}, of which ${found} were found to be there`);
  row('workers killed, databases restarted', `${killed}, 2`);
} finally {
  await rm(folder, { recursive: true, force: true });
}
