import type { ReactNode } from 'react';
import { type AlignmentView, api, type RecordingView } from '../../app/api.js';
import { isAtWork } from '../../app/stages.js';
import { sayTrouble } from '../../app/undo.js';
import { formatNumber } from '../../texts/formats.js';
import { t } from '../../texts/texts.js';
import { Chip } from '../../ui/parts.js';
import { WorkLine } from '../../ui/work-line.js';

const LISTENING = {
  text: t('recordings.its-text-is-looked-for-in-the-sound'),
  cues: t('recordings.the-times-of-its-words-are-heard'),
  draft: t('recordings.a-rough-transcript-is-written'),
} as const satisfies Record<AlignmentView['kind'], string>;

/** Listening for the words of a recording: how far it is, what came of it, and how it is asked for. */
export function Alignment({ recording }: { recording: RecordingView }): ReactNode {
  const { id: recordingId, alignment, transcript, sound } = recording;
  const [listen] = api.useListenForWordsMutation();
  const [stop] = api.useStopListeningMutation();
  const ask = (kind: AlignmentView['kind']) => void listen({ recordingId, alignmentForm: { kind } }).unwrap().catch(sayTrouble);
  const leave = () => void stop(recordingId).unwrap().catch(sayTrouble);
  const state = alignment?.state ?? null;
  if (alignment !== null && isAtWork(alignment))
    return (
      <WorkLine of={alignment} label={t('recordings.listening-to', { title: recording.title })} says={(stage) => `${LISTENING[alignment.kind]} · ${stage}`}>
        <Deed onClick={leave}>{t('recordings.stop-listening')}</Deed>
      </WorkLine>
    );
  if (alignment !== null && state === 'failed')
    return (
      <div className="mt-1 max-w-[320px] text-[12px] text-madder-text">
        {alignment.sourceName !== null && `${alignment.sourceName}: `}
        {alignment.failure} <Deed onClick={() => ask(alignment.kind)}>{t('recordings.listen-again')}</Deed>{' '}
        <Deed onClick={leave}>{alignment.kind === 'text' ? t('recordings.leave-the-text') : t('recordings.let-it-be')}</Deed>
      </div>
    );
  if (sound === null || sound.track === null) return null;
  if (transcript === null)
    return (
      <div className="mt-1 text-[12px] text-soft">
        <Deed onClick={() => ask('draft')}>{t('recordings.write-a-rough-one')}</Deed>
      </div>
    );
  if (transcript.format === 'draft')
    return (
      <div className="mt-1">
        <Chip>{t('recordings.rough-written-by-listening')}</Chip>
      </div>
    );
  if (transcript.wordTimes !== 'spread' || alignment?.outcome === 'language') return null;
  const share = formatNumber(Math.round((alignment?.share ?? 0) * 100), 0);
  return (
    <div className="mt-1 max-w-[320px] text-[12px] text-soft">
      {alignment?.outcome === 'unlike' && <span className="text-madder-text">{t('recordings.few-of-its-words-were-heard', { percent: share })} </span>}
      {alignment?.outcome === 'shorts' && `${t('recordings.shorts-stand-on-its-times')} `}
      <Deed onClick={() => ask('cues')}>{t('recordings.hear-the-true-times')}</Deed>
    </div>
  );
}

function Deed({ onClick, children }: { onClick: () => void; children: ReactNode }): ReactNode {
  return (
    <button type="button" className="underline decoration-dotted underline-offset-2 hover:text-ink" onClick={onClick}>
      {children}
    </button>
  );
}
