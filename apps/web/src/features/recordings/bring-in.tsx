import clsx from 'clsx';
import { FileText, Link2, Video, Volume2, X } from 'lucide-react';
import { type ReactNode, useState } from 'react';
import { useDropzone } from 'react-dropzone';
import type { ClientView } from '../../app/api.js';
import { useAppDispatch, useAppSelector } from '../../app/store.js';
import { Button, ProgressBar } from '../../ui/parts.js';
import { Select } from '../../ui/select.js';
import { LinkForm } from './link-form.js';
import { pairFiles } from './upload.js';
import { Understood } from './understood.js';
import { bringIn, leaveUnderstood, stopBringing, takeUnderstood } from './upload-queue.js';
import { type Bringing, uploadCleared } from './upload-slice.js';
import { timeLeft } from '../../texts/formats.js';
import { t } from '../../texts/texts.js';

/** Where files are dropped for a client: for the one whose recordings are shown, until another is chosen here. */
export function BringIn({ clients, shownClientId }: { clients: readonly ClientView[]; shownClientId: string }): ReactNode {
  const [picked, setPicked] = useState<{ id: string; whileShown: string } | null>(null);
  const usual = clients.some((one) => one.id === shownClientId) ? shownClientId : (clients[0]?.id ?? '');
  const clientId = picked?.whileShown === shownClientId ? picked.id : usual;
  const [strangers, setStrangers] = useState<readonly string[]>([]);
  const [isLinking, setIsLinking] = useState(false);
  const list = useAppSelector((state) => state.uploads);
  const dispatch = useAppDispatch();
  const take = (files: readonly File[]): void => {
    const { pairs, strangers: unknown } = pairFiles(files);
    const client = clients.find((one) => one.id === clientId);
    setStrangers(unknown);
    if (client !== undefined) bringIn(pairs, client);
  };
  const { getRootProps, getInputProps, isDragActive, open } = useDropzone({ onDrop: take, noClick: true, noKeyboard: true });
  return (
    <section aria-label={t('common.bring-in-recordings')} className="border-b border-rule px-[18px] py-4">
      <div
        {...getRootProps()}
        className={clsx(
          'flex flex-wrap items-center gap-4 border border-dashed px-5 py-4',
          isDragActive ? 'border-madder bg-madder-tint' : 'border-edge bg-sheet',
        )}
      >
        <div className="min-w-[240px] flex-1">
          <b className="text-[14px]">{t('recordings.drop-recordings-here')}</b>
          <p className="text-soft">{t('recordings.a-transcript-webvtt-subrip-podcast-json')}</p>
        </div>
        <span className="flex items-center gap-2">
          {t('recordings.for')}
          <Select
            label={t('recordings.client-of-the-files')}
            value={clientId}
            onChange={(id) => setPicked({ id, whileShown: shownClientId })}
            options={clients.map((client) => ({ value: client.id, name: client.name }))}
            strong
          />
        </span>
        <Button tone="fill" onClick={open}>
          {t('recordings.choose-files')}
        </Button>
        <Button aria-expanded={isLinking} onClick={() => setIsLinking(!isLinking)}>
          <Link2 size={14} aria-hidden="true" />
          {t('recordings.from-a-link')}
        </Button>
        <input {...getInputProps()} data-testid="files" />
      </div>
      {isLinking && clientId !== '' && <LinkForm clientId={clientId} onDone={() => setIsLinking(false)} />}
      {strangers.length > 0 && (
        <p role="alert" className="mt-2 border-l-4 border-madder pl-3">
          {t('recordings.left-aside-a-transcript-ends-in', { strangers: strangers.join(', ') })}
        </p>
      )}
      {list.length > 0 && (
        <ul className="mt-3 divide-y divide-rule border-y border-rule">
          {list.map((one) => (
            <li key={one.id} className="grid grid-cols-[1fr_auto] items-center gap-x-4 gap-y-1 py-2 md:grid-cols-[1fr_150px_1.4fr_24px]">
              <Files of={one} />
              {one.state === 'asking' ? (
                <span />
              ) : (
                <ProgressBar fraction={one.state === 'done' ? 1 : one.fraction} label={t('recordings.bringing-in', { base: one.base })} />
              )}
              <span className={clsx(one.state === 'refused' ? 'text-madder-text' : 'text-soft')} role={one.state === 'refused' ? 'alert' : 'status'}>
                {sayState(one)}
              </span>
              {one.state === 'sending' && (
                <button
                  type="button"
                  aria-label={t('recordings.stop-bringing-in', { base: one.base })}
                  title={t('recordings.stop-bringing-in', { base: one.base })}
                  className="text-soft hover:text-ink"
                  onClick={() => stopBringing(one.id)}
                >
                  <X size={14} />
                </button>
              )}
              {one.state === 'asking' && one.understood !== null && (
                <Understood
                  reading={one.understood}
                  sounding={one.media !== null}
                  onTake={() => takeUnderstood(one.id)}
                  onLeave={() => leaveUnderstood(one.id)}
                />
              )}
              {(one.state === 'refused' || one.state === 'done') && (
                <button
                  type="button"
                  aria-label={t('recordings.clear', { base: one.base })}
                  className="text-soft hover:text-ink"
                  onClick={() => dispatch(uploadCleared(one.id))}
                >
                  <X size={14} />
                </button>
              )}
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}

function Files({ of }: { of: Bringing }): ReactNode {
  return (
    <span className="min-w-0">
      <b className="block truncate">{of.base}</b>
      <span className="flex gap-3 text-[11.5px] text-soft">
        {of.hasTranscript && (
          <span className="flex items-center gap-1">
            <FileText size={12} />
            {t('recordings.transcript')}
          </span>
        )}
        {of.media !== null && (
          <span className="flex items-center gap-1">
            {of.media === 'video' ? <Video size={12} /> : <Volume2 size={12} />}
            {of.media === 'video' ? t('recordings.video') : t('recordings.sound')}
          </span>
        )}
        {of.clientName}
      </span>
    </span>
  );
}

function sayState(one: Bringing): string {
  if (one.state === 'understanding') return t('recordings.being-read');
  if (one.state === 'asking') return t('recordings.is-it-right');
  if (one.state === 'waiting') return t('recordings.waits-its-turn');
  if (one.state === 'sending')
    return [
      t('recordings.sent', { number: Math.floor(one.fraction * 100) }),
      ...(one.leftMs === null ? [] : [t('common.left', { left: timeLeft(one.leftMs) })]),
    ].join(' · ');
  if (one.state === 'reading') return t('recordings.being-read');
  return one.state === 'refused' ? t('recordings.refused', { detail: one.detail }) : one.detail;
}
