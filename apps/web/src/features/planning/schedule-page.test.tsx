// @vitest-environment jsdom
import { cleanup, fireEvent, screen, within } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { type Answers, type Ask, onScreens, show } from '../../app/screen.fixture.js';
import { store } from '../../app/store.js';
import { undoLast } from '../../app/undo.js';
import { chose, cursorMoved, pickedUp, proposed } from './schedule-slice.js';
import { SchedulePage } from './schedule-page.js';

const platform = {
  ...{ id: 'p', name: 'Loopline', minDurationMs: 0, maxDurationMs: 60_000, shapes: ['vertical'] },
  ...{ titleLimit: 100, descriptionLimit: 100, hashtagLimit: 5, postsPerDay: 2, minGapMinutes: 60 },
};
const windows = [1, 2, 3, 4, 5].map((weekday) => ({ weekday, minute: 750, weight: 80 }));
const channel = (id: string, clientId: string, zone: string) => ({
  id,
  clientId,
  name: `Channel ${id}`,
  zone,
  order: 1,
  postsPerDay: 1,
  postsPerWeek: 5,
  windows,
  platform,
});
const short = (id: string, clientId: string) => ({
  ...{ id, clientId, recordingId: `r-${id}`, recordingTitle: 'On the slipway', title: `Short ${id}`, lengthMs: 42_000, score: 88 },
  ...{ approved: true, comesAgainDays: null, copyProblems: [] },
});
const post = (id: string, channelId: string, clientId: string, date: string, at: string) => ({
  ...{ id: `post-${id}`, clientId, channelId, shortId: id, batchId: null, recordingId: `r-${id}`, date, minute: 750, at },
  ...{ state: 'planned', failure: null, why: 'why', movable: false, version: 3 },
});
/** Monday 4 March 2030 is today. Dublin's posts are at 12:30 UTC, Adelaide's (half past ten ahead) at two in the night. */
const VIEW = {
  channels: [channel('one', 'c1', 'Europe/Dublin'), channel('two', 'c2', 'Australia/Adelaide')],
  blackouts: [],
  shorts: [...['a', 'b', 'c', 'd'].map((id) => short(id, 'c1')), short('e', 'c2')],
  posts: [
    post('a', 'one', 'c1', '2030-03-05', '2030-03-05T12:30:00.000Z'),
    post('b', 'one', 'c1', '2030-03-06', '2030-03-06T12:30:00.000Z'),
    post('c', 'one', 'c1', '2030-03-13', '2030-03-13T12:30:00.000Z'),
    post('e', 'two', 'c2', '2030-03-07', '2030-03-07T02:00:00.000Z'),
  ],
  now: '2030-03-04T09:00:00.000Z',
};
const CLIENTS = [
  { id: 'c1', name: 'Tern & Tide' },
  { id: 'c2', name: 'Quillmoor' },
];
const moved = ({ body }: Ask): unknown =>
  (body as { moves: { postId: string; date: string }[] }).moves.map((move) => ({ ...VIEW.posts.find(({ id }) => id === move.postId), ...move, version: 4 }));
const page = (at = '/schedule', answers: Answers = {}) =>
  show(
    <SchedulePage />,
    { 'api/schedule': VIEW, 'api/batches': [], 'api/clients': CLIENTS, 'PUT api/posts/places': moved, ...answers },
    { at, route: '/schedule' },
  );
const postOf = async (id: string): Promise<HTMLElement> => (await screen.findAllByTestId('post')).find((one) => one.dataset['post'] === `post-${id}`)!;

describe('the schedule', () => {
  onScreens();
  afterEach(() => {
    store.dispatch(chose([]));
    store.dispatch(proposed(null));
  });
  it('moves what is chosen a week on, and back again', async () => {
    const { user, asked } = page();
    for (const id of ['a', 'e']) fireEvent.click(await postOf(id), { ctrlKey: true });
    expect(await postOf('a')).toHaveAttribute('aria-pressed', 'true');
    await user.click(within(screen.getByRole('region', { name: 'Chosen posts' })).getByRole('button', { name: 'A week later' }));
    const places = () =>
      asked.filter(({ method, path }) => `${method} ${path}` === 'PUT api/posts/places').map(({ body }) => (body as { moves: unknown }).moves);
    await expect.poll(places).toEqual([
      [
        { postId: 'post-a', channelId: 'one', date: '2030-03-12', minute: 750, version: 3 },
        { postId: 'post-e', channelId: 'two', date: '2030-03-14', minute: 750, version: 3 },
      ],
    ]);
    await expect.poll(() => store.getState().notices.map(({ text }) => text)).toContain('Moved 2 posts');
    await undoLast();
    await expect.poll(() => places().length).toBe(2);
    expect(places()[1]).toEqual([
      { postId: 'post-a', channelId: 'one', date: '2030-03-05', minute: 750, version: 4 },
      { postId: 'post-e', channelId: 'two', date: '2030-03-07', minute: 750, version: 4 },
    ]);
  });
  it('says first which of them cannot go there, and moves the rest where that is wanted', async () => {
    const { user, asked } = page();
    for (const id of ['a', 'b']) fireEvent.click(await postOf(id), { shiftKey: true });
    await user.click(screen.getByRole('button', { name: 'A week later' }));
    const dialog = await screen.findByRole('dialog', { name: '1 post cannot move so' });
    expect(dialog).toHaveTextContent('Short b');
    expect(dialog).toHaveTextContent('Channel one already has 1 of 1 posts on Wed 13 Mar.');
    expect(asked.some(({ method }) => method === 'PUT')).toBe(false);
    await user.click(within(dialog).getByRole('button', { name: 'Move the one that can' }));
    await expect
      .poll(() => asked.filter(({ method }) => method === 'PUT').map(({ body }) => body))
      .toEqual([{ moves: [{ postId: 'post-a', channelId: 'one', date: '2030-03-12', minute: 750, version: 3 }] }]);
  });
  it('is chosen with X, and all that is planned at once', async () => {
    const { user } = page();
    (await postOf('a')).focus();
    await user.keyboard('x');
    expect(screen.getByText('1 post chosen')).toBeInTheDocument();
    await user.keyboard('x');
    expect(screen.queryByRole('region', { name: 'Chosen posts' })).toBeNull();
    await user.click(screen.getByRole('button', { name: 'More' }));
    await user.click(await screen.findByRole('menuitem', { name: 'Choose all that is planned here' }));
    expect(screen.getByText('3 posts chosen')).toBeInTheDocument();
  });
  it('lets what is chosen move when it is laid out, and stay again', async () => {
    const marked = ({ body }: Ask): unknown =>
      (body as { posts: { postId: string }[]; movable: boolean }).posts.map(({ postId }) => ({
        ...VIEW.posts.find(({ id }) => id === postId),
        movable: (body as { movable: boolean }).movable,
        version: 4,
      }));
    const { user, asked } = page('/schedule', { 'PUT api/posts/movable': marked });
    for (const id of ['a', 'e']) fireEvent.click(await postOf(id), { ctrlKey: true });
    await user.click(screen.getByRole('button', { name: 'Let them move' }));
    const bodies = () => asked.filter(({ method }) => method === 'PUT').map(({ body }) => body);
    const seen = (version: number) => ['post-a', 'post-e'].map((postId) => ({ postId, version }));
    await expect.poll(bodies).toEqual([{ posts: seen(3), movable: true }]);
    await expect.poll(() => store.getState().notices.map(({ text }) => text)).toContain('Laying out may move 2 posts');
    await undoLast();
    await expect.poll(bodies).toEqual([
      { posts: seen(3), movable: true },
      { posts: seen(4), movable: false },
    ]);
  });
  it('follows keys that are typed before the board is drawn again: picked up, carried, put down', async () => {
    const { asked } = page();
    const card = await postOf('b');
    card.focus();
    // All in one breath: nothing is waited for between them.
    for (const [key, code] of [
      ['m', 'KeyM'],
      ['m', 'KeyM'], // held down a moment too long
      ['ArrowRight', 'ArrowRight'],
      ['ArrowRight', 'ArrowRight'],
      ['p', 'KeyP'],
    ] as const)
      card.dispatchEvent(new KeyboardEvent('keydown', { key, code, bubbles: true, cancelable: true }));
    await expect
      .poll(() => asked.filter(({ method }) => method === 'PUT').map(({ body }) => body))
      .toEqual([{ moves: [{ postId: 'post-b', channelId: 'one', date: '2030-03-08', minute: 750, version: 3 }] }]);
    expect(store.getState().schedule).toMatchObject({ held: null, cursor: null });
    expect(store.getState().notices.filter(({ kind }) => kind === 'trouble')).toEqual([]);
  });
  it('is let go of where one goes elsewhere with it', async () => {
    page();
    const card = await postOf('b');
    card.focus();
    const press = (target: EventTarget, key: string, code: string): boolean =>
      target.dispatchEvent(new KeyboardEvent('keydown', { key, code, bubbles: true, cancelable: true }));
    press(card, 'm', 'KeyM');
    press(card, 'ArrowRight', 'ArrowRight');
    expect(store.getState().schedule.held).toEqual({ kind: 'post', postId: 'post-b' });
    cleanup();
    expect(store.getState().schedule).toMatchObject({ held: null, cursor: null });
    // Nothing listens any more, whatever is held next.
    const next = { channelId: 'one', date: '2030-03-06' };
    store.dispatch(pickedUp({ kind: 'post', postId: 'post-b' }));
    store.dispatch(cursorMoved(next));
    press(document.body, 'ArrowRight', 'ArrowRight');
    expect(store.getState().schedule.cursor).toEqual(next);
    press(document.body, 'p', 'KeyP');
    expect(store.getState().schedule.held).not.toBeNull();
    store.dispatch(pickedUp(null));
  });
  it('takes off what is chosen', async () => {
    const { user, asked } = page('/schedule', { 'DELETE api/posts/post-a': null, 'DELETE api/posts/post-b': null });
    for (const id of ['a', 'b']) fireEvent.click(await postOf(id), { metaKey: true });
    await user.click(screen.getByRole('button', { name: 'Take off the schedule' }));
    await expect
      .poll(() =>
        asked
          .filter(({ method }) => method === 'DELETE')
          .map(({ path }) => path)
          .sort(),
      )
      .toEqual(['api/posts/post-a', 'api/posts/post-b']);
    expect(screen.queryByRole('region', { name: 'Chosen posts' })).toBeNull();
  });
  it('is a list by day, on which a post opens', async () => {
    const { user } = page('/schedule?as=list');
    const list = await screen.findByTestId('day-list');
    expect(
      within(list)
        .getAllByRole('region')
        .map((day) => [day.getAttribute('aria-label'), within(day).queryAllByTestId('listed-post').length]),
    ).toEqual([
      ['Mon 4 Mar', 0],
      ['Tue 5 Mar', 1],
      ['Wed 6 Mar', 1],
      ['Thu 7 Mar', 1],
      ['Wed 13 Mar', 1],
    ]);
    expect(list).toHaveTextContent('12:30Short eQuillmoor · Channel two · Australia/Adelaide');
    await user.click(within(list).getByText('Short b'));
    expect(await screen.findByRole('dialog', { name: 'Short b' })).toBeInTheDocument();
  });
  it('is a list where the window is as narrow as a phone', async () => {
    const query = { matches: true, addEventListener: vi.fn(), removeEventListener: vi.fn() };
    vi.stubGlobal('matchMedia', () => query);
    page();
    expect(await screen.findByTestId('day-list')).toBeInTheDocument();
    expect(screen.queryByRole('complementary')).toBeNull();
  });
  it('shows weeks at a glance, and goes to one of them', async () => {
    const { user, place } = page('/schedule?as=glance');
    const glance = await screen.findByTestId('month');
    expect(within(glance).getByRole('img', { name: '12:30 Short c, planned' })).toBeInTheDocument();
    expect(within(glance).getAllByRole('img', { name: 'open 12:30' }).length).toBeGreaterThan(20);
    await user.click(within(glance).getByTitle('Open the week of Thu 14 Mar'));
    expect(place()).toContain('week=2030-03-11');
    expect(await screen.findByTestId('board')).toBeInTheDocument();
  });
  it('shows a proposal on the board, beside what stands, and leaves out of it what is clicked', async () => {
    const place = { shortId: 'd', channelId: 'one', date: '2030-03-07', minute: 750, at: '2030-03-07T12:30:00.000Z', why: 'why there', worth: 70 };
    const { user, asked } = page('/schedule', {
      'POST api/schedule/proposals': {
        placements: [place, { ...place, shortId: 'b', date: '2030-03-14', at: '2030-03-14T12:30:00.000Z' }],
        moves: [],
        unplaced: [],
        value: 140,
        bound: 140,
      },
      'POST api/schedule/posts': [],
    });
    await user.click(await screen.findByRole('button', { name: /^Lay out 1 short/ }));
    await user.click(await screen.findByRole('button', { name: 'Propose a plan' }));
    const pane = await screen.findByRole('complementary', { name: 'Proposed plan: 2 placements, 0 without a place' });
    const wished = await screen.findByTestId('wished');
    expect(wished).toHaveAccessibleName('12:30 Short d, proposed. why there');
    await user.click(wished);
    expect(wished).toHaveAccessibleName('12:30 Short d, left out. why there');
    expect(within(pane).getByLabelText('Take “Short d” on Channel one')).not.toBeChecked();
    await user.click(within(pane).getByRole('button', { name: 'Thu 14 Mar 12:30 Channel one' }));
    expect(await screen.findByRole('button', { name: '12:30 Short b, proposed. why there' })).toBeInTheDocument();
    await user.click(within(pane).getByRole('button', { name: 'Place 1 post' }));
    await expect
      .poll(() => asked.find(({ path }) => path === 'api/schedule/posts')?.body)
      .toMatchObject({ placements: [{ shortId: 'b', date: '2030-03-14' }] });
    await expect.poll(() => screen.queryByTestId('wished')).toBeNull();
    expect(screen.getByRole('complementary', { name: 'Unplaced shorts' })).toBeInTheDocument();
  });
  it('shows on the board which post a proposal moves, and where to', async () => {
    const posts = VIEW.posts.map((one) => (one.id === 'post-a' ? { ...one, movable: true } : one));
    const place = { shortId: 'd', channelId: 'one', date: '2030-03-05', minute: 750, at: '2030-03-05T12:30:00.000Z', why: 'why there', worth: 70 };
    const move = { ...place, shortId: 'a', date: '2030-03-07', at: '2030-03-07T12:30:00.000Z', why: 'why moved' };
    const from = { postId: 'post-a', version: 3, fromDate: '2030-03-05', fromMinute: 750, worthBefore: 70 };
    const { user } = page('/schedule', {
      'api/schedule': { ...VIEW, posts },
      'POST api/schedule/proposals': { placements: [place], moves: [{ ...move, ...from }], unplaced: [], value: 70, bound: 70 },
    });
    expect(await screen.findByRole('button', { name: '12:30 Short a, planned, may move. why' })).toBeInTheDocument();
    await user.click(screen.getByRole('button', { name: /^Lay out 1 short/ }));
    expect(await screen.findByText(/^1 post that stands on these days may move/)).toBeInTheDocument();
    await user.click(screen.getByRole('button', { name: 'Propose a plan' }));
    const moving = await screen.findByRole('button', { name: '12:30 Short a, moves here. why moved' });
    await user.click(moving);
    expect(moving).toHaveAccessibleName('12:30 Short a, left out. why moved');
  });
  it('reads a plan, shows what does not fit, and places what is ticked', async () => {
    const place = (line: number, shortId: string) => ({
      line,
      shortId,
      channelId: 'one',
      date: '2030-03-07',
      minute: 750,
      why: `Read from a file, line ${line}.`,
    });
    const { user, asked } = page('/schedule', {
      'POST api/schedule/readings': {
        placements: [place(2, 'd'), place(4, 'c')],
        refused: [{ line: 3, field: 'title', detail: 'no short of this client has the title “X”' }],
        standing: 1,
      },
      'POST api/schedule/posts': [],
    });
    await user.click(await screen.findByRole('button', { name: 'More' }));
    await user.click(await screen.findByRole('menuitem', { name: 'Read a plan (CSV)…' }));
    const dialog = await screen.findByRole('dialog', { name: 'Read a plan' });
    expect(within(dialog).getByRole('button', { name: 'Place 0 posts' })).toBeDisabled();
    await user.upload(within(dialog).getByTestId('plan-file'), new File(['channel,date,time,title'], 'plan.csv', { type: 'text/csv' }));
    expect(await within(dialog).findByText('2 lines fit, 1 does not, 1 stands already.')).toBeInTheDocument();
    expect(dialog).toHaveTextContent('line 3titleno short of this client has the title “X”');
    await user.click(within(dialog).getByLabelText('Take “Short c” on Channel one'));
    await user.click(within(dialog).getByRole('button', { name: 'Place 1 post' }));
    const { line: _, ...placement } = place(2, 'd');
    await expect
      .poll(() => asked.filter(({ method }) => method === 'POST').map(({ body }) => body))
      .toEqual([
        { csv: 'channel,date,time,title', clientId: null },
        { batchId: null, placements: [placement] },
      ]);
  });
  it('offers evergreen shorts in the days in which they may come again', async () => {
    const shorts = VIEW.shorts.map((one) => (one.id === 'e' ? { ...one, comesAgainDays: 30 } : one));
    const { user } = page('/schedule?week=2030-03-25', { 'api/schedule': { ...VIEW, shorts } });
    expect(await screen.findByTestId('board')).toBeInTheDocument();
    expect(screen.queryByText('May come again')).toBeNull(); // 30 days after 7 March is 6 April
    await user.click(screen.getByRole('button', { name: 'Later' }));
    expect(await screen.findByText('May come again')).toBeInTheDocument();
  });
  it('shows one client alone, and is exported so', async () => {
    const { user } = page('/schedule?client=c2');
    expect((await screen.findAllByTestId('post')).map((one) => one.dataset['post'])).toEqual(['post-e']);
    await user.click(screen.getByRole('button', { name: 'More' }));
    expect(await screen.findByRole('menuitem', { name: 'Shown weeks as CSV' })).toHaveAttribute('href', expect.stringContaining('clientId=c2'));
  });
});
