import { formatMinute } from '@sift-reel/core';
import { BriefForm } from '@sift-reel/forms';
import { Trash2 } from 'lucide-react';
import { type ReactNode, useEffect, useRef, useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { api, type ChannelView, type ClientView } from '../../app/api.js';
import { problemText } from '../../app/problems.js';
import { didSomething, sayTrouble } from '../../app/undo.js';
import { ConfirmDialog } from '../../ui/dialog.js';
import { Button, EmptyState, Loading, PageHead, Trouble } from '../../ui/parts.js';
import { differences, StaleChoice, staleCurrent } from '../../ui/stale.js';
import { BriefFields, useBriefForm } from '../sifting/brief-form.js';
import { BlackoutForm } from './blackout-form.js';
import { Calendars } from './calendars.js';
import { ChannelDialog } from './channel-dialog.js';
import { ClientDialog } from './client-dialog.js';
import { ComeAgain } from './come-again.js';
import { Feeds } from './feeds.js';
import { FilesKept } from './files-kept.js';
import { ChannelPosting, ClientPosting } from './posting.js';
import { Interest } from './interest.js';
import { VoiceSummary } from './voice-summary.js';
import { t } from '../../texts/texts.js';
import { formatDay, weekdayName } from '../../texts/formats.js';
import { TrailRow } from '../../ui/trail.js';

/** One client: its channels with their windows, days without posts, standing brief, and who did what. */
export function ClientPage(): ReactNode {
  const { clientId = '' } = useParams();
  const clients = api.useListClientsQuery();
  const channels = api.useListChannelsQuery();
  const [editing, setEditing] = useState(false);
  const [channel, setChannel] = useState<ChannelView | 'new' | null>(null);
  const error = clients.error ?? channels.error;
  if (error !== undefined) return <Trouble title={t('clients.the-client-cannot-be-shown')} detail={problemText(error)} />;
  if (clients.data === undefined || channels.data === undefined) return <Loading what={t('clients.the-client')} />;
  const client = clients.data.find((one) => one.id === clientId);
  if (client === undefined)
    return (
      <EmptyState
        title={t('clients.there-is-no-such-client')}
        action={
          <Link className="font-semibold underline" to="/clients">
            {t('common.all-clients')}
          </Link>
        }
      >
        {t('clients.it-may-be-one-that-is')}
      </EmptyState>
    );
  const own = channels.data.filter((one) => one.clientId === clientId);
  return (
    <div className="flex h-full flex-col">
      <PageHead title={client.name} aside={client.zone}>
        <ArchiveButton client={client} />
        <Button onClick={() => setEditing(true)}>{t('clients.change-name-zone-tags')}</Button>
        <Button tone="fill" onClick={() => setChannel('new')}>
          {t('clients.add-a-channel')}
        </Button>
      </PageHead>
      <div className="grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)] content-start gap-8 md:grid-cols-[1.35fr_1fr] overflow-y-auto px-[18px] py-5">
        <div className="flex min-w-0 flex-col gap-7">
          <section>
            <h2 className="border-b border-ink pb-1">{t('clients.channels')}</h2>
            {own.length === 0 && <p className="py-2 text-soft">{t('clients.no-channels-yet-a-channel-has')}</p>}
            {own.map((one) => (
              <ChannelRow key={one.id} channel={one} onEdit={() => setChannel(one)} />
            ))}
          </section>
          <Feeds client={client} />
          <Blackouts client={client} channels={own} />
          <Interest key={client.id} clientId={client.id} />
          <Trail clientId={client.id} />
        </div>
        <div className="flex min-w-0 flex-col gap-5">
          <StandingBrief key={client.id} client={client} />
          <VoiceSummary key={`voice of ${client.id}`} client={client} />
          <ClientPosting client={client} />
          <FilesKept client={client} />
          <ComeAgain client={client} />
          <Calendars clientId={client.id} />
        </div>
      </div>
      {editing && <ClientDialog client={client} onClose={() => setEditing(false)} onSaved={() => setEditing(false)} />}
      {channel !== null && (
        <ChannelDialog
          clientId={client.id}
          zone={client.zone}
          channel={channel === 'new' ? null : channel}
          nextOrder={own.length + 1}
          onClose={() => setChannel(null)}
        />
      )}
    </div>
  );
}

/** Takes the client out of everybody's sight. Nothing is deleted; the owner brings it back from the list of clients. */
function ArchiveButton({ client }: { client: ClientView }): ReactNode {
  const owner = api.useReadSessionQuery().data?.role === 'owner';
  const [archive, { isLoading }] = api.useArchiveClientMutation();
  const [restore] = api.useRestoreClientMutation();
  const [asking, setAsking] = useState(false);
  const navigate = useNavigate();
  if (!owner) return null;
  return (
    <>
      <Button tone="quiet" onClick={() => setAsking(true)}>
        {t('clients.archive')}
      </Button>
      {asking && (
        <ConfirmDialog
          title={t('clients.archive-name', { name: client.name })}
          deed={t('clients.archive-the-client')}
          keep={t('clients.keep-working-for-it')}
          busy={isLoading}
          onClose={() => setAsking(false)}
          onConfirm={() => {
            archive(client.id)
              .unwrap()
              .then(
                () => {
                  didSomething(
                    t('clients.archived', { name: client.name }),
                    () => restore(client.id).unwrap(),
                    () => archive(client.id).unwrap(),
                  );
                  void navigate('/clients');
                },
                (error: unknown) => {
                  setAsking(false);
                  sayTrouble(error);
                },
              );
          }}
        >
          {t('clients.its-recordings-shorts-channels-and-posts')}
        </ConfirmDialog>
      )}
    </>
  );
}

function ChannelRow({ channel, onEdit }: { channel: ChannelView; onEdit: () => void }): ReactNode {
  const [remove, { isLoading }] = api.useRemoveChannelMutation();
  const [removing, setRemoving] = useState(false);
  const byDay = [1, 2, 3, 4, 5, 6, 7].map((day) => channel.windows.filter((window) => window.weekday === day));
  return (
    <div className="border-b border-rule py-3">
      <div className="flex items-baseline gap-3">
        <b className="text-[14px]">
          {channel.order}. {channel.name}
        </b>
        <span className="text-soft">
          {t('clients.a-week-a-day', { name: channel.platform.name, zone: channel.zone, postsPerWeek: channel.postsPerWeek, postsPerDay: channel.postsPerDay })}
        </span>
        <span className="ml-auto flex items-center gap-2">
          <button type="button" className="underline" onClick={onEdit}>
            {t('common.change')}
          </button>
          <button
            type="button"
            aria-label={t('clients.delete', { name: channel.name })}
            className="p-[5px] text-soft hover:text-madder-text"
            onClick={() => setRemoving(true)}
          >
            <Trash2 size={14} />
          </button>
        </span>
      </div>
      <div className="mt-2 grid grid-cols-7 gap-[3px]">
        {byDay.map((windows, i) => (
          <div key={i} className="min-h-[40px] border border-rule bg-sheet px-1 py-[2px]">
            <div className="text-[10.5px] text-soft">{weekdayName(i + 1).slice(0, 3)}</div>
            {windows.map((window) => (
              <div key={window.minute} className="time" title={t('clients.weight-weight', { weight: window.weight })}>
                {formatMinute(window.minute)}
              </div>
            ))}
          </div>
        ))}
      </div>
      <ChannelPosting channel={channel} />
      {removing && (
        <ConfirmDialog
          title={t('clients.delete-name', { name: channel.name })}
          deed={t('clients.delete-the-channel')}
          keep={t('common.keep-it')}
          busy={isLoading}
          onClose={() => setRemoving(false)}
          onConfirm={() =>
            void remove(channel.id)
              .unwrap()
              .catch(sayTrouble)
              .then(() => setRemoving(false))
          }
        >
          {t('clients.its-posting-windows-and-the-words')}
        </ConfirmDialog>
      )}
    </div>
  );
}

function Blackouts({ client, channels }: { client: ClientView; channels: readonly ChannelView[] }): ReactNode {
  const { data = [] } = api.useListBlackoutsQuery();
  const [remove] = api.useRemoveBlackoutMutation();
  const [create] = api.useCreateBlackoutMutation();
  const own = data.filter((one) => one.clientId === client.id);
  return (
    <section>
      <h2 className="border-b border-ink pb-1">{t('clients.days-without-posts')}</h2>
      {own.map((one) => (
        <div key={one.id} className="flex items-center gap-3 border-b border-rule py-[6px]">
          <span className="time">
            {formatDay(one.fromDate)}
            {one.toDate === one.fromDate ? '' : ` – ${formatDay(one.toDate)}`} {one.toDate.slice(0, 4)}
          </span>
          <span>{one.reason}</span>
          <span className="text-soft">{channels.find((channel) => channel.id === one.channelId)?.name ?? t('clients.all-channels')}</span>
          <button
            type="button"
            aria-label={t('clients.delete-reason', { reason: one.reason })}
            className="ml-auto p-[5px] text-soft hover:text-madder-text"
            onClick={() => {
              const { channelId, fromDate, toDate, reason } = one;
              remove(one.id)
                .unwrap()
                .then(
                  () =>
                    didSomething(t('clients.deleted', { reason }), () =>
                      create({ clientId: client.id, blackoutForm: { channelId, fromDate, toDate, reason } }).unwrap(),
                    ),
                  sayTrouble,
                );
            }}
          >
            <Trash2 size={14} />
          </button>
        </div>
      ))}
      <BlackoutForm clientId={client.id} channels={channels} />
    </section>
  );
}

const BRIEF_NAMES = {
  partStartMs: t('clients.part-from-ms'),
  partEndMs: t('clients.part-to-ms'),
  minMs: t('clients.shortest-ms'),
  maxMs: t('clients.longest-ms'),
  roughCount: t('common.about-how-many'),
  topics: t('common.about'),
  kinds: t('clients.kinds'),
  avoid: t('common.never-with'),
} as const;

function StandingBrief({ client }: { client: ClientView }): ReactNode {
  const [update, { isLoading, error, reset: forget }] = api.useUpdateClientMutation();
  const seen = useRef(client.version);
  const { control, setValue, handleSubmit, formState, reset, getValues } = useBriefForm(client.standingBrief as BriefForm);
  useEffect(() => {
    // What others saved shows here, unless somebody is typing: then their save is refused as stale, and both are offered.
    if (formState.isDirty) return;
    seen.current = client.version;
    reset(client.standingBrief);
  }, [client.version, client.standingBrief, formState.isDirty, reset]);
  const write = async (standingBrief: BriefForm): Promise<void> => {
    const { name, zone, tags } = client;
    const saved = await update({ clientId: client.id, clientChangeForm: { name, zone, tags, standingBrief, version: seen.current } }).unwrap();
    seen.current = saved.version;
  };
  const theirs = staleCurrent<ClientView>(error);
  const submit = handleSubmit(async (form) => {
    const before = client.standingBrief;
    const put = async (brief: BriefForm): Promise<void> => {
      await write(brief);
      reset(brief);
    };
    await put(form);
    didSomething(
      t('clients.saved-the-standing-brief'),
      () => put(before),
      () => put(form),
    );
  });
  return (
    <section className="h-min border border-rule bg-sheet p-4">
      <h2 className="mb-1">{t('clients.standing-brief')}</h2>
      <p className="mb-3 text-[12px] text-soft">{t('clients.filled-in-for-every-new-recording')}</p>
      <form
        onSubmit={(event) => {
          submit(event).catch(() => undefined);
        }}
        noValidate
      >
        <BriefFields control={control} setValue={setValue} errors={formState.errors} />
        {error !== undefined && theirs === null && (
          <p role="alert" className="mt-3 text-madder-text">
            {problemText(error)}
          </p>
        )}
        {theirs !== null && (
          <StaleChoice
            what={t('common.this-client')}
            changed={differences(theirs.standingBrief, getValues(), BRIEF_NAMES)}
            onTake={() => {
              seen.current = theirs.version;
              reset(theirs.standingBrief);
              forget();
            }}
            onKeep={() => {
              seen.current = theirs.version;
              submit().catch(() => undefined);
            }}
          />
        )}
        <div className="mt-4 flex justify-end gap-2">
          <Button disabled={!formState.isDirty} onClick={() => reset(client.standingBrief)}>
            {t('clients.back-to-what-was-saved')}
          </Button>
          <Button tone="fill" type="submit" disabled={!formState.isDirty || isLoading}>
            {t('clients.save-the-standing-brief')}
          </Button>
        </div>
      </form>
    </section>
  );
}

function Trail({ clientId }: { clientId: string }): ReactNode {
  const { data = [] } = api.useListAuditQuery(clientId, { refetchOnMountOrArgChange: true });
  return (
    <section>
      <h2 className="border-b border-ink pb-1">{t('clients.who-did-what')}</h2>
      {data.length === 0 && <p className="py-2 text-soft">{t('clients.nothing-has-been-done-for-this')}</p>}
      <ul className="max-h-[260px] overflow-y-auto" tabIndex={0} aria-label={t('clients.trail')}>
        {data.map((entry) => (
          <TrailRow key={entry.id} entry={entry} />
        ))}
      </ul>
    </section>
  );
}
