// @vitest-environment jsdom
import { screen, within } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import type { CopyView, ShortView } from '../../app/api.js';
import { type Answers, type Ask, onScreens, Refusal, show } from '../../app/screen.fixture.js';
import { undoLast } from '../../app/undo.js';
import { shortChannel, shortView } from './short.fixture.js';
import { ShortsPage } from './shorts-page.js';

const copy = (title: string): CopyView => ({ title, description: '', hashtags: [], keywords: [], coverLine: '' });
const channel = shortChannel();
const short = (id: string, title: string, fields: Partial<ShortView> = {}): ShortView =>
  shortView(id, title, { copy: copy(title), approved: false, approvedBy: null, version: 1, ...fields });

/** A made-up server that keeps the words of two shorts, with versions; a write that saw another version is refused. */
function server(): { answers: Answers; shorts: Map<string, ShortView>; writes: Ask[] } {
  const shorts = new Map([short('a', 'No rope at all'), short('b', 'The second tide')].map((one) => [one.id, one]));
  const writes: Ask[] = [];
  const write =
    (id: string, change: (one: ShortView, body: Record<string, unknown>) => Partial<ShortView>) =>
    (ask: Ask): unknown => {
      writes.push(ask);
      const now = shorts.get(id)!;
      const body = (ask.body ?? { version: Number(new URLSearchParams(ask.path.split('?')[1]).get('version')) }) as Record<string, unknown>;
      if (body['version'] !== now.version) return new Refusal(409, 'Somebody changed this short while you did.', [], { code: 'stale', current: now });
      const next = { ...now, ...change(now, body), version: now.version + 1 };
      shorts.set(id, next);
      return next;
    };
  const answers: Answers = { 'api/shorts': () => [...shorts.values()], 'api/clients': [{ id: 'c1', name: 'Tern & Tide' }], 'api/batches': [] };
  for (const id of ['a', 'b']) {
    answers[`PUT api/shorts/${id}/copy`] = write(id, (_, { version: __, ...words }) => ({ copy: words as unknown as CopyView }));
    answers[`PUT api/shorts/${id}/copy/ch1`] = write(id, (_, { version: __, ...words }) => ({
      channels: [{ ...channel, variant: words as unknown as CopyView }] as never,
    }));
    answers[`PUT api/shorts/${id}/approval`] = (ask: Ask) => {
      writes.push(ask);
      const next = { ...shorts.get(id)!, approved: true, approvedBy: 'Ada' };
      shorts.set(id, next);
      return next;
    };
    for (let version = 1; version < 9; version += 1)
      answers[`DELETE api/shorts/${id}/copy/ch1?version=${version}`] = write(id, () => ({ channels: [channel] as never }));
  }
  return { answers, shorts, writes };
}
const page = (answers: Answers) => show(<ShortsPage />, answers, { at: '/shorts/a', route: '/shorts/:shortId?' });
const titleField = (): Promise<HTMLElement> => screen.findByLabelText('Title');
const titles = (writes: readonly Ask[]): unknown[] => writes.map(({ body }) => (body as { title?: string } | undefined)?.title);

describe('what is typed', () => {
  onScreens();
  it('is saved when the field is left', async () => {
    const { answers, shorts } = server();
    const { user } = page(answers);
    await user.type(await titleField(), '!');
    await user.tab();
    await expect.poll(() => shorts.get('a')!.copy.title).toBe('No rope at all!');
    expect(await screen.findByText('Saved')).toBeInTheDocument();
  });
  it('is saved when another short is opened before the hand has rested', async () => {
    const { answers, shorts } = server();
    const { user } = page(answers);
    await user.type(await titleField(), '!');
    await user.click(screen.getByRole('link', { name: /The second tide/ }));
    await expect.poll(() => shorts.get('a')!.copy.title).toBe('No rope at all!');
    expect(await screen.findByDisplayValue('The second tide')).toBeInTheDocument();
  });
  it('is saved before Approve, and the yes is to exactly that version', async () => {
    const { answers, writes } = server();
    const { user } = page(answers);
    await user.type(await titleField(), '!');
    await user.click(screen.getByRole('button', { name: /^Approve the short/ }));
    await expect.poll(() => writes.length).toBe(2);
    expect(writes.map(({ body }) => body)).toMatchObject([
      { title: 'No rope at all!', version: 1 },
      { approved: true, version: 2 },
    ]);
  });
  it('goes in order: no write overtakes another, each builds on the one before', async () => {
    const { answers, writes } = server();
    const { user } = page(answers);
    const field = await titleField();
    for (const letter of ['1', '2', '3']) {
      await user.type(field, letter);
      await user.tab();
    }
    await expect.poll(() => titles(writes).at(-1)).toBe('No rope at all123');
    expect(writes.map(({ body }) => (body as { version: number }).version)).toEqual(writes.map((_, i) => i + 1));
  });
  it('that could not be saved says so, stays, and is saved again', async () => {
    const { answers, shorts } = server();
    const good = answers['PUT api/shorts/a/copy'];
    answers['PUT api/shorts/a/copy'] = new Refusal(503, 'The database cannot be reached just now.');
    const { user } = page(answers);
    await user.type(await titleField(), '!');
    await user.tab();
    expect(await screen.findByText(/Could not be saved\. The database cannot be reached/)).toBeInTheDocument();
    expect(await titleField()).toHaveValue('No rope at all!');
    answers['PUT api/shorts/a/copy'] = good;
    await user.click(screen.getByRole('button', { name: 'Save again' }));
    await expect.poll(() => shorts.get('a')!.copy.title).toBe('No rope at all!');
  });
  it('beside what somebody else saved meanwhile: both are shown, and one’s own can go over it', async () => {
    const { answers, shorts } = server();
    const { user } = page(answers);
    const field = await titleField();
    shorts.set('a', { ...shorts.get('a')!, copy: copy('Their title'), version: 2 });
    await user.type(field, '!');
    await user.tab();
    const choice = within(await screen.findByRole('alert'));
    expect(choice.getByRole('row', { name: 'Title Their title No rope at all!' })).toBeInTheDocument();
    await user.click(choice.getByRole('button', { name: 'Save yours over it' }));
    await expect.poll(() => shorts.get('a')!.copy.title).toBe('No rope at all!');
  });
  it('or theirs can be taken', async () => {
    const { answers, shorts } = server();
    const { user } = page(answers);
    const field = await titleField();
    shorts.set('a', { ...shorts.get('a')!, copy: copy('Their title'), version: 2 });
    await user.type(field, '!');
    await user.tab();
    await user.click(await screen.findByRole('button', { name: 'Take theirs' }));
    expect(await screen.findByDisplayValue('Their title')).toBeInTheDocument();
    expect(shorts.get('a')!.version).toBe(2);
  });
});

describe('a channel’s own words', () => {
  onScreens();
  it('go back to the words for all, and undo brings them back', async () => {
    const { answers, shorts } = server();
    const { user } = page(answers);
    await user.click(await screen.findByRole('tab', { name: 'Tern clips' }));
    await user.type(await titleField(), ' here');
    await user.tab();
    const own = (): CopyView | null => shorts.get('a')!.channels[0]!.variant;
    await expect.poll(() => own()?.title).toBe('No rope at all here');
    await user.click(await screen.findByRole('button', { name: 'Back to the words for all' }));
    await expect.poll(own).toBeNull();
    await undoLast();
    expect(own()?.title).toBe('No rope at all here');
  });
});

describe('words that were taken over', () => {
  onScreens();
  const offered = { text: 'The tide took the boat', sort: 'said', said: 'the tide took the boat', draft: false, description: '' };
  const opened = async (channelsOwn = false) => {
    const made = server();
    const path = channelsOwn ? 'api/shorts/a/titles?channelId=ch1' : 'api/shorts/a/titles';
    const { user } = page({ ...made.answers, 'api/shorts/a/titles': [offered], [path]: [offered] });
    await titleField();
    if (channelsOwn) await user.click(screen.getByRole('tab', { name: /Tern clips/ }));
    await user.click(await screen.findByRole('button', { name: /The tide took the boat/ }));
    await screen.findByDisplayValue('The tide took the boat');
    await expect.poll(() => titles(made.writes)).toEqual(['The tide took the boat']);
    return { ...made, user };
  };
  it('are taken back without what was typed since', async () => {
    const { user, shorts } = await opened();
    await user.type(screen.getByLabelText('Description'), 'Typed later.');
    await undoLast();
    await expect.poll(() => shorts.get('a')!.copy).toMatchObject({ title: 'No rope at all', description: 'Typed later.' });
    expect(screen.getByLabelText('Description')).toHaveValue('Typed later.');
  });
  it('are taken back by leaving a channel without words of its own, where it had none', async () => {
    const { shorts } = await opened(true);
    expect(shorts.get('a')!.channels[0]!.variant).toMatchObject({ title: 'The tide took the boat' });
    await undoLast();
    await expect.poll(() => shorts.get('a')!.channels[0]!.variant).toBeNull();
  });
});
