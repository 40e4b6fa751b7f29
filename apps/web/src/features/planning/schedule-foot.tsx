import { daysBetween, formatMinute, type Plan } from '@sift-reel/core';
import type { ReactNode } from 'react';
import type { PostView } from '../../app/api.js';
import { formatDay } from '../../texts/formats.js';
import { rich, t } from '../../texts/texts.js';
import { bestOpenSlot } from './plan.js';

interface ScheduleFootProps {
  plan: Plan;
  shown: readonly PostView[];
  from: string;
  to: string;
}

/** How full the shown weeks are, and where the best open slot is. */
export function ScheduleFoot({ plan, shown, from, to }: ScheduleFootProps): ReactNode {
  const weeks = Math.round(daysBetween(from, to).length / 7);
  const slots = plan.channels.reduce((sum, channel) => sum + Math.min(channel.postsPerWeek, channel.windows.length) * weeks, 0);
  const best = bestOpenSlot(plan, from, to);
  const lost = shown.filter((post) => post.state === 'refused' || post.state === 'missed');
  const waiting = shown.filter((post) => post.state === 'waiting');
  const b = (chunks: ReactNode): ReactNode => <b className="text-ink">{chunks}</b>;
  return (
    <div className="flex flex-none flex-wrap gap-x-[26px] gap-y-1 border-t border-rule px-[14px] py-[11px] text-soft">
      <span>{rich('planning.slots-filled', { weeks, count: shown.length, slots, b })}</span>
      <span>{rich('planning.posted-count', { count: shown.filter((post) => post.state === 'posted').length, b })}</span>
      {best !== null && (
        <span>{rich('planning.best-open-slot', { name: best.channel.name, day: formatDay(best.date), minute: formatMinute(best.minute), b })}</span>
      )}
      {waiting.length > 0 && <span className="text-madder-text">{t('planning.posts-waiting', { count: waiting.length })}</span>}
      {lost.length > 0 && <span className="text-madder-text">{t('planning.posts-refused', { count: lost.length })}</span>}
    </div>
  );
}
