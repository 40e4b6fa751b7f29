import type { Edit } from '@sift-reel/core';
import clsx from 'clsx';
import { type KeyboardEvent, memo, type ReactNode, useEffect, useRef } from 'react';
import type { ShortView, TalkView } from '../../app/api.js';
import { type Player, usePlayerTime } from '../../app/player.js';
import { formatNumber } from '../../texts/formats.js';
import { t } from '../../texts/texts.js';
import { isRemoved, pauseOf, type Spoken, textOf } from './spoken.js';

/** Chosen words: where the choice began, and where it is now. Both are in it. */
export interface Choice {
  readonly anchor: number;
  readonly focus: number;
}

interface WordsProps {
  talk: TalkView;
  words: Spoken;
  short: ShortView;
  edit: Edit;
  choice: Choice | null;
  player: Player;
  onChoose: (choice: Choice) => void;
  onPlayFrom: (word: number) => void;
  onPause: (word: number) => void;
}

/** What is said in a short, and around it: each word to be chosen by pointer or arrow keys, what is cut out struck through. */
export function CutWords({ talk, words, short, edit, choice, player, onChoose, onPlayFrom, onPause }: WordsProps): ReactNode {
  const box = useRef<HTMLDivElement>(null);
  const dragging = useRef<number | null>(null);
  const heard = usePlayerTime(player.time, (ms) => (player.playing ? talk.words.findLastIndex((one) => one.startMs <= ms) + talk.firstWord : -1));
  const endWord = talk.firstWord + talk.words.length;
  const [from, to] = choice === null ? [-1, -1] : [Math.min(choice.anchor, choice.focus), Math.max(choice.anchor, choice.focus)];
  useEffect(() => {
    box.current?.querySelector(`[data-word="${short.firstWord}"]`)?.scrollIntoView({ block: 'center' });
  }, [short.id, short.firstWord]);
  useEffect(() => {
    const up = (): void => void (dragging.current = null);
    window.addEventListener('pointerup', up);
    return () => window.removeEventListener('pointerup', up);
  }, []);
  const onKey = (event: KeyboardEvent): void => {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    const step = { ArrowRight: 1, ArrowLeft: -1, ArrowDown: 12, ArrowUp: -12 }[event.key];
    const at = choice?.focus ?? short.firstWord - (step === undefined ? 0 : Math.sign(step));
    if (step !== undefined) {
      const focus = Math.max(talk.firstWord, Math.min(endWord - 1, at + step));
      onChoose({ anchor: event.shiftKey && choice !== null ? choice.anchor : focus, focus });
      box.current?.querySelector(`[data-word="${focus}"]`)?.scrollIntoView({ block: 'nearest' });
    } else if (event.key === 'Enter' && choice !== null) onPlayFrom(from);
    else return;
    event.preventDefault();
  };
  const wordAt = (target: EventTarget): number | null => {
    const word = (target as HTMLElement).closest<HTMLElement>('[data-word]')?.dataset['word'];
    return word === undefined ? null : Number(word);
  };
  const turns = new Map(talk.turns.map(({ word, speaker }) => [word, speaker]));
  return (
    <div
      ref={box}
      role="listbox"
      aria-multiselectable
      aria-label={t('cutting.words')}
      aria-activedescendant={choice === null ? undefined : `word-${choice.focus}`}
      tabIndex={0}
      className="min-h-0 flex-1 overflow-y-auto px-6 py-4 font-serif text-[17px] leading-[1.75] select-none"
      onKeyDown={onKey}
      onPointerDown={(event) => {
        const word = wordAt(event.target);
        if (word === null || event.button !== 0) return;
        dragging.current = event.shiftKey && choice !== null ? choice.anchor : word;
        onChoose({ anchor: dragging.current, focus: word });
      }}
      onPointerOver={(event) => {
        const word = wordAt(event.target);
        if (word !== null && dragging.current !== null) onChoose({ anchor: dragging.current, focus: word });
      }}
      onDoubleClick={(event) => {
        const word = wordAt(event.target);
        if (word !== null) onPlayFrom(word);
      }}
    >
      {talk.words.map((said, i) => {
        const word = talk.firstWord + i;
        const inside = word >= short.firstWord && word < short.endWord;
        return (
          <Word
            key={word}
            word={word}
            text={textOf(edit, word, said)}
            wasText={said.text}
            speaker={turns.get(word) ?? null}
            opens={word === short.firstWord}
            closes={word === short.endWord - 1}
            inside={inside}
            removed={inside && isRemoved(edit, word)}
            chosen={word >= from && word <= to}
            active={word === choice?.focus}
            heard={word === heard}
            pause={inside && word + 1 < short.endWord ? pauseOf(words, edit, word) : null}
            onPause={onPause}
          />
        );
      })}
    </div>
  );
}

interface WordProps {
  word: number;
  text: string;
  wasText: string;
  speaker: string | null;
  opens: boolean;
  closes: boolean;
  inside: boolean;
  removed: boolean;
  chosen: boolean;
  active: boolean;
  heard: boolean;
  pause: { readonly ms: number; readonly leftMs: number | null } | null;
  onPause: (word: number) => void;
}

const same = (a: WordProps, b: WordProps): boolean =>
  (Object.keys(a) as (keyof WordProps)[]).every((key) =>
    key === 'pause' ? a.pause?.ms === b.pause?.ms && a.pause?.leftMs === b.pause?.leftMs : key === 'onPause' || a[key] === b[key],
  );

const Word = memo(function Word(props: WordProps): ReactNode {
  const { word, text, wasText, speaker, opens, closes, inside, removed, chosen, active, heard, pause, onPause } = props;
  const Said = removed ? 'del' : 'span';
  return (
    <>
      {speaker !== null && speaker !== '' && (
        <span role="presentation" className={clsx('font-sans text-[12px] font-bold text-soft', word > 0 && 'ml-1')}>
          {speaker}{' '}
        </span>
      )}
      {opens && <Edge className="border-l-2" />}
      <span
        role="option"
        id={`word-${word}`}
        data-word={word}
        aria-selected={chosen}
        aria-label={removed ? t('cutting.struck-out-word', { word: text }) : text === '' ? t('cutting.part-of-the-word-before', { word: wasText }) : text}
        title={text === wasText ? undefined : t('cutting.was', { word: wasText })}
        className={clsx(
          'cursor-text rounded-[2px] px-[1px] py-[1px]',
          !inside && 'text-soft',
          removed && 'text-soft',
          chosen && 'bg-tint',
          active && 'outline-1 outline-edge',
          heard && 'bg-lit',
          text !== wasText && 'underline decoration-dotted underline-offset-4',
        )}
      >
        <Said className={clsx(removed && 'decoration-madder decoration-2')}>{text === '' ? '‿' : text}</Said>
      </span>
      {closes && <Edge className="border-r-2" />}{' '}
      {pause !== null && !removed && (
        <span
          role="option"
          aria-selected={pause.leftMs !== null}
          className={clsx(
            'mx-[2px] cursor-pointer rounded-sm border px-[4px] align-middle font-mono text-[10.5px] leading-[16px]',
            pause.leftMs === null ? 'border-rule text-soft hover:border-ink hover:text-ink' : 'border-madder text-madder-text',
          )}
          title={pause.leftMs === null ? t('cutting.shorten-the-pause') : t('cutting.leave-the-pause')}
          onClick={() => onPause(word)}
        >
          {pause.leftMs === null
            ? t('cutting.seconds-short', { seconds: formatNumber(pause.ms / 1_000, 1) })
            : t('cutting.pause-cut', { was: formatNumber(pause.ms / 1_000, 1), left: formatNumber(pause.leftMs / 1_000, 1) })}
        </span>
      )}
    </>
  );
}, same);

const Edge = ({ className }: { className: string }): ReactNode => (
  <span role="presentation" aria-hidden="true" className={clsx('mx-[1px] inline-block h-[20px] border-madder align-middle', className)} />
);
