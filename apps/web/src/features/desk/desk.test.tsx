// @vitest-environment jsdom
import { screen, within } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import type { PostView, RecordingView, ScheduleView, ShortView } from '../../app/api.js';
import { episodeView as episode } from '../../app/feed.fixture.js';
import { onScreens, Refusal, show } from '../../app/screen.fixture.js';
import { latestSift as sift, recordingView as recording } from '../../app/recording.fixture.js';
import { DeskPage } from './desk-page.js';

const short = (id: string, title: string, fields: Partial<ShortView> = {}): ShortView =>
  ({ id, clientId: 'c1', copy: { title }, firstLine: 'As it begins.', startMs: 0, endMs: 42_000, approved: false, postCount: 0, ...fields }) as ShortView;
const post = (id: string, at: string, fields: Partial<PostView> = {}): PostView =>
  ({ id, channelId: 'ch', shortId: 'sh3', date: at.slice(0, 10), minute: 720, at, state: 'planned', ...fields }) as PostView;
const SCHEDULE = {
  now: '2030-01-10T12:00:00Z',
  channels: [{ id: 'ch', name: 'Tern clips' }],
  shorts: [{ id: 'sh3', title: 'Placed already' }],
  posts: [post('p0', '2030-01-09T12:00:00Z'), post('p1', '2030-01-11T12:00:00Z'), post('p2', '2030-01-12T12:00:00Z', { state: 'posted' })],
  blackouts: [],
} as unknown as ScheduleView;
const answers = (recordings: RecordingView[], shorts: ShortView[], schedule: ScheduleView = SCHEDULE): Record<string, unknown> => ({
  'api/recordings': recordings,
  'api/shorts': shorts,
  'api/schedule': schedule,
  'api/clients': [{ id: 'c1', name: 'Tern & Tide' }],
});
const section = async (title: string): Promise<HTMLElement> => (await screen.findByRole('heading', { name: new RegExp(`^${title}`) })).closest('section')!;

describe('the desk', () => {
  onScreens();
  it('lays out what waits, in the order of the work, each where it leads', async () => {
    show(
      <DeskPage />,
      answers(
        [
          recording('r1', 'Still running', { latestSift: sift({ state: 'running', stage: 'scoring', fraction: 0.4 }) }),
          recording('r2', 'Broken', { latestSift: sift({ state: 'failed' }) }),
          recording('r3', 'No words yet', { transcript: null }),
          recording('r4', 'Fresh in'),
          recording('r5', 'To read', { latestSift: sift({}) }),
          recording('r6', 'Read before', { latestSift: sift({ keptCount: 3 }) }),
        ],
        [short('sh1', 'A draft'), short('sh2', 'Wants a place', { approved: true }), short('sh3', 'Placed already', { approved: true, postCount: 1 })],
      ),
    );
    const expected: [string, string, string][] = [
      ['Working', 'Still running', '/recordings/r1'],
      ['Failed', 'Broken', '/recordings/r2'],
      ['Waiting for a transcript', 'No words yet', '/recordings'],
      ['To brief', 'Fresh in', '/recordings/r4'],
      ['Rankings to read', 'To read', '/recordings/r5'],
      ['Shorts to word and approve', 'A draft', '/shorts/sh1'],
      ['Approved, not yet placed', 'Wants a place', '/shorts/sh2'],
      ['Going out next', 'Placed already', '/schedule'],
    ];
    for (const [title, row, to] of expected) {
      const links = within(await section(title))
        .getAllByRole('listitem')
        .map((item) => within(item).getByRole('link'));
      expect(links).toHaveLength(1);
      expect(links[0]).toHaveTextContent(row);
      expect(links[0]).toHaveAttribute('href', to);
    }
    expect(screen.queryByText('Read before')).toBeNull();
    expect(await section('Rankings to read')).toHaveTextContent('9 strong of 40');
    expect(await section('Going out next')).toHaveTextContent('Tern clips');
    expect(screen.getByRole('progressbar', { name: 'Sifting Still running' })).toHaveAttribute('aria-valuenow', '40');
    expect(screen.getByRole('link', { name: 'Lay out 1 short' })).toHaveAttribute('href', '/schedule');
  });
  it('tells what is fetched, what is new in the feeds, and which files go soon, where there is any', async () => {
    const fetched = (id: string, title: string, state: 'running' | 'failed'): RecordingView =>
      recording(id, title, {
        ...{ sound: null, transcript: null },
        fetch: { id: 'x', host: 'media.example', state, stage: state, fraction: 0.3, leftMs: null, failure: null, notes: [] },
      });
    const file = { id: 'f1', shortId: 'sh2', clientId: 'c1', title: 'Never burn wet wood', shape: 'vertical', bytes: 9, goesAt: '2030-02-03T12:00:00Z' };
    const { user, asked } = show(<DeskPage />, {
      ...answers([fetched('r1', 'On its way', 'running'), fetched('r2', 'Did not come', 'failed')], []),
      'api/new-episodes': [episode('e1', { title: 'Night 7' })],
      'api/files-going': [file, { ...file, id: 'f2', title: 'As sound', shape: 'sound' }],
      'PUT api/renders/f1/keeping': null,
    });
    expect(await section('Being fetched')).toHaveTextContent('On its way');
    expect(screen.getByRole('progressbar', { name: 'Fetching On its way' })).toHaveAttribute('aria-valuenow', '30');
    expect(await section('Could not be fetched')).toHaveTextContent('Did not come');
    expect(screen.queryByRole('heading', { name: /^Waiting for a transcript/ })).toBeNull();
    expect(await section('New in the feeds')).toHaveTextContent('Night 7Tern & Tide · Low Water');
    expect(await section('Files that go soon')).toHaveTextContent('Never burn wet woodTern & Tide · vertical · goes 3 Feb 2030');
    await user.click(screen.getByRole('button', { name: 'Keep the file of Never burn wet wood longer' }));
    await expect.poll(() => asked.some(({ method, path }) => method === 'PUT' && path === 'api/renders/f1/keeping')).toBe(true);
  });
  it('says what each part says when nothing is in it', async () => {
    show(<DeskPage />, answers([recording('r6', 'Read before', { latestSift: sift({ keptCount: 3 }) })], [], { ...SCHEDULE, posts: [] }));
    expect(await section('To brief')).toHaveTextContent('No recording waits for a brief.');
    expect(await section('Going out next')).toHaveTextContent('Nothing is planned from now on.');
    for (const title of ['Working', 'Failed', 'Waiting for a transcript']) expect(screen.queryByRole('heading', { name: new RegExp(`^${title}`) })).toBeNull();
  });
  it('with nothing at all leads to bringing in', async () => {
    show(<DeskPage />, answers([], [], { ...SCHEDULE, posts: [] }));
    expect(await screen.findByRole('link', { name: 'Bring in recordings' })).toHaveAttribute('href', '/recordings');
  });
  it('that cannot be laid says why', async () => {
    show(<DeskPage />, { ...answers([], []), 'api/schedule': new Refusal(500, 'The schedule is on another ship.') });
    expect(await screen.findByText('The schedule is on another ship.')).toBeInTheDocument();
  });
});
