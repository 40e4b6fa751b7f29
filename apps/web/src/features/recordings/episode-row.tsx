import { formatLength } from '@sift-reel/core';
import { Link } from 'react-router';
import type { ReactNode } from 'react';
import { api, type EpisodeView, type RecordingView } from '../../app/api.js';
import { didSomething, sayTrouble } from '../../app/undo.js';
import { formatBytes, formatDate } from '../../texts/formats.js';
import { t } from '../../texts/texts.js';
import { Button, Chip } from '../../ui/parts.js';
import { episodeNumber } from './fetching.js';

/** One episode of a feed: what it is, and how it becomes a recording. */
export function EpisodeRow({ episode, aside, isWorking }: { episode: EpisodeView; aside?: ReactNode; isWorking?: boolean }): ReactNode {
  const [takeIn, { isLoading }] = api.useTakeInEpisodeMutation();
  const [remove] = api.useRemoveRecordingMutation();
  const take = (sift: boolean): void => {
    let made: RecordingView;
    const act = async (): Promise<void> => {
      made = await takeIn({ episodeId: episode.id, takeInForm: { sift } }).unwrap();
    };
    act().then(() => didSomething(t('recordings.took-in', { title: episode.title }), () => remove(made.id).unwrap(), act), sayTrouble);
  };
  const facts = [
    episodeNumber(episode),
    episode.publishedAt === null ? null : formatDate(episode.publishedAt),
    episode.durationMs === null ? null : formatLength(episode.durationMs),
    episode.bytes === null ? null : formatBytes(episode.bytes),
    episode.hasTranscript ? t('recordings.with-transcript') : t('recordings.without-transcript'),
  ];
  return (
    <li className="grid items-center gap-x-4 gap-y-1 py-[7px] md:grid-cols-[minmax(0,1fr)_auto]">
      <div className="min-w-0">
        <div className="flex min-w-0 items-baseline gap-2">
          <b className="truncate">{episode.title}</b>
          {isWorking !== true && episode.isNew && episode.recordingId === null && <Chip>{t('recordings.new')}</Chip>}
        </div>
        {episode.summary !== '' && (
          <div className="truncate font-serif text-[15px]" title={episode.summary}>
            {episode.summary}
          </div>
        )}
        <div className="truncate text-[12px] text-soft">
          {aside}
          {facts.filter((one) => one !== null).join(' · ')}
        </div>
      </div>
      {episode.recordingId === null ? (
        <span className="flex gap-2">
          <Button disabled={isLoading} onClick={() => take(false)} aria-label={t('recordings.take-in-title', { title: episode.title })}>
            {t('recordings.take-in')}
          </Button>
          {episode.hasTranscript && (
            <Button tone="fill" disabled={isLoading} onClick={() => take(true)} aria-label={t('recordings.take-in-and-sift-title', { title: episode.title })}>
              {t('recordings.take-in-and-sift')}
            </Button>
          )}
        </span>
      ) : (
        <Link className="underline" to={`/recordings/${episode.recordingId}`}>
          {t('recordings.was-taken-in')}
        </Link>
      )}
    </li>
  );
}
