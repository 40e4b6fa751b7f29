import { type ReactNode, useState } from 'react';
import { api, type CopyVersionView, type CopyView, type ShortView } from '../../app/api.js';
import { problemText } from '../../app/problems.js';
import { Button } from '../../ui/parts.js';
import { t, rich } from '../../texts/texts.js';

interface CopyHistoryProps {
  readonly short: ShortView;
  /** Null for the words of all channels. */
  readonly channelId: string | null;
  readonly locked: boolean;
  readonly onTake: (copy: CopyView) => void;
}

/** What the words were, and who wrote them; any of it can be taken back. */
export function CopyHistory({ short, channelId, locked, onTake }: CopyHistoryProps): ReactNode {
  const [open, setOpen] = useState(false);
  const history = api.useListCopyVersionsQuery(short.id, { skip: !open });
  const rows = (history.currentData ?? []).filter((one) => one.channelId === channelId);
  return (
    <section aria-label={t('shorts.history')}>
      <button type="button" aria-expanded={open} className="text-[12px] underline" onClick={() => setOpen(!open)}>
        {open ? t('shorts.hide-who-wrote-what') : t('common.who-wrote-what')}
      </button>
      {open && history.error !== undefined && <p className="text-madder-text">{problemText(history.error)}</p>}
      {open && history.currentData !== undefined && rows.length === 0 && <p className="text-[12px] text-soft">{t('shorts.this-channel-has-had-no-words')}</p>}
      {open && rows.length > 0 && (
        <ol className="mt-1 divide-y divide-rule border-y border-rule">
          {rows.map((one, i) => (
            <li key={one.id} className="grid grid-cols-[150px_1fr_auto] items-baseline gap-x-3 py-[6px] text-[12px]">
              <span className="text-soft">
                {rich('common.at-utc', { at: one.writtenAt.slice(0, 16).replace('T', ' '), time: (chunks) => <span className="time">{chunks}</span> })}
                <span className="block truncate">{one.writtenBy ?? t('shorts.proposed')}</span>
              </span>
              <span className="min-w-0">
                <b className="block break-words">{one.copy.title}</b>
                <span className="line-clamp-2 text-soft">{sayRest(one)}</span>
              </span>
              {!locked && i > 0 && (
                <Button tone="quiet" onClick={() => onTake(one.copy)}>
                  {t('shorts.take-these')}
                </Button>
              )}
            </li>
          ))}
        </ol>
      )}
    </section>
  );
}

const sayRest = ({ copy }: CopyVersionView): string => [copy.description, ...copy.hashtags.map((tag) => `#${tag}`)].filter((part) => part !== '').join(' ');
