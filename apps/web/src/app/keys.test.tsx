// @vitest-environment jsdom
import { screen } from '@testing-library/react';
import { type ReactNode, useState } from 'react';
import { describe, expect, it, vi } from 'vitest';
import { Dialog } from '../ui/dialog.js';
import { keyName, useActiveKeys, useKeys } from './keys.js';
import { onScreens, show } from './screen.fixture.js';

function Page({ run }: { run: (what: string) => void }): ReactNode {
  const [more, setMore] = useState(false);
  const [asking, setAsking] = useState(false);
  useKeys([
    { key: 'k', label: 'Keep', group: 'Page', run: () => run('keep') },
    { key: ' ', label: 'Play', group: 'Page', run: () => run('play') },
    { key: 'mod+z', label: 'Undo', group: 'Page', run: () => run('undo') },
    { key: 'mod+shift+z', label: 'Redo', group: 'Page', run: () => run('redo') },
    { key: 'ArrowDown', label: 'Next', group: 'Page', run: () => run('next') },
  ]);
  const keys = useActiveKeys();
  return (
    <>
      <input aria-label="Words" />
      <input aria-label="Tick" type="checkbox" />
      <input aria-label="Slide" type="range" />
      <button type="button" onClick={() => setMore(!more)}>
        More
      </button>
      <button type="button" onClick={() => setAsking(true)}>
        Ask
      </button>
      {more && <Inner run={run} />}
      <p>{keys.map(({ key, label }) => `${keyName(key)} ${label}`).join(', ')}</p>
      {asking && (
        <Dialog open onClose={() => setAsking(false)} title="Sure?">
          <button type="button">Yes</button>
        </Dialog>
      )}
    </>
  );
}

function Inner({ run }: { run: (what: string) => void }): ReactNode {
  useKeys([{ key: 'x', label: 'Drop', group: 'Inner', run: () => run('drop') }]);
  return null;
}

describe('keys', () => {
  onScreens();
  const page = () => {
    const run = vi.fn<(what: string) => void>();
    return { run, ...show(<Page run={run} />) };
  };
  it('do what they say, large or small, with Ctrl', async () => {
    const { user, run } = page();
    await user.keyboard('kK{Control>}z{/Control}{Control>}{Shift>}z{/Shift}{/Control}{ArrowDown}');
    expect(run.mock.calls.flat()).toEqual(['keep', 'keep', 'undo', 'redo', 'next']);
  });
  it('are left to a field that is typed into, and to a slider', async () => {
    const { user, run } = page();
    await user.type(screen.getByLabelText('Words'), 'k k');
    screen.getByLabelText('Slide').focus();
    await user.keyboard('k{ArrowDown}');
    expect(run).not.toHaveBeenCalled();
    expect(screen.getByLabelText('Words')).toHaveValue('k k');
  });
  it('still work after something was ticked, but for the space that ticks it', async () => {
    const { user, run } = page();
    await user.click(screen.getByLabelText('Tick'));
    await user.keyboard('k ');
    expect(run.mock.calls.flat()).toEqual(['keep']);
    expect(screen.getByLabelText('Tick')).not.toBeChecked();
  });
  it('leave the space to a button, and other keys not', async () => {
    const { user, run } = page();
    screen.getByRole('button', { name: 'More' }).focus();
    await user.keyboard(' k');
    expect(run.mock.calls.flat()).toEqual(['keep']);
  });
  it('come and go with what is shown, and are listed', async () => {
    const { user, run } = page();
    await user.keyboard('x');
    await user.click(screen.getByRole('button', { name: 'More' }));
    expect(screen.getByText('K Keep, space Play, Ctrl Z Undo, Ctrl Shift Z Redo, ↓ Next, X Drop')).toBeInTheDocument();
    await user.keyboard('x');
    await user.click(screen.getByRole('button', { name: 'More' }));
    await user.keyboard('x');
    expect(run.mock.calls.flat()).toEqual(['drop']);
  });
  it('rest while something is asked, and come back with Escape', async () => {
    const { user, run } = page();
    await user.click(screen.getByRole('button', { name: 'Ask' }));
    expect(await screen.findByRole('dialog', { name: 'Sure?' })).toBeInTheDocument();
    await user.keyboard('k');
    expect(run).not.toHaveBeenCalled();
    await user.keyboard('{Escape}');
    await expect.poll(() => screen.queryByRole('dialog')).toBeNull();
    await user.keyboard('k');
    expect(run.mock.calls.flat()).toEqual(['keep']);
  });
});
