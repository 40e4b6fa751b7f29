import { join } from 'node:path';
import { settings } from '../../../scripts/lib/config.mjs';

/** Tests that stop their database in the middle: each has a cluster, and a port, of its own, since they may run at once. */
const CLUSTERS = ['crash', 'restart', 'storm'] as const;
const FIRST = 8;

export function ownCluster(name: (typeof CLUSTERS)[number], dir?: string): ReturnType<typeof settings> {
  const test = settings('test');
  return { ...test, dir: dir ?? join(test.dir, name), pgPort: test.pgPort + FIRST + CLUSTERS.indexOf(name) };
}
