import { formatLength, joinedRuns, playedAt, playedMs, runsWithout, tightened, type WordRange } from '@sift-reel/core';
import { type ReactNode, useEffect, useMemo, useState } from 'react';
import { Link, useParams } from 'react-router';
import { api, type ShortView, type TalkAroundView, type TighteningView } from '../../app/api.js';
import { useKeys } from '../../app/keys.js';
import { useMedia } from '../../app/media.js';
import { usePlayer } from '../../app/player.js';
import { useStepKeys } from '../../app/step-keys.js';
import { problemText } from '../../app/problems.js';
import { useSaver } from '../../app/saver.js';
import { sayTrouble } from '../../app/undo.js';
import { formatNumber } from '../../texts/formats.js';
import { t } from '../../texts/texts.js';
import { Button, EmptyState, Loading, PageHead, Trouble } from '../../ui/parts.js';
import { saverOf } from '../shorts/copy-saver.js';
import { CutPreview } from './cut-preview.js';
import { CutStrip } from './cut-strip.js';
import { type Choice, CutWords } from './cut-words.js';
import { PartFinder } from './part-finder.js';
import { Parts } from './parts-row.js';
import { PlayerTrouble } from '../../ui/player-trouble.js';
import { Correction } from './correction.js';
import { cutsOf, isKnown, isRemoved, pauseOf, spokenOf, textOf } from './spoken.js';
import { TightenPane } from './tighten-pane.js';
import { useEdit } from './use-edit.js';

/** What stays of a pause that is shortened by hand, in ms. */
const SHORT_PAUSE_MS = 500;
/** Heard before and after a cut that is tried, in ms. */
const AROUND_CUT_MS = 1_500;

/** The cutting of one short, by its words. */
export function CutPage(): ReactNode {
  const { shortId = '' } = useParams();
  const shorts = api.useListShortsQuery({});
  const short = shorts.data?.find(({ id }) => id === shortId);
  const around = api.useReadTalkQuery(shortId, { skip: short === undefined });
  const error = shorts.error ?? around.error;
  if (error !== undefined)
    return (
      <Trouble
        title={t('cutting.cannot-be-shown')}
        detail={problemText(error)}
        onRetry={() => void (shorts.error === undefined ? around.refetch() : shorts.refetch())}
      />
    );
  if (shorts.data !== undefined && short === undefined)
    return (
      <EmptyState
        title={t('cutting.no-such-short')}
        action={
          <Link className="font-semibold underline" to="/shorts">
            {t('shorts.all-shorts')}
          </Link>
        }
      >
        {t('cutting.it-is-not-kept-any-more')}
      </EmptyState>
    );
  // What was loaded stays while its ends move: words must not vanish under the hand.
  const talk = around.currentData ?? (around.originalArgs === shortId ? around.data : undefined);
  if (short === undefined || talk === undefined || !isKnown(spokenOf(talk), short))
    return (
      <>
        <PageHead title={t('cutting.title')} />
        <Loading what={t('cutting.words')} />
      </>
    );
  return <Cutting key={shortId} listed={short} around={talk} />;
}

function Cutting({ listed, around }: { listed: ShortView; around: TalkAroundView }): ReactNode {
  // Of what was saved, the list may hear later than the saver.
  const { current: short } = useSaver(saverOf(listed), null);
  const talk = around.talks[0]!;
  const words = useMemo(() => spokenOf(around), [around]);
  const { edit, saving, change, moveEnds } = useEdit(short);
  const cuts = useMemo(() => (isKnown(words, short) ? cutsOf(words, short, edit) : []), [words, short, edit]);
  const media = useMedia(short.recordingId);
  const player = usePlayer(media.source, media.pictured, media.of);
  const [choice, setChoice] = useState<Choice | null>(null);
  const [trying, setTrying] = useState(false);
  const [correcting, setCorrecting] = useState<number | null>(null);
  const [finding, setFinding] = useState(false);
  const { arm } = player;
  useEffect(() => arm(cuts), [arm, cuts]);
  const locked = short.approved;
  const totalMs = playedMs(cuts);
  const chosen: WordRange | null =
    choice === null ? null : { firstWord: Math.min(choice.anchor, choice.focus), endWord: Math.max(choice.anchor, choice.focus) + 1 };
  const inside: WordRange | null =
    chosen === null || chosen.endWord <= short.firstWord || chosen.firstWord >= short.endWord
      ? null
      : { firstWord: Math.max(chosen.firstWord, short.firstWord), endWord: Math.min(chosen.endWord, short.endWord) };
  const gone =
    inside !== null && Array.from({ length: inside.endWord - inside.firstWord }, (_, k) => inside.firstWord + k).every((word) => isRemoved(edit, word));
  const quoted = (run: WordRange): string =>
    talk.words
      .slice(run.firstWord - talk.firstWord, run.endWord - talk.firstWord)
      .map((said, k) => textOf(edit, run.firstWord + k, said))
      .join(' ');

  const strike = (): void => {
    if (inside === null || locked) return;
    const what = quoted(inside);
    if (gone) change(t('cutting.brought-back', { what }), { ...edit, removed: runsWithout(edit.removed, inside) });
    else {
      const next = { ...edit, removed: joinedRuns([...edit.removed, inside]) };
      if (cutsOf(words, short, { ...next, before: [], after: [] }).length === 0) sayTrouble(new Error(t('cutting.nothing-would-be-left')));
      else change(t('cutting.struck-out', { what }), next);
    }
  };
  const toggle = (): void => {
    setTrying(false);
    if (player.playing) player.pause();
    else player.playCuts(cuts, inside === null ? 0 : (playedAt(cuts, words[inside.firstWord]!.startMs) ?? 0));
  };
  const playFrom = (word: number): void => {
    setTrying(false);
    const at = playedAt(cuts, words[word]!.startMs);
    if (at === null) player.playSpan(words[word]!.startMs, words[word]!.startMs + 2 * AROUND_CUT_MS);
    else player.playCuts(cuts, at);
  };
  const startHere = (): void => void (chosen !== null && !locked && chosen.firstWord < short.endWord && moveEnds(chosen.firstWord, short.endWord));
  const endHere = (): void => void (chosen !== null && !locked && chosen.endWord > short.firstWord && moveEnds(short.firstWord, chosen.endWord));
  const putInFront = (): void => {
    if (chosen === null || locked) return;
    change(t('cutting.put-in-front-what', { what: quoted(chosen) }), { ...edit, before: [chosen, ...edit.before] });
  };
  const correct = (): void => void (inside !== null && !locked && setCorrecting(inside.firstWord));
  const hear = (one: TighteningView): void => {
    setTrying(true);
    const trial = cutsOf(words, short, tightened(edit, one));
    const at = trial.findIndex(({ endMs }, i) => endMs >= words[one.firstWord]!.startMs - 1 || i === trial.length - 1);
    const near = trial.slice(Math.max(0, at), at + 2);
    const [from, to] = [near[0]!, near.at(-1)!];
    player.playCuts(
      near.length === 1
        ? [{ startMs: Math.max(from.startMs, from.endMs - AROUND_CUT_MS), endMs: from.endMs }]
        : [
            { startMs: Math.max(from.startMs, from.endMs - AROUND_CUT_MS), endMs: from.endMs },
            { startMs: to.startMs, endMs: Math.min(to.endMs, to.startMs + AROUND_CUT_MS) },
          ],
    );
  };
  const shorten = (word: number): void => {
    if (locked || pauseOf(words, edit, word) === null) return;
    const left = edit.pauses.filter(({ afterWord }) => afterWord !== word);
    const was = left.length < edit.pauses.length;
    change(was ? t('cutting.left-a-pause') : t('cutting.shortened-a-pause'), {
      ...edit,
      pauses: was ? left : [...left, { afterWord: word, leftMs: SHORT_PAUSE_MS }],
    });
  };
  const beginnings = useMemo(
    () => ({
      words: talk.words.map(({ startMs }) => startMs),
      sentences: talk.words.filter(({ sentence }, i) => sentence !== talk.words[i - 1]?.sentence).map(({ startMs }) => startMs),
    }),
    [talk],
  );
  useStepKeys(player, beginnings, (ms) => {
    const at = player.playing ? playedAt(cuts, ms) : null;
    if (at === null) player.seek(ms);
    else player.playCuts(cuts, at);
  });
  const keys = t('cutting.title');
  useKeys([
    { key: ' ', label: player.playing ? t('cutting.stop') : t('cutting.play'), group: keys, run: toggle },
    { key: 'x', label: t('cutting.strike-out-or-bring-back'), group: keys, run: strike },
    { key: 'Delete', label: t('cutting.strike-out-or-bring-back'), group: keys, run: strike },
    { key: 'e', label: t('cutting.correct'), group: keys, run: correct },
    { key: '[', label: t('cutting.start-here'), group: keys, run: startHere },
    { key: ']', label: t('cutting.end-here'), group: keys, run: endHere },
    { key: 'p', label: t('cutting.shorten-pause-after'), group: keys, run: () => inside !== null && shorten(inside.endWord - 1) },
    { key: 'f', label: t('cutting.put-in-front'), group: keys, run: putInFront },
    { key: 'g', label: t('cutting.from-elsewhere'), group: keys, run: () => setFinding(!locked) },
  ]);
  const cutMs = short.endMs - short.startMs - totalMs;
  return (
    <div className="flex h-full flex-col">
      <PageHead
        title={short.copy.title || short.firstLine}
        aside={
          <>
            <span className="time">{formatLength(totalMs)}</span>
            {cutMs > 0 && ` · ${t('cutting.seconds-cut-out', { seconds: formatNumber(cutMs / 1_000, 1) })}`}
            {saving && ` · ${t('cutting.saving')}`}
          </>
        }
      >
        <Link to={`/shorts/${short.id}`} className="font-semibold underline">
          {t('cutting.back-to-its-words')}
        </Link>
      </PageHead>
      {locked && <p className="border-b border-rule bg-tint px-6 py-2">{t('cutting.it-is-approved')}</p>}
      <div className="grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)] max-md:overflow-y-auto md:grid-cols-[minmax(0,1fr)_340px]">
        <div className="flex min-h-0 flex-col max-md:min-h-[70vh]">
          <CutStrip around={around} short={short} cuts={cuts} time={player.time} sprite={media.sprite} locked={locked} onSeek={player.seek} onEnds={moveEnds} />
          <div
            role="toolbar"
            aria-label={t('cutting.chosen-words')}
            className="flex flex-none flex-wrap items-center gap-2 border-b border-rule bg-sheet px-6 py-2"
          >
            <Button keyName="x" tone={gone ? 'plain' : 'fill'} disabled={inside === null || locked} onClick={strike}>
              {gone ? t('cutting.bring-back') : t('cutting.strike-out')}
            </Button>
            <Button keyName="e" disabled={inside === null || locked} onClick={correct}>
              {t('cutting.correct')}
            </Button>
            <Button keyName="[" disabled={chosen === null || locked || chosen.firstWord >= short.endWord} onClick={startHere}>
              {t('cutting.start-here')}
            </Button>
            <Button keyName="]" disabled={chosen === null || locked || chosen.endWord <= short.firstWord} onClick={endHere}>
              {t('cutting.end-here')}
            </Button>
            <Button keyName="f" disabled={chosen === null || locked} title={t('cutting.put-in-front-hint')} onClick={putInFront}>
              {t('cutting.put-in-front')}
            </Button>
            <Button keyName="g" disabled={locked} onClick={() => setFinding(true)}>
              {t('cutting.from-elsewhere')}
            </Button>
            {choice === null && <span className="text-[12px] text-soft">{t('cutting.choose-words')}</span>}
          </div>
          <Parts edit={edit} words={words} place="before" locked={locked} onChange={change} />
          <CutWords
            talk={talk}
            words={words}
            short={short}
            edit={edit}
            choice={choice}
            player={player}
            onChoose={setChoice}
            onPlayFrom={playFrom}
            onPause={shorten}
          />
          <Parts edit={edit} words={words} place="after" locked={locked} onChange={change} />
        </div>
        <div className="flex min-h-0 flex-col border-rule md:border-l">
          <CutPreview short={short} cuts={cuts} totalMs={totalMs} player={player} onToggle={toggle} trying={trying} />
          <TightenPane
            short={short}
            words={words}
            edit={edit}
            locked={locked}
            onChange={change}
            onHear={hear}
            onShow={({ firstWord, endWord }) => setChoice({ anchor: firstWord, focus: endWord - 1 })}
          />
        </div>
      </div>
      <PlayerTrouble player={player} media={media} className="border-t border-rule px-6 py-2" />
      {finding && <PartFinder recordingId={short.recordingId} edit={edit} player={player} onChange={change} onClose={() => setFinding(false)} />}
      {correcting !== null && (
        <Correction
          word={correcting}
          said={words[correcting]!.text}
          text={textOf(edit, correcting, words[correcting]!)}
          onClose={() => setCorrecting(null)}
          onCorrect={(text) => {
            const corrected = edit.corrected.filter(({ word }) => word !== correcting);
            change(t('cutting.corrected', { what: text === '' ? words[correcting]!.text : text }), {
              ...edit,
              corrected: text === words[correcting]!.text ? corrected : [...corrected, { word: correcting, text }],
            });
          }}
        />
      )}
    </div>
  );
}
