import { type CutList, sourceAt } from '@sift-reel/core';
import { useCallback, useEffect, useMemo, useRef, useState, useSyncExternalStore } from 'react';
import { t } from '../texts/texts.js';

/** Where the sound stands, told to whoever listens: a line, a word; not to the whole bench, sixty times a second. */
export interface PlayerTime {
  subscribe(listener: () => void): () => void;
  /** In ms of the recording. */
  get(): number;
}

export interface Player {
  readonly playing: boolean;
  readonly time: PlayerTime;
  /** In ms of what is played of a cut list; the source alone cannot tell, since a cut list may hold a place twice. */
  readonly played: PlayerTime;
  readonly trouble: string | null;
  /** Plays exactly the span, then stops at its end. */
  playSpan(startMs: number, endMs: number): void;
  /** Plays a cut list, from so many ms of it: what lies between its spans is skipped. Stops at its end. */
  playCuts(cuts: CutList, fromMs?: number): void;
  pause(): void;
  /** Goes there; what was to stop at the end of a span plays on from there. */
  seek(ms: number): void;
  /** What is seen of the recording: one clock rules it and the sound. Null for sound alone. */
  readonly picture: HTMLVideoElement | null;
}

class Clock implements PlayerTime {
  private readonly listeners = new Set<() => void>();
  private atMs = 0;
  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };
  get = (): number => this.atMs;
  set(ms: number): void {
    if (ms === this.atMs) return;
    this.atMs = ms;
    for (const listener of this.listeners) listener();
  }
}

/** Something that follows from the time; renders again only when that changes. */
export function usePlayerTime<T>(time: PlayerTime, of: (ms: number) => T): T {
  const read = (): T => of(time.get());
  return useSyncExternalStore(time.subscribe, read, read);
}

/** Spans that are to be played, and which of them is. */
interface Run {
  readonly cuts: CutList;
  at: number;
  /** Played before the span that is played now, in ms. */
  beforeMs: number;
}

/** Where less than this lies between two spans, it is played through: a leap would take longer. */
const WORTH_A_LEAP_MS = 30;
/** Between two frames of the screen: an end that comes before the next one is reached now. */
const FRAME_MS = 16;

/**
 * One element for sound and picture. While it plays a cut list, every drawn frame looks whether the end of a span is reached;
 * `timeupdate` alone comes only four times a second and would play into the next sentence.
 * @param pictured whether the source has a picture; it is shown by `PlayedPicture` */
export function usePlayer(source: string | null, pictured = false): Player {
  const audio = useRef<HTMLMediaElement | null>(null);
  const [picture, setPicture] = useState<HTMLVideoElement | null>(null);
  const run = useRef<Run | null>(null);
  const [clock] = useState(() => new Clock());
  const [played] = useState(() => new Clock());
  const [playing, setPlaying] = useState(false);
  const [trouble, setTrouble] = useState<string | null>(null);

  useEffect(() => {
    if (source === null) return;
    const element = document.createElement(pictured ? 'video' : 'audio');
    element.preload = 'metadata';
    element.src = source;
    element.dataset['testid'] = 'player';
    element.hidden = true;
    document.body.append(element);
    audio.current = element;
    setPicture(element instanceof HTMLVideoElement ? element : null);
    let frame = 0;
    /** Tells the time, and leaps where a span is over. @returns false once all is played */
    const follow = (media: HTMLMediaElement): boolean => {
      const now = Math.round(media.currentTime * 1_000);
      const going = run.current;
      const cut = going?.cuts[going.at];
      if (going === null || cut === undefined || now < cut.endMs - FRAME_MS / 2) {
        clock.set(now);
        if (going !== null && cut !== undefined) played.set(going.beforeMs + Math.max(0, now - cut.startMs));
        return true;
      }
      going.beforeMs += cut.endMs - cut.startMs;
      going.at += 1;
      const next = going.cuts[going.at];
      played.set(going.beforeMs);
      if (next === undefined) {
        media.pause();
        media.currentTime = cut.endMs / 1_000;
        clock.set(cut.endMs);
        return false;
      }
      if (next.startMs < now || next.startMs - now > WORTH_A_LEAP_MS) media.currentTime = next.startMs / 1_000;
      clock.set(next.startMs);
      return true;
    };
    const tick = (): void => {
      // While it leaps it still says where it was, or already where it will be.
      if (!element.seeking && !follow(element)) return;
      frame = requestAnimationFrame(tick);
    };
    element.onplay = () => {
      setPlaying(true);
      setTrouble(null);
      cancelAnimationFrame(frame);
      frame = requestAnimationFrame(tick);
    };
    element.onpause = () => {
      setPlaying(false);
      cancelAnimationFrame(frame);
    };
    element.onerror = () => setTrouble(t('app.the-sound-cannot-be-played-here'));
    return () => {
      cancelAnimationFrame(frame);
      element.pause();
      element.removeAttribute('src');
      element.load();
      element.remove();
      audio.current = null;
      setPicture(null);
    };
  }, [source, pictured, clock, played]);

  const playCuts = useCallback(
    (cuts: CutList, fromMs = 0) => {
      const element = audio.current;
      if (element === null || cuts.length === 0) return;
      run.current = runFrom(cuts, fromMs);
      element.currentTime = sourceAt(cuts, fromMs) / 1_000;
      played.set(fromMs);
      element.play().catch((error: unknown) => {
        if ((error as Error).name !== 'AbortError') setTrouble(t('app.the-sound-cannot-be-played-here'));
      });
    },
    [played],
  );
  const playSpan = useCallback((startMs: number, endMs: number) => playCuts([{ startMs, endMs }]), [playCuts]);
  const pause = useCallback(() => audio.current?.pause(), []);
  const seek = useCallback(
    (ms: number) => {
      run.current = null; // the stop of the span before is not this one's
      clock.set(ms);
      if (audio.current !== null) audio.current.currentTime = ms / 1_000;
    },
    [clock],
  );
  return useMemo(
    () => ({ playing, time: clock, played, trouble, playSpan, playCuts, pause, seek, picture }),
    [playing, clock, played, trouble, playSpan, playCuts, pause, seek, picture],
  );
}

/** A cut list as it is played from so many ms on. */
function runFrom(cuts: CutList, fromMs: number): Run {
  let [at, beforeMs] = [0, 0];
  for (; at < cuts.length - 1; at += 1) {
    const long = cuts[at]!.endMs - cuts[at]!.startMs;
    if (fromMs < beforeMs + long) break;
    beforeMs += long;
  }
  return { cuts, at, beforeMs };
}
