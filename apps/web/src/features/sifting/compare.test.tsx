// @vitest-environment jsdom
import { SIGNALS } from '@sift-reel/core';
import { screen, within } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import type { CandidateView, RankingView, SiftView } from '../../app/api.js';
import { type Answers, onScreens, pick, Refusal, show } from '../../app/screen.fixture.js';
import { ComparePage } from './compare-page.js';

const candidate = (id: string, rank: number, score: number, at: number, fields: { title?: string; currency?: number } = {}): CandidateView =>
  ({
    id,
    rank,
    score,
    startMs: 1_000 * at,
    endMs: 1_000 * at + 40_000,
    firstWord: 3 * at,
    endWord: 3 * at + 100,
    title: fields.title ?? `At ${at}`,
    kind: 'story',
    state: 'open',
    signals: SIGNALS.map((signal) => ({
      signal,
      value: signal === 'currency' ? (fields.currency ?? 50) : 70,
      sentence: signal === 'currency' ? 'Touches “wet wood”' : 'As before',
      evidence: [],
    })),
  }) as unknown as CandidateView;
const sift = (id: string, topics: string[], candidateCount: number): SiftView =>
  ({
    id,
    recordingId: 'r1',
    brief: { partStartMs: 0, partEndMs: null, minMs: 30_000, maxMs: 60_000, roughCount: 12, topics, kinds: [], avoid: [] },
    state: 'done',
    createdAt: '2030-03-01T09:00:00Z',
    candidateCount,
    keptCount: 0,
  }) as unknown as SiftView;
const ranking = (one: SiftView, candidates: CandidateView[]): RankingView => ({ sift: one, weights: [1, 1, 1, 1, 1, 1], candidates }) as unknown as RankingView;
const [A, B] = [sift('a', [], 3), sift('b', ['wet wood'], 3)];
const answers = (more: Answers = {}): Answers => ({
  'api/recordings/r1': { id: 'r1', title: 'On the slipway' },
  'api/recordings/r1/sifts': [A, B],
  'api/sifts/a/ranking': ranking(A, [candidate('a1', 1, 80, 100), candidate('a2', 2, 75, 200), candidate('a3', 3, 60, 300)]),
  'api/sifts/b/ranking': ranking(B, [
    candidate('b1', 1, 88, 200, { currency: 98 }),
    candidate('b2', 2, 80, 100),
    candidate('b3', 3, 55, 600, { title: 'Only now' }),
  ]),
  ...more,
});
const page = (more: Answers = {}, at = '/recordings/r1/compare/a/b') =>
  show(<ComparePage />, answers(more), { at, route: '/recordings/:recordingId/compare/:siftId/:otherId' });

describe('two sifts compared', () => {
  onScreens();
  it('say what the briefs ask for differently, and what that moved', async () => {
    page();
    expect(await screen.findByText('2 passages in both')).toBeInTheDocument();
    expect(screen.getByText(/1 only in the first, 1 only in the second\..*the second asks about wet wood/)).toBeInTheDocument();
    const row = (title: string): HTMLElement => screen.getByText(title).closest('tr')!;
    expect(row('At 200')).toHaveTextContent(/2\. 75.*1\. 88.*1up.*Currency \+\d+ points: Touches “wet wood”/);
    expect(row('At 100')).toHaveTextContent(/1\. 80.*2\. 80.*1down/);
    expect(row('At 300')).toHaveTextContent(/3\. 60.*–.*gone/);
    expect(row('Only now')).toHaveTextContent(/–.*3\. 55.*new/);
    expect(within(row('At 300')).getByRole('link')).toHaveAttribute('href', '/recordings/r1/sifts/a');
    expect(within(row('At 200')).getByRole('link')).toHaveAttribute('href', '/recordings/r1/sifts/b');
  });
  it('are chosen on either side', async () => {
    const { user, place } = page();
    await screen.findByText('2 passages in both');
    await pick(user, /^First sift/, /wet wood/);
    expect(place()).toBe('/recordings/r1/compare/b/b');
    expect(await screen.findByText('The same sift twice')).toBeInTheDocument();
  });
  it('show nothing of the one that was there while another comes', async () => {
    const { user } = page({ 'api/recordings/r1/sifts': [A, B, sift('c', ['rope'], 3)] });
    await screen.findByText('2 passages in both');
    await pick(user, /^First sift/, /rope/);
    expect(await screen.findByRole('status', { name: 'Loading both sifts' })).toBeInTheDocument();
    expect(screen.queryByText('At 200')).not.toBeInTheDocument();
  });
  it('that cannot be read say why', async () => {
    page({ 'api/sifts/b/ranking': new Refusal(404, 'This sift is gone.') });
    expect(await screen.findByText('This sift is gone.')).toBeInTheDocument();
  });
});
