import { asPosted, characters, COVER_LINE_LIMIT, languageOf } from '@sift-reel/core';
import clsx from 'clsx';
import { type ReactNode, type RefObject, useMemo, useRef } from 'react';
import { api, type CopyView, type FindingView, type ShortChannelView, type ShortView, type TitleView } from '../../app/api.js';
import { type KeyBinding, useKeys } from '../../app/keys.js';
import { type Draft, useSaver } from '../../app/saver.js';
import { didSomething, sayTrouble } from '../../app/undo.js';
import { ListField } from '../../ui/fields.js';
import { MarkedField } from '../../ui/marked-field.js';
import { Button } from '../../ui/parts.js';
import { differences, StaleChoice } from '../../ui/stale.js';
import { sameWords, type saverOf, takenBack } from './copy-saver.js';
import { AsSeen } from './as-seen.js';
import { CopyHistory } from './copy-history.js';
import { Findings, marksOf, type Ticks, withMend } from './findings.js';
import { TitleChoices } from './title-choices.js';
import { WritingPanel } from './writing-panel.js';
import { useCheck } from './use-check.js';
import { t } from '../../texts/texts.js';

const NAMES = {
  title: t('common.title'),
  description: t('common.description'),
  hashtags: t('common.hashtags'),
  keywords: t('shorts.keywords'),
  coverLine: t('shorts.cover-line-2'),
} as const;

interface CopyEditorProps {
  readonly short: ShortView;
  /** Null for the words for all channels. */
  readonly channel: ShortChannelView | null;
  readonly saver: ReturnType<typeof saverOf>;
  readonly ticks: Ticks;
}

/** Saves by itself when the hand rests, and at once when a field is left. An approved short cannot be changed. */
export function CopyEditor({ short, channel, saver, ticks }: CopyEditorProps): ReactNode {
  const slot = channel?.channelId ?? null;
  const { draft } = useSaver(saver, slot);
  const copy = saver.words(slot);
  const foreign = (channel?.language ?? null) !== null;
  const [dropVariant] = api.useDropVariantMutation();
  const [propose, proposing] = api.useProposeCopyMutation();
  const titles = api.useOfferTitlesQuery(
    { shortId: short.id, ...(slot === null ? {} : { channelId: slot }) },
    { skip: short.approved || (channel?.language ?? null) !== null },
  );
  const locked = short.approved;
  const { findings, ask } = useCheck(short.id, copy, locked || foreign); // what is said cannot be looked for in another language
  const inField = (field: keyof CopyView): FindingView[] => findings.filter((one) => one.field === field);
  const box = useRef<HTMLDivElement>(null);
  const set = (fields: Partial<CopyView>): void => saver.change(slot, { ...copy, ...fields });
  const write = async (value: CopyView): Promise<void> => {
    saver.change(slot, value);
    if (!(await saver.flush())) throw new Error(t('shorts.the-words-could-not-be-saved'));
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
      .then((next) => replace(next, t('shorts.proposed-the-words-afresh')))
      .catch(sayTrouble);
  };
  /** A text that was proposed beside another title follows; one that somebody wrote stays. */
  const takeTitle = ({ text: title, description }: TitleView): void => {
    const ours = titles.currentData?.some((other) => other.description === copy.description) === true;
    if (title !== copy.title) replace({ ...copy, title, ...(ours ? { description } : {}) }, t('shorts.took-the-title', { title })).catch(sayTrouble);
  };
  const mend = (some: readonly FindingView[], words = copy): void => {
    const next = withMend(words, some);
    if (!sameWords(next, words))
      replace(next, some.length === 1 ? t('shorts.mended', { text: some[0]!.text || some[0]!.mend }) : t('shorts.mended-what-could-be-mended')).catch(
        sayTrouble,
      );
  };
  /** By key: the check may not have seen yet what was typed last. */
  const mendNow = (field: keyof CopyView | null): void => {
    const words = saver.words(slot);
    ask(words).then(
      (all) =>
        mend(
          all.filter((one) => field === null || one.field === field),
          words,
        ),
      sayTrouble,
    );
  };
  useKeys(locked ? [] : [{ key: 'm', label: t('shorts.mend-what-can-be-mended'), group: t('common.shorts'), run: () => mendNow(null) }, ...fieldKeys(box)]);
  const goBack = async (): Promise<void> => {
    if (channel !== null) await saver.andThen((version) => dropVariant({ shortId: short.id, channelId: channel.channelId, version }).unwrap());
  };
  const backToAll = (): void => {
    const before = copy;
    goBack().then(() => didSomething(t('shorts.went-back-to-the-words-for'), () => write(before), goBack), sayTrouble);
  };
  const limits =
    channel === null ? tightest(short.channels) : { title: channel.titleLimit, description: channel.descriptionLimit, hashtags: channel.hashtagLimit };
  const theirs = draft?.theirs ?? null;
  const lately = useTagsLately(short);
  /** A text with what breaks a rule underlined in it, and said under it. */
  const checked = (field: 'title' | 'description' | 'coverLine', rows: number, aside: ReactNode, hint?: string): ReactNode => (
    <>
      <MarkedField
        label={NAMES[field]}
        rows={rows}
        value={copy[field]}
        disabled={locked}
        marks={marksOf(findings, field, ticks)}
        onChange={(text) => set({ [field]: text })}
        onMend={() => mendNow(field)}
        aside={aside}
        hint={hint}
      />
      <Findings findings={inField(field)} ticks={ticks} onMend={(one) => mend([one])} />
    </>
  );
  return (
    <div
      ref={box}
      className="grid max-w-[820px] gap-4 px-6 py-5"
      onBlur={leave}
      onKeyDown={(event) => {
        if (event.key === 'Escape' && event.target instanceof HTMLElement) event.target.blur();
      }}
    >
      <div className="flex min-h-[28px] flex-wrap items-center gap-3 text-[12px] text-soft">
        <span role="status">{sayState(locked, channel, draft)}</span>
        {draft?.state === 'failed' && <Button onClick={() => void saver.flush()}>{t('common.save-again')}</Button>}
        {!locked && !foreign && (
          <Button tone="quiet" className="ml-auto" disabled={proposing.isLoading} onClick={proposeAfresh}>
            {t('shorts.propose-afresh')}
          </Button>
        )}
        {!locked && channel?.variant != null && (
          <Button tone="quiet" onClick={backToAll}>
            {t('shorts.back-to-the-words-for-all')}
          </Button>
        )}
      </div>
      {draft !== null && theirs !== null && (
        <StaleChoice
          what={t('shorts.this-short')}
          changed={differences(theirs.channels.find((one) => one.channelId === slot)?.variant ?? theirs.copy, draft.value, NAMES)}
          onTake={() => void saver.choose(slot, 'theirs')}
          onKeep={() => void saver.choose(slot, 'mine')}
        />
      )}
      {checked('title', 1, <Counter used={characters(copy.title)} limit={limits.title} />)}
      {!locked && (
        <TitleChoices
          titles={titles.currentData ?? []}
          awaited={titles.currentData === undefined && titles.isFetching}
          chosen={copy.title}
          onTake={takeTitle}
        />
      )}
      {!locked && !foreign && <WritingPanel short={short} onTake={(words, what) => void replace({ ...copy, ...words }, what).catch(sayTrouble)} />}
      {checked(
        'description',
        4,
        <Counter used={characters(asPosted(copy, short).description)} limit={limits.description} />,
        short.fixedParts.length === 0 ? undefined : t('shorts.under-it', { fixedParts: short.fixedParts.join(' · ') }),
      )}
      <ListField
        label={t('common.hashtags')}
        value={copy.hashtags}
        disabled={locked}
        onChange={(hashtags) => set({ hashtags })}
        aside={<Counter used={copy.hashtags.length} limit={limits.hashtags} unit={t('shorts.tags')} />}
        hint={tagHint(copy.hashtags, lately)}
      />
      <Findings findings={inField('hashtags')} ticks={ticks} onMend={(one) => mend([one])} />
      <ListField
        label={t('shorts.keywords')}
        value={copy.keywords}
        disabled={locked}
        onChange={(keywords) => set({ keywords })}
        hint={t('shorts.for-search-with-commas')}
      />
      <Findings findings={inField('keywords')} ticks={ticks} onMend={(one) => mend([one])} />
      {checked('coverLine', 1, <Counter used={characters(copy.coverLine)} limit={COVER_LINE_LIMIT} />, t('shorts.the-few-words-on-the-picture'))}
      {channel === null && <AsSeen short={short} copy={copy} />}
      <CopyHistory
        short={short}
        channelId={slot}
        locked={locked}
        onTake={(words) => void replace(words, t('shorts.took-the-words-of-before')).catch(sayTrouble)}
      />
    </div>
  );
}

function sayState(locked: boolean, channel: ShortChannelView | null, draft: Draft<CopyView, ShortView> | null): string {
  if (locked) return t('shorts.approved-un-approve-to-change-the');
  if (draft === null) {
    if (channel === null || channel.variant !== null) return t('shorts.saved');
    if (channel.language === null) return t('shorts.takes-the-words-for-all-channels');
    const name = languageOf(channel.language).name;
    return channel.translated === null ? t('shorts.nothing-is-translated-into-yet-see', { name }) : t('shorts.takes-the-words-in-type-and', { name });
  }
  return {
    typing: t('shorts.typing'),
    saving: t('common.saving'),
    failed: t('shorts.could-not-be-saved', { trouble: draft.trouble ?? '' }),
    stale: t('shorts.not-saved-choose-below'),
  }[draft.state];
}

function tightest(channels: readonly ShortChannelView[]): { title: number; description: number; hashtags: number } {
  const least = (pick: (one: ShortChannelView) => number, open: number): number => channels.reduce((limit, one) => Math.min(limit, pick(one)), open);
  return { title: least((one) => one.titleLimit, 100), description: least((one) => one.descriptionLimit, 500), hashtags: least((one) => one.hashtagLimit, 8) };
}

function Counter({ used, limit, unit = t('shorts.characters') }: { used: number; limit: number; unit?: string }): ReactNode {
  return (
    <span
      className={clsx('time', used > limit ? 'font-semibold text-madder-text' : 'text-soft')}
      aria-label={t(used > limit ? 'shorts.counted-over' : 'shorts.counted', { used, limit, unit })}
    >
      {used}/{limit}
      {used > limit ? ` ${t('shorts.over')}` : ''}
    </span>
  );
}

/** Keys that lead into a field; Esc leads out again. */
function fieldKeys(box: RefObject<HTMLDivElement | null>): KeyBinding[] {
  const into = (label: string) => (): void => {
    const id = [...(box.current?.querySelectorAll('label') ?? [])].find((one) => one.textContent === label)?.htmlFor;
    const field = id === undefined ? null : document.getElementById(id);
    if (!(field instanceof HTMLInputElement || field instanceof HTMLTextAreaElement)) return;
    field.focus();
    field.setSelectionRange(field.value.length, field.value.length);
  };
  return [
    { key: 'e', label: t('shorts.edit-the-title'), group: t('common.shorts'), run: into(t('common.title')) },
    { key: 'd', label: t('shorts.edit-the-description'), group: t('common.shorts'), run: into(t('common.description')) },
    { key: 'h', label: t('shorts.edit-the-hashtags'), group: t('common.shorts'), run: into(t('common.hashtags')) },
    { key: 'Escape', label: t('shorts.leave-the-field'), group: t('common.shorts') },
  ];
}

/** How often each tag stands on the client's other shorts, so that not every post carries the same five. */
function useTagsLately({ id, clientId }: ShortView): ReadonlyMap<string, number> {
  const shorts = api.useListShortsQuery({}).data;
  return useMemo(() => {
    const counts = new Map<string, number>();
    for (const other of shorts ?? [])
      if (other.clientId === clientId && other.id !== id)
        for (const tag of other.copy.hashtags) counts.set(tag.toLowerCase(), (counts.get(tag.toLowerCase()) ?? 0) + 1);
    return counts;
  }, [shorts, id, clientId]);
}

function tagHint(tags: readonly string[], lately: ReadonlyMap<string, number>): string {
  if (tags.length === 0) return t('shorts.without-with-commas');
  return tags
    .map((tag) => {
      const others = lately.get(tag.toLowerCase()) ?? 0;
      return others === 0 ? `#${tag}` : t('shorts.on-more', { tag, others });
    })
    .join('  ');
}
