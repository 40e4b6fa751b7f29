// @vitest-environment jsdom
import { packTranscript, PLAIN_CARD } from '@sift-reel/core';
import { act, screen, waitFor, within } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import type { DocumentView } from '../../app/api.js';
import { latestSift, recordingView } from '../../app/recording.fixture.js';
import { type Answers, onScreens, Refusal, show } from '../../app/screen.fixture.js';
import { documentSaverOf } from './document-saver.js';
import { DocumentsPage } from './documents-page.js';

const WORDS = ['The', 'chimney', 'is', 'cold.', 'Cold', 'air', 'is', 'heavy.'];
const transcript = packTranscript({
  words: WORDS.map((text, i) => ({ text, kind: 'word' as const, speaker: 0, startMs: 1_000 * i, endMs: 1_000 * i + 800 })),
  sentences: [
    { firstWord: 0, endWord: 4, startMs: 0, endMs: 3_800, speaker: 0 },
    { firstWord: 4, endWord: 8, startMs: 4_000, endMs: 7_800, speaker: 0 },
  ],
  speakers: ['Nuala'],
  durationMs: 8_000,
  wordTimes: 'given',
  sentenceEnds: 'written',
});
const moment = (firstWord: number, endWord: number) => [{ type: 'moment', attrs: { firstWord, endWord } }];
const CONTENT = {
  type: 'doc',
  content: [
    { type: 'paragraph', content: [{ type: 'text', text: 'Cold air is heavy.', marks: moment(4, 8) }] },
    { type: 'blockquote', content: [{ type: 'paragraph', content: [{ type: 'text', text: '“The chimney is cold.” — Nuala', marks: moment(0, 4) }] }] },
  ],
};
const documentView = (fields: Partial<DocumentView> = {}): DocumentView => ({
  id: 'd1',
  clientId: 'c1',
  recordingId: 'r1',
  recordingTitle: 'Up the flue',
  kind: 'summary',
  version: 1,
  writtenAt: '2026-11-29T10:00:00.000Z',
  writtenBy: null,
  sound: true,
  language: 'en',
  content: CONTENT,
  ...fields,
});
const answers = (more: Answers = {}, document = documentView()): Answers => ({
  'api/recordings/r1': recordingView('r1', 'Up the flue'),
  'api/recordings/r1/documents': [{ id: 'd1', kind: document.kind, version: 1, writtenAt: document.writtenAt, writtenBy: null }],
  'api/recordings/r1/transcript': transcript,
  'api/documents/d1': document,
  'api/clients': [{ id: 'c1', name: 'Tern & Tide', cardStyle: PLAIN_CARD, version: 3 }],
  ...more,
});
const at = (kind: string) => ({ at: `/recordings/r1/documents/${kind}`, route: '/recordings/:recordingId/documents/:kind' });

describe('documents', () => {
  onScreens();
  it('are listed, made or not, and what is not made says what it will be', async () => {
    const sifted = recordingView('r1', 'Up the flue', { latestSift: latestSift() });
    const { asked, user } = show(
      <DocumentsPage />,
      answers({ 'api/recordings/r1': sifted, 'POST api/recordings/r1/documents': new Refusal(422, 'Only 1 sentences advise.') }),
      at('series'),
    );
    const list = within(await screen.findByRole('navigation', { name: 'Documents' }));
    expect(list.getByRole('link', { name: /Summary/ })).toHaveTextContent('as it was made');
    expect(list.getByRole('link', { name: /Series/ })).toHaveTextContent('not made');
    await user.click(screen.getByRole('button', { name: 'Make it' }));
    expect(asked.find(({ method }) => method === 'POST')).toMatchObject({ body: { kind: 'series' } });
    expect(await screen.findByRole('alert')).toHaveTextContent('Only 1 sentences advise.');
  });
  it('wait for the first sift', async () => {
    const { user, place } = show(<DocumentsPage />, answers(), at('series'));
    await user.click(await screen.findByRole('button', { name: 'Sift the recording first' }));
    expect(place()).toBe('/recordings/r1');
  });
  it('show the text, and beside it its recording', async () => {
    show(<DocumentsPage />, answers(), at('summary'));
    const editor = await screen.findByRole('textbox', { name: 'Summary' });
    expect(editor).toHaveTextContent('Cold air is heavy.');
    expect(editor.querySelector('[data-first-word="4"]')).toHaveTextContent('Cold air is heavy.');
    expect(screen.getByRole('region', { name: 'What was said' })).toBeVisible();
    expect(screen.getByText(/Put the caret into a sentence/)).toBeVisible();
    expect(screen.getByRole('link', { name: 'To the bench' })).toHaveAttribute('href', '/recordings/r1');
  });
  it('are saved when the hand rests; what a save on its way does not hold is saved after it', async () => {
    const saved = (version: number, content: unknown) => documentView({ version, content: content as never, writtenBy: 'Ada' });
    const board = answers();
    const { asked } = show(<DocumentsPage />, board, at('summary'));
    await screen.findByRole('textbox', { name: 'Summary' });
    const saver = documentSaverOf(documentView());
    const one = { type: 'doc' as const, content: [{ type: 'paragraph' as const, content: [{ type: 'text' as const, text: 'One.' }] }] };
    board['PUT api/documents/d1'] = saved(2, one);
    act(() => saver.change(null, one));
    expect(screen.getByRole('status')).toHaveTextContent('Saving…');
    await act(async () => {
      expect(await saver.flush()).toBe(true);
    });
    expect(asked.filter(({ method }) => method === 'PUT').map(({ body }) => body)).toEqual([{ content: one, version: 1 }]);
    await waitFor(() => expect(screen.getByRole('textbox', { name: 'Summary' })).toHaveTextContent('One.'));
    expect(screen.getByRole('status')).toHaveTextContent('Saved · Ada');
  });
  it('never show what was there before, while what was typed is saved', async () => {
    const board = answers();
    show(<DocumentsPage />, board, at('summary'));
    const editor = await screen.findByRole('textbox', { name: 'Summary' });
    const saver = documentSaverOf(documentView());
    const mine = { type: 'doc' as const, content: [{ type: 'paragraph' as const, content: [{ type: 'text' as const, text: 'Mine.' }] }] };
    board['PUT api/documents/d1'] = documentView({ version: 2, content: structuredClone(mine), writtenBy: 'Ada' });
    act(() => saver.change(null, mine));
    await waitFor(() => expect(editor).toHaveTextContent('Mine.'));
    const seen: string[] = [];
    const watch = new MutationObserver(() => seen.push(editor.textContent));
    watch.observe(editor, { childList: true, subtree: true, characterData: true });
    await act(async () => {
      await saver.flush();
    });
    await screen.findByText(/Saved · Ada/);
    watch.disconnect();
    expect(seen).toEqual([]);
  });
  it('that somebody else changed are shown both ways, and one is chosen', async () => {
    const other = { type: 'doc', content: [{ type: 'paragraph', content: [{ type: 'text', text: 'Theirs.' }] }] };
    const theirs = documentView({ version: 5, content: other, writtenBy: 'Bo' });
    const { user, asked } = show(
      <DocumentsPage />,
      answers({ 'PUT api/documents/d1': new Refusal(409, 'Somebody changed it.', [], { code: 'stale', current: theirs }) }),
      at('summary'),
    );
    await screen.findByRole('textbox', { name: 'Summary' });
    const saver = documentSaverOf(documentView());
    act(() => saver.change(null, { type: 'doc', content: [{ type: 'paragraph', content: [{ type: 'text', text: 'Mine.' }] }] }));
    await act(async () => {
      expect(await saver.flush()).toBe(false);
    });
    const choice = within((await screen.findByText(/Somebody changed this document/)).closest('div')!);
    expect(choice.getByText('Theirs.')).toBeVisible();
    expect(choice.getByText('Mine.')).toBeVisible();
    // What is typed meanwhile is not sent over theirs.
    act(() => saver.change(null, { type: 'doc', content: [{ type: 'paragraph', content: [{ type: 'text', text: 'Mine, and more.' }] }] }));
    await act(async () => {
      await saver.flush();
    });
    expect(asked.filter(({ method }) => method === 'PUT')).toHaveLength(1);
    await user.click(choice.getByRole('button', { name: 'Take theirs' }));
    await waitFor(() => expect(screen.getByRole('textbox', { name: 'Summary' })).toHaveTextContent('Theirs.'));
  });
  it('say that they could not be saved, and keep what was typed', async () => {
    const board = answers({ 'PUT api/documents/d1': new Refusal(503, 'The database is away.') });
    const { user } = show(<DocumentsPage />, board, at('summary'));
    await screen.findByRole('textbox', { name: 'Summary' });
    const saver = documentSaverOf(documentView());
    const mine = { type: 'doc' as const, content: [{ type: 'paragraph' as const, content: [{ type: 'text' as const, text: 'Mine.' }] }] };
    act(() => saver.change(null, mine));
    await act(async () => {
      await saver.flush();
    });
    expect(await screen.findByRole('alert')).toHaveTextContent('The database is away.');
    board['PUT api/documents/d1'] = documentView({ version: 2, content: mine, writtenBy: 'Ada' });
    await user.click(screen.getByRole('button', { name: 'Save again' }));
    await waitFor(() => expect(screen.queryByRole('alert')).toBeNull());
    expect(saver.draft(null)).toBeNull();
  });
  it('go back to what they were', async () => {
    const before = { type: 'doc', content: [{ type: 'paragraph', content: [{ type: 'text', text: 'As it was.' }] }] };
    const versions = [
      { id: 'v2', writtenAt: '2026-11-29T10:00:00.000Z', writtenBy: 'Ada', content: CONTENT },
      { id: 'v1', writtenAt: '2026-11-28T10:00:00.000Z', writtenBy: null, content: before },
    ];
    const { user } = show(<DocumentsPage />, answers({ 'api/documents/d1/versions': versions }), at('summary'));
    await user.click(await screen.findByRole('button', { name: 'Who wrote what' }));
    const dialog = within(await screen.findByRole('dialog'));
    expect(await dialog.findByText('made from the recording')).toBeVisible();
    await user.click(dialog.getByRole('button', { name: 'Take this' }));
    await waitFor(() => expect(screen.getByRole('textbox', { name: 'Summary' })).toHaveTextContent('As it was.'));
    expect(documentSaverOf(documentView()).draft(null)?.value).toEqual(before);
  });
  it('are made anew, or removed, only when asked twice', async () => {
    const board = answers({ 'PUT api/documents/d1/proposal': documentView({ version: 2 }), 'DELETE api/documents/d1?version=2': null });
    const { user, asked } = show(<DocumentsPage />, board, at('summary'));
    await user.click(await screen.findByRole('button', { name: 'Make anew' }));
    await user.click(within(await screen.findByRole('dialog')).getByRole('button', { name: 'Make anew' }));
    await waitFor(() => expect(asked.some(({ path, body }) => path === 'api/documents/d1/proposal' && (body as { version: number }).version === 1)).toBe(true));
    await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
    await user.click(screen.getByRole('button', { name: 'Remove' }));
    await user.click(within(await screen.findByRole('dialog')).getByRole('button', { name: 'Remove' }));
    await waitFor(() => expect(asked.some(({ method, path }) => method === 'DELETE' && path === 'api/documents/d1?version=2')).toBe(true));
  });
  it('of quotations show them as cards in the client’s type, which must be readable', async () => {
    const { user, asked } = show(<DocumentsPage />, answers({}, documentView({ kind: 'quote-cards' })), at('quote-cards'));
    const card = await screen.findByRole('img', { name: /The chimney is cold/ });
    expect(card).toHaveAttribute('src', '/api/documents/d1/cards/1?as=svg&shape=square&v=1-3');
    expect(screen.getByRole('link', { name: 'PNG' })).toHaveAttribute('href', expect.stringContaining('as=png'));
    await user.click(screen.getByRole('button', { name: 'Type and colours' }));
    const ink = within(await screen.findByRole('dialog')).getByRole('textbox', { name: 'Letters' });
    await user.clear(ink);
    await user.type(ink, '#2a2722');
    expect(await screen.findByText(/contrast of 4.5/)).toBeVisible();
    await user.click(screen.getByRole('button', { name: 'Save' }));
    expect(asked.filter(({ method }) => method === 'PUT')).toEqual([]);
  });
});
