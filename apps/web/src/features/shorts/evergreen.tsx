import type { ReactNode } from 'react';
import { api, type ShortView } from '../../app/api.js';
import { doNow } from '../../app/undo.js';
import { t } from '../../texts/texts.js';

/** Whether a short may come again; where its client has none come again, nothing is asked. */
export function Evergreen({ short }: { short: ShortView }): ReactNode {
  const days = api.useListClientsQuery().data?.find((client) => client.id === short.clientId)?.comeAgainDays ?? null;
  const [set, { isLoading }] = api.useSetEvergreenMutation();
  if (days === null) return null;
  const put = (evergreen: boolean) => set({ shortId: short.id, evergreenForm: { evergreen } }).unwrap();
  return (
    <label className="flex items-center gap-2 text-[12px]" title={t('shorts.it-stays-true-and-worth-showing')}>
      <input
        type="checkbox"
        className="accent-ink"
        disabled={isLoading}
        checked={short.evergreen}
        onChange={() =>
          void doNow(
            short.evergreen ? t('shorts.comes-once-only') : t('shorts.may-come-again'),
            () => put(!short.evergreen),
            () => put(short.evergreen),
          )
        }
      />
      {t('shorts.evergreen-again-after', { count: days })}
    </label>
  );
}
