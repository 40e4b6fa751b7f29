import { formatLength, formatTimecode, KINDS, SIGNALS } from '@sift-reel/core';
import { useVirtualizer } from '@tanstack/react-virtual';
import clsx from 'clsx';
import { Search, X } from 'lucide-react';
import { memo, type ReactNode, useEffect, useRef } from 'react';
import type { CandidateView, ChapterView } from '../../app/api.js';
import { useAppDispatch, useAppSelector } from '../../app/store.js';
import { Select } from '../../ui/select.js';
import { KIND_NAMES, SIGNAL_LOOK, SignalBars } from '../../ui/signals.js';
import { filtered, type RankingFilter, type SortBy, sorted, type StateFilter } from './bench-slice.js';
import { t } from '../../texts/texts.js';

interface RankingProps {
  all: readonly CandidateView[];
  chapters: readonly ChapterView[];
  shown: readonly CandidateView[];
  strongCount: number;
  roughCount: number;
  chosenId: string | null;
  onChoose: (candidateId: string) => void;
  onReel: () => void;
  /** What counts, above the list. */
  weights: ReactNode;
}

/** Rows of a page, for the keys of that name. */
const PAGE = 8;

/** The ranking, read down like a contact sheet; drawn only where it is seen. */
export function Ranking({ all, chapters, shown, strongCount, roughCount, chosenId, onChoose, onReel, weights }: RankingProps): ReactNode {
  const sort = useAppSelector((state) => state.bench.sort);
  const scroller = useRef<HTMLDivElement>(null);
  const kept = all.filter((one) => one.state === 'kept').length;
  const dropped = all.filter((one) => one.state === 'dropped').length;
  const virtual = useVirtualizer({
    count: shown.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => 68,
    overscan: 6,
    getItemKey: (index) => shown[index]!.id,
  });
  const chosenIndex = shown.findIndex((one) => one.id === chosenId);
  useEffect(() => {
    if (chosenIndex >= 0) virtual.scrollToIndex(chosenIndex, { align: 'auto' });
  }, [chosenIndex, virtual]);
  const lineAfter = sort === 'score' ? lastStrong(shown, strongCount) : -1;
  return (
    <section aria-label={t('sifting.ranking')} className="flex min-h-0 flex-col border-rule md:border-r">
      <div className="flex flex-none items-center gap-2 border-b border-rule px-[18px] py-[7px]">
        <span>
          <b>{t('sifting.candidates', { count: all.length })}</b> <span className="text-soft">{`· ${t('sifting.kept-dropped', { kept, dropped })}`}</span>
        </span>
        <button
          type="button"
          className="ml-auto underline disabled:opacity-45"
          disabled={all.length === 0}
          title={t('sifting.three-to-five-minutes-of-the')}
          onClick={onReel}
        >
          {t('sifting.highlight-reel')}
        </button>
      </div>
      <Filters chapters={chapters} />
      {weights}
      {shown.length === 0 && (
        <p className="px-[18px] py-6 text-soft">
          {all.length === 0 ? t('sifting.no-passage-of-this-length-with') : t('sifting.no-candidate-fits-these-filters')}
        </p>
      )}
      <div
        ref={scroller}
        className="min-h-0 flex-1 overflow-y-auto"
        role="listbox"
        aria-label={t('sifting.candidates-2')}
        tabIndex={0}
        aria-activedescendant={chosenIndex >= 0 ? `candidate-${chosenId}` : undefined}
        onKeyDown={(event) => {
          // Up and down are the screen's own keys; these are what a list has besides.
          const to = { Home: 0, End: shown.length - 1, PageDown: Math.min(shown.length - 1, chosenIndex + PAGE), PageUp: Math.max(0, chosenIndex - PAGE) }[
            event.key
          ];
          const next = to === undefined ? undefined : shown[to];
          if (next === undefined) return;
          event.preventDefault();
          onChoose(next.id);
        }}
      >
        <div className="relative" style={{ height: virtual.getTotalSize() }}>
          {virtual.getVirtualItems().map((item) => {
            const candidate = shown[item.index]!;
            return (
              <div
                key={item.key}
                ref={virtual.measureElement}
                data-index={item.index}
                className="absolute inset-x-0 top-0"
                role="presentation"
                style={{ transform: `translateY(${item.start}px)` }}
              >
                <Row at={item.index} of={shown.length} candidate={candidate} chosen={candidate.id === chosenId} onChoose={onChoose} />
                {item.index === lineAfter && item.index < shown.length - 1 && <FallLine strongCount={strongCount} roughCount={roughCount} />}
              </div>
            );
          })}
        </div>
      </div>
    </section>
  );
}

/** Index of the last strong candidate among those shown; -1 when there is none, or none to draw a line after. */
function lastStrong(shown: readonly CandidateView[], strongCount: number): number {
  let last = -1;
  shown.forEach((one, i) => {
    if (one.rank <= strongCount) last = i;
  });
  return last;
}

function FallLine({ strongCount, roughCount }: { strongCount: number; roughCount: number }): ReactNode {
  return (
    <div className="border-b border-dashed border-madder px-[18px] py-[5px] text-[12px] text-madder-text">
      {t(strongCount < roughCount ? 'sifting.scores-fall-away-asked-for' : 'sifting.scores-fall-away', { strongCount, roughCount })}
    </div>
  );
}

const Row = memo(function Row({
  candidate,
  at,
  of,
  chosen,
  onChoose,
}: {
  candidate: CandidateView;
  at: number;
  of: number;
  chosen: boolean;
  onChoose: (id: string) => void;
}): ReactNode {
  const dropped = candidate.state === 'dropped';
  return (
    <div
      id={`candidate-${candidate.id}`}
      role="option"
      aria-selected={chosen}
      aria-posinset={at + 1}
      aria-setsize={of}
      aria-label={t('sifting.score', {
        rank: candidate.rank,
        title: candidate.title,
        number: Math.round(candidate.score),
        state: STATE_NAMES[candidate.state],
      })}
      data-testid="candidate"
      onClick={() => onChoose(candidate.id)}
      className={clsx(
        'grid cursor-pointer grid-cols-[26px_1fr_auto_36px] items-center gap-[10px] border-b border-rule py-[9px] pr-[14px]',
        chosen ? 'border-l-4 border-l-madder bg-sheet pl-[12px]' : 'pl-[16px] hover:bg-sheet',
      )}
    >
      <span className={clsx('time justify-self-stretch py-px text-center', candidate.state === 'kept' ? 'bg-verdigris text-sheet' : 'text-soft')}>
        {candidate.rank}
      </span>
      <span className="min-w-0">
        <span dir="auto" className={clsx('line-clamp-2 leading-[1.3] font-semibold', dropped && 'text-soft line-through')}>
          {candidate.title}
        </span>
        <span className="time text-soft">
          {formatTimecode(candidate.startMs)} · {formatLength(candidate.endMs - candidate.startMs)}
        </span>
        {candidate.state !== 'open' && <span className="ml-2 text-[11px] text-soft">{STATE_NAMES[candidate.state]}</span>}
      </span>
      <SignalBars values={candidate.signals.map((signal) => (signal.known ? signal.value : null))} faded={dropped} />
      <span className={clsx('text-right text-[18px] font-bold tracking-[-.02em]', dropped && 'text-soft')}>{Math.round(candidate.score)}</span>
    </div>
  );
});

/** How a candidate stands, in words. */
const STATE_NAMES = { open: t('sifting.state-open'), kept: t('sifting.state-kept'), dropped: t('sifting.state-dropped') } as const;
const STATES: readonly [StateFilter, string][] = [
  ['all', t('sifting.all-states')],
  ['open', STATE_NAMES.open],
  ['kept', STATE_NAMES.kept],
  ['dropped', STATE_NAMES.dropped],
];
const LENGTHS: readonly [number, string][] = [
  [30_000, t('sifting.up-to-0-30')],
  [45_000, t('sifting.up-to-0-45')],
  [60_000, t('sifting.up-to-1-00')],
  [90_000, t('sifting.up-to-1-30')],
];

function Filters({ chapters }: { chapters: readonly ChapterView[] }): ReactNode {
  const { filter, sort } = useAppSelector((state) => state.bench);
  const dispatch = useAppDispatch();
  const set = (fields: Partial<RankingFilter>): void => {
    dispatch(filtered(fields));
  };
  return (
    <div className="flex-none border-b border-rule px-[14px] py-[6px]">
      {filter.phrase !== null && (
        <button
          type="button"
          onClick={() => set({ phrase: null })}
          title={t('sifting.show-all-candidates-again')}
          className="mb-1 flex items-center gap-1 text-[12px] text-madder-text hover:underline"
        >
          {t('sifting.only-with', { text: filter.phrase.text })} <X size={12} />
        </button>
      )}
      <label className="flex items-center gap-2 rounded border border-rule bg-sheet px-2 py-[3px]">
        <Search size={13} className="text-soft" />
        <input
          id="ranking-text"
          aria-label={t('sifting.words-in-the-candidate')}
          value={filter.text}
          onChange={(event) => set({ text: event.target.value })}
          placeholder={t('sifting.words-in-title-lines-or-reason')}
          className="w-full bg-transparent outline-none placeholder:text-soft"
        />
      </label>
      <div className="mt-1 grid grid-cols-3 gap-x-1 text-[12px]">
        <Select
          look="bare"
          label={t('common.order')}
          value={sort}
          onChange={(value) => dispatch(sorted(value))}
          options={[
            { value: 'score' as SortBy, name: t('sifting.by-score') },
            { value: 'time', name: t('sifting.by-time') },
            { value: 'length', name: t('sifting.by-length') },
            ...SIGNALS.map((signal) => ({ value: signal, name: t('sifting.by', { name: SIGNAL_LOOK[signal].name }) })),
          ]}
        />
        <Select
          look="bare"
          label={t('sifting.signal')}
          value={filter.signal}
          onChange={(signal) => set({ signal })}
          options={[
            { value: 'all' as RankingFilter['signal'], name: t('sifting.all-signals') },
            ...SIGNALS.map((signal) => ({ value: signal, name: `${SIGNAL_LOOK[signal].name} ${filter.atLeast}+` })),
          ]}
        />
        <Select
          look="bare"
          label={t('common.state')}
          value={filter.state}
          onChange={(state) => set({ state })}
          options={STATES.map(([value, name]) => ({ value, name }))}
        />
        <Select
          look="bare"
          label={t('sifting.kind')}
          value={filter.kind}
          onChange={(kind) => set({ kind })}
          options={[{ value: 'all' as RankingFilter['kind'], name: t('sifting.all-kinds') }, ...KINDS.map((kind) => ({ value: kind, name: KIND_NAMES[kind] }))]}
        />
        <Select
          look="bare"
          label={t('sifting.topic')}
          value={String(filter.topicMs ?? '')}
          onChange={(value) => set({ topicMs: value === '' ? null : Number(value) })}
          options={[
            { value: '', name: t('sifting.all-topics') },
            ...chapters.map(({ startMs, title }) => ({ value: String(startMs), name: `${formatTimecode(startMs)} ${title}` })),
          ]}
        />
        <Select
          look="bare"
          label={t('common.length')}
          value={String(filter.longestMs ?? '')}
          onChange={(value) => set({ longestMs: value === '' ? null : Number(value) })}
          options={[{ value: '', name: t('sifting.any-length') }, ...LENGTHS.map(([ms, name]) => ({ value: String(ms), name }))]}
        />
      </div>
    </div>
  );
}
