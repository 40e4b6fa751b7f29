import type { ProposedSort } from '@sift-reel/core';
import clsx from 'clsx';
import { type ReactNode, useEffect, useRef } from 'react';
import type { TitleView } from '../../app/api.js';
import { holdKeys } from '../../app/held-keys.js';
import { useKeys } from '../../app/keys.js';
import { t } from '../../texts/texts.js';

/** What a title does, in a word or two. */
const SORT_NAMES: Readonly<Record<ProposedSort, string>> = {
  said: t('shorts.as-said'),
  question: t('shorts.question'),
  advice: t('shorts.advice'),
  why: t('shorts.the-reason'),
  when: t('shorts.what-happens'),
  how: t('shorts.how-to'),
  contrast: t('shorts.not-this-but-that'),
  mistake: t('shorts.the-mistake'),
  comparison: t('shorts.the-comparison'),
  figure: t('shorts.the-figure'),
  topic: t('shorts.the-topic-first'),
};

interface TitleChoicesProps {
  readonly titles: readonly TitleView[];
  /** They are still being found. */
  readonly awaited: boolean;
  readonly chosen: string;
  readonly onTake: (title: TitleView) => void;
}

/** So many at most have a key. */
const MOST = 5;

/** Proposals, each with a key, its sort and the words that it was made of. A key that is pressed before they are there waits for them. */
export function TitleChoices({ titles, awaited, chosen, onTake }: TitleChoicesProps): ReactNode {
  const there = useRef<() => void>(() => undefined);
  useEffect(() => () => there.current(), [awaited]);
  const wait = (key: string): void => {
    there.current();
    there.current = holdKeys(key);
  };
  useKeys(
    Array.from({ length: awaited ? MOST : titles.length }, (_, i) => {
      const key = String(i + 1);
      return { key, label: t('shorts.take-title', { number: i + 1 }), group: t('common.shorts'), run: () => (awaited ? wait(key) : onTake(titles[i]!)) };
    }),
  );
  if (titles.length === 0) return null;
  return (
    <ol aria-label={t('shorts.proposals')} className="-mt-2 divide-y divide-rule border-y border-rule">
      {titles.map(({ text, sort, said, draft }, i) => (
        <li key={text}>
          <button
            type="button"
            aria-pressed={text === chosen}
            className="grid w-full grid-cols-[18px_1fr_auto] items-baseline gap-x-2 px-1 py-[6px] text-left hover:bg-sheet aria-pressed:bg-sheet"
            onClick={() => onTake(titles[i]!)}
          >
            <kbd className="text-[11px] text-soft">{i + 1}</kbd>
            <span className={clsx(text === chosen && 'font-semibold')}>{text}</span>
            <span className="text-[12px] text-soft">
              {draft && <span className="mr-2 text-madder-text">{t('shorts.draft')}</span>}
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
