import { useCallback, useEffect, useMemo, useRef, useState } from 'react';

export interface Player {
  readonly playing: boolean;
  /** Where the sound stands, in ms of the recording. */
  readonly atMs: number;
  readonly trouble: string | null;
  /** Plays exactly the span, then stops at its end. */
  playSpan(startMs: number, endMs: number): void;
  pause(): void;
  seek(ms: number): void;
}

/**
 * One sound element. While it plays a span, every drawn frame looks whether the end is reached; `timeupdate` alone comes
 * only four times a second and would play into the next sentence.
 */
export function usePlayer(source: string | null): Player {
  const audio = useRef<HTMLAudioElement | null>(null);
  const until = useRef<number | null>(null);
  const [playing, setPlaying] = useState(false);
  const [atMs, setAtMs] = useState(0);
  const [trouble, setTrouble] = useState<string | null>(null);

  useEffect(() => {
    if (source === null) return;
    const element = new Audio();
    element.preload = 'metadata';
    element.src = source;
    element.dataset['testid'] = 'player';
    document.body.append(element);
    audio.current = element;
    let frame = 0;
    const tick = (): void => {
      const now = Math.round(element.currentTime * 1_000);
      if (until.current !== null && now >= until.current) {
        element.pause();
        element.currentTime = until.current / 1_000;
        setAtMs(until.current);
        return;
      }
      setAtMs(now);
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
    element.onerror = () => setTrouble('The sound cannot be played here.');
    return () => {
      cancelAnimationFrame(frame);
      element.pause();
      element.removeAttribute('src');
      element.load();
      element.remove();
      audio.current = null;
    };
  }, [source]);

  const playSpan = useCallback((startMs: number, endMs: number) => {
    const element = audio.current;
    if (element === null) return;
    until.current = endMs;
    element.currentTime = startMs / 1_000;
    element.play().catch((error: unknown) => {
      if ((error as Error).name !== 'AbortError') setTrouble('The sound cannot be played here.');
    });
  }, []);
  const pause = useCallback(() => audio.current?.pause(), []);
  const seek = useCallback((ms: number) => {
    const element = audio.current;
    setAtMs(ms);
    if (element !== null) element.currentTime = ms / 1_000;
  }, []);
  return useMemo(() => ({ playing, atMs, trouble, playSpan, pause, seek }), [playing, atMs, trouble, playSpan, pause, seek]);
}
