import { formatLength, formatTimecode } from '@sift-reel/core';
import clsx from 'clsx';
import { type ReactNode, useEffect, useRef, useState } from 'react';
import { Link, useNavigate, useParams, useSearchParams } from 'react-router';
import { api, type ShortView } from '../../app/api.js';
import { holdKeys } from '../../app/held-keys.js';
import { useKeys } from '../../app/keys.js';
import { problemText } from '../../app/problems.js';
import { Button, EmptyState, Loading, PageHead, Trouble } from '../../ui/parts.js';
import { useLongList } from '../../ui/long-list.js';
import { Select } from '../../ui/select.js';
import { BatchDialog } from './batch-dialog.js';
import { ShortEditor } from './short-editor.js';
import { FilesMenu } from './files-menu.js';
import { t } from '../../texts/texts.js';

type Shown = 'all' | 'drafts' | 'approved';

/** Every short of the user's clients: on the left the list, on the right its words. */
export function ShortsPage(): ReactNode {
  const { shortId } = useParams();
  const navigate = useNavigate();
  const [params, setParams] = useSearchParams();
  const [ticked, setTicked] = useState<ReadonlySet<string>>(new Set());
  const [batching, setBatching] = useState(false);
  const shorts = api.useListShortsQuery({});
  const clients = api.useListClientsQuery();
  const clientId = params.get('client') ?? '';
  const show = (params.get('show') ?? 'all') as Shown;
  const list = (shorts.data ?? []).filter(
    (short) => (clientId === '' || short.clientId === clientId) && (show === 'all' || short.approved === (show === 'approved')),
  );
  const chosen = list.find((short) => short.id === shortId) ?? list[0];
  const listing = useRef<HTMLUListElement>(null);
  const drawn = useLongList(
    list.length,
    listing,
    listing,
    66,
    list.findIndex((short) => short.id === shortId),
  );
  const go = (by: number): void => {
    const next = list[list.findIndex((short) => short.id === chosen?.id) + by];
    if (next === undefined) return;
    shown.current();
    shown.current = holdKeys();
    void navigate({ pathname: `/shorts/${next.id}`, search: params.toString() });
  };
  // Keys that are pressed before the next short is there are for it.
  const shown = useRef<() => void>(() => undefined);
  useEffect(() => () => shown.current(), [shortId, chosen?.id]);
  const batchable = list.filter((short) => ticked.has(short.id) && short.approved);
  useKeys([
    { key: 'ArrowDown', label: t('shorts.next-short'), group: t('common.shorts'), run: () => go(1) },
    { key: 'ArrowUp', label: t('shorts.short-above'), group: t('common.shorts'), run: () => go(-1) },
    { key: 't', label: t('shorts.tick-for-a-batch'), group: t('common.shorts'), run: () => chosen?.approved === true && toggle(chosen.id) },
    {
      key: 'b',
      label: t('shorts.batch-the-ticked-shorts'),
      group: t('common.shorts'),
      run: () => {
        if (batchable.length > 0) setBatching(true);
      },
    },
  ]);
  const toggle = (id: string): void =>
    setTicked((old) => {
      const next = new Set(old);
      if (!next.delete(id)) next.add(id);
      return next;
    });
  const error = shorts.error ?? clients.error;
  if (error !== undefined) return <Trouble title={t('shorts.the-shorts-cannot-be-shown')} detail={problemText(error)} onRetry={() => void shorts.refetch()} />;
  if (shorts.data === undefined || clients.data === undefined)
    return (
      <>
        <PageHead title={t('common.shorts')} />
        <Loading what={t('shorts.shorts-inline')} />
      </>
    );
  const nameOf = new Map(clients.data.map((client) => [client.id, client.name]));
  const change = (name: string, value: string, none: string): void =>
    setParams((old) => {
      if (value === none) old.delete(name);
      else old.set(name, value);
      return old;
    });
  return (
    <div className="flex h-full flex-col">
      <PageHead title={t('common.shorts')} aside={t('shorts.shown-approved', { count: list.length, approved: list.filter((short) => short.approved).length })}>
        <Select
          label={t('common.client')}
          value={clientId}
          onChange={(id) => change('client', id, '')}
          options={[{ value: '', name: t('common.all-clients') }, ...clients.data.map((client) => ({ value: client.id, name: client.name }))]}
        />
        <Select
          label={t('shorts.show')}
          value={show}
          onChange={(value) => change('show', value, 'all')}
          options={[
            { value: 'all' as Shown, name: t('shorts.drafts-and-approved') },
            { value: 'drafts', name: t('shorts.drafts') },
            { value: 'approved', name: t('shorts.approved') },
          ]}
        />
        <FilesMenu shorts={batchable} />
        <Button
          tone="fill"
          keyName="b"
          disabled={batchable.length === 0}
          title={batchable.length === 0 ? t('shorts.tick-approved-shorts-first') : undefined}
          onClick={() => setBatching(true)}
        >
          {t('shorts.batch-shorts', { count: batchable.length })}
        </Button>
      </PageHead>
      {shorts.data.length === 0 ? (
        <EmptyState
          title={t('shorts.no-shorts-yet')}
          action={
            <Link className="font-semibold underline" to="/recordings">
              {t('shorts.go-to-the-recordings')}
            </Link>
          }
        >
          {t('shorts.keep-a-candidate-on-a-recordings')}
        </EmptyState>
      ) : (
        <div className="grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)] md:grid-cols-[400px_1fr]">
          <ul
            ref={listing}
            className={clsx('min-h-0 overflow-y-auto border-r border-rule', shortId !== undefined && 'max-md:hidden')}
            aria-label={t('common.shorts')}
          >
            {drawn.beforePx > 0 && <li role="presentation" style={{ height: drawn.beforePx }} />}
            {drawn.rows
              .map((i) => [i, list[i]!] as const)
              .map(([i, short]) => (
                <li key={short.id} ref={drawn.measure} data-index={i}>
                  {(i === 0 || list[i - 1]!.recordingId !== short.recordingId) && (
                    <div className="truncate bg-band px-[18px] py-1 text-[12px] font-bold" title={short.recordingTitle}>
                      {nameOf.get(short.clientId)} · {short.recordingTitle}
                    </div>
                  )}
                  <Row
                    short={short}
                    chosen={short.id === chosen?.id}
                    ticked={ticked.has(short.id)}
                    onTick={() => toggle(short.id)}
                    search={params.toString()}
                  />
                </li>
              ))}
            {drawn.afterPx > 0 && <li role="presentation" style={{ height: drawn.afterPx }} />}
            {list.length === 0 && <li className="px-[18px] py-6 text-soft">{t('shorts.no-short-fits-these-filters')}</li>}
          </ul>
          {chosen === undefined ? (
            <div />
          ) : (
            <div className={clsx('flex min-h-0 flex-col', shortId === undefined && 'max-md:hidden')}>
              <Link to={{ pathname: '/shorts', search: params.toString() }} className="px-6 pt-3 font-semibold underline md:hidden">
                {t('shorts.all-shorts')}
              </Link>
              <ShortEditor key={chosen.id} short={chosen} clientName={nameOf.get(chosen.clientId) ?? ''} onNext={() => go(1)} />
            </div>
          )}
        </div>
      )}
      {batching && (
        <BatchDialog
          shorts={batchable}
          onClose={() => setBatching(false)}
          onDone={() => {
            setBatching(false);
            setTicked(new Set());
          }}
        />
      )}
    </div>
  );
}

function Row({ short, chosen, ticked, onTick, search }: { short: ShortView; chosen: boolean; ticked: boolean; onTick: () => void; search: string }): ReactNode {
  const over = short.channels.filter((channel) => channel.problems.length > 0 || channel.unfit !== null).length;
  return (
    <div
      className={clsx(
        'grid grid-cols-[26px_1fr_auto] items-center gap-3 border-b border-rule py-2 pr-[14px]',
        chosen ? 'border-l-4 border-l-madder bg-sheet pl-[12px]' : 'pl-[16px] hover:bg-sheet',
      )}
    >
      <input
        type="checkbox"
        className="accent-ink"
        aria-label={t('shorts.tick-title-for-a-batch', { title: short.copy.title })}
        disabled={!short.approved}
        title={short.approved ? t('shorts.tick-for-a-batch') : t('shorts.approve-it-first')}
        checked={ticked && short.approved}
        onChange={onTick}
      />
      <Link to={{ pathname: `/shorts/${short.id}`, search }} className="min-w-0">
        <span className="line-clamp-2 leading-[1.3] font-semibold">{short.copy.title || short.firstLine}</span>
        <span className="text-[12px] text-soft">
          <span className="time">
            {formatTimecode(short.startMs)} · {formatLength(short.playedMs)} · {Math.round(short.score)}
          </span>
          {over > 0 && <span className="text-madder-text">{` · ${t('shorts.channels-will-not-take-it', { count: over })}`}</span>}
        </span>
      </Link>
      <span className={clsx('text-[11px]', short.approved ? 'text-verdigris-text' : 'text-soft')}>
        {short.postCount > 0 ? t('shorts.on-the-schedule') : short.approved ? t('shorts.approved-inline') : t('shorts.draft')}
      </span>
    </div>
  );
}
