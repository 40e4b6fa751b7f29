// @vitest-environment jsdom
import { fireEvent, screen, within } from '@testing-library/react';
import { describe, expect, it, vi } from 'vitest';
import type { ChannelView, PlatformProfileView } from '../../app/api.js';
import { type Answers, onScreens, pick, Refusal, show } from '../../app/screen.fixture.js';
import { ChannelDialog } from './channel-dialog.js';
import { PlatformsPage } from './platforms-page.js';

const LOOP: PlatformProfileView = {
  id: '33333333-3333-4333-8333-333333333333',
  name: 'Loop',
  minDurationMs: 5_000,
  maxDurationMs: 60_000,
  shapes: ['vertical'],
  titleLimit: 100,
  descriptionLimit: 500,
  hashtagLimit: 5,
  postsPerDay: 2,
  minGapMinutes: 120,
  loudness: -14,
  truePeak: -1,
  service: null,
  version: 2,
};
const CHANNEL: ChannelView = {
  id: 'ch1',
  clientId: 'c1',
  name: 'Tern clips',
  zone: 'Europe/Dublin',
  order: 2,
  postsPerDay: 1,
  postsPerWeek: 5,
  language: null,
  platform: LOOP,
  windows: [{ weekday: 3, minute: 750, weight: 90 }],
  version: 7,
};

describe('a channel', () => {
  onScreens();
  const dialog = (channel: ChannelView | null, more: Answers = {}) => {
    const onClose = vi.fn();
    return {
      onClose,
      ...show(
        <ChannelDialog clientId="c1" zone="Europe/Dublin" channel={channel} nextOrder={3} onClose={onClose} />,
        Object.assign(more, { 'api/platform-profiles': [LOOP] }),
      ),
    };
  };
  it('needs a name and a platform', async () => {
    const { user, asked } = dialog(null);
    await user.click(await screen.findByRole('button', { name: 'Add the channel' }));
    expect(await screen.findByText('Must be chosen')).toBeInTheDocument();
    expect(screen.getByLabelText('Name')).toHaveAttribute('aria-invalid', 'true');
    expect(asked.some(({ method }) => method === 'POST')).toBe(false);
  });
  it('is made with its windows, in the order of the week, each once', async () => {
    const { user, asked, onClose } = dialog(null, { 'POST api/clients/c1/channels': CHANNEL });
    await user.type(await screen.findByLabelText('Name'), 'Tern clips');
    await pick(user, 'Platform profile', 'Loop');
    fireEvent.change(screen.getByLabelText(/^Time\s*$/), { target: { value: '25:30' } });
    expect(screen.getByRole('alert')).toHaveTextContent('“25:30” is no time of day: write it as 07:30 or 19:05.');
    expect(screen.getByRole('button', { name: 'Fri +' })).toBeDisabled();
    fireEvent.change(screen.getByLabelText(/^Time\s*$/), { target: { value: '12.30' } });
    for (const day of ['Fri +', 'Mon +', 'Mon +']) await user.click(screen.getByRole('button', { name: day }));
    fireEvent.change(screen.getByLabelText(/^Weight/), { target: { value: '400' } });
    await user.click(screen.getByRole('button', { name: 'Sun +' }));
    await user.click(screen.getByRole('button', { name: 'Remove 12:30 on Friday' }));
    await user.click(screen.getByRole('button', { name: 'Add the channel' }));
    await expect.poll(() => onClose.mock.calls.length).toBe(1);
    expect(asked.find(({ method }) => method === 'POST')!.body).toEqual({
      name: 'Tern clips',
      platformProfileId: LOOP.id,
      zone: 'Europe/Dublin',
      order: 3,
      postsPerDay: 1,
      postsPerWeek: 5,
      language: null,
      windows: [
        { weekday: 1, minute: 750, weight: 70 },
        { weekday: 7, minute: 750, weight: 100 },
      ],
    });
  });
  it('is changed where it is, and says why it cannot be', async () => {
    const answers: Answers = { 'PUT api/channels/ch1': new Refusal(409, 'There is a channel of this name.') };
    const { user, asked, onClose } = dialog(CHANNEL, answers);
    const shown = within(await screen.findByRole('dialog', { name: 'Tern clips' }));
    expect(shown.getByLabelText('Platform profile')).toHaveTextContent('Loop');
    expect(shown.getByText('12:30 · 90')).toBeInTheDocument();
    await user.clear(shown.getByLabelText('Posts a week, at most'));
    await user.type(shown.getByLabelText('Posts a week, at most'), '9');
    await user.click(shown.getByRole('button', { name: 'Save the channel' }));
    expect(await shown.findByText('There is a channel of this name.')).toBeInTheDocument();
    expect(onClose).not.toHaveBeenCalled();
    answers['PUT api/channels/ch1'] = CHANNEL;
    await user.click(shown.getByRole('button', { name: 'Save the channel' }));
    await expect.poll(() => onClose.mock.calls.length).toBe(1);
    expect(asked.findLast(({ method }) => method === 'PUT')!.body).toMatchObject({ postsPerWeek: 9, order: 2, windows: CHANNEL.windows, version: 7 });
  });
  it('that somebody else changed meanwhile is shown beside one’s own, and either is chosen', async () => {
    const theirs = { ...CHANNEL, name: 'Tern shorts', version: 8 };
    const stale = new Refusal(409, 'Somebody changed this channel while you did.', [], { code: 'stale', current: theirs });
    const answers: Answers = { 'PUT api/channels/ch1': stale };
    const { user, asked, onClose } = dialog(CHANNEL, answers);
    const shown = within(await screen.findByRole('dialog', { name: 'Tern clips' }));
    await user.clear(shown.getByLabelText('Posts a week, at most'));
    await user.type(shown.getByLabelText('Posts a week, at most'), '9');
    await user.click(shown.getByRole('button', { name: 'Save the channel' }));
    const choice = within(await shown.findByRole('alert'));
    expect(choice.getByRole('row', { name: 'Name Tern shorts Tern clips' })).toBeInTheDocument();
    expect(choice.getByRole('row', { name: 'Posts a week 5 9' })).toBeInTheDocument();
    answers['PUT api/channels/ch1'] = theirs;
    await user.click(choice.getByRole('button', { name: 'Save yours over it' }));
    await expect.poll(() => onClose.mock.calls.length).toBe(1);
    expect(asked.findLast(({ method }) => method === 'PUT')!.body).toMatchObject({ name: 'Tern clips', postsPerWeek: 9, version: 8 });
  });
});

describe('platform profiles', () => {
  onScreens();
  const page = (role: 'owner' | 'producer', more: Answers = {}) =>
    show(<PlatformsPage />, { 'api/platform-profiles': [LOOP], 'api/session': { role }, ...more });
  it('are shown to everybody, and changed by an owner only', async () => {
    page('producer');
    expect((await screen.findByText('Loop')).closest('tr')).toHaveTextContent('Loop0:05 – 1:00vertical100 characters500 characters52120 min');
    expect(screen.queryByRole('button')).toBeNull();
  });
  it('are changed whole', async () => {
    const { user, asked } = page('owner', { [`PUT api/platform-profiles/${LOOP.id}`]: LOOP });
    await user.click(await screen.findByRole('button', { name: 'Change' }));
    const dialog = within(await screen.findByRole('dialog'));
    const limit = dialog.getByLabelText(/^Title/);
    await user.clear(limit);
    await user.type(limit, '80');
    await user.click(dialog.getByRole('button', { name: /^Save/ }));
    const { id: _, ...fields } = LOOP;
    await expect.poll(() => asked.find(({ method }) => method === 'PUT')?.body).toEqual({ ...fields, titleLimit: 80 }); // with the version that was seen
  });
});
