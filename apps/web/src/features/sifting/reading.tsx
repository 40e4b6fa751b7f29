import { unpackTranscript } from '@sift-reel/core';
import { skipToken } from '@reduxjs/toolkit/query';
import { atFoot } from '../../ui/foot.js';
import { PlayerTrouble } from '../../ui/player-trouble.js';
import { type ReactNode, useCallback, useEffect, useMemo, useState } from 'react';
import { api, type BriefForm, type ChapterView, type RecordingView, type SiftView } from '../../app/api.js';
import { useKeys } from '../../app/keys.js';
import { problemOf, problemText } from '../../app/problems.js';
import { stageName } from '../../app/stages.js';
import { sayTrouble } from '../../app/undo.js';
import { Button, EmptyState, FormTrouble, Loading, ProgressBar, Trouble } from '../../ui/parts.js';
import { BriefFields, useBriefForm } from './brief-form.js';
import { beginningsOf, toParagraphs } from './paragraphs.js';
import { PlayedPicture } from '../../app/played-picture.js';
import { useMediaOf } from '../../app/media.js';
import { usePlayer } from '../../app/player.js';
import { useStepKeys } from '../../app/step-keys.js';
import { Seam } from './seam.js';
import { talkRidge } from './talk-ridge.js';
import { type DraftSpan, TranscriptPane } from './transcript-pane.js';
import { t } from '../../texts/texts.js';
import { timeLeft } from '../../texts/formats.js';

interface ReadingProps {
  recording: RecordingView;
  /** Chapters of an earlier sift, where there is one. */
  chapters: readonly ChapterView[];
  brief: BriefForm;
  /** The sift that is not done: it waits, runs, failed or was cancelled. None: the recording is to be briefed. */
  sift: SiftView | null;
  onStarted: (siftId: string) => void;
  onBrief: () => void;
}

const NOTHING = { candidates: [], strongCount: 0, hitsMs: [] } as const;
const idle = (): void => undefined;

/** A recording that can be read though there is no ranking of it: before it is briefed, and while its sift runs. */
export function Reading(props: ReadingProps): ReactNode {
  const packed = api.useReadTranscriptQuery(props.recording.id);
  const transcript = useMemo(() => (packed.currentData === undefined ? null : unpackTranscript(packed.currentData)), [packed.currentData]);
  if (packed.error !== undefined)
    return <Trouble title={t('sifting.the-transcript-cannot-be-shown')} detail={problemText(packed.error)} onRetry={() => void packed.refetch()} />;
  return transcript === null ? <Loading what={t('common.the-transcript')} rows={12} /> : <ReadingTable {...props} transcript={transcript} />;
}

function ReadingTable({
  recording,
  chapters,
  brief,
  sift,
  onStarted,
  onBrief,
  transcript,
}: ReadingProps & { transcript: ReturnType<typeof unpackTranscript> }): ReactNode {
  const durationMs = recording.durationMs ?? transcript.durationMs;
  const form = useBriefForm(brief);
  const [partStartMs, partEndMs] = form.watch(['partStartMs', 'partEndMs']);
  const paragraphs = useMemo(() => toParagraphs(transcript), [transcript]);
  const ridge = useMemo(() => talkRidge(transcript, durationMs), [transcript, durationMs]);
  const media = useMediaOf(recording);
  const player = usePlayer(media.source, media.pictured, media.of);
  const levels = api.useReadLevelsQuery(recording.preparation?.heard === true ? recording.id : skipToken);
  const beginnings = useMemo(() => beginningsOf(transcript), [transcript]);
  const [focus, setFocus] = useState<{ word: number; token: number } | null>(null);
  const [selected, setSelected] = useState<DraftSpan | null>(null);
  const seek = (ms: number): void => {
    player.seek(ms);
    const word = transcript.words.findLastIndex((one) => one.startMs <= ms);
    setFocus((old) => ({ word: Math.max(0, word), token: (old?.token ?? 0) + 1 }));
  };
  const { setValue } = form;
  const setPart = useCallback(
    (startMs: number | null, endMs: number | null): void => {
      const whole = { shouldDirty: true, shouldValidate: true } as const;
      const seconds = (ms: number): number => Math.round(ms / 1_000) * 1_000;
      if (startMs !== null) setValue('partStartMs', seconds(startMs), whole);
      if (endMs !== null) setValue('partEndMs', endMs >= durationMs - 1_000 ? null : seconds(endMs), whole);
    },
    [setValue, durationMs],
  );
  const play = (): void => {
    if (player.playing) player.pause();
    else player.playSpan(Math.max(player.time.get(), 0), durationMs);
  };
  useStepKeys(player, beginnings, seek);
  const briefing = sift === null;
  useKeys([
    { key: ' ', label: t('sifting.play-or-pause'), group: t('sifting.listening'), run: play },
    ...(selected === null || !briefing
      ? []
      : [
          {
            key: '[',
            label: t('sifting.the-part-that-counts-starts-with'),
            group: t('sifting.part'),
            run: () => setPart(wordMs(selected.firstWord, 'start'), null),
          },
          {
            key: ']',
            label: t('sifting.the-part-that-counts-ends-with'),
            group: t('sifting.part'),
            run: () => setPart(null, wordMs(selected.endWord - 1, 'end')),
          },
        ]),
  ]);
  const wordMs = (word: number, edge: 'start' | 'end'): number => transcript.words[word]![edge === 'start' ? 'startMs' : 'endMs'];
  useEffect(() => setSelected(null), [sift?.id]);
  return (
    <div className="flex h-full flex-col">
      <Seam
        durationMs={durationMs}
        ridge={ridge}
        chapters={chapters}
        {...NOTHING}
        partStartMs={partStartMs ?? 0}
        partEndMs={partEndMs ?? durationMs}
        chosen={null}
        time={player.time}
        sprite={media.sprite}
        levels={levels.currentData}
        onSeek={seek}
        onChoose={idle}
        {...(briefing ? { onPart: setPart } : {})}
      />
      <div className="grid min-h-0 flex-1 grid-cols-1 overflow-y-auto max-md:grid-rows-[auto_70vh] md:grid-cols-[1fr_minmax(360px,420px)] md:overflow-hidden">
        <TranscriptPane
          transcript={transcript}
          paragraphs={paragraphs}
          candidate={null}
          span={null}
          lit={null}
          player={player}
          focus={focus}
          onMoveEdge={idle}
          onNudge={idle}
          onWord={(word) => player.seek(transcript.words[word]!.startMs)}
          onSelect={setSelected}
          foot={
            briefing &&
            selected !== null && (
              <div
                ref={atFoot}
                className="absolute inset-x-0 bottom-0 z-20 flex flex-wrap items-center gap-3 border-t border-rule bg-paper px-6 py-[7px]"
                data-testid="selection"
              >
                <span className="text-soft">{t('sifting.the-part-that-counts')}</span>
                <Button keyName="[" onClick={() => setPart(wordMs(selected.firstWord, 'start'), null)}>
                  {t('sifting.starts-here')}
                </Button>
                <Button keyName="]" onClick={() => setPart(null, wordMs(selected.endWord - 1, 'end'))}>
                  {t('sifting.ends-here')}
                </Button>
              </div>
            )
          }
        />
        <aside
          aria-label={briefing ? t('sifting.brief') : t('common.sift')}
          className="order-first border-rule md:order-none md:min-h-0 md:overflow-y-auto md:border-l"
        >
          <PlayedPicture player={player} startMs={partStartMs ?? 0} onToggle={play} className="h-[196px] w-full" />
          <PlayerTrouble player={player} media={media} className="px-5 pt-2" />
          {briefing ? <BriefPane recording={recording} form={form} onStarted={onStarted} /> : <SiftPane sift={sift} onBrief={onBrief} />}
        </aside>
      </div>
    </div>
  );
}

/** The brief, beside what it is about. */
function BriefPane({
  recording,
  form,
  onStarted,
}: {
  recording: RecordingView;
  form: ReturnType<typeof useBriefForm>;
  onStarted: (siftId: string) => void;
}): ReactNode {
  const [startSift, { error, isLoading }] = api.useStartSiftMutation();
  const refused = Object.fromEntries((problemOf(error)?.errors ?? []).map(({ field, detail }) => [field, detail]));
  const submit = form.handleSubmit(async (briefForm) => {
    onStarted((await startSift({ recordingId: recording.id, briefForm }).unwrap()).id);
  });
  return (
    <form
      className="grid gap-4 px-5 pt-5"
      noValidate
      onSubmit={(event) => {
        submit(event).catch(() => undefined);
      }}
    >
      <div>
        <h2>{t('sifting.brief')}</h2>
        <p className="mt-1 text-[12px] text-soft">{t('sifting.say-which-part-counts-how-long')}</p>
      </div>
      <BriefFields control={form.control} setValue={form.setValue} errors={form.formState.errors} refused={refused} narrow />
      {Object.keys(refused).length === 0 && <FormTrouble error={error} />}
      <div className="sticky bottom-0 -mx-5 grid gap-1 border-t border-rule bg-paper px-5 py-3">
        <Button tone="fill" type="submit" disabled={isLoading} className="py-2">
          {t('sifting.sift-the-recording')}
        </Button>
        <p className="text-[12px] text-soft">{t('sifting.it-runs-in-the-background-you')}</p>
      </div>
    </form>
  );
}

/** How far a sift is, or why it is not. */
function SiftPane({ sift, onBrief }: { sift: SiftView; onBrief: () => void }): ReactNode {
  const [cancel] = api.useCancelSiftMutation();
  const [retry] = api.useRetrySiftMutation();
  if (sift.state === 'failed' || sift.state === 'cancelled') {
    return (
      <EmptyState
        title={sift.state === 'failed' ? t('sifting.the-sift-failed') : t('sifting.the-sift-was-cancelled')}
        action={
          <span className="flex gap-2">
            <Button
              tone="fill"
              onClick={() => {
                retry(sift.id).unwrap().catch(sayTrouble);
              }}
            >
              {t('sifting.run-it-again')}
            </Button>
            <Button onClick={onBrief}>{t('sifting.change-brief')}</Button>
          </span>
        }
      >
        {sift.failure ?? t('sifting.what-was-computed-so-far-is')}
      </EmptyState>
    );
  }
  const left = sift.leftMs === null || sift.leftMs <= 0 ? '' : ` · ${t('sifting.about-left', { left: timeLeft(sift.leftMs) })}`;
  return (
    <EmptyState
      title={sift.state === 'waiting' ? t('sifting.waiting-for-a-worker') : t('sifting.sifting')}
      action={
        <Button
          onClick={() => {
            cancel(sift.id).unwrap().catch(sayTrouble);
          }}
        >
          {t('sifting.cancel-the-sift')}
        </Button>
      }
    >
      <div className="mb-3 w-full max-w-[360px] font-sans text-[13px]" aria-live="polite">
        <ProgressBar fraction={sift.fraction} label={t('common.sift')} />
        <p className="mt-2">
          {Math.round(sift.fraction * 100)} % · {stageName(sift.state === 'waiting' ? 'waiting' : sift.stage)}
          {left}
        </p>
      </div>
      {t('sifting.you-need-not-wait-here-go')}
    </EmptyState>
  );
}
