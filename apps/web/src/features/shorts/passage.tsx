import { playedAt } from '@sift-reel/core';
import clsx from 'clsx';
import { Pause, Play } from 'lucide-react';
import { PlayerTrouble } from '../../ui/player-trouble.js';
import { type ReactNode, useState } from 'react';
import { api, type PassageView, type ShortView } from '../../app/api.js';
import { useKeys } from '../../app/keys.js';
import { useMedia } from '../../app/media.js';
import { type Player, usePlayer, usePlayerTime } from '../../app/player.js';
import { PlayedPicture } from '../../app/played-picture.js';
import { useStepKeys } from '../../app/step-keys.js';
import { t } from '../../texts/texts.js';

/** What is said here is known by its sentences. */
function beginningsOf(passage: PassageView | undefined): { words: number[]; sentences: number[] } {
  const sentences = passage?.sentences.map(({ startMs }) => startMs) ?? [];
  return { words: sentences, sentences };
}

/** What is said in a short, with its sound: a sentence that is clicked plays from there to the end of the short. */
export function Passage({ short }: { short: ShortView }): ReactNode {
  const passage = api.useReadPassageQuery(short.id).currentData;
  const [whole, setWhole] = useState(false);
  const media = useMedia(short.recordingId);
  const player = usePlayer(media.source, media.pictured, media.of);
  const toggle = (): void => (player.playing ? player.pause() : player.playCuts(passage?.cuts ?? []));
  useKeys([
    { key: 'x', label: whole ? t('shorts.fold-the-passage') : t('shorts.unfold-the-passage'), group: t('common.shorts'), run: () => setWhole(!whole) },
    ...(media.source !== null
      ? [{ key: ' ', label: player.playing ? t('shorts.stop-the-sound') : t('shorts.play-the-short'), group: t('common.shorts'), run: toggle }]
      : []),
  ]);
  useStepKeys(player, beginningsOf(passage), (ms) => {
    const at = player.playing ? playedAt(passage?.cuts ?? [], ms) : null;
    if (at === null) player.seek(ms);
    else player.playCuts(passage!.cuts, at);
  });
  return (
    <div className="mt-1 flex items-start gap-2">
      <PlayedPicture player={player} startMs={passage?.cuts[0]?.startMs ?? short.startMs} onToggle={toggle} className="h-[126px] w-[224px] flex-none" />
      {media.source !== null && (
        <button
          type="button"
          aria-label={player.playing ? t('shorts.stop-the-sound') : t('shorts.play-the-short')}
          className="mt-[2px] flex-none rounded-full border border-edge p-[5px] hover:bg-sheet"
          onClick={toggle}
        >
          {player.playing ? <Pause size={14} /> : <Play size={14} />}
        </button>
      )}
      <div className="min-w-0 flex-1">
        <p
          dir="auto"
          className={clsx('font-serif text-[16px] leading-[1.45]', whole ? 'max-h-[30vh] overflow-y-auto' : 'line-clamp-2')}
          tabIndex={whole ? 0 : undefined}
        >
          {passage === undefined ? `“${short.firstLine}”` : <Sentences passage={passage} player={player} sound={media.source !== null} />}
        </p>
        <button type="button" aria-expanded={whole} className="text-[12px] underline" onClick={() => setWhole(!whole)}>
          {whole ? t('shorts.fold-the-passage') : t('shorts.the-whole-passage')}
        </button>
        <PlayerTrouble player={player} media={media} />
      </div>
    </div>
  );
}

function Sentences({ passage: { sentences, cuts }, player, sound }: { passage: PassageView; player: Player; sound: boolean }): ReactNode {
  const heard = usePlayerTime(player.played, (ms) => sentences.findIndex((one) => ms >= one.startMs && ms < one.endMs));
  return sentences.map(({ speaker, startMs, text }, i) => (
    <span key={startMs}>
      {speaker !== null && speaker !== sentences[i - 1]?.speaker && <b className="font-sans text-[12px] text-soft">{speaker} </b>}
      {sound ? (
        <span
          role="button"
          tabIndex={-1}
          className={clsx('cursor-pointer hover:underline', i === heard && player.playing && 'bg-lit')}
          onClick={() => player.playCuts(cuts, startMs)}
        >
          {text}
        </span>
      ) : (
        text
      )}{' '}
    </span>
  ));
}
