import { formatTimecode, type Transcript, type WordRange, wordsText } from '@sift-reel/core';
import { useVirtualizer } from '@tanstack/react-virtual';
import clsx from 'clsx';
import { type ReactNode, useEffect, useRef } from 'react';
import { type Player, usePlayerTime } from '../../app/player.js';
import { t } from '../../texts/texts.js';

interface TalkBesideProps {
  readonly transcript: Transcript;
  readonly player: Player;
  /** There is a sound to be heard. */
  readonly sound: boolean;
  /** Words that the text at the caret comes from. */
  readonly said: WordRange | null;
}

/** What was said, sentence by sentence: a sentence that is clicked is heard, and the one that the text at the caret comes from is lit. */
export function TalkBeside({ transcript, player, sound, said }: TalkBesideProps): ReactNode {
  const { sentences, words, speakers } = transcript;
  const scroller = useRef<HTMLDivElement>(null);
  const heard = usePlayerTime(player.time, (ms) => (player.playing ? sentences.findLastIndex((one) => one.startMs <= ms) : -1));
  const lit = said === null ? -1 : sentences.findIndex((one) => one.endWord > said.firstWord);
  const virtual = useVirtualizer({ count: sentences.length, getScrollElement: () => scroller.current, estimateSize: () => 58, overscan: 8 });
  useEffect(() => {
    if (lit >= 0) virtual.scrollToIndex(lit, { align: 'center' });
  }, [lit, virtual]);
  return (
    <div ref={scroller} className="min-h-0 flex-1 overflow-y-auto px-3 py-2" tabIndex={0} aria-label={t('documents.what-was-said')} role="region">
      <div className="relative" style={{ height: virtual.getTotalSize() }}>
        {virtual.getVirtualItems().map(({ index, key, start }) => {
          const { firstWord, endWord, startMs, endMs, speaker } = sentences[index]!;
          const turn = index === 0 || sentences[index - 1]!.speaker !== speaker;
          return (
            <div key={key} ref={virtual.measureElement} data-index={index} className="absolute inset-x-0 top-0" style={{ transform: `translateY(${start}px)` }}>
              {turn && speakers[speaker] !== undefined && <div className="pt-2 text-[12px] font-semibold">{speakers[speaker]}</div>}
              <button
                type="button"
                disabled={!sound}
                title={sound ? t('documents.hear-this-sentence') : undefined}
                className={clsx(
                  'grid w-full grid-cols-[44px_1fr] gap-2 rounded-sm px-1 py-[3px] text-left',
                  sound && 'hover:bg-faint',
                  said !== null && firstWord < said.endWord && said.firstWord < endWord && 'bg-tint',
                  index === heard && 'bg-lit',
                )}
                onClick={() => player.playSpan(startMs, endMs)}
              >
                <span className="time pt-[2px] text-[11px] text-soft">{formatTimecode(startMs)}</span>
                <span dir="auto" className="font-serif text-[14.5px] leading-[1.4]">
                  {wordsText(words, firstWord, endWord)}
                </span>
              </button>
            </div>
          );
        })}
      </div>
    </div>
  );
}
