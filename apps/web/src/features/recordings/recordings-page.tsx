import { formatLength } from '@sift-reel/core';
import { Paperclip, Trash2 } from 'lucide-react';
import { type ReactNode, useRef, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { api, type RecordingView } from '../../app/api.js';
import { stageName } from '../../app/stages.js';
import { problemText } from '../../app/problems.js';
import { useAppDispatch } from '../../app/store.js';
import { sayTrouble } from '../../app/undo.js';
import { ConfirmDialog, Dialog, DialogFoot } from '../../ui/dialog.js';
import { GapRow } from '../../ui/gap-row.js';
import { type Drawn, useLongList } from '../../ui/long-list.js';
import { Button, Chip, EmptyState, Loading, PageHead, ProgressBar, Trouble } from '../../ui/parts.js';
import { Select } from '../../ui/select.js';
import { BringIn } from './bring-in.js';
import { pairFiles, upload } from './upload.js';

export function RecordingsPage(): ReactNode {
  const [params, setParams] = useSearchParams();
  const clients = api.useListClientsQuery();
  const recordings = api.useListRecordingsQuery(undefined);
  const [repairsOf, setRepairsOf] = useState<RecordingView | null>(null);
  const [removing, setRemoving] = useState<RecordingView | null>(null);
  const chosen = params.get('client') ?? '';
  const shown = (recordings.data ?? []).filter((one) => chosen === '' || one.clientId === chosen);
  const scroller = useRef<HTMLDivElement>(null);
  const body = useRef<HTMLTableSectionElement>(null);
  const drawn = useLongList(shown.length, scroller, body, 62);
  const error = clients.error ?? recordings.error;
  if (error !== undefined) return <Trouble title="The recordings cannot be shown" detail={problemText(error)} onRetry={() => void recordings.refetch()} />;
  if (clients.data === undefined || recordings.data === undefined)
    return (
      <>
        <PageHead title="Recordings" />
        <Loading what="recordings" />
      </>
    );
  const nameOf = new Map(clients.data.map((client) => [client.id, client.name]));
  return (
    <div className="flex h-full flex-col">
      <PageHead title="Recordings" aside={`${shown.length} on the table`}>
        <Select
          label="Client"
          value={chosen}
          onChange={(id) => setParams(id === '' ? {} : { client: id })}
          options={[{ value: '', name: 'All clients' }, ...clients.data.map((client) => ({ value: client.id, name: client.name }))]}
        />
      </PageHead>
      <div ref={scroller} className="min-h-0 flex-1 overflow-auto">
        {clients.data.length === 0 ? (
          <EmptyState
            title="No clients yet"
            action={
              <Link className="font-semibold underline" to="/clients">
                Add a client
              </Link>
            }
          >
            Recordings belong to a client. The owner adds clients and says who works for them.
          </EmptyState>
        ) : (
          <BringIn clients={clients.data} shownClientId={chosen} />
        )}
        {shown.length === 0 && clients.data.length > 0 && (
          <EmptyState title="No recordings yet">
            They will lie here, newest first, with how far each has come: waiting for its transcript, to brief, sifting, to read.
          </EmptyState>
        )}
        {shown.length > 0 && (
          <table className="w-full max-md:block">
            <thead className="max-md:hidden">
              <tr className="text-left text-xs text-soft">
                {['Recording', 'Length', 'Voices', 'Transcript', 'Sift', ''].map((head) => (
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
                    onRemove={() => setRemoving(one)}
                  />
                ))}
              <GapRow px={drawn.afterPx} />
            </tbody>
          </table>
        )}
      </div>
      {repairsOf !== null && <RepairsDialog recording={repairsOf} onClose={() => setRepairsOf(null)} />}
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
  onRemove,
}: {
  index: number;
  measure: Drawn['measure'];
  recording: RecordingView;
  clientName: string;
  onRepairs: () => void;
  onRemove: () => void;
}): ReactNode {
  const { transcript } = recording;
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
          {recording.sound === null ? ' · no sound yet' : ''}
        </div>
      </td>
      <td className={`${cell} time`}>{recording.durationMs === null ? '' : formatLength(recording.durationMs)}</td>
      <td className={cell}>
        {transcript === null ? (
          ''
        ) : transcript.speakers.length === 0 ? (
          <span className="text-soft">not named</span>
        ) : (
          transcript.speakers.slice(0, 4).join(', ') + (transcript.speakers.length > 4 ? ` and ${transcript.speakers.length - 4} more` : '')
        )}
      </td>
      <td className={cell}>
        {transcript === null ? (
          <span className="text-madder-text">waits for a transcript</span>
        ) : (
          <span>{transcript.wordCount.toLocaleString('en')} words</span>
        )}
        {transcript !== null && transcript.repairCount > 0 && (
          <button type="button" className="ml-2 underline decoration-dotted underline-offset-2" onClick={onRepairs}>
            {transcript.repairCount} repaired
          </button>
        )}
        {transcript !== null && transcript.sentenceEnds !== 'written' && (
          <div className="text-[12px] text-soft">
            {transcript.sentenceEnds === 'restored' ? 'no punctuation; sentences restored' : 'partly punctuated; sentences restored'}
          </div>
        )}
      </td>
      <td className={`${cell} min-w-[190px]`}>
        <SiftState recording={recording} />
      </td>
      <td className={`${cell} text-right whitespace-nowrap max-md:text-left`}>
        <AddFiles recording={recording} />
        <button
          type="button"
          className="p-[5px] text-soft hover:text-madder-text"
          aria-label={`Delete ${recording.title}`}
          title="Delete the recording"
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
        Brief and sift
      </Link>
    );
  if (sift.state === 'done')
    return (
      <span>
        <b>{sift.candidateCount}</b> candidates, {sift.strongCount} strong
        {sift.keptCount > 0 && (
          <>
            {' '}
            · <span className="text-verdigris-text">{sift.keptCount} kept</span>
          </>
        )}
      </span>
    );
  if (sift.state === 'failed')
    return (
      <Link className="text-madder-text underline" to={`/recordings/${recording.id}`}>
        failed; see why
      </Link>
    );
  if (sift.state === 'cancelled') return <span className="text-soft">cancelled</span>;
  return (
    <div className="flex flex-col gap-1">
      <ProgressBar fraction={sift.fraction} label={`Sifting ${recording.title}`} />
      <span className="text-[11.5px] text-soft">
        {stageName(sift.state === 'waiting' ? 'waiting' : sift.stage)}
        {sift.leftMs !== null && sift.leftMs > 0 && ` · ${Math.ceil(sift.leftMs / 1_000)} s left`}
      </span>
    </div>
  );
}

/** Adds what a recording waits for: its sound, or its transcript. */
function AddFiles({ recording }: { recording: RecordingView }): ReactNode {
  const picker = useRef<HTMLInputElement>(null);
  const [fraction, setFraction] = useState<number | null>(null);
  const dispatch = useAppDispatch();
  if (recording.sound !== null && recording.transcript !== null) return null;
  const missing = recording.transcript === null ? 'transcript' : 'sound';
  const take = async (files: readonly File[]): Promise<void> => {
    const pair = pairFiles(files).pairs[0];
    if (pair === undefined) return sayTrouble(new Error('That is neither a transcript nor a sound file.'));
    setFraction(0);
    const outcome = await upload(`/api/recordings/${recording.id}/files`, pair, setFraction);
    setFraction(null);
    if (outcome.kind === 'refused') sayTrouble(new Error(outcome.problem.detail));
    else
      dispatch(
        api.util.invalidateTags([
          { type: 'Recording', id: recording.id },
          { type: 'Recording', id: `words of ${recording.id}` },
        ]),
      );
  };
  if (fraction !== null) return <span className="text-soft">{Math.round(fraction * 100)} %</span>;
  return (
    <>
      <button type="button" className="inline-flex items-center gap-1 p-1 text-soft hover:text-ink" onClick={() => picker.current?.click()}>
        <Paperclip size={13} />
        Add {missing}
      </button>
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
  unordered: 'out of order',
  overlap: 'overlapping',
  empty: 'empty',
  'negative-length': 'ends before it starts',
  endless: 'endless',
  'negative-time': 'before the start',
  'repeated-line': 'repeated line',
  'split-word': 'split word',
  encoding: 'encoding',
  'unreadable-bytes': 'unreadable bytes',
  'no-header': 'no header',
  'missing-end': 'no end time',
  'unknown-block': 'left out',
};

function RepairsDialog({ recording, onClose }: { recording: RecordingView; onClose: () => void }): ReactNode {
  const { data, error } = api.useReadRepairsQuery(recording.id);
  return (
    <Dialog open onClose={onClose} title={`What was repaired in ${recording.transcript?.sourceName ?? 'the transcript'}`} wide>
      {error !== undefined && <Trouble title="The list cannot be shown" detail={problemText(error)} />}
      {data === undefined && error === undefined && <Loading what="repairs" />}
      {data !== undefined && (
        <div className="max-h-[420px] overflow-y-auto">
          <table className="w-full">
            <tbody>
              {data.repairs.map((repair, i) => (
                <tr key={i} className="border-b border-rule align-top">
                  <td className="time w-[80px] py-1">line {repair.line}</td>
                  <td className="w-[150px] py-1">
                    <Chip>{REPAIR_NAMES[repair.code] ?? repair.code}</Chip>
                  </td>
                  <td className="py-1">{repair.detail}</td>
                </tr>
              ))}
            </tbody>
          </table>
          {data.count > data.repairs.length && <p className="py-2 text-soft">and {data.count - data.repairs.length} more</p>}
        </div>
      )}
      <DialogFoot>
        <Button onClick={onClose}>Close</Button>
      </DialogFoot>
    </Dialog>
  );
}

function RemoveDialog({ recording, onClose }: { recording: RecordingView; onClose: () => void }): ReactNode {
  const [remove, { isLoading }] = api.useRemoveRecordingMutation();
  return (
    <ConfirmDialog
      title={`Delete “${recording.title}”?`}
      deed="Delete the recording"
      keep="Keep it"
      busy={isLoading}
      onClose={onClose}
      onConfirm={() => void remove(recording.id).unwrap().catch(sayTrouble).then(onClose)}
    >
      Its transcript, sound, sifts, candidates and shorts go with it. This cannot be undone. Shorts on the schedule keep it from being deleted.
    </ConfirmDialog>
  );
}
