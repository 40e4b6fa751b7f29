import { characters, COVER_LINE_LIMIT, formatLength, formatTimecode } from '@sift-reel/core';
import clsx from 'clsx';
import { type ReactNode, useEffect, useState } from 'react';
import { Link } from 'react-router';
import { api, type CopyView, type ShortChannelView, type ShortView } from '../../app/api.js';
import { useKeys } from '../../app/keys.js';
import { didSomething, sayTrouble } from '../../app/undo.js';
import { AreaField, ListField, TextField } from '../../ui/fields.js';
import { Button } from '../../ui/parts.js';
import { KIND_NAMES } from '../../ui/signals.js';

const SAVE_AFTER_MS = 700;

/** The words of one short: for all channels, and a channel's own where it needs them. */
export function ShortEditor({ short, clientName }: { short: ShortView; clientName: string }): ReactNode {
  const [channelId, setChannelId] = useState<string | null>(null);
  const [setApproval, approving] = api.useSetApprovalMutation();
  const channel = short.channels.find((one) => one.channelId === channelId) ?? null;
  const approve = (approved: boolean): void => {
    const write = (value: boolean) => setApproval({ shortId: short.id, approvalForm: { approved: value } }).unwrap();
    write(approved).then(() => didSomething(`${approved ? 'Approved' : 'Un-approved'} “${short.copy.title}”`, () => write(!approved)), sayTrouble);
  };
  useKeys([{ key: 'a', label: short.approved ? 'Un-approve the short' : 'Approve the short', group: 'Shorts', run: () => approve(!short.approved) }]);
  return (
    <section aria-label="Words of the short" className="min-h-0 overflow-y-auto">
      <div className="flex items-start gap-6 border-b border-rule px-6 py-4">
        <div className="min-w-0 flex-1">
          <div className="text-[12px] text-soft">
            {clientName} · {KIND_NAMES[short.kind]} ·{' '}
            <span className="time">
              {formatTimecode(short.startMs, 'tenths')} – {formatTimecode(short.endMs, 'tenths')} · {formatLength(short.endMs - short.startMs)}
            </span>
          </div>
          <p className="mt-1 font-serif text-[17px] leading-[1.4]">“{short.firstLine.replace(/[\s.,;:…]+$/, '')}…”</p>
          <p className="mt-1 text-[12px] text-soft">
            {short.reason}{' '}
            <Link className="underline" to={`/recordings/${short.recordingId}/sifts/${short.siftId}`}>
              On the bench
            </Link>
          </p>
        </div>
        <div className="flex flex-none flex-col items-end gap-2">
          <Button tone={short.approved ? 'plain' : 'fill'} keyName="a" disabled={approving.isLoading} onClick={() => approve(!short.approved)}>
            {short.approved ? 'Un-approve' : 'Approve the short'}
          </Button>
          {short.approved && <span className="text-[12px] text-verdigris-text">approved by {short.approvedBy}</span>}
          <span className="flex gap-3 text-[12px]">
            Captions{' '}
            <a className="underline" href={`/api/shorts/${short.id}/captions.srt`} download>
              SRT
            </a>{' '}
            <a className="underline" href={`/api/shorts/${short.id}/captions.vtt`} download>
              WebVTT
            </a>
          </span>
        </div>
      </div>
      <div role="tablist" aria-label="Words for" className="flex flex-wrap gap-1 border-b border-rule px-6 pt-2">
        <Tab name="All channels" on={channelId === null} onClick={() => setChannelId(null)} />
        {short.channels.map((one) => (
          <Tab
            key={one.channelId}
            name={one.name}
            mark={one.unfit !== null || one.problems.length > 0 ? 'trouble' : one.variant !== null ? 'own' : null}
            on={one.channelId === channelId}
            onClick={() => setChannelId(one.channelId)}
          />
        ))}
      </div>
      {channel?.unfit != null && <p className="mx-6 mt-4 border-l-4 border-madder pl-3 text-madder-text">{channel.unfit}</p>}
      <CopyEditor key={`${short.id} ${channelId ?? ''} ${short.approved}`} short={short} channel={channel} />
    </section>
  );
}

function Tab({ name, on, onClick, mark = null }: { name: string; on: boolean; onClick: () => void; mark?: 'trouble' | 'own' | null }): ReactNode {
  return (
    <button
      type="button"
      role="tab"
      aria-selected={on}
      onClick={onClick}
      className={clsx('border-b-2 px-3 py-[6px]', on ? 'border-madder font-semibold' : 'border-transparent text-soft hover:text-ink')}
    >
      {name}
      {mark === 'trouble' && (
        <span className="ml-1 text-madder-text" title="This channel will not take it as it is">
          over the limit
        </span>
      )}
      {mark === 'own' && <span className="ml-1 text-[11px] text-soft">own words</span>}
    </button>
  );
}

/** Saves by itself when the hand rests. An approved short cannot be changed. */
function CopyEditor({ short, channel }: { short: ShortView; channel: ShortChannelView | null }): ReactNode {
  const stored = channel?.variant ?? short.copy;
  const [copy, setCopy] = useState<CopyView>(stored);
  const [state, setState] = useState<'saved' | 'typing' | 'saving' | 'failed'>('saved');
  const [saveCopy] = api.useSaveCopyMutation();
  const [saveVariant] = api.useSaveVariantMutation();
  const [dropVariant] = api.useDropVariantMutation();
  const [propose, proposing] = api.useProposeCopyMutation();
  const locked = short.approved;
  const write = (value: CopyView) =>
    (channel === null
      ? saveCopy({ shortId: short.id, copyForm: value })
      : saveVariant({ shortId: short.id, channelId: channel.channelId, copyForm: value })
    ).unwrap();
  useEffect(() => {
    if (state !== 'typing') return;
    const timer = setTimeout(() => {
      setState('saving');
      write(copy).then(
        () => setState((now) => (now === 'saving' ? 'saved' : now)),
        (error: unknown) => {
          setState('failed');
          sayTrouble(error);
        },
      );
    }, SAVE_AFTER_MS);
    return () => clearTimeout(timer);
    // The words alone start the clock.
  }, [copy, state]);
  const set = (fields: Partial<CopyView>): void => {
    setCopy((old) => ({ ...old, ...fields }));
    setState('typing');
  };
  const replaceWith = (next: CopyView, label: string): void => {
    const before = copy;
    setCopy(next);
    setState('saving');
    write(next).then(
      () => {
        setState('saved');
        didSomething(label, async () => {
          setCopy(before);
          await write(before);
        });
      },
      (error: unknown) => {
        setState('failed');
        sayTrouble(error);
      },
    );
  };
  const limits =
    channel === null ? tightest(short.channels) : { title: channel.titleLimit, description: channel.descriptionLimit, hashtags: channel.hashtagLimit };
  return (
    <div className="grid max-w-[820px] gap-4 px-6 py-5">
      <div className="flex items-center gap-3 text-[12px] text-soft">
        <span role="status">
          {locked
            ? 'Approved: un-approve to change the words.'
            : channel !== null && channel.variant === null && state === 'saved'
              ? 'Takes the words for all channels. Type, and it gets its own.'
              : { saved: 'Saved', typing: 'Typing…', saving: 'Saving…', failed: 'Not saved; change something to try again' }[state]}
        </span>
        {!locked && (
          <Button
            tone="quiet"
            className="ml-auto"
            disabled={proposing.isLoading}
            onClick={() => {
              propose({ shortId: short.id, ...(channel === null ? {} : { channelId: channel.channelId }) })
                .unwrap()
                .then((next) => replaceWith(next, 'Proposed the words afresh'), sayTrouble);
            }}
          >
            Propose afresh
          </Button>
        )}
        {!locked && channel?.variant != null && (
          <Button
            tone="quiet"
            onClick={() => {
              const before = copy;
              dropVariant({ shortId: short.id, channelId: channel.channelId })
                .unwrap()
                .then(() => {
                  setCopy(short.copy);
                  didSomething('Went back to the words for all', () => write(before));
                }, sayTrouble);
            }}
          >
            Back to the words for all
          </Button>
        )}
      </div>
      <TextField
        label="Title"
        value={copy.title}
        disabled={locked}
        onChange={(event) => set({ title: event.target.value })}
        aside={<Counter used={characters(copy.title)} limit={limits.title} />}
      />
      <AreaField
        label="Description"
        rows={4}
        value={copy.description}
        disabled={locked}
        onChange={(event) => set({ description: event.target.value })}
        aside={<Counter used={characters(copy.description)} limit={limits.description} />}
      />
      <ListField
        label="Hashtags"
        value={copy.hashtags}
        disabled={locked}
        onChange={(hashtags) => set({ hashtags })}
        aside={<Counter used={copy.hashtags.length} limit={limits.hashtags} unit="tags" />}
        hint={copy.hashtags.map((tag) => `#${tag}`).join(' ') || 'Without #, with commas'}
      />
      <ListField label="Keywords" value={copy.keywords} disabled={locked} onChange={(keywords) => set({ keywords })} hint="For search, with commas" />
      <TextField
        label="Cover line"
        value={copy.coverLine}
        disabled={locked}
        onChange={(event) => set({ coverLine: event.target.value })}
        aside={<Counter used={characters(copy.coverLine)} limit={COVER_LINE_LIMIT} />}
        hint="The few words on the picture"
      />
      {channel === null && short.channels.length > 0 && (
        <table className="mt-2 w-full text-[12px]">
          <caption className="pb-1 text-left font-semibold">How each channel takes it</caption>
          <tbody>
            {short.channels.map((one) => (
              <tr key={one.channelId} className="border-t border-rule">
                <td className="py-[5px]">{one.name}</td>
                <td className="py-[5px] text-soft">{one.platform}</td>
                <td className={clsx('py-[5px]', one.unfit !== null || one.problems.length > 0 ? 'text-madder-text' : 'text-verdigris-text')}>
                  {one.unfit ??
                    (one.problems.map((problem) => `${problem.field === 'coverLine' ? 'cover line' : problem.field}: ${problem.detail}`).join('; ') ||
                      'takes it')}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </div>
  );
}

function tightest(channels: readonly ShortChannelView[]): { title: number; description: number; hashtags: number } {
  const least = (pick: (one: ShortChannelView) => number, open: number): number => channels.reduce((limit, one) => Math.min(limit, pick(one)), open);
  return { title: least((one) => one.titleLimit, 100), description: least((one) => one.descriptionLimit, 500), hashtags: least((one) => one.hashtagLimit, 8) };
}

function Counter({ used, limit, unit = 'characters' }: { used: number; limit: number; unit?: string }): ReactNode {
  return (
    <span
      className={clsx('time', used > limit ? 'font-semibold text-madder-text' : 'text-soft')}
      aria-label={`${used} of ${limit} ${unit}${used > limit ? ', over the limit' : ''}`}
    >
      {used}/{limit}
      {used > limit ? ' over' : ''}
    </span>
  );
}
