import { type ReactNode, useState } from 'react';
import { api, type AccountView, type ChannelView, type ClientView } from '../../app/api.js';
import { ownVersion } from '../../app/own-versions.js';
import { didSomething, doNow, sayTrouble } from '../../app/undo.js';
import { formatMoment } from '../../texts/formats.js';
import { t } from '../../texts/texts.js';
import { ConfirmDialog } from '../../ui/dialog.js';
import { Button } from '../../ui/parts.js';
import { Select } from '../../ui/select.js';

const BY_HAND = 'by-hand';

/** What a channel's posts go out with, and its switch. */
export function ChannelPosting({ channel }: { channel: ChannelView }): ReactNode {
  const { data: posting } = api.useReadPostingQuery();
  const [begin, { isLoading }] = api.useBeginConnectingMutation();
  const [choose] = api.useChooseAccountMutation();
  const service = posting?.services.find((one) => one.name === channel.platform.service);
  if (posting === undefined || service === undefined) return null;
  const accountId = posting.channels.find((one) => one.channelId === channel.id)?.accountId ?? null;
  const account = posting.accounts.find((one) => one.id === accountId) ?? null;
  const others = posting.accounts.filter((one) => one.clientId === channel.clientId && one.service === service.name);
  const connect = (): void => {
    begin(channel.id)
      .unwrap()
      .then(({ address }) => window.location.assign(address), sayTrouble);
  };
  const put = (id: string | null): Promise<unknown> => choose({ channelId: channel.id, channelAccountForm: { accountId: id } }).unwrap();
  return (
    <div className="mt-2 flex flex-wrap items-center gap-x-3 gap-y-2 text-[12.5px]" data-testid="channel-posting">
      {account === null && others.length === 0 && <span className="text-soft">{t('clients.posted-by-hand')}</span>}
      {others.length > 0 && (
        <span className="flex items-center gap-2">
          {t('clients.use-another')}
          <Select
            label={t('clients.use-another')}
            value={accountId ?? BY_HAND}
            options={[...others.map(({ id, name }) => ({ value: id, name })), { value: BY_HAND, name: t('clients.post-by-hand') }]}
            onChange={(value) => {
              const wanted = value === BY_HAND ? null : value;
              if (wanted !== accountId) put(wanted).catch(sayTrouble);
            }}
          />
        </span>
      )}
      {account !== null && account.state !== 'connected' && (
        <span className="border-l-4 border-madder pl-2 text-madder-text">
          {t('clients.right-gone', { name: account.name, at: formatMoment(account.stateSince), trouble: account.trouble ?? '' })}
        </span>
      )}
      <span className="ml-auto flex flex-wrap items-center gap-2">
        <Button disabled={isLoading || !posting.isReady} title={posting.isReady ? undefined : t('clients.no-key')} onClick={connect}>
          {account === null ? t('clients.connect-an-account') : account.state === 'connected' ? t('clients.connect-another') : t('clients.connect-again')}
        </Button>
        {account !== null && <StopSwitch clientId={channel.clientId} channelId={channel.id} name={channel.name} />}
      </span>
    </div>
  );
}

/** Stops posting on one channel, or for a client, at once; and lets it go on. */
function StopSwitch({ clientId, channelId, name }: { clientId: string; channelId: string | null; name: string }): ReactNode {
  const stops = api.useReadPostingQuery().data?.stops ?? [];
  const [put, { isLoading }] = api.useSetStopMutation();
  const isStopped = stops.some((stop) => stop.clientId === clientId && stop.channelId === channelId);
  const write = (stopped: boolean): Promise<unknown> => put({ clientId, channelId, stopped }).unwrap();
  const deed = isStopped ? t('clients.let-go-on-on', { name }) : t('clients.stop-on', { name });
  return (
    <Button
      tone={isStopped ? 'fill' : 'plain'}
      disabled={isLoading}
      aria-label={deed}
      onClick={() => {
        write(!isStopped).then(
          () =>
            didSomething(
              deed,
              () => write(isStopped),
              () => write(!isStopped),
            ),
          sayTrouble,
        );
      }}
    >
      {isStopped ? t('clients.let-go-on') : t('clients.stop')}
    </Button>
  );
}

/** So late a post may go out. Those that agencies agree on; common practice. */
const LATENESSES = [15, 30, 60, 120, 360, 1_440];

/** A client's accounts, how late a post may be, and the switch for all its channels. */
export function ClientPosting({ client }: { client: ClientView }): ReactNode {
  const { data: posting } = api.useReadPostingQuery();
  const [setLateness] = api.useSetLatenessMutation();
  if (posting === undefined || posting.services.length === 0) return null;
  const accounts = posting.accounts.filter((one) => one.clientId === client.id);
  const stop = posting.stops.find((one) => one.clientId === client.id && one.channelId === null);
  const choices = [...new Set([...LATENESSES, client.lateMinutes])].sort((a, b) => a - b);
  const nameOf = (minutes: number): string => t('clients.minutes-or-hours', { hours: minutes % 60 === 0 ? minutes / 60 : 0, minutes });
  return (
    <section className="border border-rule bg-sheet p-4" aria-label={t('clients.posting')}>
      <div className="mb-2 flex items-baseline gap-3">
        <h2>{t('clients.posting')}</h2>
        <span className="ml-auto">
          <StopSwitch clientId={client.id} channelId={null} name={client.name} />
        </span>
      </div>
      {stop !== undefined && (
        <p className="mb-2 border-l-4 border-madder pl-2 text-madder-text">
          {t('clients.stopped-since', { at: formatMoment(stop.stoppedAt), who: stop.stoppedBy })}
        </p>
      )}
      {accounts.length === 0 ? (
        <p className="text-soft">{t('clients.no-accounts-yet')}</p>
      ) : (
        <ul aria-label={t('clients.accounts')}>
          {accounts.map((account) => (
            <AccountRow key={account.id} account={account} service={posting.services.find((one) => one.name === account.service)?.title ?? account.service} />
          ))}
        </ul>
      )}
      <Select
        className="mt-3"
        look="field"
        label={t('clients.late-by')}
        hint={t('clients.late-hint')}
        value={String(client.lateMinutes)}
        options={choices.map((minutes) => ({ value: String(minutes), name: nameOf(minutes) }))}
        onChange={(value) => {
          const before = client.lateMinutes;
          let { version } = client;
          const put = async (minutes: number): Promise<void> => {
            version = (await setLateness({ clientId: client.id, latenessForm: { minutes, version: ownVersion(client.id, version) } }).unwrap()).version;
          };
          if (Number(value) !== before)
            doNow(
              t('clients.changed-lateness'),
              () => put(Number(value)),
              () => put(before),
            );
        }}
      />
    </section>
  );
}

function AccountRow({ account, service }: { account: AccountView; service: string }): ReactNode {
  const [disconnect, { isLoading }] = api.useDisconnectAccountMutation();
  const [asking, setAsking] = useState(false);
  return (
    <li className="flex items-baseline gap-3 border-b border-rule py-[6px] last:border-0">
      <span className="min-w-0">
        <b className="block truncate">{account.name}</b>
        <span className={account.state === 'connected' ? 'text-[12px] text-soft' : 'text-[12px] text-madder-text'}>
          {service} ·{' '}
          {account.state === 'connected' ? t('clients.connected-by', { at: formatMoment(account.connectedAt), who: account.connectedBy }) : account.trouble}
        </span>
      </span>
      <button
        type="button"
        className="ml-auto flex-none underline"
        aria-label={t('clients.disconnect-name', { name: account.name })}
        onClick={() => setAsking(true)}
      >
        {t('clients.disconnect')}
      </button>
      {asking && (
        <ConfirmDialog
          title={t('clients.disconnect-name', { name: account.name })}
          deed={t('clients.disconnect')}
          keep={t('clients.keep-it')}
          busy={isLoading}
          onClose={() => setAsking(false)}
          onConfirm={() => {
            disconnect(account.id)
              .unwrap()
              .catch(sayTrouble)
              .finally(() => setAsking(false));
          }}
        >
          {t('clients.its-channels-are-posted-by-hand')}
        </ConfirmDialog>
      )}
    </li>
  );
}
