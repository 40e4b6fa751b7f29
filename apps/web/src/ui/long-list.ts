import { useVirtualizer } from '@tanstack/react-virtual';
import { type RefObject, useLayoutEffect, useState } from 'react';

/** A list of up to so many rows is drawn whole: it costs little, and the browser's own search finds all of it. */
const WHOLE_UP_TO = 120;

export interface Drawn {
  /** Indices of the rows to draw, in order. */
  readonly rows: readonly number[];
  /** Heights of what is not drawn above and below them, in px. */
  readonly beforePx: number;
  readonly afterPx: number;
  /** Takes the height of a drawn row, which carries its index as `data-index`. */
  readonly measure: ((row: Element | null) => void) | undefined;
}

/**
 * The part of a long list that is seen, and a little around it.
 * @param scroller what scrolls
 * @param list what holds the rows; it may stand anywhere inside the scroller, or be it
 * @param keptIndex a row to bring into view whenever it changes; -1 for none
 */
export function useLongList(count: number, scroller: RefObject<HTMLElement | null>, list: RefObject<HTMLElement | null>, rowPx: number, keptIndex = -1): Drawn {
  const long = count > WHOLE_UP_TO;
  const [marginPx, setMarginPx] = useState(0);
  const virtual = useVirtualizer({
    count: long ? count : 0,
    getScrollElement: () => scroller.current,
    estimateSize: () => rowPx,
    overscan: 10,
    scrollMargin: marginPx,
  });
  useLayoutEffect(() => {
    const [outer, inner] = [scroller.current, list.current];
    if (!long || outer === null || inner === null || outer === inner) return;
    const place = (): void => setMarginPx(Math.round(inner.getBoundingClientRect().top - outer.getBoundingClientRect().top + outer.scrollTop));
    place();
    // What stands above the list may grow: uploads, for one.
    const watch = new ResizeObserver(place);
    for (const child of outer.children) watch.observe(child);
    return () => watch.disconnect();
  }, [long, scroller, list]);
  useLayoutEffect(() => {
    if (long && keptIndex >= 0) virtual.scrollToIndex(keptIndex, { align: 'auto' });
  }, [long, keptIndex, virtual]);
  if (!long) return { rows: Array.from({ length: count }, (_, i) => i), beforePx: 0, afterPx: 0, measure: undefined };
  const items = virtual.getVirtualItems();
  const first = items[0];
  const last = items.at(-1);
  return {
    rows: items.map(({ index }) => index),
    beforePx: first === undefined ? 0 : first.start - marginPx,
    afterPx: last === undefined ? virtual.getTotalSize() : virtual.getTotalSize() - (last.end - marginPx),
    measure: virtual.measureElement,
  };
}
