import { formatLength, formatTimecode } from '@sift-reel/core';
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/react';
import { skipToken } from '@reduxjs/toolkit/query';
import { type ReactNode, useEffect, useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { api, type BriefForm, type RecordingView, type SiftView } from '../../app/api.js';
import { stageName } from '../../app/stages.js';
import { problemText } from '../../app/problems.js';
import { useAppDispatch } from '../../app/store.js';
import { Button, Chip, EmptyState, Loading, PageHead, ProgressBar, Trouble } from '../../ui/parts.js';
import { KIND_NAMES } from '../../ui/signals.js';
import { Bench } from './bench.js';
import { benchLeft } from './bench-slice.js';
import { BriefDialog } from './brief-dialog.js';
import { EditListDialog } from './edit-list-dialog.js';
import { bandName, FIRST_BRIEF } from './brief-form.js';
import { Reading } from './reading.js';
import { t } from '../../texts/texts.js';
import { formatMoment } from '../../texts/formats.js';

const NO_CHAPTERS: never[] = [];

/** One recording on the table: its newest sift, or the one in the address; or what is still to be done. */
export function BenchPage(): ReactNode {
  const { recordingId = '', siftId } = useParams();
  const navigate = useNavigate();
  const dispatch = useAppDispatch();
  const recording = api.useReadRecordingQuery(recordingId);
  const sifts = api.useListSiftsQuery(recordingId);
  const clients = api.useListClientsQuery();
  const [briefing, setBriefing] = useState(false);
  useEffect(
    () => () => {
      dispatch(benchLeft());
    },
    [dispatch, recordingId, siftId],
  );
  const known = sifts.currentData?.find((one) => one.state === 'done');
  const chapters = api.useReadRankingQuery(known?.id ?? skipToken).currentData?.chapters ?? NO_CHAPTERS;
  const error = recording.error ?? sifts.error ?? clients.error;
  if (error !== undefined)
    return <Trouble title={t('sifting.the-recording-cannot-be-shown')} detail={problemText(error)} onRetry={() => void recording.refetch()} />;
  if (recording.currentData === undefined || sifts.currentData === undefined || clients.data === undefined) return <Loading what={t('sifting.the-bench')} />;
  const client = clients.data.find((one) => one.id === recording.currentData!.clientId);
  const sift =
    siftId === undefined ? (sifts.currentData.find((one) => one.state === 'done') ?? sifts.currentData[0]) : sifts.currentData.find((one) => one.id === siftId);
  const working = sifts.currentData.find((one) => one.state === 'waiting' || one.state === 'running');
  const start = sift?.brief ?? firstBrief(recording.currentData, client?.standingBrief);
  const go = (id: string): void => {
    void navigate(`/recordings/${recordingId}/sifts/${id}`);
  };
  const voices = recording.currentData.transcript?.speakers.length ?? 0;
  const aside = [
    client?.name,
    formatLength(recording.currentData.durationMs ?? 0),
    voices === 0 ? t('sifting.voices-not-named') : t('sifting.voices', { count: voices }),
    ...(recording.currentData.transcript?.format === 'draft' ? [t('sifting.rough-transcript')] : []),
  ].join(' · ');
  return (
    <div className="flex h-full flex-col">
      <PageHead title={recording.currentData.title} aside={aside}>
        {sift !== undefined && <BriefChips brief={sift.brief} durationMs={recording.currentData.durationMs ?? 0} />}
        {sift !== undefined && <Button onClick={() => setBriefing(true)}>{t('sifting.change-brief')}</Button>}
        {sifts.currentData.length > 1 && <SiftsMenu recordingId={recordingId} sifts={sifts.currentData} shownId={sift?.id} onGo={go} />}
        {sift?.state === 'done' && (
          <Link to={`/recordings/${recordingId}/documents`} className={MENU_BUTTON}>
            {t('common.documents')}
          </Link>
        )}
        {sift?.state === 'done' && <CutSheetMenu recordingId={recordingId} siftId={sift.id} />}
      </PageHead>
      {working !== undefined && working.id !== sift?.id && <WorkingLine sift={working} onGo={go} />}
      <div className="min-h-0 flex-1">
        {recording.currentData.transcript === null ? (
          <EmptyState title={t('sifting.this-recording-waits-for-its-transcript')}>{t('sifting.add-the-transcript-on-the-recordings')}</EmptyState>
        ) : sift?.state === 'done' ? (
          <Bench recording={recording.currentData} client={client} siftId={sift.id} />
        ) : (
          <Reading
            key={recordingId}
            recording={recording.currentData}
            chapters={chapters}
            brief={start}
            sift={sift ?? null}
            onStarted={go}
            onBrief={() => setBriefing(true)}
          />
        )}
      </div>
      {briefing && (
        <BriefDialog
          recording={recording.currentData}
          start={start}
          onClose={() => setBriefing(false)}
          onStarted={(id) => {
            setBriefing(false);
            go(id);
          }}
        />
      )}
    </div>
  );
}

/** The client's standing brief; its part is dropped when the recording is too short for it. */
function firstBrief(recording: RecordingView, standing: BriefForm | undefined): BriefForm {
  const brief = { ...FIRST_BRIEF, ...standing };
  const durationMs = recording.durationMs ?? 0;
  return durationMs < 600_000 || brief.partStartMs >= durationMs ? { ...brief, partStartMs: 0, partEndMs: null } : brief;
}

function BriefChips({ brief, durationMs }: { brief: BriefForm; durationMs: number }): ReactNode {
  const whole = brief.partStartMs === 0 && brief.partEndMs === null;
  return (
    <>
      <Chip>{bandName(brief.minMs, brief.maxMs)}</Chip>
      <Chip>{t('sifting.about', { roughCount: brief.roughCount })}</Chip>
      {brief.topics.length > 0 && (
        <Chip title={brief.topics.join(', ')}>
          {t('sifting.about-these-topics', { topics: brief.topics.slice(0, 2).join(', ') + (brief.topics.length > 2 ? '…' : '') })}
        </Chip>
      )}
      {brief.kinds.length > 0 && (
        <Chip title={brief.kinds.map((kind) => KIND_NAMES[kind]).join(', ')}>
          {brief.kinds.length === 1 ? KIND_NAMES[brief.kinds[0]!] : t('sifting.kinds', { count: brief.kinds.length })}
        </Chip>
      )}
      {!whole && (
        <Chip>
          <span className="time">
            {formatTimecode(brief.partStartMs)} – {formatTimecode(brief.partEndMs ?? durationMs)}
          </span>
        </Chip>
      )}
    </>
  );
}

const MENU = 'z-50 w-[330px] border border-rule bg-sheet py-1 shadow-[0_8px_24px_rgba(35,32,27,.2)]';
const MENU_BUTTON = 'inline-flex items-center rounded border border-ink px-[11px] py-[5px] text-xs font-semibold hover:bg-sheet';

function SiftsMenu({
  recordingId,
  sifts,
  shownId,
  onGo,
}: {
  recordingId: string;
  sifts: readonly SiftView[];
  shownId: string | undefined;
  onGo: (id: string) => void;
}): ReactNode {
  const done = sifts.filter((sift) => sift.state === 'done');
  const shown = done.find((sift) => sift.id === shownId) ?? done[0];
  const other = done.find((sift) => sift.id !== shown?.id);
  return (
    <Menu>
      <MenuButton className={MENU_BUTTON}>{t('sifting.sifts', { count: sifts.length })}</MenuButton>
      <MenuItems anchor="bottom end" className={MENU}>
        {sifts.map((sift) => (
          <MenuItem key={sift.id}>
            <button type="button" onClick={() => onGo(sift.id)} className="block w-full px-3 py-[7px] text-left data-focus:bg-faint">
              <span className="flex justify-between">
                <b>
                  {sift.id === shownId ? `${t('sifting.shown')} ` : ''}
                  {bandName(sift.brief.minMs, sift.brief.maxMs)}
                  {sift.brief.topics.length > 0 ? `, ${t('sifting.about-topics', { topics: sift.brief.topics.join(', ') })}` : ''}
                </b>
              </span>
              <span className="text-[12px] text-soft">
                {sift.state === 'done'
                  ? t('sifting.candidates-kept', { candidateCount: sift.candidateCount, keptCount: sift.keptCount })
                  : stageName(sift.state)}{' '}
                · {sift.createdBy} · {formatMoment(sift.createdAt)}
              </span>
            </button>
          </MenuItem>
        ))}
        {shown !== undefined && other !== undefined && (
          <MenuItem>
            <Link to={`/recordings/${recordingId}/compare/${other.id}/${shown.id}`} className="block border-t border-rule px-3 py-[7px] data-focus:bg-faint">
              {t('sifting.compare-two-of-them')}
            </Link>
          </MenuItem>
        )}
      </MenuItems>
    </Menu>
  );
}

function CutSheetMenu({ recordingId, siftId }: { recordingId: string; siftId: string }): ReactNode {
  const [bringing, setBringing] = useState(false);
  const item = 'block w-full px-3 py-[7px] text-left data-focus:bg-faint';
  return (
    <Menu>
      <MenuButton className={MENU_BUTTON}>{t('sifting.cut-sheet')}</MenuButton>
      <MenuItems anchor="bottom end" className={`${MENU} !w-[240px]`}>
        <MenuItem>
          <a className={item} href={`/api/recordings/${recordingId}/cut-sheet.csv`} download>
            {t('sifting.download-as-csv')}
          </a>
        </MenuItem>
        <MenuItem>
          <a className={item} href={`/api/recordings/${recordingId}/cut-sheet`} target="_blank" rel="noreferrer">
            {t('sifting.page-to-print')}
          </a>
        </MenuItem>
        <MenuItem>
          <a className={item} href={`/api/recordings/${recordingId}/kept.edl`} download>
            {t('sifting.edit-decision-list')}
          </a>
        </MenuItem>
        <MenuItem>
          <a className={item} href={`/api/recordings/${recordingId}/kept.otio`} download>
            {t('sifting.timeline-otio')}
          </a>
        </MenuItem>
        <MenuItem>
          <button type="button" className={`${item} border-t border-rule`} onClick={() => setBringing(true)}>
            {t('sifting.bring-in-an-edit-list')}
          </button>
        </MenuItem>
      </MenuItems>
      {bringing && <EditListDialog siftId={siftId} onClose={() => setBringing(false)} />}
    </Menu>
  );
}

function WorkingLine({ sift, onGo }: { sift: SiftView; onGo: (id: string) => void }): ReactNode {
  return (
    <div className="flex flex-none items-center gap-3 border-b border-rule bg-sheet px-[18px] py-2">
      <span>{t('sifting.another-sift-is-at-work', { stage: stageName(sift.stage) })}</span>
      <div className="w-[180px]">
        <ProgressBar fraction={sift.fraction} label={t('sifting.sift-at-work')} />
      </div>
      <Button tone="quiet" onClick={() => onGo(sift.id)}>
        {t('sifting.show-it')}
      </Button>
    </div>
  );
}
