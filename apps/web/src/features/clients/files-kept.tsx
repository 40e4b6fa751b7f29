import type { ReactNode } from 'react';
import { api, type ClientView } from '../../app/api.js';
import { ownVersion } from '../../app/own-versions.js';
import { t } from '../../texts/texts.js';
import { SpanSelect } from './span-select.js';

/** How long a client's finished files are kept. */
export function FilesKept({ client }: { client: ClientView }): ReactNode {
  const [set] = api.useSetFilesKeptMutation();
  return (
    <section className="border border-rule bg-sheet p-4" aria-label={t('clients.finished-files')}>
      <h2 className="mb-2">{t('clients.finished-files')}</h2>
      <SpanSelect
        label={t('clients.are-kept')}
        days={client.filesKeptDays}
        version={client.version}
        spans={[30, 90, 180, 365]}
        none={t('clients.for-good')}
        nameOf={(count) => t('clients.for-days', { count })}
        done={t('clients.changed-how-long-files-are-kept')}
        put={(days, version) => set({ clientId: client.id, filesKeptForm: { days, version: ownVersion(client.id, version) } }).unwrap()}
        hint={t('clients.told-a-week-before')}
      />
    </section>
  );
}
