import { asPosted, languageOf } from '@sift-reel/core';
import clsx from 'clsx';
import type { ReactNode } from 'react';
import type { CopyView, ShortView } from '../../app/api.js';
import { t } from '../../texts/texts.js';

/** How each channel takes the words, side by side, as they will be seen there. */
export function AsSeen({ short, copy }: { short: ShortView; copy: CopyView }): ReactNode {
  if (short.channels.length === 0) return null;
  return (
    <section aria-label={t('shorts.as-each-channel-shows-it')} className="mt-2">
      <h3 className="pb-1 text-[12px] font-semibold">{t('shorts.as-each-channel-shows-it')}</h3>
      <div className="grid gap-3 [grid-template-columns:repeat(auto-fill,minmax(220px,1fr))]">
        {short.channels.map((channel) => {
          const { title, description, hashtags, coverLine } = asPosted(channel.variant ?? channel.translated ?? copy, short);
          const bad = channel.unfit !== null || channel.problems.length > 0;
          return (
            <article key={channel.channelId} className={clsx('flex min-w-0 flex-col gap-2 border bg-sheet p-3', bad ? 'border-madder' : 'border-rule')}>
              <div className="flex items-baseline gap-2 text-[12px]">
                <b className="truncate">{channel.name}</b>
                <span className="ml-auto flex-none text-soft">
                  {channel.variant !== null ? t('shorts.own-words') : channel.language !== null ? languageOf(channel.language).name : channel.platform}
                </span>
              </div>
              {coverLine !== '' && <div className="bg-ink px-2 py-3 text-center text-[13px] font-bold text-paper">{coverLine}</div>}
              <b className="leading-[1.3] break-words">{title}</b>
              {description !== '' && <p className="text-[12px] break-words whitespace-pre-line">{description}</p>}
              {hashtags.length > 0 && <p className="text-[12px] break-words text-soft">{hashtags.map((tag) => `#${tag}`).join(' ')}</p>}
              <p className={clsx('mt-auto text-[12px]', bad ? 'text-madder-text' : 'text-verdigris-text')}>
                {channel.unfit ??
                  (channel.problems
                    .map((problem) => `${problem.field === 'coverLine' ? t('shorts.cover-line') : problem.field}: ${problem.detail}`)
                    .join('; ') ||
                    t('shorts.takes-it'))}
              </p>
            </article>
          );
        })}
      </div>
    </section>
  );
}
