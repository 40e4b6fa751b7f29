// @vitest-environment jsdom
import { packTranscript } from '@sift-reel/core';
import { cleanup, screen, within } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { AlignmentView, PreparationView, RecordingView, TranscriptSummaryView } from '../../app/api.js';
import { type Answers, onScreens, pick, Refusal, show } from '../../app/screen.fixture.js';
import { store } from '../../app/store.js';
import { latestSift as sift, recordingView as recording } from '../../app/recording.fixture.js';
import { isLoose, pairFiles } from './upload.js';
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

const preparation = (fields: Partial<PreparationView> = {}): PreparationView => ({
  id: 'p1',
  state: 'done',
  stage: 'done',
  fraction: 1,
  leftMs: null,
  failure: null,
  proxied: false,
  sprite: null,
  loudness: null,
  heard: true,
  ...fields,
});

describe('what is made of a recording', () => {
  onScreens();
  const loudness = { integrated: -18.24, shortTerm: -12, range: 6.1, truePeak: -0.9 };
  it.each<[string, Partial<PreparationView>, RegExp]>([
    ['at work', { state: 'running', stage: 'converting', fraction: 0.4, leftMs: 61_000 }, /being prepared: converting for browsers · 2 min left/],
    ['that waits', { state: 'waiting', stage: 'waiting', fraction: 0 }, /being prepared: waiting for a worker/],
    ['that is done', { loudness }, /sound · −18.2 LUFS/],
    ['that failed', { state: 'failed', failure: 'It could not be converted: no' }, /It could not be converted: no Prepare it again/],
  ])('%s says so', async (_, fields, words) => {
    page([recording('r1', 'On the slipway', { preparation: preparation(fields) })]);
    expect(await row('On the slipway')).toHaveTextContent(words);
  });
  it('tells all of its loudness where one points', async () => {
    page([recording('r1', 'On the slipway', { preparation: preparation({ loudness }) })]);
    await row('On the slipway');
    expect(screen.getByTitle('Loudness −18.2 LUFS, loudest three seconds −12.0 LUFS, range 6.1 LU, true peak −0.9 dBTP')).toBeInTheDocument();
  });
  it('is asked for again', async () => {
    const { user, asked } = page([recording('r1', 'On the slipway', { preparation: preparation({ state: 'failed', failure: 'No.' }) })], {
      'POST api/recordings/r1/preparation': preparation({ state: 'waiting' }),
    });
    await user.click(await screen.findByRole('button', { name: 'Prepare it again' }));
    await expect.poll(() => asked.filter(({ method }) => method === 'POST').map(({ path }) => path)).toEqual(['api/recordings/r1/preparation']);
  });
  it('is of the sound track that is chosen', async () => {
    const tracks = ['eng', 'spa'].map((language) => ({ codec: 'aac', channels: 2, language, title: '' }));
    const one = recording('r1', 'On the slipway');
    const { user, asked } = page([{ ...one, sound: { ...one.sound!, tracks } }], { 'PUT api/recordings/r1/sound-track': one });
    await row('On the slipway');
    await pick(user, 'Sound track', 'Track 2 · spa · 2 channels');
    await expect
      .poll(() => asked.filter(({ method }) => method === 'PUT').map(({ path, body }) => [path, body]))
      .toEqual([['api/recordings/r1/sound-track', { track: 1, version: 1 }]]);
  });
});

const alignment = (fields: Partial<AlignmentView> = {}): AlignmentView => ({
  kind: 'cues',
  state: 'done',
  stage: 'done',
  fraction: 1,
  leftMs: null,
  failure: null,
  sourceName: null,
  share: null,
  outcome: null,
  ...fields,
});

describe('listening for words', () => {
  onScreens();
  const spread = { transcript: { ...recording('r1', 'x').transcript!, wordTimes: 'spread' as const } };
  it.each<[string, Partial<RecordingView>, RegExp]>([
    [
      'at work',
      { transcript: null, alignment: alignment({ kind: 'text', state: 'running', stage: 'hearing-words', fraction: 0.4, leftMs: 61_000 }) },
      /looked for in the sound · listening · 2 min left Stop/,
    ],
    [
      'that failed',
      { transcript: null, alignment: alignment({ kind: 'text', state: 'failed', failure: 'They do not belong together.', sourceName: 'talk.txt' }) },
      /talk\.txt: They do not belong together\. Listen again Let the text go/,
    ],
    [
      'that was not taken for the text of the sound',
      { ...spread, alignment: alignment({ outcome: 'unlike', share: 0.12 }) },
      /Only 12 % of its words were heard/,
    ],
    ['on which shorts stand', { ...spread, alignment: alignment({ outcome: 'shorts', share: 1 }) }, /shorts stand on those it has/],
    ['that wrote a draft', { transcript: { ...spread.transcript, wordTimes: 'heard', format: 'draft' } }, /rough: written by listening/],
  ])('%s says so', async (_, fields, words) => {
    page([recording('r1', 'On the slipway', fields)]);
    expect(await row('On the slipway')).toHaveTextContent(words);
  });
  it('says nothing of the lack of a transcript while one is made, nor offers what cannot be', async () => {
    page([
      recording('r1', 'On the slipway', { transcript: null, alignment: alignment({ kind: 'draft', state: 'waiting' }) }),
      recording('r2', 'Silent', { transcript: null, sound: null }),
    ]);
    expect(await row('On the slipway')).not.toHaveTextContent('waits for a transcript');
    expect(await row('Silent')).not.toHaveTextContent('rough');
  });
  it.each([
    ['Write a rough one by listening', { transcript: null }, 'draft'],
    ['Hear the true times of its words', spread, 'cues'],
  ] as const)('%s asks for it', async (name, fields, kind) => {
    const { user, asked } = page([recording('r1', 'On the slipway', fields)], { 'POST api/recordings/r1/alignment': alignment({ kind, state: 'waiting' }) });
    await user.click(await screen.findByRole('button', { name }));
    await expect
      .poll(() => asked.filter(({ method }) => method === 'POST').map(({ path, body }) => [path, body]))
      .toEqual([['api/recordings/r1/alignment', { kind }]]);
  });
  it('is stopped', async () => {
    const { user, asked } = page([recording('r1', 'On the slipway', { transcript: null, alignment: alignment({ kind: 'draft', state: 'running' }) })], {
      'DELETE api/recordings/r1/alignment': null,
    });
    await user.click(await screen.findByRole('button', { name: 'Stop' }));
    await expect.poll(() => asked.filter(({ method }) => method === 'DELETE').map(({ path }) => path)).toEqual(['api/recordings/r1/alignment']);
  });
});

describe('who speaks', () => {
  onScreens();
  const word = (text: string, i: number, speaker: number) => ({ text, kind: 'word' as const, speaker, startMs: i * 500, endMs: i * 500 + 400 });
  const words = ['We', 'go', 'now.', 'Do', 'we?', 'Yes.'].map((text, i) => word(text, i, i < 3 ? 0 : i < 5 ? 1 : -1));
  const sentences = [
    { firstWord: 0, endWord: 3, startMs: 0, endMs: 1_400, speaker: 0 },
    { firstWord: 3, endWord: 5, startMs: 1_500, endMs: 2_400, speaker: 1 },
    { firstWord: 5, endWord: 6, startMs: 2_500, endMs: 2_900, speaker: -1 },
  ];
  const packed = packTranscript({ words, sentences, speakers: ['Ada', 'Bo'], durationMs: 3_000, wordTimes: 'given', sentenceEnds: 'written' });
  it('is named, corrected and joined for the whole recording', async () => {
    const { user, asked } = page([recording('r1', 'On the slipway')], {
      'api/recordings/r1/transcript': packed,
      'PUT api/recordings/r1/voices': recording('r1', 'On the slipway'),
    });
    await user.click(await screen.findByRole('button', { name: 'Ada, Bo' }));
    const dialog = await screen.findByRole('dialog', { name: 'Who speaks in “On the slipway”' });
    expect(await within(dialog).findByText('“We go now. Do we? Yes.”')).toBeInTheDocument();
    const second = within(dialog).getByLabelText('Voice 2');
    await user.clear(second);
    expect(within(dialog).getByText('A voice needs a name.')).toBeInTheDocument();
    expect(within(dialog).getByRole('button', { name: 'Name the voices' })).toBeDisabled();
    await user.type(second, 'Ada');
    expect(within(dialog).getByText('Becomes one with voice 1.')).toBeInTheDocument();
    await user.type(within(dialog).getByLabelText('Nobody is named'), ' Cy ');
    await user.click(within(dialog).getByRole('button', { name: 'Name the voices' }));
    await expect
      .poll(() => asked.filter(({ method }) => method === 'PUT').map(({ path, body }) => [path, body]))
      .toEqual([['api/recordings/r1/voices', { names: ['Ada', 'Ada'], unnamed: 'Cy', version: 1 }]]);
    await expect.poll(() => screen.queryByRole('dialog')).toBeNull();
  });
});

describe('files that are dropped', () => {
  it('belong together by their names, whatever a transcript is written in', () => {
    const { pairs, strangers } = pairFiles(['a.docx', 'a.MP4', 'b.odt', 'c.ttml', 'd.lrc', 'e.pdf'].map((name) => new File(['x'], name)));
    expect(pairs.map(({ transcript, sound }) => [transcript?.name, sound?.name])).toEqual([
      ['a.docx', 'a.MP4'],
      ['b.odt', undefined],
      ['c.ttml', undefined],
      ['d.lrc', undefined],
    ]);
    expect(strangers).toEqual(['e.pdf']);
    expect(['a.txt', 'a.docx', 'a.odt', 'a.vtt', 'a.ttml'].map(isLoose)).toEqual([true, true, true, false, false]);
  });
});
