import type { Shape } from '@sift-reel/core';
import { describe, expect, it } from 'vitest';
import { askedFiles, askedOfAll } from './asked-files.js';

const on = (name: string, shapes: Shape[], loudness: number, truePeak = -1) => ({ platform: { id: name, name, shapes, loudness, truePeak } });
const asked = (...channels: ReturnType<typeof on>[]): string[] => askedFiles(channels).map(({ shape, platform }) => `${shape} ${platform?.name ?? '-'}`);

describe('the files that can be asked for', () => {
  it('are each shape once where there is nothing to choose', () => {
    const plain = ['vertical -', 'square -', 'portrait -', 'wide -', 'sound -'];
    expect(asked()).toEqual(plain);
    expect(asked(on('A', ['vertical'], -16))).toEqual(plain);
    expect(asked(on('A', ['vertical'], -16), on('B', ['vertical', 'wide'], -16))).toEqual(plain);
  });
  it('are a shape once for each loudness, by the order of the channels, where the platforms that take it differ', () => {
    const both = asked(on('A', ['vertical'], -16), on('B', ['vertical', 'wide'], -14), on('C', ['vertical'], -14));
    expect(both).toEqual(['vertical A', 'vertical B', 'square -', 'portrait -', 'wide -', 'sound A', 'sound B']);
    expect(asked(on('A', ['wide'], -14, -1), on('B', ['wide'], -14, -2))).toContain('wide B');
  });
  it('of several clients name a platform where every one of them is on it', () => {
    const [a, b, c] = [on('A', ['vertical'], -16), on('B', ['vertical'], -14), on('C', ['vertical'], -12)];
    const channels = [a, b, c].map((one) => ({ ...one, clientId: 'first' })).concat([c, a].map((one) => ({ ...one, clientId: 'second' })));
    const named = (...clients: string[]): string[] =>
      askedOfAll(clients, channels).flatMap(({ shape, platform }) => (shape === 'vertical' ? (platform?.name ?? '-') : []));
    expect(named('first')).toEqual(['A', 'B', 'C']);
    expect(named('first', 'second')).toEqual(['A', 'C']);
    expect(named('first', 'second', 'third')).toEqual(['-']);
    expect(named()).toEqual(['-']);
  });
});
