import { setTimeout as wait } from 'node:timers/promises';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { Rounds } from '../dist/config/rounds.js';

afterEach(() => vi.useRealTimers());

describe('work that comes round', () => {
  it('never runs beside itself, however long a round takes, and goes on after one that failed', async () => {
    vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] });
    const began: number[] = [];
    let [atOnce, most] = [0, 0];
    const rounds = new Rounds('a test', 100, async () => {
      began.push(Date.now());
      most = Math.max(most, (atOnce += 1));
      await new Promise((resolve) => setTimeout(resolve, began.length > 1 ? 350 : 0));
      atOnce -= 1;
      if (began.length === 3) throw new Error('the database is away');
    });
    const first = rounds.begin();
    await vi.advanceTimersByTimeAsync(0);
    await first;
    await vi.advanceTimersByTimeAsync(4 * 450);
    expect([began.length, most]).toEqual([5, 1]);
    rounds.end();
    await vi.advanceTimersByTimeAsync(5_000);
    expect(began).toHaveLength(5);
  });
  it('that is ended in its first round does not begin a second', async () => {
    let count = 0;
    const rounds = new Rounds('a test', 1, () => Promise.resolve((count += 1)));
    const first = rounds.begin();
    rounds.end();
    await first;
    await wait(30);
    expect(count).toBe(1);
  });
  it('says so where the first round fails', async () => {
    await expect(new Rounds('a test', 1, () => Promise.reject(new Error('away'))).begin()).rejects.toThrow('away');
  });
});
