// @vitest-environment jsdom
import { act, cleanup, fireEvent, render, screen } from '@testing-library/react';
import type { ReactNode } from 'react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { Glimpse, usePointedAt } from '../ui/glimpse.js';
import { PlayerTrouble } from '../ui/player-trouble.js';
import type { PreparationView } from './api.js';
import { mediaOf } from './media.js';
import { type Player, usePlayer } from './player.js';
import { recordingView } from './recording.fixture.js';
import { changeSpeed, setSpeed, speedNow } from './speed.js';
import { stepFrom } from './step-keys.js';

afterEach(cleanup);

const SPRITE = { columns: 20, count: 50, everyMs: 2_000, width: 160, height: 90 };
const preparation = (fields: Partial<PreparationView> = {}): PreparationView => ({
  id: 'p1',
  state: 'done',
  stage: 'done',
  fraction: 1,
  leftMs: 0,
  failure: null,
  proxied: false,
  sprite: null,
  loudness: null,
  heard: true,
  ...fields,
});

describe('what is played of a recording', () => {
  it('is nothing where it has no file', () => {
    expect(mediaOf(recordingView('r1', 'A', { sound: null }))).toEqual({ source: null, pictured: false, of: null, sprite: null, coming: null });
  });
  it('is the original under an address that names which file it is, until there is one for browsers', () => {
    expect(mediaOf(recordingView('r1', 'A')).source).toBe('/api/recordings/r1/sound');
    expect(mediaOf(recordingView('r1', 'A', { preparation: preparation({ state: 'running' }) })).source).toBe('/api/recordings/r1/sound?of=p1');
    expect(mediaOf(recordingView('r1', 'A', { preparation: preparation({ proxied: true, sprite: SPRITE }) }))).toEqual({
      source: '/api/preparations/p1/proxy',
      pictured: false,
      of: 'p1',
      sprite: { ...SPRITE, url: '/api/preparations/p1/sprite' },
      coming: null,
    });
  });
  it('is said to be on its way while it is converted, or where the original cannot be played', () => {
    const media = (fields: Partial<PreparationView>) => mediaOf(recordingView('r1', 'A', { preparation: preparation(fields) }));
    const said = (fields: Partial<PreparationView>, trouble: string | null): string => {
      const { container, unmount } = render(<PlayerTrouble player={{ trouble } as Player} media={media(fields)} />);
      const text = container.textContent;
      unmount();
      return text;
    };
    const converting = { state: 'running', stage: 'converting', fraction: 0.426, leftMs: 90_000 } as const;
    expect(said(converting, null)).toMatch(/being converted .* 42 % · .*left/);
    expect(said({ ...converting, stage: 'hearing' }, 'It cannot be played.')).toMatch(/being converted/);
    expect(said({ ...converting, stage: 'hearing' }, null)).toBe('');
    expect(said({ ...converting, proxied: true }, 'It cannot be played.')).toBe('It cannot be played.');
    expect(said({}, 'It cannot be played.')).toBe('It cannot be played.');
  });
});

describe('a step', () => {
  const starts = [0, 1_000, 5_000, 9_000];
  it.each([
    [5_000, 1, false, 9_000],
    [4_990, 1, false, 9_000], // it stands at 5,000 but for the rounding of a media element
    [9_000, 1, false, null],
    [5_000, -1, false, 1_000],
    [5_400, -1, false, 5_000],
    [5_400, -1, true, 1_000], // while it plays, the beginning that was just passed is not meant
    [5_700, -1, true, 5_000],
    [0, -1, false, 0],
  ] as const)('from %i ms by %i, playing: %s, leads to %s', (ms, by, playing, to) => expect(stepFrom(starts, ms, by, playing)).toBe(to));
  it('leads nowhere where nothing is said', () => expect(stepFrom([], 100, -1, false)).toBeNull());
});

describe('speed', () => {
  afterEach(() => act(() => setSpeed(1)));
  it('goes from half to double, is kept, and holds for what plays and what will', () => {
    vi.spyOn(HTMLMediaElement.prototype, 'load').mockReturnValue();
    vi.spyOn(HTMLMediaElement.prototype, 'pause').mockReturnValue();
    const Playing = (): ReactNode => {
      usePlayer('/a');
      return null;
    };
    const { unmount } = render(<Playing />);
    const rate = (): number => document.querySelector('audio')!.playbackRate;
    expect(rate()).toBe(1);
    act(() => changeSpeed(1));
    expect([rate(), localStorage.getItem('sift-reel-speed')]).toEqual([1.25, '1.25']);
    for (let i = 0; i < 9; i += 1) changeSpeed(1);
    expect([rate(), speedNow()]).toEqual([2, 2]);
    unmount();
    render(<Playing />);
    expect(rate()).toBe(2);
    for (let i = 0; i < 9; i += 1) changeSpeed(-1);
    expect(rate()).toBe(0.5);
  });
});

describe('another source of the same file', () => {
  const shown = (): string | null => document.querySelector('audio')!.getAttribute('src');
  const Playing = ({ source, of }: { source: string; of: string | null }): ReactNode => {
    const player = usePlayer(source, false, of);
    return (
      <>
        <button onClick={() => player.playSpan(5_000, 9_000)}>play</button>
        {player.trouble !== null && <p role="alert">{player.trouble}</p>}
      </>
    );
  };
  it('is taken once nothing plays, at the same place; another file at once, from its beginning', () => {
    vi.spyOn(HTMLMediaElement.prototype, 'load').mockReturnValue();
    vi.spyOn(HTMLMediaElement.prototype, 'pause').mockReturnValue();
    vi.spyOn(HTMLMediaElement.prototype, 'play').mockResolvedValue();
    vi.spyOn(window, 'requestAnimationFrame').mockImplementation((frame) => (setTimeout(() => frame(0)), 1));
    vi.useFakeTimers();
    const { rerender } = render(<Playing source="/original" of="p1" />);
    const sounding = (): HTMLAudioElement => document.querySelector('audio')!;
    act(() => screen.getByText('play').click());
    act(() => void sounding().dispatchEvent(new Event('play')));
    sounding().currentTime = 6.5;
    act(() => void vi.advanceTimersByTime(20));
    rerender(<Playing source="/proxy" of="p1" />);
    expect(shown()).toBe('/original');
    act(() => void sounding().dispatchEvent(new Event('pause')));
    expect([shown(), sounding().currentTime]).toEqual(['/proxy', 6.5]);
    act(() => void sounding().dispatchEvent(new Event('error')));
    expect(screen.getByRole('alert').textContent).toMatch(/cannot be played/);
    rerender(<Playing source="/other" of="p2" />);
    expect(screen.queryByRole('alert')).toBeNull();
    expect([shown(), sounding().currentTime]).toEqual(['/other', 0]);
    vi.useRealTimers();
  });
});

describe('a glimpse', () => {
  const Strip = (): ReactNode => {
    const { pointedMs, handlers } = usePointedAt(0, 100_000);
    return (
      <div data-testid="strip" {...handlers}>
        {pointedMs !== null && <Glimpse ms={pointedMs} fromMs={0} toMs={100_000} sprite={{ ...SPRITE, url: '/sheet' }} />}
      </div>
    );
  };
  it('shows the picture of the moment that is pointed at, and goes with the pointer', () => {
    render(<Strip />);
    const strip = screen.getByTestId('strip');
    strip.getBoundingClientRect = () => ({ left: 0, width: 1_000, top: 0, height: 60 }) as DOMRect;
    // jsdom knows no pointer events; what React hears of one is its name and its place.
    const point = (type: string, clientX: number): void => void fireEvent(strip, new MouseEvent(type, { clientX, bubbles: true }));
    point('pointermove', 450);
    const glimpse = screen.getByTestId('glimpse');
    expect(glimpse.textContent).toContain('00:45');
    // 45 s is the 23rd picture: the third of the second row.
    expect((glimpse.firstElementChild as HTMLElement).style.backgroundPosition).toBe('-320px -90px');
    point('pointermove', 2_000);
    expect((screen.getByTestId('glimpse').firstElementChild as HTMLElement).style.backgroundPosition).toBe('-1440px -180px');
    point('pointerout', 0);
    expect(screen.queryByTestId('glimpse')).toBeNull();
  });
});
