import type { ProposedSort } from '@sift-reel/core';
import clsx from 'clsx';
import type { ReactNode } from 'react';
import type { TitleView } from '../../app/api.js';
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
  topic: t('shorts.the-topic-first'),
};

/** Proposals, each with a key, its sort and the words that it was made of. */
export function TitleChoices({ titles, chosen, onTake }: { titles: readonly TitleView[]; chosen: string; onTake: (title: string) => void }): ReactNode {
  useKeys(
    titles.map(({ text }, i) => ({ key: String(i + 1), label: t('shorts.take-title', { number: i + 1 }), group: t('common.shorts'), run: () => onTake(text) })),
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
            onClick={() => onTake(text)}
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
