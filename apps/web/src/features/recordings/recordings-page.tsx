import { formatLength } from '@sift-reel/core';
import { Paperclip, Trash2 } from 'lucide-react';
import { type ReactNode, useRef, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { api, type RecordingView, type TranscriptReadingView } from '../../app/api.js';
import { isAtWork, stageName } from '../../app/stages.js';
import { problemText } from '../../app/problems.js';
import { useAppDispatch } from '../../app/store.js';
import { sayTrouble } from '../../app/undo.js';
import { ConfirmDialog, Dialog, DialogFoot } from '../../ui/dialog.js';
import { GapRow } from '../../ui/gap-row.js';
import { type Drawn, useLongList } from '../../ui/long-list.js';
import { Button, Chip, EmptyState, Loading, PageHead, ProgressBar, Trouble } from '../../ui/parts.js';
import { Select } from '../../ui/select.js';
import { Alignment } from './alignment.js';
import { BringIn } from './bring-in.js';
import { Fetching, Origin } from './fetching.js';
import { NewEpisodes } from './new-episodes.js';
import { MediaFacts, Preparation } from './preparation.js';
import { Understood } from './understood.js';
import { type FilePair, isLoose, pairFiles, understand, upload } from './upload.js';
import { VoicesDialog } from './voices-dialog.js';
import { t, rich } from '../../texts/texts.js';
import { timeLeft, formatNumber } from '../../texts/formats.js';

export function RecordingsPage(): ReactNode {
  const [params, setParams] = useSearchParams();
  const clients = api.useListClientsQuery();
  const recordings = api.useListRecordingsQuery(undefined);
  const [repairsOf, setRepairsOf] = useState<RecordingView | null>(null);
  const [voicesOf, setVoicesOf] = useState<string | null>(null);
  const [removing, setRemoving] = useState<RecordingView | null>(null);
  const chosen = params.get('client') ?? '';
  const shown = (recordings.data ?? []).filter((one) => chosen === '' || one.clientId === chosen);
  const scroller = useRef<HTMLDivElement>(null);
  const body = useRef<HTMLTableSectionElement>(null);
  const drawn = useLongList(shown.length, scroller, body, 62);
  const error = clients.error ?? recordings.error;
  if (error !== undefined)
    return <Trouble title={t('recordings.the-recordings-cannot-be-shown')} detail={problemText(error)} onRetry={() => void recordings.refetch()} />;
  if (clients.data === undefined || recordings.data === undefined)
    return (
      <>
        <PageHead title={t('common.recordings')} />
        <Loading what={t('recordings.recordings-inline')} />
      </>
    );
  const voiced = recordings.data.find((one) => one.id === voicesOf);
  const nameOf = new Map(clients.data.map((client) => [client.id, client.name]));
  return (
    <div className="flex h-full flex-col">
      <PageHead title={t('common.recordings')} aside={t('recordings.on-the-table', { count: shown.length })}>
        <Select
          label={t('common.client')}
          value={chosen}
          onChange={(id) => setParams(id === '' ? {} : { client: id })}
          options={[{ value: '', name: t('common.all-clients') }, ...clients.data.map((client) => ({ value: client.id, name: client.name }))]}
        />
      </PageHead>
      <div ref={scroller} className="min-h-0 flex-1 overflow-auto">
        {clients.data.length === 0 ? (
          <EmptyState
            title={t('common.no-clients-yet')}
            action={
              <Link className="font-semibold underline" to="/clients">
                {t('common.add-a-client')}
              </Link>
            }
          >
            {t('recordings.recordings-belong-to-a-client-the')}
          </EmptyState>
        ) : (
          <>
            <BringIn clients={clients.data} shownClientId={chosen} />
            <NewEpisodes clientId={chosen} nameOf={nameOf} />
          </>
        )}
        {shown.length === 0 && clients.data.length > 0 && (
          <EmptyState title={t('recordings.no-recordings-yet')}>{t('recordings.they-will-lie-here-newest-first')}</EmptyState>
        )}
        {shown.length > 0 && (
          <table className="w-full max-md:block">
            <thead className="max-md:hidden">
              <tr className="text-left text-xs text-soft">
                {[t('common.recording'), t('common.length'), t('recordings.voices'), t('common.transcript'), t('common.sift'), ''].map((head) => (
                  <th key={head} className="border-b border-rule px-[18px] py-2 font-semibold">
                    {head}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody ref={body} className="max-md:block">
              <GapRow px={drawn.beforePx} />
              {drawn.rows
                .map((i) => [i, shown[i]!] as const)
                .map(([i, one]) => (
                  <RecordingRow
                    key={one.id}
                    index={i}
                    measure={drawn.measure}
                    recording={one}
                    clientName={nameOf.get(one.clientId) ?? ''}
                    onRepairs={() => setRepairsOf(one)}
                    onVoices={() => setVoicesOf(one.id)}
                    onRemove={() => setRemoving(one)}
                  />
                ))}
              <GapRow px={drawn.afterPx} />
            </tbody>
          </table>
        )}
      </div>
      {repairsOf !== null && <RepairsDialog recording={repairsOf} onClose={() => setRepairsOf(null)} />}
      {voiced !== undefined && <VoicesDialog recording={voiced} onClose={() => setVoicesOf(null)} />}
      {removing !== null && <RemoveDialog recording={removing} onClose={() => setRemoving(null)} />}
    </div>
  );
}

function RecordingRow({
  index,
  measure,
  recording,
  clientName,
  onRepairs,
  onVoices,
  onRemove,
}: {
  index: number;
  measure: Drawn['measure'];
  recording: RecordingView;
  clientName: string;
  onRepairs: () => void;
  onVoices: () => void;
  onRemove: () => void;
}): ReactNode {
  const { transcript, alignment } = recording;
  const [isListening, isFetched] = [isAtWork(alignment), isAtWork(recording.fetch)];
  // Where there is no room for columns, what they hold stands one under the other.
  const cell = 'border-b border-rule px-[18px] py-[9px] align-top max-md:block max-md:border-0 max-md:py-[2px]';
  return (
    <tr ref={measure} data-index={index} className="hover:bg-sheet max-md:block max-md:border-b max-md:border-rule max-md:py-[8px]">
      <td className={`${cell} max-w-[420px]`}>
        {transcript === null ? (
          <b>{recording.title}</b>
        ) : (
          <Link className="font-semibold hover:underline" to={`/recordings/${recording.id}`}>
            {recording.title}
          </Link>
        )}
        <div className="text-[12px] text-soft">
          {clientName}
          {recording.sound === null ? !isFetched && t('recordings.no-sound-yet') : <MediaFacts recording={recording} />}
        </div>
        <Origin recording={recording} />
        <Fetching recording={recording} />
        <Preparation recording={recording} />
      </td>
      <td className={`${cell} time`}>{recording.durationMs === null ? '' : formatLength(recording.durationMs)}</td>
      <td className={cell}>
        {transcript !== null && (
          <button type="button" className="text-left hover:underline" title={t('recordings.name-the-voices')} onClick={onVoices}>
            {transcript.speakers.length === 0 ? (
              <span className="text-soft">{t('recordings.not-named')}</span>
            ) : (
              transcript.speakers.slice(0, 4).join(', ') +
              (transcript.speakers.length > 4 ? t('recordings.and-more', { count: transcript.speakers.length - 4 }) : '')
            )}
          </button>
        )}
      </td>
      <td className={cell}>
        {transcript === null ? (
          !isListening && !isFetched && <span className="text-madder-text">{t('recordings.waits-for-a-transcript')}</span>
        ) : (
          <span>{t('recordings.words', { wordCount: formatNumber(transcript.wordCount) })}</span>
        )}
        {transcript !== null && transcript.repairCount > 0 && (
          <button type="button" className="ml-2 underline decoration-dotted underline-offset-2" onClick={onRepairs}>
            {t('recordings.repaired', { repairCount: transcript.repairCount })}
          </button>
        )}
        <Alignment recording={recording} />
        {transcript !== null && transcript.sentenceEnds !== 'written' && (
          <div className="text-[12px] text-soft">
            {transcript.sentenceEnds === 'restored' ? t('recordings.no-punctuation-sentences-restored') : t('recordings.partly-punctuated-sentences-restored')}
          </div>
        )}
      </td>
      <td className={`${cell} min-w-[190px]`}>
        <SiftState recording={recording} />
      </td>
      <td className={`${cell} text-right whitespace-nowrap max-md:text-left`}>
        {!isFetched && <AddFiles recording={recording} />}
        <button
          type="button"
          className="p-[5px] text-soft hover:text-madder-text"
          aria-label={t('recordings.delete', { title: recording.title })}
          title={t('recordings.delete-the-recording')}
          onClick={onRemove}
        >
          <Trash2 size={14} />
        </button>
      </td>
    </tr>
  );
}

function SiftState({ recording }: { recording: RecordingView }): ReactNode {
  const sift = recording.latestSift;
  if (recording.transcript === null) return null;
  if (sift === null)
    return (
      <Link className="font-semibold underline" to={`/recordings/${recording.id}`}>
        {t('recordings.brief-and-sift')}
      </Link>
    );
  if (sift.state === 'done')
    return (
      <span>
        {rich('recordings.candidates-strong', { count: sift.candidateCount, strongCount: sift.strongCount, b: (chunks) => <b>{chunks}</b> })}
        {sift.keptCount > 0 && (
          <>
            {' '}
            · <span className="text-verdigris-text">{t('recordings.kept', { keptCount: sift.keptCount })}</span>
          </>
        )}
      </span>
    );
  if (sift.state === 'failed')
    return (
      <Link className="text-madder-text underline" to={`/recordings/${recording.id}`}>
        {t('recordings.failed-see-why')}
      </Link>
    );
  if (sift.state === 'cancelled') return <span className="text-soft">{t('recordings.cancelled')}</span>;
  return (
    <div className="flex flex-col gap-1">
      <ProgressBar fraction={sift.fraction} label={t('common.sifting', { title: recording.title })} />
      <span className="text-[11.5px] text-soft">
        {stageName(sift.state === 'waiting' ? 'waiting' : sift.stage)}
        {sift.leftMs !== null && sift.leftMs > 0 && ` · ${t('common.left', { left: timeLeft(sift.leftMs) })}`}
      </span>
    </div>
  );
}

/** Adds what a recording waits for: its sound, or its transcript. */
function AddFiles({ recording }: { recording: RecordingView }): ReactNode {
  const picker = useRef<HTMLInputElement>(null);
  const [fraction, setFraction] = useState<number | null>(null);
  const [asked, setAsked] = useState<{ readonly pair: FilePair; readonly reading: TranscriptReadingView } | null>(null);
  const dispatch = useAppDispatch();
  if (recording.sound !== null && recording.transcript !== null) return null;
  const missing = recording.transcript === null ? 'transcript' : 'sound';
  const take = async (files: readonly File[]): Promise<void> => {
    const pair = pairFiles(files).pairs[0];
    if (pair === undefined) return sayTrouble(new Error(t('recordings.that-is-neither-a-transcript-nor')));
    if (pair.transcript === null || !isLoose(pair.transcript.name)) return send(pair);
    const understood = await understand(pair.transcript);
    if (understood.kind === 'refused') sayTrouble(new Error(understood.problem.detail));
    else setAsked({ pair, reading: understood.answer });
  };
  const send = async (pair: FilePair): Promise<void> => {
    setAsked(null);
    setFraction(0);
    const outcome = await upload(`/api/recordings/${recording.id}/files`, pair, setFraction);
    setFraction(null);
    if (outcome.kind === 'refused') sayTrouble(new Error(outcome.problem.detail));
    else
      dispatch(
        api.util.invalidateTags([
          { type: 'Recording', id: recording.id },
          { type: 'Recording', id: `words of ${recording.id}` },
          // Its shorts are made of another file now.
          'Render',
          'Short',
        ]),
      );
  };
  if (fraction !== null) return <span className="text-soft">{Math.round(fraction * 100)} %</span>;
  return (
    <>
      <button type="button" className="inline-flex items-center gap-1 p-1 text-soft hover:text-ink" onClick={() => picker.current?.click()}>
        <Paperclip size={13} />
        {t('recordings.add', { missing })}
      </button>
      {asked !== null && (
        <Dialog open onClose={() => setAsked(null)} title={asked.reading.sourceName} wide>
          <Understood
            reading={asked.reading}
            sounding={recording.sound !== null || asked.pair.sound !== null}
            onTake={() => void send(asked.pair)}
            onLeave={() => setAsked(null)}
          />
        </Dialog>
      )}
      <input
        ref={picker}
        type="file"
        hidden
        onChange={(event) => {
          void take([...(event.target.files ?? [])]);
          event.target.value = '';
        }}
      />
    </>
  );
}

const REPAIR_NAMES: Readonly<Record<string, string>> = {
  unordered: t('recordings.out-of-order'),
  overlap: t('recordings.overlapping'),
  empty: t('recordings.empty'),
  'negative-length': t('recordings.ends-before-it-starts'),
  endless: t('recordings.endless'),
  'negative-time': t('recordings.before-the-start'),
  'repeated-line': t('recordings.repeated-line'),
  'split-word': t('recordings.split-word'),
  encoding: t('recordings.encoding'),
  'unreadable-bytes': t('recordings.unreadable-bytes'),
  'no-header': t('recordings.no-header'),
  'missing-end': t('recordings.no-end-time'),
  'unknown-block': t('recordings.left-out'),
};

function RepairsDialog({ recording, onClose }: { recording: RecordingView; onClose: () => void }): ReactNode {
  const { data, error } = api.useReadRepairsQuery(recording.id);
  return (
    <Dialog
      open
      onClose={onClose}
      title={t('recordings.what-was-repaired-in', { sourceName: recording.transcript?.sourceName ?? t('common.the-transcript') })}
      wide
    >
      {error !== undefined && <Trouble title={t('recordings.the-list-cannot-be-shown')} detail={problemText(error)} />}
      {data === undefined && error === undefined && <Loading what={t('recordings.repairs')} />}
      {data !== undefined && (
        <div className="max-h-[420px] overflow-y-auto">
          <table className="w-full">
            <tbody>
              {data.repairs.map((repair, i) => (
                <tr key={i} className="border-b border-rule align-top">
                  <td className="time w-[80px] py-1">{t('recordings.line', { line: repair.line })}</td>
                  <td className="w-[150px] py-1">
                    <Chip>{REPAIR_NAMES[repair.code] ?? repair.code}</Chip>
                  </td>
                  <td className="py-1">{repair.detail}</td>
                </tr>
              ))}
            </tbody>
          </table>
          {data.count > data.repairs.length && <p className="py-2 text-soft">{t('recordings.and-count-more', { count: data.count - data.repairs.length })}</p>}
        </div>
      )}
      <DialogFoot>
        <Button onClick={onClose}>{t('common.close')}</Button>
      </DialogFoot>
    </Dialog>
  );
}

function RemoveDialog({ recording, onClose }: { recording: RecordingView; onClose: () => void }): ReactNode {
  const [remove, { isLoading }] = api.useRemoveRecordingMutation();
  return (
    <ConfirmDialog
      title={t('recordings.delete-title', { title: recording.title })}
      deed={t('recordings.delete-the-recording')}
      keep={t('common.keep-it')}
      busy={isLoading}
      onClose={onClose}
      onConfirm={() => void remove(recording.id).unwrap().catch(sayTrouble).then(onClose)}
    >
      {t('recordings.its-transcript-sound-sifts-candidates-and')}
    </ConfirmDialog>
  );
}
