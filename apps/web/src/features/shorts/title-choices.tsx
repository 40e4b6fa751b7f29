import type { TitleSort } from '@sift-reel/core';
import clsx from 'clsx';
import type { ReactNode } from 'react';
import type { TitleView } from '../../app/api.js';
import { useKeys } from '../../app/keys.js';

/** What a title does, in a word or two. */
const SORT_NAMES: Readonly<Record<TitleSort, string>> = {
  said: 'as said',
  question: 'question',
  advice: 'advice',
  why: 'the reason',
  when: 'what happens',
  how: 'how to',
  contrast: 'not this but that',
};

/** Proposals, each with a key, its sort and the words that it was made of. */
export function TitleChoices({ titles, chosen, onTake }: { titles: readonly TitleView[]; chosen: string; onTake: (title: string) => void }): ReactNode {
  useKeys(titles.map(({ text }, i) => ({ key: String(i + 1), label: `Take title ${i + 1}`, group: 'Shorts', run: () => onTake(text) })));
  if (titles.length === 0) return null;
  return (
    <ol aria-label="Proposals" className="-mt-2 divide-y divide-rule border-y border-rule">
      {titles.map(({ text, sort, said, draft }, i) => (
        <li key={text}>
          <button
            type="button"
            aria-pressed={text === chosen}
            className="grid w-full grid-cols-[18px_1fr_auto] items-baseline gap-x-2 px-1 py-[6px] text-left hover:bg-sheet aria-pressed:bg-sheet"
            onClick={() => onTake(text)}
          >
            <kbd className="text-[11px] text-soft">{i + 1}</kbd>
            <span className={clsx(text === chosen && 'font-semibold')}>{text}</span>
            <span className="text-[12px] text-soft">
              {draft && <span className="mr-2 text-madder-text">draft</span>}
              {SORT_NAMES[sort]}
            </span>
            <span dir="auto" className="col-start-2 line-clamp-1 font-serif text-[13px] text-soft" title={said}>
              “{said}”
            </span>
          </button>
        </li>
      ))}
    </ol>
  );
}
