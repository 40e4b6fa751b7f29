import type { ReactNode } from 'react';
import { api } from '../../app/api.js';
import { t } from '../../texts/texts.js';
import { EpisodeRow } from './episode-row.js';

/** What came out in the feeds that are followed and is nobody's recording yet. */
export function NewEpisodes({ clientId, nameOf }: { clientId: string; nameOf: ReadonlyMap<string, string> }): ReactNode {
  const { data = [] } = api.useListNewEpisodesQuery();
  const shown = data.filter((one) => clientId === '' || one.clientId === clientId);
  if (shown.length === 0) return null;
  return (
    <section aria-label={t('recordings.new-in-the-feeds')} className="border-b border-rule px-[18px] py-3">
      <h2 className="flex items-baseline gap-2">
        {t('recordings.new-in-the-feeds')} <span className="time text-soft">{shown.length}</span>
      </h2>
      <ul className="divide-y divide-rule">
        {shown.map((one) => (
          <EpisodeRow key={one.id} episode={one} isWorking aside={`${nameOf.get(one.clientId) ?? ''} · ${one.feedTitle} · `} />
        ))}
      </ul>
    </section>
  );
}
