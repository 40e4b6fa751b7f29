// @vitest-environment jsdom
import { packTranscript, type Transcript } from '@sift-reel/core';
import { act, fireEvent, screen } from '@testing-library/react';
import { type ComponentType, useState } from 'react';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { CandidateView, RankingView, RecordingView } from '../../app/api.js';
import { PlayedPicture } from '../../app/played-picture.js';
import { usePlayer } from '../../app/player.js';
import { onScreens, show } from '../../app/screen.fixture.js';

/** How often React committed something inside a part of the bench, as its own profiler says. */
const { commits, profiled } = vi.hoisted(() => {
  const commits = new Map<string, number>();
  const onRender = (id: string): void => void commits.set(id, (commits.get(id) ?? 0) + 1);
  const profiled = async (real: () => Promise<unknown>, name: string): Promise<object> => {
    const { createElement, Profiler } = await import('react');
    const parts = (await real()) as Record<string, ComponentType>;
    return { ...parts, [name]: (props: object) => createElement(Profiler, { id: name, onRender }, createElement(parts[name]!, props)) };
  };
  return { commits, profiled };
});
vi.mock('./ranking.js', (real) => profiled(real, 'Ranking'));
vi.mock('./side-pane.js', (real) => profiled(real, 'SidePane'));
vi.mock('./transcript-pane.js', (real) => profiled(real, 'TranscriptPane'));
vi.mock('./seam.js', (real) => profiled(real, 'Seam'));
const { Bench } = await import('./bench.js');

const FRAMES = 120;
const WORD_MS = 400;
const words = Array.from({ length: 60 }, (_, i) => ({
  text: `w${i}${i % 10 === 9 ? '.' : ''}`,
  kind: 'word' as const,
  speaker: 0,
  startMs: WORD_MS * i,
  endMs: WORD_MS * i + 300,
}));
const TRANSCRIPT: Transcript = {
  words,
  sentences: [0, 10, 20, 30, 40, 50].map((i) => ({ firstWord: i, endWord: i + 10, speaker: 0, startMs: words[i]!.startMs, endMs: words[i + 9]!.endMs })),
  speakers: ['Obi'],
  durationMs: 24_000,
  wordTimes: 'given',
  sentenceEnds: 'written',
};
const candidate = (id: string, firstWord: number): CandidateView =>
  ({
    id,
    rank: firstWord === 0 ? 1 : 2,
    score: 80,
    startMs: words[firstWord]!.startMs,
    endMs: words[firstWord + 19]!.endMs,
    firstWord,
    endWord: firstWord + 20,
    foundFirstWord: firstWord,
    foundEndWord: firstWord + 20,
    title: `Part ${id}`,
    firstLine: 'First.',
    lastLine: 'Last.',
    reason: 'A claim',
    kind: 'claim',
    state: 'open',
    origin: 'found',
    hashtags: [],
    alternatives: [],
    signals: ['opening', 'standsAlone', 'substance', 'charge', 'delivery', 'currency'].map((signal) => ({ signal, value: 50, sentence: 'So.', evidence: [] })),
  }) as unknown as CandidateView;
const RANKING = {
  sift: { id: 's1', brief: { partStartMs: 0, partEndMs: null, minMs: 5_000, maxMs: 10_000, roughCount: 2, topics: [], kinds: [], avoid: [] } },
  chapters: [],
  ridge: [],
  strongCount: 1,
  limits: [],
  language: null,
  makeUp: {
    shares: [0.6, 0, 0, 0, 0.4, 0],
    steps: [0, 0, 4, 4, -1],
    sentence: 'Mostly explaining, some procedure at a screen: some passages stand by themselves.',
  },
  keyPhrases: [],
  weights: [0.2, 0.2, 0.2, 0.2, 0.1, 0.1],
  candidates: [candidate('a', 0), candidate('b', 30)],
} as unknown as RankingView;
const RECORDING = {
  id: 'r1',
  clientId: 'c1',
  title: 'On the slipway',
  durationMs: 24_000,
  sound: { picture: null },
  preparation: null,
  transcript: { speakers: ['Obi'] },
} as unknown as RecordingView;

describe('on the bench', () => {
  onScreens();
  let frames: FrameRequestCallback[] = [];
  const frame = (): void => {
    const due = frames;
    frames = [];
    act(() => due.forEach((run) => run(0)));
  };
  beforeEach(() => {
    frames = [];
    vi.stubGlobal('requestAnimationFrame', (run: FrameRequestCallback) => frames.push(run));
    vi.stubGlobal('cancelAnimationFrame', () => undefined);
    vi.spyOn(HTMLMediaElement.prototype, 'load').mockImplementation(() => undefined);
    vi.spyOn(HTMLMediaElement.prototype, 'pause').mockImplementation(function (this: HTMLMediaElement) {
      this.dispatchEvent(new Event('pause'));
    });
    vi.spyOn(HTMLMediaElement.prototype, 'play').mockImplementation(function (this: HTMLMediaElement) {
      this.dispatchEvent(new Event('play'));
      return Promise.resolve();
    });
  });
  const bench = async () => {
    const shown = show(<Bench recording={RECORDING} client={undefined} siftId="s1" />, {
      'api/sifts/s1/ranking': RANKING,
      'api/recordings/r1/transcript': packTranscript(TRANSCRIPT),
    });
    await screen.findByLabelText('The recording from start to end');
    for (let i = 0; i < 6; i += 1) frame(); // what follows a choice is drawn
    const sound = { atMs: 0 };
    Object.defineProperty(document.querySelector('[data-testid="player"]'), 'currentTime', {
      get: () => sound.atMs / 1_000,
      set: (seconds: number) => void (sound.atMs = seconds * 1_000),
    });
    return { ...shown, sound };
  };
  it('a frame of playback draws the playhead, a word the transcript, and nothing draws the rest', async () => {
    const { user, sound } = await bench();
    await user.keyboard(' ');
    frame();
    commits.clear();
    for (let i = 0; i < FRAMES; i += 1) {
      sound.atMs += 1_000 / 60;
      frame();
    }
    const wordsHeard = Math.floor(sound.atMs / WORD_MS);
    expect(commits.get('Seam')).toBe(FRAMES);
    expect(commits.get('TranscriptPane')).toBe(wordsHeard);
    expect([commits.get('Ranking'), commits.get('SidePane')]).toEqual([undefined, undefined]);
  });
  it('a candidate plays to its end and not further; after going elsewhere it does not stop there', async () => {
    const { user, sound } = await bench();
    const paused = vi.mocked(HTMLMediaElement.prototype.pause);
    paused.mockClear();
    await user.keyboard(' ');
    sound.atMs = RANKING.candidates[0]!.endMs + 5;
    frame();
    expect([paused.mock.calls.length, sound.atMs]).toEqual([1, RANKING.candidates[0]!.endMs]);
    await user.keyboard(' ');
    vi.spyOn(Element.prototype, 'getBoundingClientRect').mockReturnValue({ left: 0, width: 24_000 } as DOMRect);
    fireEvent.click(screen.getByTestId('seam'), { clientX: 2_000 });
    expect(sound.atMs).toBe(2_000);
    sound.atMs = RANKING.candidates[0]!.endMs + 500;
    frame();
    expect(paused.mock.calls.length).toBe(1);
  });
  it('an end that was moved there and back again is not written; one that was moved is', async () => {
    const { user, asked } = await bench();
    const writes = (): unknown[] => asked.filter(({ method }) => method === 'PUT').map(({ path, body }) => [path, body]);
    await user.keyboard('][[j');
    expect(writes()).toEqual([]);
    await user.keyboard('i]j');
    await expect.poll(writes).toEqual([['api/candidates/a/span', { firstWord: 1, endWord: 20 }]]);
  });
  it('of another sift nothing of this one’s ranking stands while its own comes, so no key keeps the wrong passage', async () => {
    const Turning = () => {
      const [siftId, turn] = useState('s1');
      return (
        <>
          <button onClick={() => turn('s2')}>turn</button>
          <Bench recording={RECORDING} client={undefined} siftId={siftId} />
        </>
      );
    };
    const { user, asked } = show(<Turning />, { 'api/sifts/s1/ranking': RANKING, 'api/recordings/r1/transcript': packTranscript(TRANSCRIPT) });
    await screen.findByLabelText('The recording from start to end');
    await user.click(screen.getByText('turn'));
    expect(await screen.findByRole('status', { name: 'Loading the ranking' })).toBeInTheDocument();
    expect(screen.queryAllByTestId('candidate')).toEqual([]);
    await user.keyboard('k');
    expect(asked.filter(({ method }) => method === 'PUT')).toEqual([]);
  });
  it('a cut list is played span after span: over what is cut out it leaps, a place that stands twice is told apart, and it stops at the end', async () => {
    const cuts = [
      { startMs: 9_000, endMs: 10_000 },
      { startMs: 2_000, endMs: 3_000 },
      { startMs: 3_020, endMs: 4_000 }, // so near that a leap would take longer
      { startMs: 9_000, endMs: 9_500 },
    ];
    let player: ReturnType<typeof usePlayer> | null = null;
    const Cut = () => {
      player = usePlayer('/api/recordings/r1/sound');
      return null;
    };
    show(<Cut />);
    await expect.poll(() => document.querySelector('[data-testid="player"]')).not.toBeNull();
    const sound = { atMs: 0, leaps: [] as number[] };
    Object.defineProperty(document.querySelector('[data-testid="player"]'), 'currentTime', {
      get: () => sound.atMs / 1_000,
      set: (seconds: number) => {
        sound.atMs = seconds * 1_000;
        sound.leaps.push(Math.round(sound.atMs));
      },
    });
    const paused = vi.mocked(HTMLMediaElement.prototype.pause);
    paused.mockClear();
    player!.playCuts(cuts, 500);
    expect(sound.leaps).toEqual([9_500]);
    const told: [number, number][] = [];
    for (let i = 0; i < 400 && paused.mock.calls.length === 0; i += 1) {
      frame();
      told.push([player!.played.get(), player!.time.get()]);
      sound.atMs += 10;
    }
    expect(sound.leaps).toEqual([9_500, 2_000, 9_000, 9_500]);
    expect(told.at(-1)).toEqual([3_480, 9_500]);
    for (const [i, [played]] of told.entries()) expect(played).toBeGreaterThanOrEqual(told[i - 1]?.[0] ?? 500);
    // The same place of the source, at both of its times.
    expect(told.filter(([, at]) => at === 9_500).map(([played]) => played)).toEqual([500, 3_480]);
  });
  it('a second element waits where the next span begins, and takes over there without a search', async () => {
    const cuts = [
      { startMs: 1_000, endMs: 2_000 },
      { startMs: 5_000, endMs: 6_000 },
      { startMs: 8_000, endMs: 9_000 },
    ];
    let player: ReturnType<typeof usePlayer> | null = null;
    const Cut = () => {
      player = usePlayer('/api/recordings/r1/sound', true);
      return <PlayedPicture player={player} startMs={1_000} onToggle={() => undefined} className="" />;
    };
    show(<Cut />);
    await screen.findByRole('button', { name: 'Picture of the recording' });
    vi.spyOn(HTMLMediaElement.prototype, 'readyState', 'get').mockReturnValue(4);
    act(() => player!.playCuts(cuts));
    const [first, second] = [...document.querySelectorAll('video')];
    expect([first!.currentTime, second!.currentTime]).toEqual([1, 5]);
    const seen = (): string[] => [first!, second!].map(({ style }) => style.visibility);
    expect(seen()).toEqual(['visible', 'hidden']);
    first!.currentTime = 2;
    frame();
    expect([seen(), second!.currentTime, first!.currentTime]).toEqual([['hidden', 'visible'], 5, 8]);
    expect(player!.playing).toBe(true);
    second!.currentTime = 6;
    frame();
    expect(seen()).toEqual(['visible', 'hidden']);
    first!.currentTime = 9;
    frame();
    expect([player!.playing, player!.played.get(), player!.time.get()]).toEqual([false, 3_000, 9_000]);
  });
  it('a picture is shown by the one element that plays, goes back when it is shown no more, and is gone with its player', async () => {
    const Seen = () => {
      const [source, play] = useState<string | null>('/api/recordings/r1/sound');
      const [place, show] = useState(true);
      const player = usePlayer(source, true);
      return (
        <>
          <button onClick={() => show(!place)}>fold</button>
          <button onClick={() => play('/api/recordings/r2/sound')}>other</button>
          {place && <PlayedPicture player={player} startMs={2_000} onToggle={() => player.playSpan(2_000, 4_000)} className="" />}
        </>
      );
    };
    const { user } = show(<Seen />);
    const videos = (): HTMLVideoElement[] => [...document.querySelectorAll('video')];
    const picture = await screen.findByRole('button', { name: 'Picture of the recording' });
    expect(picture).toContainElement(videos()[0]!);
    expect(videos()[0]!.currentTime).toBe(2);
    vi.mocked(HTMLMediaElement.prototype.play).mockClear();
    await user.click(picture);
    expect(HTMLMediaElement.prototype.play).toHaveBeenCalledOnce();
    await user.click(screen.getByText('fold'));
    expect(videos().map((video) => [video.parentElement, video.hidden])).toEqual([[document.body, true]]);
    await user.click(screen.getByText('fold'));
    await user.click(screen.getByText('other'));
    expect(videos().map((video) => video.getAttribute('src'))).toEqual(['/api/recordings/r2/sound']);
  });
});
