// @vitest-environment jsdom
import { screen } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import type { AccountView, ChannelView, ClientView, PostingView } from '../../app/api.js';
import { onScreens, pick, Refusal, show } from '../../app/screen.fixture.js';
import { ConnectedPage } from './connected-page.js';
import { ChannelPosting, ClientPosting } from './posting.js';

const CHANNEL = { id: 'ch1', clientId: 'c1', name: 'Tern clips', platform: { name: 'Loop', service: 'loopline' } } as ChannelView;
const CLIENT = { id: 'c1', name: 'Tern & Tide', lateMinutes: 120, version: 3 } as ClientView;
const account = (fields: Partial<AccountView> = {}): AccountView => ({
  id: 'a1',
  clientId: 'c1',
  service: 'loopline',
  name: '@tern',
  state: 'connected',
  trouble: null,
  stateSince: '2030-03-01T09:00:00.000Z',
  connectedBy: 'Ada',
  connectedAt: '2030-03-01T09:00:00.000Z',
  ...fields,
});
const posting = (fields: Partial<PostingView> = {}): PostingView => ({
  isReady: true,
  services: [{ name: 'loopline', title: 'Loopline', corrects: true }],
  accounts: [account()],
  channels: [{ channelId: 'ch1', accountId: 'a1' }],
  stops: [],
  ...fields,
});

onScreens();

describe('a channel', () => {
  it('that nothing is connected to is posted by hand, and says where no key is configured', async () => {
    show(<ChannelPosting channel={CHANNEL} />, { 'api/posting': posting({ isReady: false, accounts: [], channels: [] }) });
    expect(await screen.findByText('Posted by hand')).toBeVisible();
    expect(screen.getByRole('button', { name: 'Connect an account' })).toBeDisabled();
  });
  it('on a platform of nobody’s service shows nothing of it', async () => {
    show(<ChannelPosting channel={{ ...CHANNEL, platform: { ...CHANNEL.platform, service: null } }} />, { 'api/posting': posting() });
    await Promise.resolve();
    expect(screen.queryByTestId('channel-posting')).toBeNull();
  });
  it('says that its right is gone, and offers to connect again', async () => {
    show(<ChannelPosting channel={CHANNEL} />, { 'api/posting': posting({ accounts: [account({ state: 'revoked', trouble: 'It was taken back there.' })] }) });
    expect(await screen.findByText(/the right to post is gone.*It was taken back there/)).toBeVisible();
    expect(screen.getByRole('button', { name: 'Connect again' })).toBeEnabled();
  });
  it('is stopped, and let go on', async () => {
    const { user, asked } = show(<ChannelPosting channel={CHANNEL} />, { 'api/posting': posting(), 'PUT api/posting/stops': posting() });
    await user.click(await screen.findByRole('button', { name: 'Stop posting on Tern clips' }));
    await expect.poll(() => asked.find((ask) => ask.method === 'PUT')?.body).toEqual({ clientId: 'c1', channelId: 'ch1', stopped: true });
  });
  it('takes another account of its client, or none', async () => {
    const both = posting({ accounts: [account(), account({ id: 'a2', name: '@tide' })] });
    const { user, asked } = show(<ChannelPosting channel={CHANNEL} />, { 'api/posting': both, 'PUT api/channels/ch1/account': both });
    await pick(user, 'Posts with', 'by hand');
    await expect.poll(() => asked.find((ask) => ask.method === 'PUT')?.body).toEqual({ accountId: null });
  });
});

describe('a client', () => {
  it('lists its accounts, and disconnects one after a second word', async () => {
    const { user, asked } = show(<ClientPosting client={CLIENT} />, { 'api/posting': posting(), 'DELETE api/accounts/a1': null });
    await user.click(await screen.findByRole('button', { name: 'Disconnect @tern?' }));
    expect(await screen.findByRole('dialog')).toHaveTextContent('Its channels are posted by hand from then on');
    await user.click(screen.getByRole('button', { name: 'Disconnect' }));
    await expect.poll(() => asked.some((ask) => ask.method === 'DELETE')).toBe(true);
  });
  it('says how late its posts may be', async () => {
    const { user, asked } = show(<ClientPosting client={CLIENT} />, {
      'api/posting': posting(),
      'PUT api/clients/c1/lateness': { ...CLIENT, lateMinutes: 30, version: 4 },
    });
    await pick(user, /so late/, '30 minutes');
    await expect.poll(() => asked.find((ask) => ask.method === 'PUT')?.body).toEqual({ minutes: 30, version: 3 });
  });
});

describe('coming back from a platform', () => {
  it('says in plain words why nothing was connected', async () => {
    const { asked } = show(
      <ConnectedPage />,
      { 'POST api/accounts': new Refusal(422, 'It was not allowed there.') },
      { at: '/connected?state=s&error=access_denied&iss=http%3A%2F%2Fp' },
    );
    expect(await screen.findByText('It was not allowed there.')).toBeVisible();
    expect(asked.find((ask) => ask.method === 'POST')?.body).toEqual({ state: 's', error: 'access_denied', iss: 'http://p' });
  });
});
