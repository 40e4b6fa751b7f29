// @vitest-environment jsdom
import { screen, within } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import type { ClientView, FeedView } from '../../app/api.js';
import { episodeView as episode, feedView as feed } from '../../app/feed.fixture.js';
import { type Answers, onScreens, pick, show } from '../../app/screen.fixture.js';
import { undoLast } from '../../app/undo.js';
import { Feeds } from './feeds.js';

describe('the feeds of a client', () => {
  onScreens();
  const client = { id: 'c1', name: 'Tern & Tide' } as ClientView;
  const feeds = (list: FeedView[], more: Answers = {}) => show(<Feeds client={client} />, { 'api/feeds': list, ...more });
  it('tell how each stands', async () => {
    feeds([
      feed(),
      feed({ id: 'f2', title: 'Read just now', reading: true, readAt: null }),
      feed({ id: 'f3', title: 'Broken', trouble: 'shows.example refused (503).' }),
      feed({ id: 'f4', title: 'Ended', trouble: 'shows.example has nothing at this address (410).', nextReadAt: null }),
      feed({ id: 'f5', clientId: 'c2', title: 'Of another' }),
    ]);
    expect(await screen.findAllByText(/3 episodes, 1 new · read 2 Jan/)).toHaveLength(3);
    expect(screen.getByText(/3 episodes, 1 new · being read/)).toBeInTheDocument();
    const alerts = screen.getAllByRole('alert').map((one) => one.textContent);
    expect(alerts).toEqual([
      expect.stringMatching(/\(503\)\. It is read again 2 Jan/),
      'shows.example has nothing at this address (410). It is not read by itself any more.',
    ]);
    expect(screen.queryByText('Of another')).toBeNull();
  });
  it('are followed, and what becomes of new episodes is changed and changed back', async () => {
    const { user, asked } = feeds([feed()], {
      'POST api/clients/c1/feeds': feed({ id: 'f9' }),
      'PUT api/feeds/f1': feed({ rule: 'sift', version: 2 }),
    });
    await user.type(await screen.findByLabelText('Address of the feed (RSS)'), 'https://shows.example/other.xml');
    await user.click(screen.getByRole('button', { name: 'Follow the feed' }));
    await expect.poll(() => asked.find(({ method }) => method === 'POST')?.body).toEqual({ url: 'https://shows.example/other.xml', rule: 'list' });
    await pick(user, 'New episodes of Low Water are', 'taken in and sifted');
    await expect.poll(() => asked.filter(({ method }) => method === 'PUT').map(({ body }) => body)).toEqual([{ rule: 'sift', version: 1 }]);
    await undoLast();
    expect(asked.filter(({ method }) => method === 'PUT').at(-1)!.body).toEqual({ rule: 'list', version: 2 });
  });
  it('are left only when asked twice', async () => {
    const { user, asked } = feeds([feed()], { 'DELETE api/feeds/f1': null });
    await user.click(await screen.findByRole('button', { name: 'Stop following Low Water' }));
    await user.click(await screen.findByRole('button', { name: 'Keep following it' }));
    expect(asked.some(({ method }) => method === 'DELETE')).toBe(false);
    await user.click(screen.getByRole('button', { name: 'Stop following Low Water' }));
    await user.click(await screen.findByRole('button', { name: 'Stop following it' }));
    await expect.poll(() => asked.filter(({ method }) => method === 'DELETE').length).toBe(1);
  });
  it('list what is out, and what became of it', async () => {
    const { user } = feeds([feed()], { 'api/feeds/f1/episodes': [episode('e1'), episode('e2', { recordingId: 'r1' }), episode('e3', { isNew: false })] });
    await user.click(await screen.findByRole('button', { name: 'Low Water' }));
    const items = await within(await screen.findByRole('dialog')).findAllByRole('listitem');
    expect(items.map((one) => within(one).queryByText('new') !== null)).toEqual([true, false, false]);
    expect(within(items[1]!).getByRole('link', { name: 'taken in' })).toHaveAttribute('href', '/recordings/r1');
  });
  it('that are none say what would be here', async () => {
    feeds([]);
    expect(await screen.findByText(/^No feeds yet\./)).toBeInTheDocument();
  });
});
