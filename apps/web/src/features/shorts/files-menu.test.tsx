// @vitest-environment jsdom
import { screen, within } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import { type Answers, onScreens, show } from '../../app/screen.fixture.js';
import { store } from '../../app/store.js';
import { FilesMenu } from './files-menu.js';
import { shortView } from './short.fixture.js';

const platform = (id: string, loudness: number) => ({ id, name: `Platform ${id}`, shapes: ['vertical'], loudness, truePeak: -1 });
const CHANNELS = [
  { id: 'one', clientId: 'c1', platform: platform('quiet', -18) },
  { id: 'two', clientId: 'c1', platform: platform('loud', -12) },
];
const SHORTS = [shortView('a', 'No rope at all'), shortView('b', 'The second tide')];
const menu = async (answers: Answers) => {
  const shown = show(<FilesMenu shorts={SHORTS} />, { 'api/channels': CHANNELS, ...answers });
  await expect.poll(() => shown.asked.map(({ path }) => path)).toContain('api/channels');
  await shown.user.click(await screen.findByRole('button', { name: 'Files' }));
  return { ...shown, items: within(await screen.findByRole('menu')) };
};

describe('files of several shorts', () => {
  onScreens();
  it('are made as loud as the platform that is chosen, where those of the client differ', async () => {
    const { user, items, asked } = await menu({ 'POST api/shorts/a/renders': {}, 'POST api/shorts/b/renders': {} });
    expect(items.getAllByRole('menuitem', { name: /^Make 2 files, square/ })).toHaveLength(1);
    await user.click(items.getByRole('menuitem', { name: /^Make 2 files, vertical.*Platform loud: −12 LUFS/ }));
    await expect
      .poll(() => asked.filter(({ method }) => method === 'POST').map(({ path, body }) => [path, body]))
      .toEqual(['a', 'b'].map((id) => [`api/shorts/${id}/renders`, { shape: 'vertical', platformProfileId: 'loud' }]));
  });
  it('are not taken away while one of that loudness is missing', async () => {
    const ready = [
      { shortId: 'a', title: 'No rope at all', ready: true },
      { shortId: 'b', title: 'The second tide', ready: false },
    ];
    const { user, items } = await menu({ 'api/renders/ready?shape=vertical&shortIds=a%2Cb&platformProfileId=quiet': ready });
    await user.click(items.getByRole('menuitem', { name: /^Take away as ZIP, vertical.*Platform quiet/ }));
    await expect
      .poll(() =>
        store
          .getState()
          .notices.map(({ text }) => text)
          .join(),
      )
      .toContain('“The second tide”');
  });
});
