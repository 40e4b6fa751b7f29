import { describe, expect, it } from 'vitest';
import { inBoardOrder } from './plan.js';

describe('the order of the board', () => {
  const channel = (id: string, clientId: string) => ({ id, clientId });
  it('is client by client by name, and within a client as it was', () => {
    const names = new Map([
      ['k1', 'Zinnia'],
      ['k2', 'Ardcree'],
    ]);
    const channels = [channel('a', 'k1'), channel('b', 'k2'), channel('c', 'k1'), channel('d', 'k2')];
    expect(inBoardOrder(channels, names).map(({ id }) => id)).toEqual(['b', 'd', 'a', 'c']);
    expect(channels.map(({ id }) => id)).toEqual(['a', 'b', 'c', 'd']);
  });
  it('keeps clients of one name apart', () => {
    const names = new Map([
      ['k1', 'Twin'],
      ['k2', 'Twin'],
    ]);
    expect(inBoardOrder([channel('a', 'k2'), channel('b', 'k1'), channel('c', 'k2')], names).map(({ id }) => id)).toEqual(['b', 'a', 'c']);
  });
});
