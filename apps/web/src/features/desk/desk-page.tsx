import { formatLength, formatMinute } from '@sift-reel/core';
import { type ReactNode } from 'react';
import { Link } from 'react-router';
import { api } from '../../app/api.js';
import { isAtWork, stageName } from '../../app/stages.js';
import { problemText } from '../../app/problems.js';
import { sayTrouble } from '../../app/undo.js';
import { EmptyState, Loading, PageHead, ProgressBar, Trouble } from '../../ui/parts.js';
import { WAIT_NAMES } from '../../ui/post-states.js';
import { SHAPE_NAMES } from '../../ui/shapes.js';
import { t } from '../../texts/texts.js';
import { formatDate, formatDay } from '../../texts/formats.js';

/** What waits for the producer, in the order of the work. */
export function DeskPage(): ReactNode {
  const recordings = api.useListRecordingsQuery(undefined);
  const shorts = api.useListShortsQuery({});
  const schedule = api.useReadScheduleQuery();
  const clients = api.useListClientsQuery();
  // Beside the work, not in its way: where it cannot be read, the desk is laid without.
  const fresh = api.useListNewEpisodesQuery().data ?? [];
  const going = api.useListGoingFilesQuery().data ?? [];
  const posting = api.useReadPostingQuery().data;
  const [keep] = api.useKeepFileLongerMutation();
  const error = recordings.error ?? shorts.error ?? schedule.error ?? clients.error;
  if (error !== undefined) return <Trouble title={t('desk.the-desk-cannot-be-laid')} detail={problemText(error)} onRetry={() => void recordings.refetch()} />;
  if (recordings.data === undefined || shorts.data === undefined || schedule.data === undefined || clients.data === undefined)
    return (
      <>
        <PageHead title={t('common.desk')} />
        <Loading what={t('desk.the-desk')} />
      </>
    );
  const nameOf = new Map(clients.data.map((client) => [client.id, client.name]));
  const list = recordings.data;
  const working = list.filter((one) => isAtWork(one.latestSift));
  const toBrief = list.filter((one) => one.transcript !== null && one.latestSift === null);
  const fetching = list.filter((one) => isAtWork(one.fetch));
  const unfetched = list.filter((one) => one.fetch?.state === 'failed');
  const waiting = list.filter((one) => one.transcript === null && !isAtWork(one.fetch) && one.fetch?.state !== 'failed');
  const toRead = list.filter((one) => one.latestSift?.state === 'done' && one.latestSift.keptCount === 0);
  const failed = list.filter((one) => one.latestSift?.state === 'failed');
  const drafts = shorts.data.filter((short) => !short.approved);
  const unplaced = shorts.data.filter((short) => short.approved && short.postCount === 0);
  const now = Date.parse(schedule.data.now);
  const next = schedule.data.posts.filter((post) => post.state === 'planned' && Date.parse(post.at) >= now).slice(0, 6);
  const titleOf = new Map(schedule.data.shorts.map((short) => [short.id, short.title]));
  const lost = schedule.data.posts.filter((post) => post.state === 'refused' || post.state === 'missed');
  const held = schedule.data.posts.filter((post) => post.state === 'waiting');
  const rightsGone = (posting?.accounts ?? []).filter((account) => account.state !== 'connected');
  const waitFor = (accountId: string): number => {
    const channels = new Set((posting?.channels ?? []).filter((one) => one.accountId === accountId).map((one) => one.channelId));
    return held.filter((post) => post.waits === 'right' && channels.has(post.channelId)).length;
  };
  const channelOf = new Map(schedule.data.channels.map((channel) => [channel.id, channel.name]));
  return (
    <div className="flex h-full flex-col">
      <PageHead title={t('common.desk')} aside={t('desk.what-waits-for-you-in-the')} />
      <div className="grid min-h-0 flex-1 auto-rows-min grid-cols-[minmax(0,1fr)] md:grid-cols-2 gap-x-10 gap-y-6 overflow-y-auto px-[18px] py-5 xl:grid-cols-3">
        {list.length === 0 && (
          <EmptyState
            title={t('desk.nothing-on-the-table-yet')}
            action={
              <Link className="font-semibold underline" to="/recordings">
                {t('common.bring-in-recordings')}
              </Link>
            }
          >
            {t('desk.bring-in-a-recording-with-its')}
          </EmptyState>
        )}
        {rightsGone.length > 0 && (
          <Section title={t('desk.rights-to-post-gone')} count={rightsGone.length}>
            {rightsGone.map((account) => (
              <Row
                key={account.id}
                to={`/clients/${account.clientId}`}
                title={account.name}
                aside={t('desk.posts-wait-for-it', { client: nameOf.get(account.clientId) ?? '', count: waitFor(account.id) })}
              />
            ))}
          </Section>
        )}
        {lost.length > 0 && (
          <Section title={t('desk.posts-refused-or-missed')} count={lost.length}>
            {lost.slice(0, 8).map((post) => (
              <Row
                key={post.id}
                to={`/schedule?week=${post.date}&post=${post.id}`}
                title={titleOf.get(post.shortId) ?? ''}
                aside={`${channelOf.get(post.channelId) ?? ''} · ${post.failure ?? ''}`}
              />
            ))}
          </Section>
        )}
        {held.length > 0 && (
          <Section title={t('desk.posts-that-wait')} count={held.length}>
            {held.slice(0, 8).map((post) => (
              <Row
                key={post.id}
                to={`/schedule?week=${post.date}&post=${post.id}`}
                title={titleOf.get(post.shortId) ?? ''}
                aside={`${channelOf.get(post.channelId) ?? ''} · ${WAIT_NAMES[post.waits ?? 'file']}`}
              />
            ))}
          </Section>
        )}
        {working.length > 0 && (
          <Section title={t('desk.working')} count={working.length}>
            {working.map((one) => (
              <Row key={one.id} to={`/recordings/${one.id}`} title={one.title} aside={nameOf.get(one.clientId)}>
                <div className="mt-1 flex items-center gap-2">
                  <ProgressBar fraction={one.latestSift?.fraction ?? 0} label={t('common.sifting', { title: one.title })} />
                  <span className="text-[11px] whitespace-nowrap text-soft">{stageName(one.latestSift?.stage ?? 'waiting')}</span>
                </div>
              </Row>
            ))}
          </Section>
        )}
        {fetching.length > 0 && (
          <Section title={t('desk.being-fetched')} count={fetching.length}>
            {fetching.map((one) => (
              <Row key={one.id} to="/recordings" title={one.title} aside={nameOf.get(one.clientId)}>
                <div className="mt-1 flex items-center gap-2">
                  <ProgressBar fraction={one.fetch?.fraction ?? 0} label={t('recordings.fetching-title', { title: one.title })} />
                  <span className="text-[11px] text-soft">
                    {one.fetch?.state === 'waiting' ? (one.fetch.failure ?? stageName('waiting')) : stageName(one.fetch?.stage ?? 'waiting')}
                  </span>
                </div>
              </Row>
            ))}
          </Section>
        )}
        {fresh.length > 0 && (
          <Section title={t('recordings.new-in-the-feeds')} count={fresh.length}>
            {fresh.slice(0, 6).map((one) => (
              <Row key={one.id} to={`/recordings?client=${one.clientId}`} title={one.title} aside={`${nameOf.get(one.clientId) ?? ''} · ${one.feedTitle}`} />
            ))}
          </Section>
        )}
        {unfetched.length > 0 && (
          <Section title={t('desk.could-not-be-fetched')} count={unfetched.length}>
            {unfetched.map((one) => (
              <Row key={one.id} to="/recordings" title={one.title} aside={t('desk.see-why')} />
            ))}
          </Section>
        )}
        {going.length > 0 && (
          <Section title={t('desk.files-that-go-soon')} count={going.length}>
            {going.slice(0, 8).map((one) => (
              <Row
                key={one.id}
                to={`/shorts/${one.shortId}`}
                title={one.title}
                aside={t('desk.goes-on', {
                  client: nameOf.get(one.clientId) ?? '',
                  shape: one.shape === 'sound' ? t('shorts.sound-alone') : SHAPE_NAMES[one.shape],
                  day: formatDate(one.goesAt),
                })}
                deed={
                  <button
                    type="button"
                    className="flex-none px-2 underline"
                    aria-label={t('desk.keep-the-file-of', { title: one.title })}
                    onClick={() => void keep(one.id).unwrap().catch(sayTrouble)}
                  >
                    {t('desk.keep-longer')}
                  </button>
                }
              />
            ))}
          </Section>
        )}
        {failed.length > 0 && (
          <Section title={t('desk.failed')} count={failed.length}>
            {failed.map((one) => (
              <Row key={one.id} to={`/recordings/${one.id}`} title={one.title} aside={t('desk.see-why')} />
            ))}
          </Section>
        )}
        {waiting.length > 0 && (
          <Section title={t('desk.waiting-for-a-transcript')} count={waiting.length}>
            {waiting.map((one) => (
              <Row key={one.id} to="/recordings" title={one.title} aside={nameOf.get(one.clientId)} />
            ))}
          </Section>
        )}
        <Section title={t('desk.to-brief')} count={toBrief.length} empty={t('desk.no-recording-waits-for-a-brief')}>
          {toBrief.map((one) => (
            <Row
              key={one.id}
              to={`/recordings/${one.id}`}
              title={one.title}
              aside={`${nameOf.get(one.clientId) ?? ''} · ${formatLength(one.durationMs ?? 0)}`}
            />
          ))}
        </Section>
        <Section title={t('desk.rankings-to-read')} count={toRead.length} empty={t('desk.no-ranking-waits-for-its-first')}>
          {toRead.map((one) => (
            <Row
              key={one.id}
              to={`/recordings/${one.id}`}
              title={one.title}
              aside={t('desk.strong-of', {
                client: nameOf.get(one.clientId) ?? '',
                strongCount: one.latestSift?.strongCount ?? 0,
                candidateCount: one.latestSift?.candidateCount ?? 0,
              })}
            />
          ))}
        </Section>
        <Section title={t('desk.shorts-to-word-and-approve')} count={drafts.length} empty={t('desk.no-short-waits-for-its-words')}>
          {drafts.slice(0, 8).map((short) => (
            <Row
              key={short.id}
              to={`/shorts/${short.id}`}
              title={short.copy.title || short.firstLine}
              aside={`${nameOf.get(short.clientId) ?? ''} · ${formatLength(short.playedMs)}`}
            />
          ))}
        </Section>
        <Section
          title={t('desk.approved-not-yet-placed')}
          count={unplaced.length}
          empty={t('desk.no-approved-short-waits-for-a')}
          more={
            unplaced.length > 0 ? (
              <Link className="font-semibold underline" to="/schedule">
                {t('desk.lay-out-shorts', { count: unplaced.length })}
              </Link>
            ) : null
          }
        >
          {unplaced.slice(0, 8).map((short) => (
            <Row key={short.id} to={`/shorts/${short.id}`} title={short.copy.title} aside={nameOf.get(short.clientId)} />
          ))}
        </Section>
        <Section title={t('desk.going-out-next')} count={next.length} empty={t('desk.nothing-is-planned-from-now-on')}>
          {next.map((post) => (
            <Row
              key={post.id}
              to="/schedule"
              title={titleOf.get(post.shortId) ?? ''}
              aside={
                <>
                  {channelOf.get(post.channelId)} ·{' '}
                  <span className="time">
                    {formatDay(post.date)} {formatMinute(post.minute)}
                  </span>
                </>
              }
            />
          ))}
        </Section>
      </div>
    </div>
  );
}

function Section({ title, count, children, empty, more }: { title: string; count: number; children: ReactNode; empty?: string; more?: ReactNode }): ReactNode {
  return (
    <section className="min-w-0">
      <h2 className="flex items-baseline justify-between border-b border-ink pb-1">
        {title}
        <span className="time text-soft">{count}</span>
      </h2>
      {count === 0 ? <p className="py-2 text-soft">{empty}</p> : <ul>{children}</ul>}
      {more !== undefined && more !== null && <p className="py-2">{more}</p>}
    </section>
  );
}

function Row({ to, title, aside, children, deed }: { to: string; title: string; aside?: ReactNode; children?: ReactNode; deed?: ReactNode }): ReactNode {
  return (
    <li className="flex items-center border-b border-rule">
      <Link to={to} className="block min-w-0 flex-1 px-1 py-[7px] hover:bg-sheet">
        <span className="block truncate font-semibold">{title}</span>
        <span className="block truncate text-[12px] text-soft">{aside}</span>
        {children}
      </Link>
      {deed}
    </li>
  );
}
