import { type CutList, sourceAt } from '@sift-reel/core';
import { useCallback, useEffect, useMemo, useRef, useState, useSyncExternalStore } from 'react';
import { t } from '../texts/texts.js';
import { gateOf, type SoundGate, wakeSound } from './sound-gate.js';
import { onSpeed, speedNow } from './speed.js';

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
  /** Has the first two spans of a cut list found before anybody plays it. Does nothing while something plays. */
  arm(cuts: CutList): void;
  pause(): void;
  /** Goes there; what was to stop at the end of a span plays on from there. */
  seek(ms: number): void;
  /** What is seen of the recording: one clock rules it and the sound. None for sound alone; two where a leap is prepared, of which one is shown. */
  readonly pictures: readonly HTMLVideoElement[];
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

/** So far off its place a prepared element may be. */
const PREPARED_MS = 20;

/**
 * One element for sound and picture. While it plays a cut list, every drawn frame looks whether the end of a span is reached;
 * `timeupdate` alone comes only four times a second and would play into the next sentence. A second element waits where the next
 * span begins and takes over there: to find a place in a video, a browser decodes from the last whole picture before it, which
 * may take a third of a second. What is heard ends with a span by the sound's own clock, however late a frame is drawn.
 * @param pictured whether the source has a picture; it is shown by `PlayedPicture`
 * @param of which file is played, where that is known: another source of the same is taken once nothing plays, at the same place
 */
export function usePlayer(given: string | null, pictured = false, of: string | null = null): Player {
  const media = useRef<HTMLMediaElement | null>(null);
  const standby = useRef<HTMLMediaElement | null>(null);
  const spare = useRef<() => HTMLMediaElement>(() => document.createElement('audio'));
  const [pictures, setPictures] = useState<readonly HTMLVideoElement[]>([]);
  const run = useRef<Run | null>(null);
  const [clock] = useState(() => new Clock());
  const [played] = useState(() => new Clock());
  const [playing, setPlaying] = useState(false);
  const [trouble, setTrouble] = useState<string | null>(null);
  const [taken, setTaken] = useState({ source: given, of });
  const waits = playing && of !== null && taken.of === of;
  if (!waits && (taken.source !== given || taken.of !== of)) setTaken({ source: given, of });
  const { source } = taken;
  const lastOf = useRef<string | null>(null);

  useEffect(() => {
    const goesOn = taken.of !== null && lastOf.current === taken.of;
    lastOf.current = taken.of;
    if (source === null) return;
    let frame = 0;
    const made: HTMLMediaElement[] = [];
    const gates = new Map<HTMLMediaElement, SoundGate | null>();
    /** What it plays is heard to the end of the span; where none is played, until somebody stops it. */
    const letSound = (element: HTMLMediaElement): void => {
      if (!gates.has(element)) gates.set(element, gateOf(element));
      const cut = run.current?.cuts[run.current.at];
      gates.get(element)?.open(cut === undefined ? null : Math.max(0, cut.endMs - element.currentTime * 1_000) / element.playbackRate);
    };
    const make = (name: string): HTMLMediaElement => {
      const element = document.createElement(pictured ? 'video' : 'audio');
      element.preload = made.length === 0 ? 'metadata' : 'auto';
      // Its sound passes the gate though it may come from the store of the files, where the browser is sent to.
      element.crossOrigin = 'anonymous';
      element.src = source;
      element.defaultPlaybackRate = element.playbackRate = speedNow();
      element.dataset['testid'] = name;
      element.hidden = true;
      document.body.append(element);
      made.push(element);
      element.onplay = () => {
        if (element !== media.current) return;
        setPlaying(true);
        setTrouble(null);
        letSound(element);
        cancelAnimationFrame(frame);
        frame = requestAnimationFrame(tick);
      };
      element.onseeked = () => element === media.current && !element.paused && letSound(element);
      element.onpause = () => {
        if (element !== media.current) return; // it has handed over
        setPlaying(false);
        cancelAnimationFrame(frame);
      };
      element.onerror = () => element === media.current && setTrouble(t('app.the-sound-cannot-be-played-here'));
      setPictures(made.filter((one) => one instanceof HTMLVideoElement));
      return element;
    };
    /** Tells the time, and leaps where a span is over. @returns false once all is played */
    const follow = (element: HTMLMediaElement): boolean => {
      const now = Math.round(element.currentTime * 1_000);
      const going = run.current;
      const cut = going?.cuts[going.at];
      if (going === null || cut === undefined || now < cut.endMs - FRAME_MS / 2) {
        clock.set(now);
        if (going !== null && cut !== undefined) played.set(going.beforeMs + Math.max(0, now - cut.startMs));
        letSound(element);
        return true;
      }
      going.beforeMs += cut.endMs - cut.startMs;
      going.at += 1;
      const next = going.cuts[going.at];
      played.set(going.beforeMs);
      if (next === undefined) {
        element.pause();
        element.currentTime = cut.endMs / 1_000;
        clock.set(cut.endMs);
        return false;
      }
      if (next.startMs < now || next.startMs - now > WORTH_A_LEAP_MS) leapTo(element, next.startMs);
      prepare(going);
      clock.set(next.startMs);
      return true;
    };
    const leapTo = (element: HTMLMediaElement, ms: number): void => {
      const other = standby.current;
      if (other === null || other.seeking || other.readyState < other.HAVE_FUTURE_DATA || Math.abs(other.currentTime * 1_000 - ms) > PREPARED_MS) {
        element.currentTime = ms / 1_000;
        return;
      }
      [media.current, standby.current] = [other, element];
      showOne(other, element);
      letSound(other);
      other.play().catch(() => undefined); // what cannot be played said so when it began
      element.pause();
    };
    const tick = (): void => {
      const element = media.current;
      // While it leaps it still says where it was, or already where it will be.
      if (element === null || (!element.seeking && !follow(element))) return;
      frame = requestAnimationFrame(tick);
    };
    spare.current = () => make('player-standby');
    media.current = make('player');
    if (goesOn) media.current.currentTime = clock.get() / 1_000;
    const unhurry = onSpeed(() => {
      for (const element of made) element.defaultPlaybackRate = element.playbackRate = speedNow();
    });
    return () => {
      unhurry();
      cancelAnimationFrame(frame);
      for (const element of made) {
        element.onplay = element.onpause = element.onseeked = element.onerror = null;
        element.pause();
        element.removeAttribute('src');
        element.load();
        element.remove();
      }
      media.current = standby.current = null;
      setPictures([]);
      setPlaying(false);
      setTrouble(null); // the next source may play
    };
  }, [source, taken.of, pictured, clock, played]);

  /** Has the other element wait where the span after this one begins. */
  const prepare = useCallback((going: Run) => {
    const next = going.cuts[going.at + 1];
    if (next === undefined) return;
    standby.current ??= spare.current();
    find(standby.current, next.startMs);
  }, []);

  const playCuts = useCallback(
    (cuts: CutList, fromMs = 0) => {
      const element = media.current;
      if (element === null || cuts.length === 0) return;
      wakeSound();
      run.current = runFrom(cuts, fromMs);
      find(element, sourceAt(cuts, fromMs));
      prepare(run.current);
      played.set(fromMs);
      element.play().catch((error: unknown) => {
        if ((error as Error).name !== 'AbortError') setTrouble(t('app.the-sound-cannot-be-played-here'));
      });
    },
    [played, prepare],
  );
  const arm = useCallback(
    (cuts: CutList) => {
      if (media.current?.paused !== true || cuts.length < 2) return;
      find(media.current, cuts[0]!.startMs);
      prepare(runFrom(cuts, 0));
    },
    [prepare],
  );
  const playSpan = useCallback((startMs: number, endMs: number) => playCuts([{ startMs, endMs }]), [playCuts]);
  const pause = useCallback(() => media.current?.pause(), []);
  const seek = useCallback(
    (ms: number) => {
      run.current = null; // the stop of the span before is not this one's
      clock.set(ms);
      if (media.current !== null) media.current.currentTime = ms / 1_000;
    },
    [clock],
  );
  return useMemo(
    () => ({ playing, time: clock, played, trouble, playSpan, playCuts, arm, pause, seek, pictures }),
    [playing, clock, played, trouble, playSpan, playCuts, arm, pause, seek, pictures],
  );
}

/** Goes there, unless it is there: to find a place again takes as long as the first time. */
function find(element: HTMLMediaElement, ms: number): void {
  if (Math.abs(element.currentTime * 1_000 - ms) > 0.5) element.currentTime = ms / 1_000;
}

/** Of two elements in one place, the one that plays is seen. */
function showOne(shown: HTMLMediaElement, other: HTMLMediaElement): void {
  shown.style.visibility = 'visible';
  other.style.visibility = 'hidden';
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
