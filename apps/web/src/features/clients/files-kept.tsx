import type { ReactNode } from 'react';
import { api, type ClientView } from '../../app/api.js';
import { doNow } from '../../app/undo.js';
import { t } from '../../texts/texts.js';
import { Select } from '../../ui/select.js';

/** Spans that agencies agree on; another that is set already is offered, too. */
const SPANS = [30, 90, 180, 365];

/** How long a client's finished files are kept. */
export function FilesKept({ client }: { client: ClientView }): ReactNode {
  const [set] = api.useSetFilesKeptMutation();
  const { filesKeptDays: days } = client;
  const choose = (value: string): void => {
    const next = value === 'good' ? null : Number(value);
    if (next === days) return;
    let { version } = client;
    const put = async (to: number | null): Promise<void> => {
      ({ version } = await set({ clientId: client.id, filesKeptForm: { days: to, version } }).unwrap());
    };
    void doNow(
      t('clients.changed-how-long-files-are-kept'),
      () => put(next),
      () => put(days),
    );
  };
  const spans = [...new Set([...SPANS, ...(days === null ? [] : [days])])].sort((a, b) => a - b);
  return (
    <section className="border border-rule bg-sheet p-4" aria-label={t('clients.finished-files')}>
      <h2 className="mb-2">{t('clients.finished-files')}</h2>
      <Select
        look="field"
        label={t('clients.are-kept')}
        value={days === null ? 'good' : String(days)}
        onChange={choose}
        options={[
          { value: 'good', name: t('clients.for-good') },
          ...spans.map((span) => ({ value: String(span), name: t('clients.for-days', { count: span }) })),
        ]}
        hint={t('clients.told-a-week-before')}
      />
    </section>
  );
}
