// @vitest-environment jsdom
import type { Plan, PlannedPost } from '@sift-reel/core';
import { screen, within } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { PlacementView, PostView, ProposalView, ScheduleShortView, ScheduleView } from '../../app/api.js';
import { onScreens, Refusal, show } from '../../app/screen.fixture.js';
import { store } from '../../app/store.js';
import { undoLast } from '../../app/undo.js';
import { LayOutDialog } from './lay-out-dialog.js';
import { PostDialog } from './post-dialog.js';
import { ProposalPane } from './proposal-pane.js';
import { proposed, type Proposed } from './schedule-slice.js';

const short = (id: string, title: string): ScheduleShortView => ({
  id,
  clientId: 'c1',
  recordingId: 'r1',
  recordingTitle: 'On the slipway',
  title,
  lengthMs: 42_000,
  score: 88,
  approved: true,
  comesAgainDays: null,
  copyProblems: [],
});
const SHORTS = [short('a', 'No rope at all'), short('b', 'The second tide')];
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
  state: 'planned',
  waits: null,
  failure: null,
  why: 'the strongest window of the week',
  movable: false,
  version: 4,
  ...fields,
});
const VIEW = {
  channels: [{ id: 'ch1', name: 'Tern clips', zone: 'Europe/Dublin', platform: { name: 'Loop' } }],
  blackouts: [],
  shorts: SHORTS,
  posts: [],
  now: '2030-03-01T09:00:00.000Z',
} as unknown as ScheduleView;
const nothing = (): void => undefined;
const proposal = (): Proposed | null => store.getState().schedule.proposal;

afterEach(() => {
  store.dispatch(proposed(null));
});

describe('laying out', () => {
  onScreens();
  const dialog = (answers = {}) =>
    show(
      <LayOutDialog
        shorts={SHORTS}
        batch={null}
        movable={[post({ date: '2030-03-05' }), post({ date: '2030-04-05' })]}
        earliest="2030-03-01"
        from="2030-03-01"
        to="2030-03-14"
        clientNames={new Map([['c1', 'Tern & Tide']])}
        onClose={nothing}
      />,
      answers,
    );
  it('asks for the ticked shorts over a fortnight, and keeps what is proposed', async () => {
    const answer: ProposalView = { placements: [], moves: [], unplaced: [], value: 0, bound: 0 };
    const { user, asked } = dialog({ 'POST api/schedule/proposals': answer });
    expect(await screen.findByRole('dialog', { name: 'Lay out 2 shorts' })).toBeInTheDocument();
    await user.click(screen.getByLabelText(/The second tide/));
    expect(screen.getByRole('dialog', { name: 'Lay out 1 short' })).toBeInTheDocument();
    await user.click(screen.getByRole('button', { name: 'Propose a plan' }));
    await expect.poll(() => asked.map(({ body }) => body)).toEqual([{ shortIds: ['a'], fromDate: '2030-03-01', toDate: '2030-03-14', kept: [], whatIf: [] }]);
    await expect.poll(proposal).toMatchObject({ placements: [], unplaced: [], batchId: null });
  });
  it('takes days from a calendar or by the arrows, none that are over, and none that run backwards', async () => {
    const { user, asked } = dialog({ 'POST api/schedule/proposals': { placements: [], unplaced: [] } });
    const to = await screen.findByRole('button', { name: 'To Thu 14 Mar 2030' });
    to.focus();
    await user.keyboard('{PageDown}{PageDown}{ArrowUp}');
    expect(to).toHaveAccessibleName('To Fri 8 Mar 2030'); // a week back, no further than the first day, one on
    await user.click(screen.getByRole('button', { name: 'From Fri 1 Mar 2030' }));
    await user.click(await screen.findByRole('button', { name: 'Go to the Previous Month' }));
    expect(await screen.findByRole('button', { name: /February 28th/ })).toBeDisabled();
    await user.click(screen.getByRole('button', { name: 'Go to the Next Month' }));
    await user.click(screen.getByRole('button', { name: /March 20th/ }));
    expect(screen.getByText('Must not be before the first day')).toBeInTheDocument();
    expect(screen.getByRole('button', { name: 'Propose a plan' })).toBeDisabled();
    expect(asked).toEqual([]);
  });
  it('says how many of the posts on these days may move', async () => {
    const { user } = dialog();
    expect(await screen.findByText('1 post that stands on these days may move, where the plan gains by it.')).toBeInTheDocument();
    for (const title of [/No rope/, /The second/]) await user.click(screen.getByLabelText(title));
    expect(screen.queryByText(/may move, where/)).toBeNull();
  });
  it('does not ask for nothing', async () => {
    const { user } = dialog();
    expect(await screen.findByRole('button', { name: 'Propose a plan' })).toBeEnabled();
    for (const title of [/No rope/, /The second/]) await user.click(screen.getByLabelText(title));
    expect(screen.getByRole('button', { name: 'Propose a plan' })).toBeDisabled();
  });
  it('says why it cannot, and stays', async () => {
    const { user } = dialog({ 'POST api/schedule/proposals': new Refusal(400, 'These days are over.') });
    await user.click(await screen.findByRole('button', { name: 'Propose a plan' }));
    expect(await screen.findByText('These days are over.')).toBeInTheDocument();
    expect(proposal()).toBeNull();
  });
});

describe('a proposal', () => {
  onScreens();
  const placement = (shortId: string, date: string) => ({
    shortId,
    channelId: 'ch1',
    date,
    minute: 750,
    at: `${date}T12:30:00.000Z`,
    why: `why ${shortId}`,
    worth: 40,
  });
  const PROPOSAL = {
    placements: [placement('a', '2030-03-04'), placement('b', '2030-03-05')],
    unplaced: [{ shortId: 'b', channelId: 'ch1', code: 'full', detail: 'Every window of these days is taken.' }],
    batchId: 'b1',
    value: 80,
    bound: 100,
    asked: { shortIds: ['a', 'b'], fromDate: '2030-03-01', toDate: '2030-03-14' },
    moves: [],
    kept: [],
    keptMoves: [],
  };
  it('says what it is worth, and how near that is to the best', async () => {
    show(<ProposalPane onShow={nothing} view={VIEW} proposal={PROPOSAL} />);
    expect(await screen.findByTestId('worth')).toHaveTextContent('Worth 80.0 · at least 80.0 % of the best there is');
  });
  it('that is the best says so', async () => {
    show(<ProposalPane onShow={nothing} view={VIEW} proposal={{ ...PROPOSAL, value: 100 }} />);
    expect(await screen.findByTestId('worth')).toHaveTextContent('Worth 100.0 · the best there is');
  });
  it('is asked for again around the places that are locked', async () => {
    store.dispatch(proposed(PROPOSAL));
    const answer: ProposalView = { placements: [placement('b', '2030-03-02') as PlacementView], moves: [], unplaced: [], value: 35, bound: 35 };
    const { user, asked } = show(<ProposalPane onShow={nothing} view={VIEW} proposal={PROPOSAL} />, { 'POST api/schedule/proposals': answer });
    expect(await screen.findByRole('button', { name: 'Ask again' })).toBeDisabled();
    await user.click(screen.getByRole('button', { name: 'Keep “No rope at all” where it is on Tern clips' }));
    await user.click(screen.getByRole('button', { name: 'Ask again, keeping 1' }));
    await expect.poll(() => proposal()?.placements.map(({ shortId, date }) => `${shortId} ${date}`)).toEqual(['b 2030-03-02', 'a 2030-03-04']);
    expect(asked[0]!.body).toMatchObject({ ...PROPOSAL.asked, kept: [{ shortId: 'a', date: '2030-03-04', minute: 750 }] });
    expect(proposal()).toMatchObject({ value: 75, bound: 75, batchId: 'b1' });
  });
  it('tries a change around what was kept, and counts that on both sides', async () => {
    const kept = [PROPOSAL.placements[0]! as PlacementView];
    const view = { ...VIEW, channels: [{ ...VIEW.channels[0]!, clientId: 'c1', postsPerWeek: 5, postsPerDay: 1 }] };
    const answer: ProposalView = { placements: [PROPOSAL.placements[1]! as PlacementView], moves: [], unplaced: [], value: 40, bound: 40 };
    const { user, asked } = show(<ProposalPane onShow={nothing} view={view} proposal={{ ...PROPOSAL, kept }} />, { 'POST api/schedule/proposals': answer });
    await user.click(await screen.findByRole('button', { name: 'What if' }));
    await user.click(screen.getByRole('button', { name: 'Try it' }));
    expect(await screen.findByTestId('what-if')).toHaveTextContent('It would gain nothing.');
    expect(asked[0]!.body).toMatchObject({ kept: [{ shortId: 'a', date: '2030-03-04', minute: 750 }] });
  });
  it('shows what a change of a channel would gain, and changes nothing', async () => {
    const view = { ...VIEW, channels: [{ ...VIEW.channels[0]!, clientId: 'c1', postsPerWeek: 5, postsPerDay: 1 }] };
    const answer: ProposalView = {
      placements: [...PROPOSAL.placements, placement('b', '2030-03-09')] as PlacementView[],
      moves: [],
      unplaced: [],
      value: 104,
      bound: 104,
    };
    const { user, asked } = show(<ProposalPane onShow={nothing} view={view} proposal={PROPOSAL} />, { 'POST api/schedule/proposals': answer });
    await user.click(await screen.findByRole('button', { name: 'What if' }));
    await user.click(screen.getByRole('button', { name: 'Try it' }));
    expect(await screen.findByTestId('what-if')).toHaveTextContent('It would gain 24.0, with 1 more placement.');
    expect(asked.map(({ method, path }) => `${method} ${path}`)).toEqual(['POST api/schedule/proposals']);
    expect(asked[0]!.body).toMatchObject({ whatIf: [{ channelId: 'ch1', postsPerWeek: 6, postsPerDay: null, windows: [], blackouts: [] }] });
  });
  it('shows what goes where and why, and why not', async () => {
    show(<ProposalPane onShow={nothing} view={VIEW} proposal={PROPOSAL} />);
    const dialog = await screen.findByRole('complementary', { name: 'Proposed plan: 2 placements, 1 without a place' });
    expect(dialog).toHaveTextContent(/4 Mar.* 12:30.*Tern clips.*No rope at all.*why a/);
    expect(dialog).toHaveTextContent('Every window of these days is taken.');
  });
  it('is written without what was left out, and undo takes the posts off again, the last first', async () => {
    store.dispatch(proposed(PROPOSAL));
    const posts = [post({ id: 'p1' }), post({ id: 'p2' })];
    const { user, asked } = show(
      <ProposalPane onShow={nothing} view={VIEW} proposal={{ ...PROPOSAL, placements: [...PROPOSAL.placements, placement('a', '2030-03-06')] }} />,
      {
        'POST api/schedule/posts': posts,
        'DELETE api/posts/p1': null,
        'DELETE api/posts/p2': null,
      },
    );
    await user.click(await screen.findByLabelText('Take “The second tide” on Tern clips'));
    await user.click(screen.getByRole('button', { name: 'Place 2 posts' }));
    await expect.poll(proposal).toBeNull();
    expect(asked[0]!.body).toMatchObject({
      batchId: 'b1',
      placements: [
        { shortId: 'a', date: '2030-03-04' },
        { shortId: 'a', date: '2030-03-06' },
      ],
    });
    await undoLast();
    expect(asked.slice(1).map(({ method, path }) => `${method} ${path}`)).toEqual(['DELETE api/posts/p2', 'DELETE api/posts/p1']);
    expect(store.getState().notices.at(-1)!.text).toBe('Undone: Placed 2 posts');
  });
  describe('in which a post moves', () => {
    const standing = post({ id: 'p9', shortId: 'b', date: '2030-03-04', version: 7, movable: true });
    const view = { ...VIEW, posts: [standing] };
    const move = {
      ...(placement('b', '2030-03-06') as PlacementView),
      ...{ postId: 'p9', version: 7, fromDate: '2030-03-04', fromMinute: 750, worthBefore: 60 },
    };
    const withMove = { ...PROPOSAL, placements: [placement('a', '2030-03-04')], moves: [move], unplaced: [] };
    it('is written whole, and taken back whole, with the reason that the post had', async () => {
      store.dispatch(proposed(withMove));
      const answers = [[{ ...standing, date: '2030-03-06', version: 8 }, post({ id: 'p1', shortId: 'a' })], [standing]];
      const { user, asked } = show(<ProposalPane onShow={nothing} view={view} proposal={withMove} />, {
        'POST api/schedule/posts': () => answers.shift(),
        'DELETE api/posts/p1': null,
      });
      expect(await screen.findByText('moves here from Mon 4 Mar 12:30')).toBeInTheDocument();
      await user.click(screen.getByRole('button', { name: 'Place 1 post, move 1' }));
      await expect.poll(proposal).toBeNull();
      expect(asked[0]!.body).toMatchObject({
        placements: [{ shortId: 'a' }],
        moves: [{ postId: 'p9', channelId: 'ch1', date: '2030-03-06', minute: 750, version: 7, why: 'why b' }],
      });
      await undoLast();
      expect(asked.slice(1).map(({ method, path }) => `${method} ${path}`)).toEqual(['DELETE api/posts/p1', 'POST api/schedule/posts']);
      expect(asked[2]!.body).toEqual({
        batchId: null,
        placements: [],
        moves: [{ postId: 'p9', channelId: 'ch1', date: '2030-03-04', minute: 750, version: 8, why: 'the strongest window of the week' }],
      });
      expect(store.getState().notices.at(-1)!.text).toBe('Undone: Placed 1 post, moved 1');
    });
    it('is asked for again with the moves that made room, and counts what they gain', async () => {
      store.dispatch(proposed(withMove));
      const answer: ProposalView = { placements: [], moves: [], unplaced: [], value: 0, bound: 0 };
      const { user, asked } = show(<ProposalPane onShow={nothing} view={view} proposal={withMove} />, { 'POST api/schedule/proposals': answer });
      await user.click(await screen.findByRole('button', { name: 'Keep “No rope at all” where it is on Tern clips' }));
      await user.click(screen.getByRole('button', { name: 'Ask again, keeping 1' }));
      await expect.poll(() => proposal()?.value).toBe(20); // 40 placed, 20 lost by the move
      expect(asked[0]!.body).toMatchObject({ keptMoves: [{ postId: 'p9', date: '2030-03-06', version: 7 }] });
      expect(proposal()).toMatchObject({ moves: [{ postId: 'p9' }], keptMoves: [{ postId: 'p9' }] });
    });
    it('leaves it where it is when that is not ticked', async () => {
      store.dispatch(proposed(withMove));
      const { user, asked } = show(<ProposalPane onShow={nothing} view={view} proposal={withMove} />, { 'POST api/schedule/posts': [post({ id: 'p1' })] });
      await user.click(await screen.findByLabelText('Take “The second tide” on Tern clips'));
      await user.click(screen.getByRole('button', { name: 'Place 1 post' }));
      await expect.poll(() => asked[0]?.body).toMatchObject({ placements: [{ shortId: 'a' }], moves: [] });
    });
  });
  it('that somebody was faster than is not half written, and can be thrown away', async () => {
    store.dispatch(proposed(PROPOSAL));
    const { user } = show(<ProposalPane onShow={nothing} view={VIEW} proposal={PROPOSAL} />, {
      'POST api/schedule/posts': new Refusal(409, 'Monday 12:30 is taken by now.'),
    });
    await user.click(await screen.findByRole('button', { name: 'Place 2 posts' }));
    expect(await screen.findByText(/Monday 12:30 is taken by now\./)).toBeInTheDocument();
    expect(screen.getByText(/Nothing was written\./)).toBeInTheDocument();
    expect(proposal()).not.toBeNull();
    await user.click(screen.getByRole('button', { name: 'Throw the proposal away' }));
    expect(proposal()).toBeNull();
  });
});

describe('a post', () => {
  onScreens();
  const dialog = (fields: Partial<PostView> = {}, plan: Plan = { channels: [], shorts: [], posts: [], nowMs: 0 }) => {
    const deeds = { takeOff: vi.fn(), markPosted: vi.fn(), setMovable: vi.fn() };
    const onClose = vi.fn();
    return { deeds, onClose, ...show(<PostDialog post={post(fields)} view={VIEW} plan={plan} deeds={deeds} onClose={onClose} />) };
  };
  it('says when, in the channel’s zone and in UTC, and why there', async () => {
    dialog();
    const shown = await screen.findByRole('dialog', { name: 'No rope at all' });
    expect(shown).toHaveTextContent('12:30 in Europe/Dublin');
    expect(shown).toHaveTextContent('2030-03-04 12:30 UTC');
    expect(shown).toHaveTextContent('the strongest window of the week');
    expect(within(shown).getByRole('link', { name: 'Its words' })).toHaveAttribute('href', '/shorts/a');
  });
  it('is taken off', async () => {
    const { user, deeds, onClose } = dialog();
    await user.click(await screen.findByRole('button', { name: 'Take off the schedule' }));
    expect(deeds.takeOff).toHaveBeenCalledWith(expect.objectContaining({ id: 'p1' }));
    expect(onClose).toHaveBeenCalled();
  });
  it('is marked as posted only once its time has come, and can be unmarked', async () => {
    dialog();
    expect(await screen.findByRole('button', { name: 'Mark as posted' })).toBeDisabled();
    const over = dialog({ at: '2030-02-28T12:30:00.000Z' });
    await over.user.click(screen.getAllByRole('button', { name: 'Mark as posted' }).at(-1)!);
    expect(over.deeds.markPosted).toHaveBeenCalledWith(expect.anything(), true);
    const posted = dialog({ state: 'posted' });
    await posted.user.click(await screen.findByRole('button', { name: 'Not posted after all' }));
    expect(posted.deeds.markPosted).toHaveBeenCalledWith(expect.anything(), false);
  });
  it('says what a hole it would leave', async () => {
    const at = (id: string, recordingId: string, date: string): PlannedPost => ({ ...post(), id, recordingId, date, atMs: Date.parse(`${date}T12:30:00Z`) });
    const posts = [at('before', 'q', '2030-03-02'), at('p1', 'r1', '2030-03-04'), at('after', 'q', '2030-03-05')];
    dialog({}, { channels: [], shorts: [], posts, nowMs: 0 });
    expect(await screen.findByRole('dialog')).toHaveTextContent(
      'If it moves or goes: The posts before and after it, on Sat 2 Mar 12:30 and Tue 5 Mar 12:30, come from one recording',
    );
  });
  it('that was refused says why', async () => {
    dialog({ state: 'refused', failure: 'the platform was closed' });
    expect(await screen.findByRole('dialog')).toHaveTextContent('refused: the platform was closed');
  });
});
