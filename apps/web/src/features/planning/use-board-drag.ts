import {
  type Announcements,
  type CollisionDetection,
  type DndContextProps,
  type DragEndEvent,
  type DragStartEvent,
  type Over,
  PointerSensor,
  pointerWithin,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import { type Plan } from '@sift-reel/core';
import { useEffect, useRef } from 'react';
import type { ScheduleView } from '../../app/api.js';
import { store, useAppDispatch, useAppSelector } from '../../app/store.js';
import { LetterSensor, type LetterOptions } from './letter-sensor.js';
import { type BoardClock, dropOn, wallOf } from './plan.js';
import { type Cursor, cursorMoved, type Held, pickedUp } from './schedule-slice.js';
import { t } from '../../texts/texts.js';
import { formatDay } from '../../texts/formats.js';

const STEPS: Readonly<Record<string, readonly [rows: number, columns: number]>> = {
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
};

interface BoardDrag {
  readonly view: ScheduleView;
  readonly plan: Plan;
  readonly days: readonly string[];
  readonly clock: BoardClock;
  /** With what is chosen, where that is held. */
  readonly onDrop: (held: Held, channelId: string, date: string) => void;
}

/**
 * What the board's drag and drop needs, by mouse and by keyboard. With the keys what is held goes from place to place, by
 * channels and days, instead of over the screen: so it gets as far as the board goes, not as far as one sees.
 */
export function useBoardDrag({ view, plan, days, clock, onDrop }: BoardDrag): DndContextProps & { readonly byKeys: boolean } {
  const { held, cursor } = useAppSelector((state) => state.schedule);
  const dispatch = useAppDispatch();

  const shortOf = (one: Held): string | undefined => (one.kind === 'short' ? one.shortId : view.posts.find((post) => post.id === one.postId)?.shortId);
  const titleOf = (one: Held | null): string => `“${view.shorts.find((short) => one !== null && short.id === shortOf(one))?.title ?? ''}”`;
  /** Where the keys begin: where a post is, or on the first day that takes a short. */
  const startOf = (one: Held): Cursor => {
    const post = one.kind === 'post' ? view.posts.find((other) => other.id === one.postId) : undefined;
    if (post !== undefined) return { channelId: post.channelId, date: wallOf(clock, post).date };
    const shortId = shortOf(one) ?? '';
    const own = view.channels.filter((channel) => channel.clientId === view.shorts.find((short) => short.id === shortId)?.clientId);
    for (const date of days) {
      const channel = own.find(({ id }) => dropOn(plan, shortId, id, date, clock).kind === 'fits');
      if (channel !== undefined) return { channelId: channel.id, date };
    }
    return { channelId: (own[0] ?? view.channels[0]!).id, date: days[0]! };
  };
  const goTo = (place: Cursor): void => {
    dispatch(cursorMoved(place));
    document.querySelector(`[data-cell="${place.channelId} ${place.date}"]`)?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
  };
  // Keys may come quicker than the board is drawn: they go by what is held, not by what is drawn of it.
  const onKey = (code: string): boolean => {
    const step = STEPS[code];
    const at = store.getState().schedule.cursor;
    if (step === undefined || at === null) return false;
    const clamp = (index: number, length: number): number => Math.max(0, Math.min(length - 1, index));
    const row = clamp(view.channels.findIndex(({ id }) => id === at.channelId) + step[0], view.channels.length);
    const column = clamp(days.indexOf(at.date) + step[1], days.length);
    goTo({ channelId: view.channels[row]!.id, date: days[column]! });
    return true;
  };
  const putAt = (place: Cursor | null | undefined): void => {
    const inHand = store.getState().schedule.held;
    if (inHand !== null && place != null) onDrop(inHand, place.channelId, place.date);
    dispatch(pickedUp(null));
  };

  // The sensor keeps what it was given when something was picked up.
  const latest = useRef<LetterOptions>(null!);
  const letGo = useRef<() => void>(() => undefined);
  latest.current = { onPicked: (stop) => (letGo.current = stop), onKey, onPut: () => putAt(store.getState().schedule.cursor) };
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 5 } }),
    useSensor(LetterSensor, {
      onPicked: (stop) => latest.current.onPicked(stop),
      onKey: (code) => latest.current.onKey(code),
      onPut: () => latest.current.onPut(),
    }),
  );
  // Whoever goes elsewhere with something in hand lets go of it: a key on another page moves no post.
  useEffect(
    () => () => {
      letGo.current();
      dispatch(pickedUp(null));
    },
    [dispatch],
  );
  const collisionDetection: CollisionDetection = (drag) =>
    cursor === null ? pointerWithin(drag) : drag.droppableContainers.filter(({ id }) => id === `${cursor.channelId} ${cursor.date}`).map(({ id }) => ({ id }));

  const placeText = (over: Over | null): string => {
    const place = over?.data.current as Cursor | undefined;
    const channel = view.channels.find(({ id }) => id === place?.channelId);
    if (place === undefined || channel === undefined || held === null) return t('planning.not-over-the-board');
    const at = startOf(held);
    if (held.kind === 'post' && at.channelId === place.channelId && at.date === place.date)
      return t('planning.it-is-here-now', { name: channel.name, day: formatDay(place.date) });
    const outcome = dropOn(plan, shortOf(held) ?? '', channel.id, place.date, clock, held.kind === 'post' ? held.postId : undefined);
    return `${channel.name}, ${formatDay(place.date)}: ${outcome.kind === 'fits' ? t('planning.it-can-go-here') : outcome.refusal.detail}`;
  };
  const announcements: Announcements = {
    onDragStart: ({ active }) => t('planning.picked-up', { title: titleOf(active.data.current as Held) }),
    onDragOver: ({ over }) => placeText(over),
    onDragEnd: () => undefined, // the notice says what became of it
    onDragCancel: () => t('planning.put-back'),
  };

  return {
    byKeys: cursor !== null,
    sensors,
    collisionDetection,
    accessibility: {
      announcements,
      screenReaderInstructions: {
        draggable: t('planning.press-m-to-pick-it-up'),
      },
    },
    onDragStart: ({ active, activatorEvent }: DragStartEvent) => {
      const picked = active.data.current as Held;
      dispatch(pickedUp(picked));
      if (activatorEvent instanceof KeyboardEvent) goTo(startOf(picked));
    },
    onDragEnd: ({ over }: DragEndEvent) => putAt(over?.data.current as Cursor | undefined),
    onDragCancel: () => dispatch(pickedUp(null)),
  };
}
