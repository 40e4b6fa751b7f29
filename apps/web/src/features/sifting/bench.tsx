import { baseWeights, lastAtOrBefore, unpackTranscript, weightsFor } from '@sift-reel/core';
import { skipToken } from '@reduxjs/toolkit/query';
import clsx from 'clsx';
import { type ReactNode, useCallback, useDeferredValue, useEffect, useMemo, useRef, useState } from 'react';
import { api, type CandidateView, type ClientView, type RankingView, type RecordingView } from '../../app/api.js';
import { useKeys } from '../../app/keys.js';
import { problemText } from '../../app/problems.js';
import { useAppDispatch, useAppSelector } from '../../app/store.js';
import { doNow } from '../../app/undo.js';
import { EmptyState, Loading, Trouble } from '../../ui/parts.js';
import { candidateChosen } from './bench-slice.js';
import { ActionBar, ONLY, type Pane, PaneSwitch } from './narrow.js';
import { MakeUpLine } from './make-up.js';
import { notesOf } from './notes.js';
import { beginningsOf, toParagraphs } from './paragraphs.js';
import { useMediaOf } from '../../app/media.js';
import { usePlayer } from '../../app/player.js';
import { useStepKeys } from '../../app/step-keys.js';
import { arrange } from './rank.js';
import { Ranking } from './ranking.js';
import { FindPane } from './find-pane.js';
import { PhrasesPane } from './phrases-pane.js';
import { Reasons } from './reasons.js';
import { ReelDialog } from './reel-dialog.js';
import { Seam } from './seam.js';
import { SelectionBar } from './selection-bar.js';
import { SidePane } from './side-pane.js';
import { type DraftSpan, TranscriptPane } from './transcript-pane.js';
import { useOwnCandidates } from './use-own-candidates.js';
import { useReweighed } from './use-reweighed.js';
import { Weights } from './weights.js';
import { t } from '../../texts/texts.js';

const SAVE_AFTER_MS = 350;
/** Tabs of the right-hand pane. */
const REASONS = 0;
const FIND = 1;

/** Ranking, transcript and reasons of one sift, under the seam. */
export function Bench({ recording, client, siftId }: { recording: RecordingView; client: ClientView | undefined; siftId: string }): ReactNode {
  const ranking = api.useReadRankingQuery(siftId);
  const packed = api.useReadTranscriptQuery(recording.id);
  const transcript = useMemo(() => (packed.currentData === undefined ? null : unpackTranscript(packed.currentData)), [packed.currentData]);
  const error = ranking.error ?? packed.error;
  if (error !== undefined)
    return (
      <Trouble
        title={t('sifting.the-bench-cannot-be-laid')}
        detail={problemText(error)}
        onRetry={() => {
          void ranking.refetch();
          void packed.refetch();
        }}
      />
    );
  // What stood here of another sift is not this one's: a key would keep the wrong passage.
  if (ranking.currentData === undefined || transcript === null) return <Loading what={t('sifting.the-ranking')} rows={12} />;
  return <BenchTable recording={recording} client={client} onRecord={ranking.currentData} transcript={transcript} />;
}

function BenchTable({
  recording,
  client,
  onRecord,
  transcript,
}: {
  recording: RecordingView;
  client: ClientView | undefined;
  onRecord: RankingView;
  transcript: ReturnType<typeof unpackTranscript>;
}): ReactNode {
  const dispatch = useAppDispatch();
  const { candidateId, sort, filter, lit, weights } = useAppSelector((state) => state.bench);
  const topicsAsked = onRecord.sift.brief.topics.length > 0;
  const effective = useMemo(() => (weights === null ? null : weightsFor(topicsAsked, weights)), [weights, topicsAsked]);
  const ranking = useReweighed(onRecord, effective);
  const shown = useMemo(() => arrange(ranking.candidates, filter, sort, onRecord.chapters), [ranking.candidates, filter, sort, onRecord.chapters]);
  const chosen = ranking.candidates.find((one) => one.id === candidateId) ?? null;
  const paragraphs = useMemo(() => toParagraphs(transcript), [transcript]);
  const media = useMediaOf(recording);
  const player = usePlayer(media.source, media.pictured, media.of);
  const beginnings = useMemo(() => beginningsOf(transcript), [transcript]);
  const [focus, setFocus] = useState<{ word: number; token: number } | null>(null);
  const goTo = useCallback((word: number) => setFocus((old) => ({ word, token: (old?.token ?? 0) + 1 })), []);
  const choose = useCallback(
    (id: string) => {
      dispatch(candidateChosen(id));
    },
    [dispatch],
  );
  const { draft, moveEdge, nudge, backToFound, moveBoth } = useEdges(chosen, transcript.words.length);
  const span: DraftSpan | null = draft ?? chosen;

  useEffect(() => {
    if (chosen === null && shown[0] !== undefined) dispatch(candidateChosen(shown[0].id));
  }, [chosen, shown, dispatch]);
  const firstWord = chosen?.firstWord;
  useEffect(() => {
    if (chosen !== null) goTo(Math.max(0, chosen.firstWord));
    // Only a new choice scrolls; moving an edge must not.
  }, [chosen?.id, goTo]);

  const [pane, setPane] = useState<Pane>('Ranking');
  const levels = api.useReadLevelsQuery(recording.preparation?.heard === true ? recording.id : skipToken);
  const [reel, setReel] = useState(false);
  const [tab, setTab] = useState(0);
  const [query, setQuery] = useState('');
  const [selected, setSelected] = useState<DraftSpan | null>(null);
  const found = api.useSearchRecordingQuery({ recordingId: recording.id, q: query }, { skip: query === '' });
  const hitsMs = useMemo(
    () => (tab !== FIND || query === '' ? [] : [...new Set((found.currentData?.hits ?? []).map((hit) => hit.startMs))]),
    [found.currentData, tab, query],
  );
  const own = useOwnCandidates(ranking.sift.id, ranking.candidates, (id) => {
    requestAnimationFrame(() => choose(id)); // once the ranking has taken it in
    setTab(REASONS);
    setSelected(null);
    window.getSelection()?.removeAllRanges();
  });
  const setState = useStateChange();
  const change = (state: CandidateView['state']): void => {
    if (chosen === null || chosen.state === state) return;
    setState(chosen, state);
    if (state !== 'open') step(1, 'open');
  };
  const step = (by: number, only?: CandidateView['state']): void => {
    let index = shown.findIndex((one) => one.id === candidateId) + by;
    while (only !== undefined && shown[index] !== undefined && shown[index]!.state !== only) index += by;
    const next = shown[index];
    if (next !== undefined) choose(next.id);
  };
  const play = (): void => {
    if (player.playing) player.pause();
    else if (chosen !== null) player.playSpan(chosen.startMs, chosen.endMs);
  };
  const seek = (ms: number): void => {
    const word = Math.max(
      0,
      transcript.words.findLastIndex((one) => one.startMs <= ms),
    );
    player.seek(ms);
    goTo(word);
    const under = ranking.candidates.find((one) => one.startMs <= ms && ms < one.endMs);
    if (under !== undefined) choose(under.id);
  };
  const openFind = (): void => {
    setTab(FIND);
    setPane('Reasons');
    requestAnimationFrame(() => document.getElementById('find-words')?.focus());
  };
  const lastHot = useRef(-1);
  const hotWord = (by: number): void => {
    if (chosen === null) return;
    const starts = [...new Set(chosen.signals.flatMap((signal) => signal.evidence.filter((_, i) => i % 2 === 0)))].sort((a, b) => a - b);
    const from = lastHot.current < chosen.firstWord || lastHot.current >= chosen.endWord ? (by > 0 ? chosen.firstWord - 1 : chosen.endWord) : lastHot.current;
    const next = by > 0 ? starts.find((word) => word > from) : starts.findLast((word) => word < from);
    lastHot.current = next ?? -1;
    if (next !== undefined) {
      goTo(next);
      player.seek(transcript.words[next]!.startMs);
    }
  };
  useKeys([
    { key: 'ArrowDown', label: t('sifting.next-candidate'), group: t('sifting.ranking'), run: () => step(1) },
    { key: 'j', label: t('sifting.next-candidate'), group: t('sifting.ranking'), run: () => step(1) },
    { key: 'ArrowUp', label: t('sifting.candidate-above'), group: t('sifting.ranking'), run: () => step(-1) },
    { key: 'i', label: t('sifting.candidate-above'), group: t('sifting.ranking'), run: () => step(-1) },
    { key: 'k', label: t('sifting.keep-and-go-to-the-next'), group: t('sifting.ranking'), run: () => change('kept') },
    { key: 'x', label: t('sifting.drop-and-go-to-the-next'), group: t('sifting.ranking'), run: () => change('dropped') },
    { key: 'l', label: t('sifting.leave-open'), group: t('sifting.ranking'), run: () => change('open') },
    { key: 'f', label: t('sifting.find-in-the-transcript'), group: t('common.transcript'), run: () => openFind() },
    ...(selected === null
      ? []
      : [{ key: 'c', label: t('sifting.make-a-candidate-of-the-selected'), group: t('common.transcript'), run: () => own.make(selected) }]),
    { key: '/', label: t('sifting.find-words-in-the-ranking'), group: t('sifting.ranking'), run: () => document.getElementById('ranking-text')?.focus() },
    { key: ' ', label: t('sifting.play-exactly-the-candidate-or-pause'), group: t('sifting.listening'), run: play },
    { key: 'h', label: t('sifting.next-word-that-earned-the-score'), group: t('common.transcript'), run: () => hotWord(1) },
    { key: 'g', label: t('sifting.word-before-that-earned-the-score'), group: t('common.transcript'), run: () => hotWord(-1) },
    { key: '[', label: t('sifting.start-a-word-earlier'), group: t('common.transcript'), run: () => nudge('start', -1) },
    { key: ']', label: t('sifting.start-a-word-later'), group: t('common.transcript'), run: () => nudge('start', 1) },
    { key: '{', label: t('sifting.end-a-word-earlier'), group: t('common.transcript'), run: () => nudge('end', -1) },
    { key: '}', label: t('sifting.end-a-word-later'), group: t('common.transcript'), run: () => nudge('end', 1) },
  ]);

  useStepKeys(player, beginnings, (ms) => {
    player.seek(ms);
    goTo(Math.max(0, lastAtOrBefore(beginnings.words, ms)));
  });

  const deferredShown = useDeferredValue(shown);
  const notes = notesOf(ranking.limits, recording.sound !== null, ranking.language);
  const durationMs = recording.durationMs ?? transcript.durationMs;
  return (
    <div className="flex h-full flex-col" data-first-word={firstWord}>
      <Seam
        durationMs={durationMs}
        ridge={ranking.ridge}
        madeOf={ranking.makeUp?.steps}
        chapters={ranking.chapters}
        candidates={ranking.candidates}
        strongCount={ranking.strongCount}
        partStartMs={ranking.sift.brief.partStartMs}
        partEndMs={ranking.sift.brief.partEndMs ?? durationMs}
        chosen={chosen}
        time={player.time}
        hitsMs={hitsMs}
        sprite={media.sprite}
        levels={levels.currentData}
        onSeek={seek}
        onChoose={choose}
      />
      {(notes.length > 0 || ranking.makeUp !== null) && (
        <div className="flex-none border-b border-rule px-[18px] py-[5px] text-[12px] text-soft">
          {ranking.makeUp !== null && <MakeUpLine makeUp={ranking.makeUp} />}
          {notes.join(' ')}
        </div>
      )}
      <PaneSwitch
        shown={pane}
        onShow={(next) => {
          setPane(next);
          if (next === 'Transcript' && chosen !== null) requestAnimationFrame(() => goTo(chosen.firstWord)); // what was hidden could not scroll
        }}
      />
      <div className={clsx('grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)] md:grid-cols-[minmax(320px,372px)_1fr_minmax(270px,316px)]', ONLY[pane])}>
        <Ranking
          all={ranking.candidates}
          chapters={onRecord.chapters}
          shown={deferredShown}
          strongCount={ranking.strongCount}
          roughCount={ranking.sift.brief.roughCount}
          chosenId={candidateId}
          onChoose={choose}
          onReel={() => setReel(true)}
          weights={
            <Weights
              clientId={recording.clientId}
              clientWeights={client?.signalWeights ?? null}
              siftWeights={baseWeights(topicsAsked, onRecord.weights)}
              topicsAsked={topicsAsked}
              clientVersion={client?.version ?? 1}
            />
          }
        />
        <TranscriptPane
          transcript={transcript}
          paragraphs={paragraphs}
          candidate={chosen}
          span={span}
          lit={lit}
          player={player}
          focus={focus}
          onMoveEdge={moveEdge}
          onNudge={nudge}
          onWord={(word) => player.seek(transcript.words[word]!.startMs)}
          onSelect={setSelected}
          foot={selected !== null && <SelectionBar transcript={transcript} span={selected} making={own.making} onMake={() => own.make(selected)} />}
        />
        <SidePane
          shown={tab}
          onShow={setTab}
          reasons={
            chosen === null ? (
              <EmptyState title={t('sifting.no-candidate-chosen')}>{t('sifting.choose-one-in-the-ranking-and')}</EmptyState>
            ) : (
              <Reasons
                candidate={chosen}
                total={ranking.candidates.length}
                transcript={transcript}
                player={player}
                media={media}
                hasSound={recording.sound !== null}
                onState={change}
                onPlay={play}
                onGoTo={goTo}
                onBack={backToFound}
                onTake={moveBoth}
                onRemove={() => own.remove(chosen)}
                weights={effective ?? ranking.weights}
              />
            )
          }
          find={
            <FindPane
              recordingId={recording.id}
              query={query}
              onQuery={setQuery}
              onGoTo={goTo}
              onMake={own.makeAround}
              making={own.making}
              language={ranking.language}
            />
          }
          phrases={<PhrasesPane phrases={ranking.keyPhrases} candidates={ranking.candidates} />}
        />
      </div>
      {chosen !== null && <ActionBar candidate={chosen} hasSound={recording.sound !== null} playing={player.playing} onPlay={play} onState={change} />}
      {reel && (
        <ReelDialog
          siftId={onRecord.sift.id}
          title={recording.title}
          candidates={ranking.candidates}
          transcript={transcript}
          player={player}
          hasSound={recording.sound !== null}
          onClose={() => setReel(false)}
        />
      )}
    </div>
  );
}

const DEEDS = { kept: t('sifting.kept'), dropped: t('sifting.dropped'), open: t('sifting.left-open') } as const;

/** Keep, drop or leave with undo. */
function useStateChange(): (candidate: CandidateView, state: CandidateView['state']) => void {
  const [setState] = api.useSetCandidateStateMutation();
  return (candidate, state) => {
    const before = candidate.state;
    const write = (value: CandidateView['state']) => setState({ candidateId: candidate.id, candidateStateForm: { state: value } }).unwrap();
    void doNow(
      `${DEEDS[state]} “${candidate.title}”`,
      () => write(state),
      () => write(before),
    );
  };
}

interface Edges {
  readonly draft: DraftSpan | null;
  moveEdge(edge: 'start' | 'end', word: number, final: boolean): void;
  nudge(edge: 'start' | 'end', by: number): void;
  backToFound(): void;
  /** Moves both ends at once, to another cut. */
  moveBoth(span: DraftSpan): void;
}

/** Moves the ends of the chosen candidate: shown at once, saved when the hand rests, undone as one. */
function useEdges(chosen: CandidateView | null, wordCount: number): Edges {
  const [setSpan] = api.useSetCandidateSpanMutation();
  const [draft, setDraft] = useState<(DraftSpan & { id: string }) | null>(null);
  const timer = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  const pending = useRef<(() => void) | null>(null);
  const current = draft !== null && draft.id === chosen?.id ? draft : null;

  const flush = useCallback(() => {
    clearTimeout(timer.current);
    pending.current?.();
    pending.current = null;
  }, []);
  useEffect(() => flush, [chosen?.id, flush]); // leaving a candidate saves what was moved
  const save = (target: CandidateView, next: DraftSpan): void => {
    const before = { firstWord: target.firstWord, endWord: target.endWord };
    const write = (span: DraftSpan) => setSpan({ candidateId: target.id, wordSpanForm: { firstWord: span.firstWord, endWord: span.endWord } }).unwrap();
    void doNow(
      t('sifting.moved-the-ends-of', { title: target.title }),
      () => write(next),
      () => write(before),
    ).then(() => setDraft((old) => (old?.id === target.id && old.firstWord === next.firstWord && old.endWord === next.endWord ? null : old)));
  };
  const moveTo = (span: DraftSpan, waitMs: number): void => {
    if (chosen === null) return;
    setDraft({ ...span, id: chosen.id });
    clearTimeout(timer.current);
    const target = chosen;
    const back = span.firstWord === target.firstWord && span.endWord === target.endWord;
    pending.current = back ? () => setDraft(null) : () => save(target, span); // there and back again is no change
    timer.current = setTimeout(flush, waitMs);
  };
  const withEdge = (edge: 'start' | 'end', word: number): DraftSpan | null => {
    const from = current ?? chosen;
    if (from === null) return null;
    return edge === 'start'
      ? { firstWord: Math.max(0, Math.min(word, from.endWord - 1)), endWord: from.endWord }
      : { firstWord: from.firstWord, endWord: Math.min(wordCount, Math.max(word, from.firstWord + 1)) };
  };
  return {
    draft: current,
    moveEdge: (edge, word, final) => {
      const next = withEdge(edge, word);
      if (next === null || chosen === null) return;
      if (final) moveTo(next, 0);
      else setDraft({ ...next, id: chosen.id });
    },
    nudge: (edge, by) => {
      const from = current ?? chosen;
      const next = from === null ? null : withEdge(edge, (edge === 'start' ? from.firstWord : from.endWord) + by);
      if (next !== null) moveTo(next, SAVE_AFTER_MS);
    },
    moveBoth: ({ firstWord, endWord }) => moveTo({ firstWord, endWord }, 0),
    backToFound: () => {
      if (chosen !== null) moveTo({ firstWord: chosen.foundFirstWord, endWord: chosen.foundEndWord }, 0);
    },
  };
}
