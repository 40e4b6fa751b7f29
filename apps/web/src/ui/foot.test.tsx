// @vitest-environment jsdom
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { onScreens, show } from '../app/screen.fixture.js';
import { cleanup } from '@testing-library/react';
import { atFoot } from './foot.js';

const foot = (): string => document.documentElement.style.getPropertyValue('--foot');

describe('a bar at the foot of the screen', () => {
  onScreens();
  beforeEach(() => {
    vi.spyOn(HTMLElement.prototype, 'getBoundingClientRect').mockImplementation(function (this: HTMLElement) {
      return { top: window.innerHeight - Number(this.dataset['high'] ?? 0) } as DOMRect;
    });
  });
  afterEach(() => void vi.restoreAllMocks());

  it('says how far it reaches up for as long as it is there, the highest of two', () => {
    expect(foot()).toBe('');
    show(
      <>
        <p ref={atFoot} data-high="44" />
        <p ref={atFoot} data-high="40" />
      </>,
    );
    expect(foot()).toBe('44px');
    cleanup();
    expect(foot()).toBe('');
  });
});
