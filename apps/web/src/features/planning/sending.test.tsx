// @vitest-environment jsdom
import { screen } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import { api, type PostView, type SendingView } from '../../app/api.js';
import { type Answers, onScreens, Refusal, show } from '../../app/screen.fixture.js';
import { Sending, SendingDeeds } from './sending.js';
import { Stopped, useStopAll } from './stopped.js';

const post = (fields: Partial<PostView> = {}): PostView => ({
  id: 'p1',
  clientId: 'c1',
  channelId: 'ch1',
  shortId: 'a',
  batchId: null,
  recordingId: 'r1',
  date: '2030-03-04',
  minute: 750,
  at: '2030-03-04T12:30:00.000Z',
  state: 'posted',
  waits: null,
  failure: null,
  why: 'the strongest window of the week',
  movable: false,
  version: 4,
  ...fields,
});
const sending = (fields: Partial<SendingView> = {}): SendingView => ({
  service: 'Loopline',
  account: '@tern',
  title: 'No rope at all',
  description: 'On the slipway.',
  hashtags: ['boats'],
  fixedAt: '2030-03-04T12:29:00.000Z',
  inDoubt: false,
  askPerson: false,
  tries: 1,
  address: 'https://loopline.example/p/7',
  postedAt: '2030-03-04T12:30:02.000Z',
  takenDownAt: null,
  corrects: true,
  events: [
    { at: '2030-03-04T12:29:00.000Z', event: 'fixed', detail: '', by: null },
    { at: '2030-03-04T12:30:02.000Z', event: 'posted', detail: 'https://loopline.example/p/7', by: null },
  ],
  ...fields,
});

onScreens();

describe('a post that went out', () => {
  it('shows what went out, where it is, and what happened', () => {
    show(<Sending post={post()} sending={sending()} />);
    expect(screen.getByText('No rope at all')).toBeVisible();
    expect(screen.getByText('#boats')).toBeVisible();
    expect(screen.getByRole('link', { name: 'See it there' })).toHaveAttribute('href', 'https://loopline.example/p/7');
    expect(screen.getByRole('list', { name: 'What happened' })).toHaveTextContent(/fixed as it goes out.*posted/s);
  });
  it('is taken down after a second word, and its words are changed there', async () => {
    const answers: Answers = {
      'DELETE api/posts/p1/publication?version=4': sending({ takenDownAt: '2030-03-05T09:00:00.000Z' }),
      'PUT api/posts/p1/words': sending(),
    };
    const { user, asked } = show(<SendingDeeds post={post()} sending={sending()} />, answers);
    await user.click(screen.getByRole('button', { name: 'Change its words' }));
    const title = await screen.findByLabelText('Title');
    await user.clear(title);
    await user.type(title, 'No rope');
    await user.click(screen.getByRole('button', { name: 'Change them there' }));
    await expect.poll(() => asked.find((ask) => ask.method === 'PUT')?.body).toEqual({ title: 'No rope', description: 'On the slipway.', version: 4 });
    await user.click(screen.getByRole('button', { name: 'Take it down' }));
    await user.click((await screen.findAllByRole('button', { name: 'Take it down' })).at(-1)!);
    await expect.poll(() => asked.some((ask) => ask.method === 'DELETE')).toBe(true);
  });
  it('says why the platform will not change its words', async () => {
    const { user } = show(<SendingDeeds post={post()} sending={sending()} />, {
      'PUT api/posts/p1/words': new Refusal(422, 'Loopline changes no title once a clip is out.'),
    });
    await user.click(screen.getByRole('button', { name: 'Change its words' }));
    await user.click(await screen.findByRole('button', { name: 'Change them there' }));
    expect(await screen.findByText('Loopline changes no title once a clip is out.')).toBeVisible();
  });
});

describe('a post that did not go out', () => {
  it('goes out now on a person’s word', async () => {
    const { user, asked } = show(<SendingDeeds post={post({ state: 'missed', failure: 'too late' })} sending={sending({ address: null, postedAt: null })} />, {
      'POST api/posts/p1/sending': post({ state: 'planned' }),
    });
    await user.click(screen.getByRole('button', { name: 'Send it now' }));
    await expect.poll(() => asked.find((ask) => ask.method === 'POST')?.body).toEqual({ version: 4 });
  });
  it('in doubt asks a person only where nobody else can find out', async () => {
    show(<Sending post={post({ state: 'sending' })} sending={sending({ inDoubt: true, address: null })} />);
    expect(screen.getByText(/nothing is sent twice/)).toBeVisible();
    expect(screen.queryByRole('button')).toBeNull();
    const { user, asked } = show(<Sending post={post({ state: 'sending' })} sending={sending({ inDoubt: true, askPerson: true, address: null })} />, {
      'PUT api/posts/p1/outcome': post(),
    });
    await user.click(screen.getByRole('button', { name: 'It is up' }));
    await expect.poll(() => asked.find((ask) => ask.method === 'PUT')?.body).toEqual({ isUp: true, version: 4 });
  });
});

function StopAll() {
  const all = useStopAll();
  return all === null ? null : <button onClick={() => all.set(true)}>stop</button>;
}

describe('posting that is stopped for everything', () => {
  const posting = (stops: object[]) => ({
    isReady: true,
    services: [{ name: 'loopline', title: 'Loopline', corrects: true }],
    accounts: [],
    channels: [],
    stops,
  });
  const owner = { userId: 'u1', name: 'Ada', email: 'ada@example.test', role: 'owner', csrfToken: 't' };
  it('is said over the whole width, and the owner lets it go on', async () => {
    const stop = { id: 's1', clientId: null, channelId: null, stoppedBy: 'Ada', stoppedAt: '2030-03-04T12:00:00.000Z' };
    const { user, asked } = show(<Stopped />, { 'api/posting': posting([stop]), 'api/session': owner, 'PUT api/posting/stops': posting([]) });
    expect(await screen.findByRole('status')).toHaveTextContent('Posting is stopped for everything');
    await user.click(await screen.findByRole('button', { name: 'Let posting go on' }));
    await expect.poll(() => asked.find((ask) => ask.method === 'PUT')?.body).toEqual({ clientId: null, channelId: null, stopped: false });
  });
  it('is not a producer’s to stop', async () => {
    show(<StopAll />, { 'api/posting': posting([]), 'api/session': { ...owner, role: 'producer' } });
    await expect.poll(() => api.endpoints.readSession.select()).toBeDefined();
    expect(screen.queryByRole('button', { name: 'stop' })).toBeNull();
  });
});
