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
  readonly trouble: string | null;
  /** Plays exactly the span, then stops at its end. */
  playSpan(startMs: number, endMs: number): void;
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

/**
 * One element for sound and picture. While it plays a span, every drawn frame looks whether the end is reached; `timeupdate` alone comes
 * only four times a second and would play into the next sentence.
 */
/** @param pictured whether the source has a picture; it is shown by `PlayedPicture` */
export function usePlayer(source: string | null, pictured = false): Player {
  const audio = useRef<HTMLMediaElement | null>(null);
  const [picture, setPicture] = useState<HTMLVideoElement | null>(null);
  const until = useRef<number | null>(null);
  const [clock] = useState(() => new Clock());
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
    const tick = (): void => {
      const now = Math.round(element.currentTime * 1_000);
      if (until.current !== null && now >= until.current) {
        element.pause();
        element.currentTime = until.current / 1_000;
        clock.set(until.current);
        return;
      }
      clock.set(now);
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
  }, [source, pictured, clock]);

  const playSpan = useCallback((startMs: number, endMs: number) => {
    const element = audio.current;
    if (element === null) return;
    until.current = endMs;
    element.currentTime = startMs / 1_000;
    element.play().catch((error: unknown) => {
      if ((error as Error).name !== 'AbortError') setTrouble(t('app.the-sound-cannot-be-played-here'));
    });
  }, []);
  const pause = useCallback(() => audio.current?.pause(), []);
  const seek = useCallback(
    (ms: number) => {
      until.current = null; // the stop of the span before is not this one's
      clock.set(ms);
      if (audio.current !== null) audio.current.currentTime = ms / 1_000;
    },
    [clock],
  );
  return useMemo(() => ({ playing, time: clock, trouble, playSpan, pause, seek, picture }), [playing, clock, trouble, playSpan, pause, seek, picture]);
}
