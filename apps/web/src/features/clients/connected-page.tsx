import { type ReactNode, useEffect, useRef } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import { api } from '../../app/api.js';
import { sayDone } from '../../app/undo.js';
import { problemText } from '../../app/problems.js';
import { t } from '../../texts/texts.js';
import { EmptyState, Loading, PageHead } from '../../ui/parts.js';

/** Where a platform sends the browser back to: what it brought is handed over, once, and the client's page comes back. */
export function ConnectedPage(): ReactNode {
  const [params] = useSearchParams();
  const [finish, { error }] = api.useFinishConnectingMutation();
  const navigate = useNavigate();
  const handedOver = useRef(false);
  useEffect(() => {
    if (handedOver.current) return;
    handedOver.current = true;
    const brought = Object.fromEntries(['code', 'iss', 'error'].flatMap((name) => (params.get(name) === null ? [] : [[name, params.get(name)!]])));
    finish({ state: params.get('state') ?? '', ...brought })
      .unwrap()
      .then(
        ({ clientId, accountName }) => {
          sayDone(t('clients.connected-name', { name: accountName }));
          void navigate(`/clients/${clientId}`, { replace: true }); // what opens a door does not stay in the address
        },
        () => undefined, // said below
      );
  }, [finish, navigate, params]);
  return (
    <>
      <PageHead title={t('clients.connecting')} />
      {error === undefined ? (
        <Loading what={t('clients.connecting')} rows={2} />
      ) : (
        <EmptyState
          title={t('clients.could-not-be-connected')}
          action={
            <Link className="font-semibold underline" to="/clients">
              {t('clients.back-to-the-clients')}
            </Link>
          }
        >
          {problemText(error)}
        </EmptyState>
      )}
    </>
  );
}
