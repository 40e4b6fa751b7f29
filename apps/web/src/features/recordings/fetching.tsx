import type { ReactNode } from 'react';
import { api, type FetchView, type RecordingView } from '../../app/api.js';
import { isAtWork } from '../../app/stages.js';
import { sayTrouble } from '../../app/undo.js';
import { formatDate } from '../../texts/formats.js';
import { t } from '../../texts/texts.js';
import { WorkLine } from '../../ui/work-line.js';

/** The number of an episode, with its season where there is one. */
export const episodeNumber = ({ season, number }: { readonly season: number | null; readonly number: string }): string | null =>
  number === '' ? null : season === null ? t('recordings.no-number', { number }) : t('recordings.season-number', { season, number });

/** Which episode of which show a recording was, when it came in from a feed. */
export function Origin({ recording: { origin } }: { recording: RecordingView }): ReactNode {
  if (origin === null) return null;
  const parts = [origin.feedTitle, episodeNumber(origin), origin.publishedAt === null ? null : formatDate(origin.publishedAt)];
  const guests = origin.persons.filter(({ role }) => role === 'guest').map(({ name }) => name);
  return (
    <div className="text-[12px] text-soft">
      {parts.filter((one) => one !== null && one !== '').join(' · ')}
      {guests.length > 0 && ` · ${t('recordings.with-guests', { names: guests.join(', ') })}`}
    </div>
  );
}

/** Why it waits, where it is its host's doing, who asked to be left alone for a while. */
const waitsForHost = ({ state, failure }: FetchView): string | null =>
  state === 'waiting' && failure !== null ? t('recordings.is-tried-again', { failure }) : null;

/** How far what is fetched for a recording has come, what could not be had of it, and what can be done about it. */
export function Fetching({ recording }: { recording: RecordingView }): ReactNode {
  const [again] = api.useFetchAgainMutation();
  const [stop] = api.useStopFetchMutation();
  const { fetch } = recording;
  if (fetch === null) return null;
  const deed = (act: (id: string) => { unwrap: () => Promise<unknown> }): void => void act(recording.id).unwrap().catch(sayTrouble);
  return (
    <div className="text-[12px] text-soft">
      {isAtWork(fetch) && (
        <WorkLine
          of={fetch}
          label={t('recordings.fetching-title', { title: recording.title })}
          says={(stage) => waitsForHost(fetch) ?? t('recordings.fetched-from', { host: fetch.host, stage })}
        >
          <button type="button" className="underline" onClick={() => deed(stop)}>
            {t('recordings.stop-fetching')}
          </button>
        </WorkLine>
      )}
      {(fetch.state === 'failed' || fetch.state === 'cancelled') && (
        <div className={fetch.state === 'failed' ? 'max-w-[380px] text-madder-text' : ''}>
          {fetch.state === 'failed' ? fetch.failure : t('recordings.fetching-was-stopped')}{' '}
          <button type="button" className="underline" onClick={() => deed(again)}>
            {t('recordings.fetch-again')}
          </button>
        </div>
      )}
      {fetch.notes.map((note) => (
        <div key={note} className="max-w-[380px] text-madder-text">
          {note}
        </div>
      ))}
    </div>
  );
}
