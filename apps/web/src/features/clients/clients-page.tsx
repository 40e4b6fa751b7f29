import { type ReactNode, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { api } from '../../app/api.js';
import { problemText } from '../../app/problems.js';
import { didSomething, sayTrouble } from '../../app/undo.js';
import { Button, EmptyState, Loading, PageHead, Trouble } from '../../ui/parts.js';
import { ClientDialog } from './client-dialog.js';
import { t } from '../../texts/texts.js';

export function ClientsPage(): ReactNode {
  const clients = api.useListClientsQuery();
  const session = api.useReadSessionQuery();
  const [adding, setAdding] = useState(false);
  const navigate = useNavigate();
  const owner = session.data?.role === 'owner';
  if (clients.error !== undefined)
    return <Trouble title={t('clients.the-clients-cannot-be-shown')} detail={problemText(clients.error)} onRetry={() => void clients.refetch()} />;
  if (clients.data === undefined)
    return (
      <>
        <PageHead title={t('common.clients')} />
        <Loading what={t('clients.clients-inline')} />
      </>
    );
  return (
    <div className="flex h-full flex-col">
      <PageHead title={t('common.clients')} aside={t('clients.you-work-for', { count: clients.data.length })}>
        {owner && (
          <Button tone="fill" onClick={() => setAdding(true)}>
            {t('common.add-a-client')}
          </Button>
        )}
      </PageHead>
      {clients.data.length === 0 && (
        <EmptyState
          title={t('common.no-clients-yet')}
          action={
            owner ? (
              <Button tone="fill" onClick={() => setAdding(true)}>
                {t('common.add-a-client')}
              </Button>
            ) : undefined
          }
        >
          {owner ? t('clients.a-client-has-a-time-zone') : t('clients.the-owner-has-not-assigned-a')}
        </EmptyState>
      )}
      <ul className="min-h-0 flex-1 overflow-y-auto">
        {clients.data.map((client) => (
          <li key={client.id} className="border-b border-rule">
            <Link
              to={`/clients/${client.id}`}
              className="grid grid-cols-[1fr_auto] items-baseline gap-x-5 md:grid-cols-[1.2fr_1fr_1.6fr_auto] px-[18px] py-3 hover:bg-sheet"
            >
              <b className="text-[15px]">{client.name}</b>
              <span className="text-soft">{client.zone}</span>
              <span className="truncate text-verdigris-text">{client.tags.map((tag) => `#${tag}`).join(' ')}</span>
              <span className="text-soft">
                {t('clients.channels-recordings', { channelCount: client.channelCount, recordingCount: client.recordingCount })}
              </span>
            </Link>
          </li>
        ))}
      </ul>
      {owner && <Archived />}
      {adding && (
        <ClientDialog
          client={null}
          onClose={() => setAdding(false)}
          onSaved={(id) => {
            setAdding(false);
            void navigate(`/clients/${id}`);
          }}
        />
      )}
    </div>
  );
}

/** Clients the agency does not work for any more; nothing of theirs is deleted. */
function Archived(): ReactNode {
  const { data = [] } = api.useListArchivedClientsQuery();
  const [restore] = api.useRestoreClientMutation();
  const [archive] = api.useArchiveClientMutation();
  if (data.length === 0) return null;
  return (
    <section className="flex-none border-t border-rule px-[18px] py-3">
      <h2>{t('clients.archived-2')}</h2>
      <ul>
        {data.map((one) => (
          <li key={one.id} className="flex items-center gap-3 py-1">
            <span>{one.name}</span>
            <span className="time text-soft">{t('clients.since', { archivedAt: one.archivedAt.slice(0, 10) })}</span>
            <button
              type="button"
              className="underline"
              onClick={() => {
                restore(one.id)
                  .unwrap()
                  .then(
                    () =>
                      didSomething(
                        t('clients.brought-back', { name: one.name }),
                        () => archive(one.id).unwrap(),
                        () => restore(one.id).unwrap(),
                      ),
                    sayTrouble,
                  );
              }}
            >
              {t('clients.bring-back')}
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
