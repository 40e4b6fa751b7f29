// @vitest-environment jsdom
import { screen, within } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import type { FetchView, RecordingView } from '../../app/api.js';
import { episodeView as episode } from '../../app/feed.fixture.js';
import { recordingView as recording } from '../../app/recording.fixture.js';
import { type Answers, onScreens, pick, Refusal, show } from '../../app/screen.fixture.js';
import { store } from '../../app/store.js';
import { undoLast } from '../../app/undo.js';
import { RecordingsPage } from './recordings-page.js';

const CLIENTS = [
  { id: 'c1', name: 'Tern & Tide' },
  { id: 'c2', name: 'Harbour Bread' },
];
const fetching = (fields: Partial<FetchView>): Partial<RecordingView> => ({
  sound: null,
  transcript: null,
  durationMs: null,
  fetch: { id: 'x', host: 'media.example', state: 'done', stage: 'done', fraction: 1, leftMs: null, failure: null, notes: [], ...fields },
});
const page = (recordings: RecordingView[], more: Answers = {}) =>
  show(<RecordingsPage />, { 'api/clients': CLIENTS, 'api/recordings': recordings, 'api/new-episodes': [], ...more }, { at: '/recordings' });
const row = async (title: string): Promise<HTMLElement> => (await screen.findByText(title)).closest('tr')!;

describe('a recording that is fetched', () => {
  onScreens();
  it.each<[string, Partial<FetchView>, RegExp]>([
    ['that comes', { state: 'running', stage: 'fetching', fraction: 0.4, leftMs: 42_000 }, /from media\.example: fetching · 42 s left Stop/],
    ['that waits', { state: 'waiting', stage: 'waiting', fraction: 0 }, /from media\.example: waiting for a worker Stop/],
    [
      'that waits for its host',
      { state: 'waiting', stage: 'waiting', failure: 'media.example refused (503).' },
      /media\.example refused \(503\)\. It is tried again\. Stop/,
    ],
    ['that did not come', { state: 'failed', failure: 'media.example has nothing at this address (404).' }, /nothing at this address \(404\)\. Fetch it again/],
    ['that was stopped', { state: 'cancelled' }, /Fetching it was stopped\. Fetch it again/],
    ['without its transcript', { notes: ['talk.vtt: line 3: there is no time'] }, /talk\.vtt: line 3: there is no time/],
  ])('%s says so', async (_, fields, words) => {
    page([recording('r1', 'On the slipway', fetching(fields))]);
    expect(await row('On the slipway')).toHaveTextContent(words);
  });
  it('is not said to lack what is on its way', async () => {
    page([recording('r1', 'On the slipway', fetching({ state: 'running', stage: 'fetching' }))]);
    expect(await row('On the slipway')).not.toHaveTextContent(/waits for a transcript|no sound yet/);
  });
  it('is stopped, and fetched again', async () => {
    const { user, asked } = page(
      [recording('r1', 'Comes', fetching({ state: 'running' })), recording('r2', 'Not', fetching({ state: 'failed', failure: 'No.' }))],
      {
        'DELETE api/recordings/r1/fetch': recording('r1', 'Comes'),
        'POST api/recordings/r2/fetch': new Refusal(409, 'It is being fetched, or was fetched already.'),
      },
    );
    await user.click(await screen.findByRole('button', { name: 'Stop' }));
    await user.click(screen.getByRole('button', { name: 'Fetch it again' }));
    await expect.poll(() => asked.map(({ method }) => method).filter((one) => one !== 'GET')).toEqual(['DELETE', 'POST']);
    await expect.poll(() => store.getState().notices.at(-1)?.text).toBe('It is being fetched, or was fetched already.');
  });
  it('tells which episode it was', async () => {
    const persons = [
      { name: 'Ada', role: 'host' },
      { name: 'Odile Farr', role: 'guest' },
    ];
    const origin = {
      feedTitle: 'Low Water',
      publishedAt: '2030-01-02T12:00:00Z',
      link: null,
      season: null,
      seasonName: '',
      number: '7',
      persons,
      chapters: [],
    };
    page([recording('r1', 'On the slipway', { origin })]);
    expect(await row('On the slipway')).toHaveTextContent('Low Water · no. 7 · 2 Jan 2030 · with Odile Farr');
  });
});

describe('a link', () => {
  onScreens();
  it('is fetched for the chosen client, and can be taken back', async () => {
    const { user, asked } = page([], { 'POST api/clients/c1/links': recording('r9', 'Slipway'), 'DELETE api/recordings/r9': null });
    await user.click(await screen.findByRole('button', { name: 'From a link' }));
    await user.type(screen.getByLabelText('Address of the sound or video'), 'ftp://x');
    await user.click(screen.getByRole('button', { name: 'Fetch the recording' }));
    expect(await screen.findByText('Must be an address that begins with http:// or https://')).toBeInTheDocument();
    await user.clear(screen.getByLabelText('Address of the sound or video'));
    await user.type(screen.getByLabelText('Address of the sound or video'), 'https://media.example/a.mp3');
    await user.click(screen.getByLabelText('Sift it with the standing brief as soon as its words are there'));
    await user.click(screen.getByRole('button', { name: 'Fetch the recording' }));
    await expect
      .poll(() => asked.find(({ method }) => method === 'POST')?.body)
      .toEqual({ url: 'https://media.example/a.mp3', transcriptUrl: null, title: null, sift: true });
    await expect.poll(() => screen.queryByLabelText('Address of the sound or video')).toBeNull();
    await undoLast();
    expect(asked.some(({ method, path }) => method === 'DELETE' && path === 'api/recordings/r9')).toBe(true);
  });
  it('that the server refuses says so at its field', async () => {
    const { user } = page([], {
      'POST api/clients/c1/links': new Refusal(400, 'no', [{ field: 'transcriptUrl', detail: '10.0.0.1 is not an address of the public internet.' }]),
    });
    await user.click(await screen.findByRole('button', { name: 'From a link' }));
    await user.type(screen.getByLabelText('Address of the sound or video'), 'https://media.example/a.mp3');
    await user.type(screen.getByLabelText('Address of its transcript'), 'http://10.0.0.1/a.vtt');
    await user.click(screen.getByRole('button', { name: 'Fetch the recording' }));
    expect(await screen.findByText('10.0.0.1 is not an address of the public internet.')).toBeInTheDocument();
    expect(screen.getByLabelText('Address of its transcript')).toHaveAttribute('aria-invalid', 'true');
  });
});

describe('new episodes', () => {
  onScreens();
  it('stand above the recordings, of the client that is shown', async () => {
    const { user } = page([], { 'api/new-episodes': [episode('e1'), episode('e2', { clientId: 'c2', hasTranscript: false, season: null })] });
    const fresh = await screen.findByRole('region', { name: 'New in the feeds' });
    expect(within(fresh).getAllByRole('listitem')[0]).toHaveTextContent(
      'Tide e1Of salt and rope.Tern & Tide · Low Water · season 2, no. 7 · 2 Jan 2030 · 31:00 · 24 MB · with transcript',
    );
    await pick(user, 'Client', 'Harbour Bread');
    expect(within(fresh).getAllByRole('listitem')).toHaveLength(1);
    // What has no words cannot be sifted.
    expect(within(fresh).queryByRole('button', { name: /and sift/ })).toBeNull();
  });
  it('are taken in with one click, and given back', async () => {
    const { user, asked } = page([], {
      'api/new-episodes': [episode('e1')],
      'POST api/episodes/e1/recording': recording('r9', 'Tide e1'),
      'DELETE api/recordings/r9': null,
    });
    await user.click(await screen.findByRole('button', { name: 'Take in and sift Tide e1' }));
    await expect.poll(() => asked.find(({ method }) => method === 'POST')?.body).toEqual({ sift: true });
    await expect.poll(() => store.getState().notices.at(-1)?.text).toBe('Took in “Tide e1”');
    await undoLast();
    expect(asked.some(({ method }) => method === 'DELETE')).toBe(true);
  });
  it('that somebody else took in say so', async () => {
    const { user } = page([], {
      'api/new-episodes': [episode('e1')],
      'POST api/episodes/e1/recording': new Refusal(409, 'This episode was taken in already.'),
    });
    await user.click(await screen.findByRole('button', { name: 'Take in Tide e1' }));
    await expect.poll(() => store.getState().notices.at(-1)?.text).toBe('This episode was taken in already.');
  });
});
