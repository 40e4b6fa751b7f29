import { compareSifts, type ComparedRow, formatLength, formatTimecode, type SiftSide } from '@sift-reel/core';
import { ArrowDown, ArrowUp } from 'lucide-react';
import { type ReactNode, useMemo, useRef } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { api, type BriefForm, type CandidateView, type RankingView, type SiftView } from '../../app/api.js';
import { problemText } from '../../app/problems.js';
import { GapRow } from '../../ui/gap-row.js';
import { type Drawn, useLongList } from '../../ui/long-list.js';
import { EmptyState, Loading, PageHead, Trouble } from '../../ui/parts.js';
import { Select } from '../../ui/select.js';
import { KIND_NAMES, SIGNAL_LOOK } from '../../ui/signals.js';
import { bandName } from './brief-form.js';
import { t } from '../../texts/texts.js';
import { formatMoment } from '../../texts/formats.js';

/** Two sifts of a recording side by side: what moved, and what of the brief moved it. */
export function ComparePage(): ReactNode {
  const { recordingId = '', siftId = '', otherId = '' } = useParams();
  const navigate = useNavigate();
  const recording = api.useReadRecordingQuery(recordingId);
  const sifts = api.useListSiftsQuery(recordingId);
  const [a, b] = [api.useReadRankingQuery(siftId), api.useReadRankingQuery(otherId)];
  const error = recording.error ?? sifts.error ?? a.error ?? b.error;
  if (error !== undefined) return <Trouble title={t('sifting.the-sifts-cannot-be-compared')} detail={problemText(error)} onRetry={() => void a.refetch()} />;
  if (recording.currentData === undefined || sifts.currentData === undefined || a.currentData === undefined || b.currentData === undefined)
    return <Loading what={t('sifting.both-sifts')} rows={12} />;
  const done = sifts.currentData.filter((one) => one.state === 'done');
  const pick = (left: string, right: string): void => {
    void navigate(`/recordings/${recordingId}/compare/${left}/${right}`);
  };
  return (
    <div className="flex h-full flex-col">
      <PageHead title={t('sifting.compare', { title: recording.currentData.title })}>
        <Link className="rounded border border-ink px-[11px] py-[5px] text-xs font-semibold hover:bg-sheet" to={`/recordings/${recordingId}/sifts/${otherId}`}>
          {t('sifting.back-to-the-bench')}
        </Link>
      </PageHead>
      <div className="grid flex-none grid-cols-1 gap-4 md:grid-cols-2 border-b border-rule px-[18px] py-[10px]">
        <Side label={t('sifting.first-sift')} sifts={done} chosen={siftId} onPick={(id) => pick(id, otherId)} />
        <Side label={t('sifting.second-sift')} sifts={done} chosen={otherId} onPick={(id) => pick(siftId, id)} />
      </div>
      {siftId === otherId ? (
        <EmptyState title={t('sifting.the-same-sift-twice')}>{t('sifting.choose-another-one-on-one-side')}</EmptyState>
      ) : (
        <Table recordingId={recordingId} a={a.currentData} b={b.currentData} />
      )}
    </div>
  );
}

function Side({ label, sifts, chosen, onPick }: { label: string; sifts: readonly SiftView[]; chosen: string; onPick: (id: string) => void }): ReactNode {
  const sift = sifts.find((one) => one.id === chosen);
  return (
    <div>
      <Select
        look="field"
        label={label}
        value={chosen}
        onChange={onPick}
        options={sifts.map((one) => ({
          value: one.id,
          name: `${briefName(one.brief)} (${formatMoment(one.createdAt)})`,
        }))}
      />
      {sift !== undefined && (
        <span className="mt-1 block text-[12px] text-soft">
          {t('sifting.candidates-kept', { candidateCount: sift.candidateCount, keptCount: sift.keptCount })}
        </span>
      )}
    </div>
  );
}

function briefName({ minMs, maxMs, topics, kinds, avoid }: BriefForm): string {
  const parts = [bandName(minMs, maxMs)];
  if (topics.length > 0) parts.push(t('sifting.about-topics', { topics: topics.join(', ') }));
  if (kinds.length > 0) parts.push(kinds.map((kind) => KIND_NAMES[kind].toLowerCase()).join(', '));
  if (avoid.length > 0) parts.push(t('sifting.without', { avoid: avoid.join(', ') }));
  return parts.join(', ');
}

const sideOf = (ranking: RankingView): SiftSide => ({
  weights: ranking.weights,
  candidates: ranking.candidates.map((one) => ({ ...one, values: one.signals.map((signal) => signal.value) })),
});

function Table({ recordingId, a, b }: { recordingId: string; a: RankingView; b: RankingView }): ReactNode {
  const rows = useMemo(() => compareSifts(sideOf(a), sideOf(b)), [a, b]);
  const scroller = useRef<HTMLDivElement>(null);
  const body = useRef<HTMLTableSectionElement>(null);
  const drawn = useLongList(rows.length, scroller, body, 56);
  const both = rows.filter((row) => row.kind === 'both').length;
  return (
    <div ref={scroller} className="min-h-0 flex-1 overflow-auto">
      <p className="px-[18px] py-[9px]" role="status">
        <b>{t('sifting.passages-in-both', { both })}</b>
        <span className="text-soft">
          {` · ${t('sifting.only-in-the-first-only-in', {
            first: rows.filter((row) => row.kind === 'only-a').length,
            second: rows.filter((row) => row.kind === 'only-b').length,
            differences: differences(a.sift.brief, b.sift.brief),
          })}`}
        </span>
      </p>
      <table className="w-full text-left">
        <thead className="border-y border-rule text-[12px] text-soft">
          <tr>
            <th className="w-[82px] py-1 pl-[18px] font-normal">{t('sifting.first')}</th>
            <th className="w-[70px] py-1 font-normal">{t('sifting.second')}</th>
            <th className="w-[78px] py-1 font-normal">{t('sifting.moved')}</th>
            <th className="py-1 font-normal">{t('common.passage')}</th>
            <th className="w-[40%] py-1 pr-[18px] font-normal">{t('sifting.why')}</th>
          </tr>
        </thead>
        <tbody ref={body}>
          <GapRow px={drawn.beforePx} />
          {drawn.rows.map((index) => (
            <Row key={index} {...{ row: rows[index]!, a, b, recordingId, index, measure: drawn.measure }} />
          ))}
          <GapRow px={drawn.afterPx} />
        </tbody>
      </table>
    </div>
  );
}

interface RowProps {
  row: ComparedRow;
  a: RankingView;
  b: RankingView;
  recordingId: string;
  index: number;
  measure: Drawn['measure'];
}

function Row({ row, a, b, recordingId, index, measure }: RowProps): ReactNode {
  const one = row.kind === 'only-b' ? null : a.candidates[row.a]!;
  const other = row.kind === 'only-a' ? null : b.candidates[row.b]!;
  const shown = other ?? one!;
  return (
    <tr ref={measure} data-index={index} className="border-b border-rule align-top" data-testid="compared">
      <td className="time py-[7px] pl-[18px]">{place(one)}</td>
      <td className="time py-[7px]">{place(other)}</td>
      <td className="py-[7px]">
        {row.kind === 'both' ? <Climbed by={row.climbed} /> : <span className="text-[12px] text-soft">{row.kind === 'only-a' ? 'gone' : 'new'}</span>}
      </td>
      <td className="py-[7px] pr-4">
        <Link className="font-semibold hover:underline" to={`/recordings/${recordingId}/sifts/${(other === null ? a : b).sift.id}`}>
          {shown.title}
        </Link>
        <span className="time block text-soft">
          {formatTimecode(shown.startMs)} · {formatLength(shown.endMs - shown.startMs)}
        </span>
      </td>
      <td className="py-[7px] pr-[18px] text-[12.5px] leading-[1.4] text-soft">{why(row, a, b)}</td>
    </tr>
  );
}

const place = (candidate: CandidateView | null): string => (candidate === null ? '–' : `${candidate.rank}. ${Math.round(candidate.score)}`);

function Climbed({ by }: { by: number }): ReactNode {
  if (by === 0) return <span className="text-soft">{t('sifting.same')}</span>;
  const Arrow = by > 0 ? ArrowUp : ArrowDown;
  return (
    <span className={`inline-flex items-center gap-1 ${by > 0 ? 'text-verdigris-text' : 'text-madder-text'}`}>
      <Arrow size={13} aria-hidden="true" /> {Math.abs(by)}
      <span className="sr-only">{by > 0 ? t('sifting.up') : t('sifting.down')}</span>
    </span>
  );
}

/** What changed in the briefs, in words. */
function differences(a: BriefForm, b: BriefForm): string {
  const parts: string[] = [];
  const only = (from: readonly string[], to: readonly string[]): string[] => from.filter((one) => !to.includes(one));
  if (only(b.topics, a.topics).length > 0) parts.push(t('sifting.the-second-asks-about', { topics: only(b.topics, a.topics).join(', ') }));
  if (only(a.topics, b.topics).length > 0) parts.push(t('sifting.the-first-asks-about', { topics: only(a.topics, b.topics).join(', ') }));
  if (a.minMs !== b.minMs || a.maxMs !== b.maxMs) parts.push(t('sifting.the-length-bands-differ'));
  if (a.partStartMs !== b.partStartMs || a.partEndMs !== b.partEndMs) parts.push(t('sifting.other-parts-of-the-recording-count'));
  if (a.kinds.join() !== b.kinds.join()) parts.push(t('sifting.other-kinds-are-looked-for'));
  if (a.avoid.join() !== b.avoid.join()) parts.push(t('sifting.other-words-are-left-out'));
  return parts.length === 0 ? t('sifting.the-briefs-ask-for-the-same') : t('sifting.in-the-briefs', { parts: parts.join('; ') });
}

function why(row: ComparedRow, a: RankingView, b: RankingView): string {
  if (row.kind === 'only-a')
    return b.candidates.some((one) => touches(one, a.candidates[row.a]!))
      ? t('sifting.its-words-lie-in-another-cut')
      : t('sifting.not-in-the-second-ones-part');
  if (row.kind === 'only-b')
    return a.candidates.some((one) => touches(one, b.candidates[row.b]!)) ? t('sifting.its-words-lie-in-another-cut') : t('sifting.not-in-the-first-ones-part');
  if (row.moved === null) return row.climbed === 0 ? '' : t('sifting.moved-by-what-others-gained-or');
  const { signal, points } = row.moved;
  const reading = b.candidates[row.b]!.signals.find((one) => one.signal === signal)!;
  return t('sifting.points', { name: SIGNAL_LOOK[signal].name, points: `${points > 0 ? '+' : '−'}${Math.abs(points)}`, sentence: reading.sentence });
}

const touches = (one: CandidateView, other: CandidateView): boolean => one.startMs < other.endMs && other.startMs < one.endMs;
