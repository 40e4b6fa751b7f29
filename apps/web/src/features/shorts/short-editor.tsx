import { characters, COVER_LINE_LIMIT, formatLength, formatTimecode } from '@sift-reel/core';
import clsx from 'clsx';
import { Tab, TabGroup, TabList, TabPanel, TabPanels } from '@headlessui/react';
import { type ReactNode, useEffect, useState } from 'react';
import { Link } from 'react-router';
import { api, type CopyView, type ShortChannelView, type ShortView } from '../../app/api.js';
import { useKeys } from '../../app/keys.js';
import { didSomething, sayTrouble } from '../../app/undo.js';
import { AreaField, ListField, TextField } from '../../ui/fields.js';
import { Button } from '../../ui/parts.js';
import { differences, StaleChoice } from '../../ui/stale.js';
import { KIND_NAMES } from '../../ui/signals.js';
import { type Draft, sameWords, saverOf, takenBack, useDraft } from './copy-saver.js';
import { TitleChoices } from './title-choices.js';

/** The words of one short: for all channels, and a channel's own where it needs them. */
export function ShortEditor({ short, clientName }: { short: ShortView; clientName: string }): ReactNode {
  const [tab, setTab] = useState(0);
  const [approving, setApproving] = useState(false);
  const [setApproval] = api.useSetApprovalMutation();
  const saver = saverOf(short);
  useEffect(() => () => void saver.flush(), [saver]); // leaving the short, or the page
  const channel = short.channels[tab - 1] ?? null;
  const approve = (approved: boolean): void => {
    // What was typed goes first, and the yes is to exactly that.
    const write = (value: boolean) => saver.then((version) => setApproval({ shortId: short.id, approvalForm: { approved: value, version } }).unwrap());
    setApproving(true);
    write(approved)
      .then(
        () =>
          didSomething(
            `${approved ? 'Approved' : 'Un-approved'} “${short.copy.title}”`,
            () => write(!approved),
            () => write(approved),
          ),
        sayTrouble,
      )
      .finally(() => setApproving(false));
  };
  useKeys([{ key: 'a', label: short.approved ? 'Un-approve the short' : 'Approve the short', group: 'Shorts', run: () => approve(!short.approved) }]);
  return (
    <section aria-label="Words of the short" className="min-h-0 overflow-y-auto">
      <div className="flex flex-wrap items-start gap-x-6 gap-y-3 border-b border-rule px-6 py-4">
        <div className="min-w-[240px] flex-1">
          <div className="text-[12px] text-soft">
            {clientName} · {KIND_NAMES[short.kind]} ·{' '}
            <span className="time">
              {formatTimecode(short.startMs, 'tenths')} – {formatTimecode(short.endMs, 'tenths')} · {formatLength(short.endMs - short.startMs)}
            </span>
          </div>
          <p dir="auto" className="mt-1 font-serif text-[17px] leading-[1.4]">
            “{short.firstLine.replace(/[\s.,;:…]+$/, '')}…”
          </p>
          <p className="mt-1 text-[12px] text-soft">
            {short.reason}{' '}
            <Link className="underline" to={`/recordings/${short.recordingId}/sifts/${short.siftId}`}>
              On the bench
            </Link>
          </p>
        </div>
        <div className="flex flex-none flex-col items-end gap-2">
          <Button tone={short.approved ? 'plain' : 'fill'} keyName="a" disabled={approving} onClick={() => approve(!short.approved)}>
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
      <TabGroup
        selectedIndex={channel === null ? 0 : tab}
        onChange={(next) => {
          void saver.flush();
          setTab(next);
        }}
      >
        <TabList aria-label="Words for" className="flex flex-wrap gap-1 border-b border-rule px-6 pt-2">
          <WordsTab name="All channels" />
          {short.channels.map((one) => (
            <WordsTab
              key={one.channelId}
              name={one.name}
              mark={one.unfit !== null || one.problems.length > 0 ? 'trouble' : one.variant !== null ? 'own' : null}
            />
          ))}
        </TabList>
        <TabPanels>
          {[null, ...short.channels].map((one) => (
            <TabPanel key={one?.channelId ?? 'all'} tabIndex={-1}>
              {one?.unfit != null && <p className="mx-6 mt-4 border-l-4 border-madder pl-3 text-madder-text">{one.unfit}</p>}
              <CopyEditor short={short} channel={one} saver={saver} />
            </TabPanel>
          ))}
        </TabPanels>
      </TabGroup>
    </section>
  );
}

function WordsTab({ name, mark = null }: { name: string; mark?: 'trouble' | 'own' | null }): ReactNode {
  return (
    <Tab className="border-b-2 border-transparent px-3 py-[6px] text-soft hover:text-ink data-selected:border-madder data-selected:font-semibold data-selected:text-ink">
      {name}
      {mark === 'trouble' && (
        <span className="ml-1 text-madder-text" title="This channel will not take it as it is">
          over the limit
        </span>
      )}
      {mark === 'own' && <span className="ml-1 text-[11px] text-soft">own words</span>}
    </Tab>
  );
}

const NAMES = { title: 'Title', description: 'Description', hashtags: 'Hashtags', keywords: 'Keywords', coverLine: 'Cover line' } as const;

/** Saves by itself when the hand rests, and at once when a field is left. An approved short cannot be changed. */
function CopyEditor({ short, channel, saver }: { short: ShortView; channel: ShortChannelView | null; saver: ReturnType<typeof saverOf> }): ReactNode {
  const slot = channel?.channelId ?? null;
  const draft = useDraft(saver, slot);
  const copy = draft?.copy ?? channel?.variant ?? short.copy;
  const [dropVariant] = api.useDropVariantMutation();
  const [propose, proposing] = api.useProposeCopyMutation();
  const titles = api.useOfferTitlesQuery({ shortId: short.id, ...(slot === null ? {} : { channelId: slot }) }, { skip: short.approved });
  const locked = short.approved;
  const set = (fields: Partial<CopyView>): void => saver.change(slot, { ...copy, ...fields });
  const write = async (value: CopyView): Promise<void> => {
    saver.change(slot, value);
    if (!(await saver.flush())) throw new Error('The words could not be saved.');
  };
  const leave = (): void => void saver.flush();
  /** Writes other words, with a way back that keeps what was typed since. */
  const replace = async (next: CopyView, what: string): Promise<void> => {
    const before = copy;
    const had = channel === null || channel.variant !== null;
    await write(next);
    didSomething(
      what,
      () => {
        const now = saver.words(slot);
        return had || !sameWords(now, next) ? write(takenBack(now, before, next)) : goBack();
      },
      () => write(takenBack(saver.words(slot), next, before)),
    );
  };
  const proposeAfresh = (): void => {
    propose({ shortId: short.id, ...(channel === null ? {} : { channelId: channel.channelId }) })
      .unwrap()
      .then((next) => replace(next, 'Proposed the words afresh'))
      .catch(sayTrouble);
  };
  const takeTitle = (title: string): void => {
    if (title !== copy.title) replace({ ...copy, title }, `Took the title “${title}”`).catch(sayTrouble);
  };
  const goBack = async (): Promise<void> => {
    if (channel !== null) await saver.then((version) => dropVariant({ shortId: short.id, channelId: channel.channelId, version }).unwrap());
  };
  const backToAll = (): void => {
    const before = copy;
    goBack().then(() => didSomething('Went back to the words for all', () => write(before), goBack), sayTrouble);
  };
  const limits =
    channel === null ? tightest(short.channels) : { title: channel.titleLimit, description: channel.descriptionLimit, hashtags: channel.hashtagLimit };
  const theirs = draft?.theirs ?? null;
  return (
    <div className="grid max-w-[820px] gap-4 px-6 py-5" onBlur={leave}>
      <div className="flex min-h-[28px] flex-wrap items-center gap-3 text-[12px] text-soft">
        <span role="status">{sayState(locked, channel, draft)}</span>
        {draft?.state === 'failed' && <Button onClick={() => void saver.flush()}>Save again</Button>}
        {!locked && (
          <Button tone="quiet" className="ml-auto" disabled={proposing.isLoading} onClick={proposeAfresh}>
            Propose afresh
          </Button>
        )}
        {!locked && channel?.variant != null && (
          <Button tone="quiet" onClick={backToAll}>
            Back to the words for all
          </Button>
        )}
      </div>
      {draft !== null && theirs !== null && (
        <StaleChoice
          what="this short"
          changed={differences(theirs.channels.find((one) => one.channelId === slot)?.variant ?? theirs.copy, draft.copy, NAMES)}
          onTake={() => void saver.choose(slot, 'theirs')}
          onKeep={() => void saver.choose(slot, 'mine')}
        />
      )}
      <TextField
        label="Title"
        value={copy.title}
        disabled={locked}
        onChange={(event) => set({ title: event.target.value })}
        aside={<Counter used={characters(copy.title)} limit={limits.title} />}
      />
      {!locked && <TitleChoices titles={titles.currentData ?? []} chosen={copy.title} onTake={takeTitle} />}
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

function sayState(locked: boolean, channel: ShortChannelView | null, draft: Draft | null): string {
  if (locked) return 'Approved: un-approve to change the words.';
  if (draft === null) return channel !== null && channel.variant === null ? 'Takes the words for all channels. Type, and it gets its own.' : 'Saved';
  return { typing: 'Typing…', saving: 'Saving…', failed: `Could not be saved. ${draft.trouble ?? ''}`, stale: 'Not saved: choose below' }[draft.state];
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
