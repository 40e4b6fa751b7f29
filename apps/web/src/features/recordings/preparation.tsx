import type { ReactNode } from 'react';
import { api, type RecordingView } from '../../app/api.js';
import { isAtWork } from '../../app/stages.js';
import { sayTrouble } from '../../app/undo.js';
import { formatLevel, formatNumber, lufs } from '../../texts/formats.js';
import { t } from '../../texts/texts.js';
import { Select } from '../../ui/select.js';
import { WorkLine } from '../../ui/work-line.js';

/** What a recording's file is, and how loud. */
export function MediaFacts({ recording: { sound, preparation } }: { recording: RecordingView }): ReactNode {
  if (sound === null) return null;
  const { picture } = sound;
  const kind = picture === null ? t('recordings.sound') : t('recordings.video-of-size', { width: picture.width, height: picture.height });
  const loudness = preparation?.loudness ?? null;
  if (loudness === null) return ` · ${kind}`;
  const { integrated, shortTerm, range, truePeak } = loudness;
  const told = {
    integrated: formatLevel(integrated, 1),
    shortTerm: formatLevel(shortTerm, 1),
    range: formatNumber(range, 1),
    truePeak: formatLevel(truePeak, 1),
  };
  return (
    <span title={t('recordings.loudness-in-full', told)}>
      {' · '}
      {kind} · {lufs(integrated, 1)}
    </span>
  );
}

/** How far a recording is prepared, and which of its sound tracks counts. */
export function Preparation({ recording }: { recording: RecordingView }): ReactNode {
  const { sound, preparation } = recording;
  const [again] = api.usePrepareAgainMutation();
  if (sound === null) return null;
  return (
    <div className="text-[12px] text-soft">
      {sound.tracks.length > 1 && <Track recording={recording} />}
      {preparation !== null && isAtWork(preparation) && (
        <WorkLine of={preparation} label={t('recordings.preparing', { title: recording.title })} says={(stage) => t('recordings.being-prepared', { stage })} />
      )}
      {preparation?.state === 'failed' && (
        <div className="text-madder-text">
          {preparation.failure}{' '}
          <button type="button" className="underline" onClick={() => void again(recording.id).unwrap().catch(sayTrouble)}>
            {t('recordings.prepare-again')}
          </button>
        </div>
      )}
    </div>
  );
}

function Track({ recording }: { recording: RecordingView }): ReactNode {
  const [choose] = api.useChooseSoundTrackMutation();
  const { tracks, track } = recording.sound!;
  return (
    <div className="mt-1 max-w-[260px]">
      <Select
        label={t('recordings.sound-track')}
        value={String(track ?? 0)}
        onChange={(value) =>
          void choose({ recordingId: recording.id, soundTrackForm: { track: Number(value), version: recording.version } })
            .unwrap()
            .catch(sayTrouble)
        }
        options={tracks.map(({ title, language, channels }, i) => ({
          value: String(i),
          name: [t('recordings.track', { number: i + 1 }), title, language, t('recordings.channels', { count: channels })]
            .filter((part) => part !== '')
            .join(' · '),
        }))}
      />
    </div>
  );
}
