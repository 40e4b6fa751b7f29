// @vitest-environment jsdom
import { NO_EDIT } from '@sift-reel/core';
import { screen, within } from '@testing-library/react';
import type { UserEvent } from '@testing-library/user-event';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { ShortView, TalkAroundView } from '../../app/api.js';
import { type Answers, type Ask, onScreens, Refusal, show } from '../../app/screen.fixture.js';
import { store } from '../../app/store.js';
import { shortView } from '../shorts/short.fixture.js';
import { CutPage } from './cut-page.js';
import { cutsOf, pauseOf, spokenOf, wordNear } from './spoken.js';

onScreens();

const TEXT = 'We had. So um we had no rope at all. That was it.'.split(' ');
/** A word every 500 ms, 400 ms long, from 10 s on; 1.5 s of silence after "all". */
const AROUND: TalkAroundView = {
  talks: [
    {
      firstWord: 20,
      words: TEXT.map((text, i) => {
        const startMs = 10_000 + 500 * i + (i > 8 ? 1_400 : 0);
        return { text, startMs, endMs: startMs + 400, sentence: i < 2 ? 0 : i < 9 ? 1 : 2, mark: false };
      }),
      turns: [{ word: 20, speaker: 'Obi' }],
    },
  ],
  levels: null,
  wordCount: 33,
  spreadTimes: false,
};
/** From "So" to "it.". */
const SHORT: ShortView = shortView('a', 'No rope', {
  firstWord: 22,
  endWord: 33,
  startMs: 10_950,
  endMs: 17_400,
  playedMs: 6_450,
  approved: false,
  approvedBy: null,
});
const FRAMES = { ground: '<svg xmlns="http://www.w3.org/2000/svg"/>', captions: [] };
const PROPOSED = [
  { sort: 'filler', firstWord: 23, endWord: 24, leftMs: null, savedMs: 400 },
  { sort: 'pause', firstWord: 28, endWord: 30, leftMs: 500, savedMs: 1_000 },
];

beforeEach(() => {
  vi.spyOn(HTMLMediaElement.prototype, 'play').mockResolvedValue();
  vi.spyOn(HTMLMediaElement.prototype, 'pause').mockReturnValue();
  vi.spyOn(HTMLMediaElement.prototype, 'load').mockReturnValue();
});

const answers = (short: ShortView, more: Answers = {}): Answers => ({
  'api/shorts': [short],
  'api/shorts/a/talk': AROUND,
  'api/shorts/a/frames?shape=vertical': FRAMES,
  'api/shorts/a/tightening?pauseMs=800&paddingMs=250': PROPOSED,
  ...more,
});
const page = async (short = SHORT, more: Answers = {}): Promise<{ asked: Ask[]; user: UserEvent; given: Answers }> => {
  const given = answers(short, more);
  const shown = show(<CutPage />, given, { at: '/shorts/a/cut', route: '/shorts/:shortId/cut' });
  await screen.findByRole('listbox', { name: 'Words' });
  return { ...shown, given };
};
const option = (name: string): Promise<HTMLElement> => screen.findByRole('option', { name });
const writes = (asked: Ask[]): unknown[] => asked.filter(({ method }) => method === 'PUT').map(({ path, body }) => [path, body]);
const saved = (edit: object, version = SHORT.version + 1): ShortView => ({ ...SHORT, edit: { ...SHORT.edit, ...edit }, version });
/** What the server makes of the next write, and has from then on. */
const serve = (given: Answers, short: ShortView): void => void Object.assign(given, { 'PUT api/shorts/a/edit': short, 'api/shorts': [short] });
const struck = (): string[] => [...document.querySelectorAll('del')].map((one) => one.textContent ?? '');

describe('the cut of a short', () => {
  it('is what the server reckons: words that go are not played, and a pause is as long as is left of it', () => {
    const words = spokenOf(AROUND);
    const edit = { ...NO_EDIT, removed: [{ firstWord: 23, endWord: 24 }], pauses: [{ afterWord: 28, leftMs: 500 }] };
    const cuts = cutsOf(words, SHORT, edit);
    expect(cuts.map(({ startMs, endMs }) => [startMs, endMs])).toEqual([
      [10_950, 11_450],
      [11_950, 14_650],
      [15_650, 17_800],
    ]);
    expect(pauseOf(words, edit, 28)).toEqual({ ms: 1_500, leftMs: 500 });
    expect(pauseOf(words, edit, 25)).toBeNull();
    // A part that was put in front, and is not loaded yet, is left out rather than played wrong.
    expect(cutsOf(words, SHORT, { ...edit, before: [{ firstWord: 3, endWord: 9 }] })).toEqual(cuts);
  });

  it('has ends where a thought begins or ends, when they are dragged near one', () => {
    const [talk] = AROUND.talks;
    expect(wordNear(talk!, 11_260, 'start')).toBe(22); // "um" at 11.5 s is as near, and begins nothing
    expect(wordNear(talk!, 12_510, 'start')).toBe(25);
    expect(wordNear(talk!, 14_200, 'end')).toBe(28);
  });

  it('plays a sentence from anywhere in the recording first, or last', async () => {
    const hit = { firstWord: 3, endWord: 9, startMs: 1_500, endMs: 4_400, text: 'Nobody had checked it.', score: 1, by: 'words' };
    const { asked, user, given } = await page(SHORT, {
      'api/recordings/r1/search?q=checked': { query: 'checked', byMeaning: true, hits: [hit] },
      'api/recordings/r1/search?q=zebra': { query: 'zebra', byMeaning: true, hits: [] },
    });
    await user.keyboard('g');
    const dialog = within(await screen.findByRole('dialog', { name: 'A part from elsewhere' }));
    const field = dialog.getByLabelText('Find a part');
    await user.type(field, 'zebra');
    expect(await dialog.findByText('Nothing found.')).toBeInTheDocument();
    await user.clear(field);
    await user.type(field, 'checked');
    serve(given, saved({ after: [{ firstWord: 3, endWord: 9 }] }));
    await user.click(await dialog.findByRole('button', { name: 'Put after it' }));
    await expect
      .poll(() => writes(asked))
      .toEqual([['api/shorts/a/edit', { edit: { ...NO_EDIT, after: [{ firstWord: 3, endWord: 9 }] }, version: SHORT.version }]]);
    expect(dialog.getByRole('button', { name: 'Put after it' })).toBeDisabled();
    expect(dialog.getByRole('button', { name: 'Put in front' })).toBeEnabled();
  });

  it('strikes chosen words out with a key, at once and on the server, and brings them back', async () => {
    const { asked, user, given } = await page();
    serve(given, saved({ removed: [{ firstWord: 23, endWord: 25 }] }));
    await user.pointer([{ keys: '[MouseLeft>]', target: await option('um') }, { target: await option('we') }, { keys: '[/MouseLeft]' }]);
    await user.keyboard('x');
    expect(struck()).toEqual(['um', 'we']);
    const removed = [{ firstWord: 23, endWord: 25 }];
    await expect.poll(() => writes(asked)).toEqual([['api/shorts/a/edit', { edit: { ...NO_EDIT, removed }, version: SHORT.version }]]);
    serve(given, saved({}, SHORT.version + 2));
    await user.click(await screen.findByRole('button', { name: /^Bring back/ }));
    expect(struck()).toEqual([]);
    await expect.poll(() => writes(asked).length).toBe(2);
    expect(writes(asked)[1]).toEqual(['api/shorts/a/edit', { edit: NO_EDIT, version: SHORT.version + 1 }]);
  });

  it('is never struck out whole', async () => {
    const { asked, user } = await page();
    await user.pointer([{ keys: '[MouseLeft>]', target: await option('So') }, { target: await option('it.') }, { keys: '[/MouseLeft]' }]);
    await user.keyboard('x');
    expect([struck(), writes(asked)]).toEqual([[], []]);
    expect(store.getState().notices.at(-1)?.text).toMatch(/^Nothing of the short would be left/);
  });

  it('is chosen by the arrow keys, with Shift as far as one likes', async () => {
    const { user } = await page();
    (await screen.findByRole('listbox', { name: 'Words' })).focus();
    await user.keyboard('{ArrowRight}{ArrowRight}{Shift>}{ArrowRight}{/Shift}');
    expect(screen.getAllByRole('option', { selected: true }).map((one) => one.textContent)).toEqual(['um', 'we']);
  });

  it('shows what the server has where it refuses', async () => {
    const { user } = await page(SHORT, { 'PUT api/shorts/a/edit': new Refusal(409, 'The short was changed meanwhile.') });
    await user.click(await option('um'));
    await user.keyboard('x');
    await expect.poll(struck).toEqual([]);
  });

  it('moves its ends by the chosen word', async () => {
    const { asked, user } = await page(SHORT, { 'PUT api/candidates/ka/span': {} });
    await user.click(await option('We'));
    await user.keyboard('[[');
    await expect.poll(() => writes(asked)).toEqual([['api/candidates/ka/span', { firstWord: 20, endWord: 33 }]]);
  });

  it('corrects a word, which keeps its time', async () => {
    const { asked, user, given } = await page();
    serve(given, saved({ corrected: [{ word: 27, text: 'robe' }] }));
    await user.click(await option('rope'));
    await user.keyboard('e');
    const field = await screen.findByLabelText('It reads');
    await user.clear(field);
    await user.type(field, 'robe{Enter}');
    expect(await option('robe')).toHaveAttribute('title', 'Heard as “rope”');
    await expect.poll(() => writes(asked).length).toBe(1);
  });

  it('shortens a pause by a click, and says what is left of it', async () => {
    const { user, given } = await page();
    serve(given, saved({ pauses: [{ afterWord: 28, leftMs: 500 }] }));
    await user.click(await screen.findByRole('option', { name: '1.5 s' }));
    expect(await screen.findByRole('option', { name: '1.5 → 0.5 s' })).toBeInTheDocument();
    // By a key, too: after the chosen word.
    serve(given, saved({}, SHORT.version + 2));
    await user.click(await option('at'));
    await user.keyboard('p');
    expect(await screen.findByRole('option', { name: '1.5 s' })).toBeInTheDocument();
  });

  it('puts chosen words in front', async () => {
    const { asked, user, given } = await page();
    serve(given, saved({ before: [{ firstWord: 26, endWord: 28 }] }));
    await user.pointer([{ keys: '[MouseLeft>]', target: await option('no') }, { target: await option('rope') }, { keys: '[/MouseLeft]' }]);
    await user.keyboard('f');
    const parts = await screen.findByRole('list', { name: 'Played before the passage' });
    expect(parts).toHaveTextContent('no rope');
    await expect.poll(() => writes(asked).length).toBe(1);
    serve(given, saved({}, SHORT.version + 2));
    await user.click(within(parts).getByRole('button', { name: 'Take out “no rope”' }));
    await expect.poll(() => screen.queryByRole('list', { name: 'Played before the passage' })).toBeNull();
  });

  it('is tightened cut by cut: listed with what each saves, taken or refused', async () => {
    const { asked, user, given } = await page();
    serve(given, saved({ removed: [{ firstWord: 23, endWord: 24 }] }));
    const pane = within(await screen.findByRole('region', { name: 'Tighten' }));
    expect(await pane.findByText(/saves 0\.40 s/)).toBeInTheDocument();
    expect(pane.getByRole('button', { name: 'Take all 2, 1.4 s' })).toBeEnabled();
    await user.click(pane.getByRole('button', { name: 'Leave “at … all.” in' }));
    await user.click(pane.getByRole('button', { name: 'Take it, 0.4 s' }));
    await expect
      .poll(() => writes(asked))
      .toEqual([['api/shorts/a/edit', { edit: { ...NO_EDIT, removed: [{ firstWord: 23, endWord: 24 }] }, version: SHORT.version }]]);
    expect(struck()).toEqual(['um']);
  });

  it('cannot be changed while the short is approved, and says so', async () => {
    const { asked, user } = await page({ ...SHORT, approved: true });
    await user.click(await option('um'));
    await user.keyboard('xe[[f');
    expect(screen.getByText(/Un-approve it to cut it/)).toBeInTheDocument();
    expect(screen.getByRole('button', { name: /^Strike out/ })).toBeDisabled();
    expect(writes(asked)).toEqual([]);
  });

  it('says why nothing can be drawn, and that a short is gone', async () => {
    await page(SHORT, { 'api/shorts/a/frames?shape=vertical': new Refusal(409, 'The fonts here cannot draw these letters') });
    expect(await screen.findByText(/cannot draw these letters/)).toBeInTheDocument();
  });

  it('of a short that is gone says so', async () => {
    show(<CutPage />, { 'api/shorts': [] }, { at: '/shorts/a/cut', route: '/shorts/:shortId/cut' });
    expect(await screen.findByText('There is no such short')).toBeInTheDocument();
  });
});
