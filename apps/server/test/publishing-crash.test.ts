import { afterAll, expect, it } from 'vitest';
import { runStorm } from './posting-storm.js';
import { PublishingWorld } from './publishing-world.js';
import { query } from './world.js';

let here: PublishingWorld | undefined;
afterAll(() => here?.close());

// The small one of bench/storm, which posts a thousand over 40 accounts.
it('posts go out once each, or stand refused or missed with a true reason, whatever dies and whatever is lost', async () => {
  here = await PublishingWorld.make(60);
  const storm = await runStorm(here, { accounts: 10, posts: 60, overMs: 90 * 60_000, share: 0.3, kills: 4, workers: 2, seed: 20_261_130 });
  const states = await query('SELECT id, state, waits, failure FROM posts WHERE id = ANY ($1::uuid[])', [storm.postIds]);
  const ends = new Map(states.map((row) => [String(row['id']), row]));
  for (const postId of storm.postIds) {
    const copies = storm.copiesOf(postId);
    const { state, failure, waits } = ends.get(postId)!;
    expect(copies, `${postId} ${String(state)} ${String(waits)} ${String(failure)}`).toHaveLength(state === 'posted' ? 1 : 0);
    if (state === 'posted') expect(copies[0]!.sha256).toBe(storm.sha256Of(postId));
    else {
      expect(['refused', 'missed']).toContain(state);
      expect(String(failure)).toMatch(/advertisement|minutes late/);
    }
  }
  expect(storm.tooMany(), 'calls over an account’s limit').toBe(0);
  expect(storm.killed).toBeGreaterThanOrEqual(4);
  const log = await storm.log();
  for (const secret of storm.secrets()) expect(log).not.toContain(secret);
  expect(log).toContain('job taken up'); // it says something at all
}, 600_000);
