// @vitest-environment jsdom
import { cleanup, screen, within } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { RecordingView, TranscriptSummaryView } from '../../app/api.js';
import { type Answers, onScreens, pick, Refusal, show } from '../../app/screen.fixture.js';
import { store } from '../../app/store.js';
import { latestSift as sift, recordingView as recording } from '../../app/recording.fixture.js';
import { paceOf } from './upload-queue.js';
import { RecordingsPage } from './recordings-page.js';

const transcript = (fields: Partial<TranscriptSummaryView> = {}): TranscriptSummaryView => ({ ...recording('', '').transcript!, ...fields });
const page = (recordings: RecordingView[], more: Answers = {}) =>
  show(
    <RecordingsPage />,
    {
      'api/clients': [
        { id: 'c1', name: 'Tern & Tide' },
        { id: 'c2', name: 'Harbour Bread' },
      ],
      'api/recordings': recordings,
      ...more,
    },
    { at: '/recordings' },
  );
const row = async (title: string): Promise<HTMLElement> => (await screen.findByText(title)).closest('tr')!;

describe('the recordings', () => {
  onScreens();
  it.each<[string, Partial<RecordingView>, RegExp]>([
    ['to brief', {}, /31:00.*Ada, Bo.*9,412 words.*Brief and sift/],
    ['without a transcript', { transcript: null, durationMs: null }, /waits for a transcript.*Add transcript/],
    ['without sound', { sound: null }, /no sound yet.*Add sound/],
    ['of many voices', { transcript: transcript({ speakers: ['A', 'B', 'C', 'D', 'E', 'F'] }) }, /A, B, C, D and 2 more/],
    ['of nobody named', { transcript: transcript({ speakers: [] }) }, /not named/],
    ['without punctuation', { transcript: transcript({ sentenceEnds: 'restored' }) }, /no punctuation; sentences restored/],
    ['partly punctuated', { transcript: transcript({ sentenceEnds: 'mixed' }) }, /partly punctuated; sentences restored/],
    ['to read', { latestSift: sift({}) }, /40 candidates, 9 strong$/],
    ['read', { latestSift: sift({ keptCount: 3 }) }, /40 candidates, 9 strong · 3 kept$/],
    ['that failed', { latestSift: sift({ state: 'failed' }) }, /failed; see why$/],
    ['that was stopped', { latestSift: sift({ state: 'cancelled' }) }, /cancelled$/],
    ['at work', { latestSift: sift({ state: 'running', stage: 'scoring', fraction: 0.4, leftMs: 2_400 }) }, /3 s left$/],
  ])('one %s says so', async (_, fields, words) => {
    page([recording('r1', 'On the slipway', fields)]);
    expect(await row('On the slipway')).toHaveTextContent(words);
  });
  it('are shown for one client, which stands in the address', async () => {
    const { user, place } = page([recording('r1', 'On the slipway'), recording('r2', 'The oven', { clientId: 'c2' })]);
    await screen.findByText('On the slipway');
    await pick(user, 'Client', 'Harbour Bread');
    expect(place()).toBe('/recordings?client=c2');
    expect(screen.queryByText('On the slipway')).toBeNull();
    expect(screen.getByText('1 on the table')).toBeInTheDocument();
  });
  it('tell what was repaired, line by line', async () => {
    const { user } = page([recording('r1', 'On the slipway', { transcript: transcript({ repairCount: 120 }) })], {
      'api/recordings/r1/repairs': { sourceName: 'slipway.vtt', count: 120, repairs: [{ line: 14, code: 'overlap', detail: 'cut at 00:00:09.200' }] },
    });
    await user.click(await screen.findByRole('button', { name: '120 repaired' }));
    const dialog = await screen.findByRole('dialog', { name: 'What was repaired in slipway.vtt' });
    expect(await within(dialog).findByText('line 14')).toBeInTheDocument();
    expect(dialog).toHaveTextContent('overlapping');
    expect(dialog).toHaveTextContent('and 119 more');
  });
  it('are deleted only when asked twice', async () => {
    const { user, asked } = page([recording('r1', 'On the slipway')], { 'DELETE api/recordings/r1': null });
    await user.click(await screen.findByRole('button', { name: 'Delete On the slipway' }));
    await user.click(await screen.findByRole('button', { name: 'Keep it' }));
    await expect.poll(() => screen.queryByRole('dialog')).toBeNull();
    expect(asked.some(({ method }) => method === 'DELETE')).toBe(false);
    await user.click(screen.getByRole('button', { name: 'Delete On the slipway' }));
    await user.click(await screen.findByRole('button', { name: 'Delete the recording' }));
    await expect.poll(() => asked.filter(({ method }) => method === 'DELETE').length).toBe(1);
    await expect.poll(() => screen.queryByRole('dialog')).toBeNull();
  });
  it('that are on the schedule stay, and say why', async () => {
    const { user } = page([recording('r1', 'On the slipway')], { 'DELETE api/recordings/r1': new Refusal(409, 'Two of its shorts are on the schedule.') });
    await user.click(await screen.findByRole('button', { name: 'Delete On the slipway' }));
    await user.click(await screen.findByRole('button', { name: 'Delete the recording' }));
    await expect.poll(() => store.getState().notices.at(-1)?.text).toBe('Two of its shorts are on the schedule.');
    expect(screen.getByText('On the slipway')).toBeInTheDocument();
  });
  it('of no client lead to the clients; of a client without any say where they will lie', async () => {
    page([], { 'api/clients': [] });
    expect(await screen.findByRole('link', { name: 'Add a client' })).toBeInTheDocument();
  });
  it('not yet there say where they will lie', async () => {
    page([]);
    expect(await screen.findByText('No recordings yet')).toBeInTheDocument();
  });
});

/** An upload that is answered when the test says so. */
class Sending {
  static last: Sending;
  upload: { onprogress?: (event: object) => void } = {};
  status = 0;
  response: unknown = null;
  onload = (): void => undefined;
  open = (): void => undefined;
  setRequestHeader = (): void => undefined;
  abort = (): void => undefined;
  send(): void {
    Sending.last = this;
  }
  answer(status: number, response: unknown): void {
    Object.assign(this, { status, response });
    this.onload();
  }
}

describe('files on their way', () => {
  it('tell how long the rest takes at the pace so far, which what was sent before says nothing of', () => {
    const pace = paceOf(1_000);
    expect(pace(0.5, 1_500)).toBeNull(); // half of it was there already
    expect(pace(0.52, 2_500)).toBeNull(); // too early to tell
    expect(Math.round(pace(0.6, 11_000)!)).toBe(40_000);
    expect(pace(1, 51_000)).toBe(0);
    expect(paceOf(0)(0, 60_000)).toBeNull();
  });
  onScreens();
  afterEach(() => vi.unstubAllGlobals());
  it('are told of where one looks next, when the screen was left before they were answered', async () => {
    vi.stubGlobal('XMLHttpRequest', Sending);
    const { user } = page([]);
    const files = await screen.findByTestId('files');
    await user.upload(files, [new File(['1'], 'slipway.vtt'), new File(['2'], 'oven.vtt')]);
    expect(await screen.findByText('waits its turn')).toBeInTheDocument();
    cleanup();
    expect(screen.queryByText('slipway')).toBeNull();
    Sending.last.answer(422, { status: 422, title: 'Cannot be used', detail: 'slipway.vtt:3: this cue has no end' });
    const first = Sending.last;
    await expect.poll(() => Sending.last !== first).toBe(true);
    Sending.last.answer(201, recording('r1', 'oven'));
    page([recording('r1', 'oven')]);
    expect(await screen.findByRole('alert')).toHaveTextContent('slipway.vtt:3: this cue has no end');
    expect(await screen.findByText(/brought in/)).toBeInTheDocument();
  });
});
