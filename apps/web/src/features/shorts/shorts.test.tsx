// @vitest-environment jsdom
import { screen, within } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import type { BatchView, CopyView, TitleView } from '../../app/api.js';
import { type Answers, type Ask, onScreens, pick, Refusal, show } from '../../app/screen.fixture.js';
import { shortChannel, shortView } from './short.fixture.js';
import { ShortsPage } from './shorts-page.js';

const SHORTS = [
  shortView('a', 'No rope at all'),
  shortView('b', 'The second tide', { approved: false, approvedBy: null }),
  shortView('c', 'Bread at four', { clientId: 'c2', recordingId: 'r2', recordingTitle: 'The oven' }),
];
const TITLES: TitleView[] = [
  { text: 'No rope on the slip', sort: 'said', said: 'so um we had no rope on the slip', draft: false, description: 'What it is about.' },
  { text: 'Why the tide took the boat', sort: 'why', said: 'the tide took the boat because', draft: false, description: 'No rope on the slip.' },
  { text: 'It went twice', sort: 'said', said: 'it went twice', draft: true, description: 'The tide took it.' },
];
const answers = (more: Answers = {}): Answers => ({
  'api/shorts': SHORTS,
  'api/clients': [
    { id: 'c1', name: 'Tern & Tide' },
    { id: 'c2', name: 'Harbour Bread' },
  ],
  'api/batches': [],
  ...Object.fromEntries(SHORTS.flatMap(({ id }) => [[`api/shorts/${id}/titles`, TITLES]])),
  ...more,
});
const page = (more: Answers = {}, at = '/shorts') => show(<ShortsPage />, answers(more), { at, route: '/shorts/:shortId?' });
const titles = (): string[] =>
  within(screen.getByRole('list', { name: 'Shorts' }))
    .getAllByRole('link')
    .map((link) => link.firstElementChild!.textContent);

function later<T>(): { promise: Promise<T>; resolve: (value: T) => void } {
  let resolve: (value: T) => void = () => undefined;
  const promise = new Promise<T>((done) => {
    resolve = done;
  });
  return { promise, resolve };
}

describe('the shorts', () => {
  onScreens();
  it('are listed under their recordings, the first with its words beside it', async () => {
    page();
    expect(await screen.findByText('Tern & Tide · On the slipway')).toBeInTheDocument();
    expect(screen.getByText('Harbour Bread · The oven')).toBeInTheDocument();
    expect(titles()).toEqual(['No rope at all', 'The second tide', 'Bread at four']);
    expect(screen.getByText('3 shown, 2 approved')).toBeInTheDocument();
    expect(screen.getByDisplayValue('No rope at all')).toBeInTheDocument();
  });
  it('are filtered by client and state, which stands in the address', async () => {
    const { user, place } = page();
    await screen.findByDisplayValue('No rope at all');
    await pick(user, 'Client', 'Tern & Tide');
    expect(titles()).toEqual(['No rope at all', 'The second tide']);
    await pick(user, 'Show', 'Drafts');
    expect(titles()).toEqual(['The second tide']);
    expect(place()).toBe('/shorts?client=c1&show=drafts');
    await pick(user, 'Client', 'Harbour Bread');
    expect(screen.getByText('No short fits these filters.')).toBeInTheDocument();
  });
  it('are walked with the arrows', async () => {
    const { user, place } = page();
    await screen.findByDisplayValue('No rope at all');
    await user.keyboard('{ArrowDown}');
    expect(place()).toBe('/shorts/b');
    expect(screen.getByDisplayValue('The second tide')).toBeInTheDocument();
    await user.keyboard('{ArrowUp}{ArrowUp}');
    expect(place()).toBe('/shorts/a');
  });
  it('offer titles, and one key takes one, with a way back', async () => {
    let draft = SHORTS[1]!;
    const { user, asked } = page(
      {
        'api/shorts': () => [draft],
        'PUT api/shorts/b/copy': ({ body }: Ask) => (draft = { ...draft, version: draft.version + 1, copy: body as CopyView }),
      },
      '/shorts/b',
    );
    const list = within(await screen.findByRole('list', { name: 'Proposals' }));
    expect(list.getAllByRole('button').map((button) => button.textContent)).toEqual([
      '1No rope on the slipas said“so um we had no rope on the slip”',
      '2Why the tide took the boatthe reason“the tide took the boat because”',
      '3It went twicedraftas said“it went twice”',
    ]);
    await user.keyboard('2');
    expect(await screen.findByDisplayValue('Why the tide took the boat')).toBeInTheDocument();
    // The text was proposed beside another title, and would say this one again.
    const taken = { title: 'Why the tide took the boat', description: 'No rope on the slip.', version: 3 };
    await expect.poll(() => asked.find(({ method }) => method === 'PUT')?.body).toMatchObject(taken);
    expect(list.getByRole('button', { pressed: true })).toHaveTextContent('Why the tide took the boat');
    await user.type(screen.getByLabelText('Title'), '1'); // typing takes no title
    expect(screen.getByLabelText('Title')).toHaveValue('Why the tide took the boat1');
  });
  it('take the title that was pressed before the titles were there', async () => {
    let draft = SHORTS[1]!;
    const found = later<TitleView[]>();
    const { user, asked } = page(
      {
        'api/shorts': () => [draft],
        'api/shorts/b/titles': () => found.promise,
        'PUT api/shorts/b/copy': ({ body }: Ask) => (draft = { ...draft, version: draft.version + 1, copy: body as CopyView }),
      },
      '/shorts/b',
    );
    await screen.findByDisplayValue('The second tide');
    await user.keyboard('2');
    expect(screen.queryByRole('list', { name: 'Proposals' })).toBeNull();
    found.resolve(TITLES);
    expect(await screen.findByDisplayValue('Why the tide took the boat')).toBeInTheDocument();
    await expect.poll(() => asked.filter(({ method }) => method === 'PUT').length).toBe(1);
  });
  it('stay as they are where a yes is refused, whatever was pressed for the next', async () => {
    const drafts = ['b', 'd'].map((id) => shortView(id, `Draft ${id}`, { approved: false, approvedBy: null }));
    const answer = later<Refusal>();
    const { user, asked, place } = page(
      { 'api/shorts': drafts, 'api/shorts/d/titles': TITLES, 'PUT api/shorts/b/approval': () => answer.promise },
      '/shorts/b',
    );
    await screen.findByRole('list', { name: 'Proposals' });
    await user.keyboard('n2n');
    answer.resolve(new Refusal(409, 'Somebody else changed it.', [], {}));
    await expect.poll(() => (screen.getByRole('button', { name: /^Approve the short/ }) as HTMLButtonElement).disabled).toBe(false);
    await user.keyboard('{ArrowDown}');
    await expect.poll(place).toBe('/shorts/d');
    expect(asked.filter(({ method }) => method === 'PUT').map(({ path }) => path)).toEqual(['api/shorts/b/approval']);
  });
  it('leave a text that somebody wrote as it is when another title is taken', async () => {
    let draft = { ...SHORTS[1]!, copy: { ...SHORTS[1]!.copy, description: 'Written by hand.' } };
    const { user, asked } = page(
      {
        'api/shorts': () => [draft],
        'PUT api/shorts/b/copy': ({ body }: Ask) => (draft = { ...draft, version: draft.version + 1, copy: body as CopyView }),
      },
      '/shorts/b',
    );
    await screen.findByRole('list', { name: 'Proposals' });
    await user.keyboard('2');
    await expect
      .poll(() => asked.find(({ method }) => method === 'PUT')?.body)
      .toMatchObject({ title: 'Why the tide took the boat', description: 'Written by hand.' });
  });
  it('that are approved offer no titles', async () => {
    page();
    await screen.findByDisplayValue('No rope at all');
    expect(screen.queryByRole('list', { name: 'Proposals' })).toBeNull();
  });
  it('are ticked for a batch only when approved, and a new batch leads to the schedule', async () => {
    const { user, asked, place } = page({ 'POST api/batches': { id: 'b7', name: 'March', shortIds: ['a'], createdAt: '', version: 1 } });
    expect(await screen.findByLabelText('Tick “The second tide” for a batch')).toBeDisabled();
    await user.click(screen.getByLabelText('Tick “No rope at all” for a batch'));
    await user.keyboard('b');
    const dialog = within(await screen.findByRole('dialog', { name: 'Batch 1 short' }));
    expect(dialog.getByRole('button', { name: 'Batch 1 short' })).toBeDisabled();
    await user.type(dialog.getByLabelText('Name of the batch'), '  March ');
    await user.click(dialog.getByRole('button', { name: 'Batch 1 short' }));
    expect(await screen.findByText('elsewhere')).toBeInTheDocument();
    expect(place()).toBe('/schedule?batch=b7');
    expect(asked.find(({ method }) => method === 'POST')!.body).toEqual({ name: 'March', shortIds: ['a'] });
  });
  it('join a batch that is there, each once', async () => {
    const old: BatchView = { id: 'b1', name: 'February', shortIds: ['a', 'z'], createdAt: '', version: 5 };
    const { user, asked } = page({ 'api/batches': [old], 'PUT api/batches/b1': ({ body }: Ask) => ({ ...old, ...(body as object) }) });
    await user.click(await screen.findByLabelText('Tick “No rope at all” for a batch'));
    await user.click(screen.getByLabelText('Tick “Bread at four” for a batch'));
    await user.click(screen.getByRole('button', { name: /^Batch 2 shorts/ }));
    await pick(user, 'Into', 'February (2)');
    await user.click(within(screen.getByRole('dialog')).getByRole('button', { name: 'Batch 2 shorts' }));
    await expect.poll(() => asked.find(({ method }) => method === 'PUT')?.body).toEqual({ name: 'February', shortIds: ['a', 'z', 'c'], version: 5 });
  });
  it('with words too long for a channel, or a channel they do not fit, are told apart', async () => {
    page({
      'api/shorts': [
        shortView('a', 'Fits'),
        shortView('b', 'Too long', {
          channels: [shortChannel({ problems: [{ field: 'title', detail: 'Title is 12 over' }] }), shortChannel({ channelId: 'ch2', unfit: 'too long' })],
        }),
      ],
    });
    const [fits, long] = (await screen.findAllByRole('listitem')).map((item) => item.textContent);
    expect(fits).not.toMatch(/channel/);
    expect(long).toMatch(/2 channels/);
  });
  it('of nobody yet lead to the recordings', async () => {
    page({ 'api/shorts': [] });
    expect(await screen.findByRole('link', { name: 'Go to the recordings' })).toBeInTheDocument();
  });
  it('that cannot be read say why', async () => {
    page({ 'api/shorts': new Refusal(500, 'The shorts are stuck in a drawer.') });
    expect(await screen.findByText('The shorts are stuck in a drawer.')).toBeInTheDocument();
  });
});
