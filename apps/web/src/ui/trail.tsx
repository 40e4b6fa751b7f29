import type { ReactNode } from 'react';
import type { AuditView } from '../app/api.js';
import { t } from '../texts/texts.js';

/** One line of a trail: when, who, what. */
export function TrailRow({ entry }: { entry: AuditView }): ReactNode {
  return (
    <li className="flex gap-3 border-b border-rule py-1 text-[12px]">
      <span className="time w-[140px] flex-none text-soft">{t('common.utc', { at: entry.at.slice(0, 16).replace('T', ' ') })}</span>
      <span className="w-[150px] flex-none truncate">{entry.who}</span>
      <span className="min-w-0 truncate">
        {t(`trail.${entry.action}`)} {t(`trail.${entry.subject}`)} {entry.detail !== '' && <>“{entry.detail}”</>}
      </span>
    </li>
  );
}
