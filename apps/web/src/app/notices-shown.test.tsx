// @vitest-environment jsdom
import { act, screen } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { noticeClosed, noticed } from './notices.js';
import { Notices } from './notices-shown.js';
import { onScreens, show } from './screen.fixture.js';
import { store } from './store.js';

/** Longer than a message takes to fade, shorter than one is shown. */
const FADED_MS = 1_000;
const STEP_MS = 50;

describe('messages at the foot of the screen', () => {
  onScreens();
  beforeEach(() => void vi.useFakeTimers());
  afterEach(() => void vi.useRealTimers());

  const say = (text: string, kind: 'done' | 'trouble' = 'done'): void => act(() => void store.dispatch(noticed({ kind, text, deedId: null })));
  /** Step by step: what is drawn anew sets timers of its own. */
  const pass = (ms: number): void => {
    for (let passed = 0; passed < ms; passed += STEP_MS) act(() => void vi.advanceTimersByTime(STEP_MS));
  };
  const closeNewest = (): void => act(() => void store.dispatch(noticeClosed(store.getState().notices.at(-1)!.id)));

  it('a message that comes while the last one fades is shown for its time', () => {
    show(<Notices />);
    say('Deleted the day');
    pass(50);
    closeNewest();
    pass(50);
    say('Saved the brief');
    pass(FADED_MS);
    expect(screen.getByText('Saved the brief')).toBeInTheDocument();
    expect(screen.queryByText('Deleted the day')).toBeNull();
    pass(6_000);
    pass(FADED_MS);
    expect(screen.queryByText('Saved the brief')).toBeNull();
  });

  it('what went wrong stays until it is closed, and shows again when what came after it has gone', () => {
    show(<Notices />);
    say('The server does not answer', 'trouble');
    pass(60_000);
    expect(screen.getByRole('alert')).toHaveTextContent('The server does not answer');
    say('Kept the candidate');
    pass(FADED_MS);
    expect(screen.queryByRole('alert')).toBeNull();
    pass(6_000);
    pass(FADED_MS);
    expect(screen.getByRole('alert')).toHaveTextContent('The server does not answer');
    closeNewest();
    pass(FADED_MS);
    expect(screen.queryByRole('alert')).toBeNull();
  });
});
