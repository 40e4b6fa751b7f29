import type { ReactNode } from 'react';
import { api, type ClientView } from '../../app/api.js';
import { ownVersion } from '../../app/own-versions.js';
import { t } from '../../texts/texts.js';
import { SpanSelect } from './span-select.js';

/** After how many days a client's evergreen shorts may come again on a channel. */
export function ComeAgain({ client }: { client: ClientView }): ReactNode {
  const [set] = api.useSetComeAgainMutation();
  return (
    <section className="border border-rule bg-sheet p-4" aria-label={t('clients.evergreen-shorts')}>
      <h2 className="mb-2">{t('clients.evergreen-shorts')}</h2>
      <SpanSelect
        label={t('clients.may-come-again')}
        days={client.comeAgainDays}
        version={client.version}
        spans={[60, 90, 180, 365]}
        none={t('clients.never')}
        nameOf={(count) => t('clients.after-days', { count })}
        done={t('clients.changed-when-shorts-come-again')}
        put={(days, version) => set({ clientId: client.id, comeAgainForm: { days, version: ownVersion(client.id, version) } }).unwrap()}
        hint={t('clients.what-is-evergreen')}
      />
    </section>
  );
}
