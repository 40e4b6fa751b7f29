// @vitest-environment jsdom
// What a long list draws needs a layout, which jsdom has not: see e2e/long-lists.spec.ts.
import { cleanup, render, screen } from '@testing-library/react';
import { type ReactNode, useRef } from 'react';
import { afterEach, describe, expect, it } from 'vitest';
import { useLongList } from './long-list.js';

function List({ count }: { count: number }): ReactNode {
  const scroller = useRef<HTMLUListElement>(null);
  const { rows, beforePx, afterPx } = useLongList(count, scroller, scroller, 50);
  return (
    <ul ref={scroller} data-before={beforePx} data-after={afterPx}>
      {rows.map((i) => (
        <li key={i}>{i}</li>
      ))}
    </ul>
  );
}

afterEach(cleanup);

describe('a long list', () => {
  it('is drawn whole while it is short', () => {
    render(<List count={120} />);
    expect(screen.getAllByRole('listitem').map((row) => row.textContent)).toEqual(Array.from({ length: 120 }, (_, i) => String(i)));
  });
});
