// @vitest-environment jsdom
import { screen } from '@testing-library/react';
import { type ReactNode, useState } from 'react';
import { describe, expect, it, vi } from 'vitest';
import { Dialog } from '../ui/dialog.js';
import { forgetKeys, holdKeys } from './held-keys.js';
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

  describe('while a step is under way', () => {
    it('wait, and are done in order when it is over', async () => {
      const { user, run } = page();
      const done = holdKeys();
      await user.keyboard('kx {Control>}z{/Control}{ArrowDown}{ArrowDown}');
      expect(run).not.toHaveBeenCalled();
      await user.keyboard('q');
      const later = holdKeys();
      done();
      await new Promise((resolve) => setTimeout(resolve, 5));
      expect(run).not.toHaveBeenCalled();
      later();
      await expect.poll(() => run.mock.calls.flat()).toEqual(['keep', 'play', 'undo', 'next', 'next']);
    });
    it('go to what is shown then', async () => {
      const { user, run } = page();
      const done = holdKeys();
      await user.keyboard('x');
      (screen.getByRole('button', { name: 'More' }) as HTMLButtonElement).click();
      done();
      await expect.poll(() => run.mock.calls.flat()).toEqual(['drop']);
    });
    it('are one where a hand presses the same again, got no answer', async () => {
      const { user, run } = page();
      let done = (): void => undefined;
      run.mockImplementationOnce(() => {
        done = holdKeys();
      });
      await user.keyboard('kkk kk');
      expect(run.mock.calls.flat()).toEqual(['keep']);
      done();
      await expect.poll(() => run.mock.calls.flat()).toEqual(['keep', 'play', 'keep']);
    });
    it('begin with the one that is waited for', async () => {
      const { user, run } = page();
      const done = holdKeys('ArrowDown');
      await user.keyboard('k');
      done();
      await expect.poll(() => run.mock.calls.flat()).toEqual(['next', 'keep']);
    });
    it('are forgotten where the step fails, and where the mouse is taken', async () => {
      const { user, run } = page();
      let done = holdKeys();
      await user.keyboard('k');
      forgetKeys();
      done();
      done = holdKeys();
      await user.keyboard('k');
      await user.click(screen.getByLabelText('Tick'));
      done();
      await user.keyboard(' ');
      await user.keyboard('{ArrowDown}');
      await expect.poll(() => run.mock.calls.flat()).toEqual(['next']);
    });
    it('begin with it though it is what was pressed', async () => {
      const { user, run } = page();
      let done = (): void => undefined;
      run.mockImplementationOnce(() => {
        done = holdKeys('k');
      });
      await user.keyboard('kk ');
      done();
      await expect.poll(() => run.mock.calls.flat()).toEqual(['keep', 'keep', 'play']);
    });
    it('are written into the field that the first of them leads into', async () => {
      const { user, run } = page();
      const insert = vi.fn<(command: string, shown: boolean, text: string) => boolean>(() => true);
      Object.assign(document, { execCommand: insert }); // jsdom has none; the browser test writes for real
      run.mockImplementationOnce(() => screen.getByLabelText('Words').focus());
      const done = holdKeys();
      await user.keyboard('kkXx{ArrowDown}');
      done();
      await expect.poll(() => insert.mock.calls.map(([, , text]) => text).join('')).toBe('kXx');
      expect(run.mock.calls.flat()).toEqual(['keep']);
    });
    it('are left to a field that is typed into', async () => {
      const { user, run } = page();
      const done = holdKeys();
      await user.type(screen.getByLabelText('Words'), 'k k');
      done();
      expect(screen.getByLabelText('Words')).toHaveValue('k k');
      expect(run).not.toHaveBeenCalled();
    });
  });
});
