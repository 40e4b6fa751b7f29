import clsx from 'clsx';
import { Pause, Play } from 'lucide-react';
import { type ReactNode, useState } from 'react';
import { api, type PassageView, type ShortView } from '../../app/api.js';
import { useKeys } from '../../app/keys.js';
import { type Player, usePlayer, usePlayerTime } from '../../app/player.js';
import { PlayedPicture } from '../../app/played-picture.js';
import { t } from '../../texts/texts.js';

/** What is said in a short, with its sound: a sentence that is clicked plays from there to the end of the short. */
export function Passage({ short }: { short: ShortView }): ReactNode {
  const passage = api.useReadPassageQuery(short.id).currentData;
  const [whole, setWhole] = useState(false);
  const player = usePlayer(passage?.sound === true ? `/api/recordings/${short.recordingId}/sound` : null, passage?.picture === true);
  const toggle = (): void => (player.playing ? player.pause() : player.playCuts(passage?.cuts ?? []));
  useKeys([
    { key: 'x', label: whole ? t('shorts.fold-the-passage') : t('shorts.unfold-the-passage'), group: t('common.shorts'), run: () => setWhole(!whole) },
    ...(passage?.sound === true
      ? [{ key: ' ', label: player.playing ? t('shorts.stop-the-sound') : t('shorts.play-the-short'), group: t('common.shorts'), run: toggle }]
      : []),
  ]);
  return (
    <div className="mt-1 flex items-start gap-2">
      <PlayedPicture player={player} startMs={passage?.cuts[0]?.startMs ?? short.startMs} onToggle={toggle} className="h-[126px] w-[224px] flex-none" />
      {passage?.sound === true && (
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
          {passage === undefined ? `“${short.firstLine}”` : <Sentences passage={passage} player={player} />}
        </p>
        <button type="button" aria-expanded={whole} className="text-[12px] underline" onClick={() => setWhole(!whole)}>
          {whole ? t('shorts.fold-the-passage') : t('shorts.the-whole-passage')}
        </button>
        {player.trouble !== null && <span className="ml-3 text-[12px] text-madder-text">{player.trouble}</span>}
      </div>
    </div>
  );
}

function Sentences({ passage: { sentences, cuts, sound }, player }: { passage: PassageView; player: Player }): ReactNode {
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
