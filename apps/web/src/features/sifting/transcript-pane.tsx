import { formatTimecode, lastAtOrBefore, SIGNALS, type SignalName, type Transcript } from '@sift-reel/core';
import { useVirtualizer } from '@tanstack/react-virtual';
import clsx from 'clsx';
import { type CSSProperties, memo, type PointerEvent as ReactPointerEvent, type ReactNode, useCallback, useEffect, useMemo, useRef } from 'react';
import type { CandidateView } from '../../app/api.js';
import { SIGNAL_LOOK } from '../../ui/signals.js';
import { type Paragraph, paragraphOf } from './paragraphs.js';
import { type Player, usePlayerTime } from '../../app/player.js';
import { t } from '../../texts/texts.js';

/** Where the handles stand while they are moved; the candidate's own words otherwise. */
export interface DraftSpan {
  readonly firstWord: number;
  readonly endWord: number;
}

interface TranscriptPaneProps {
  transcript: Transcript;
  paragraphs: readonly Paragraph[];
  candidate: CandidateView | null;
  span: DraftSpan | null;
  lit: SignalName | null;
  player: Player;
  /** Scrolls to this word when it changes. */
  focus: { readonly word: number; readonly token: number } | null;
  onMoveEdge: (edge: 'start' | 'end', word: number, final: boolean) => void;
  onNudge: (edge: 'start' | 'end', by: number) => void;
  onWord: (word: number) => void;
  /** Words selected with the mouse or the keyboard; null when the selection goes. */
  onSelect: (span: DraftSpan | null) => void;
  /** Laid over the foot of the pane. */
  foot: ReactNode;
}

/** The words, with the candidate as a tinted run between two handles. Drawn only where it is seen. */
export function TranscriptPane(props: TranscriptPaneProps): ReactNode {
  const { transcript, paragraphs, candidate, span, focus } = props;
  const scroller = useRef<HTMLDivElement>(null);
  const firstWords = useMemo(() => paragraphs.map((one) => one.firstWord), [paragraphs]);
  const wordStarts = useMemo(() => transcript.words.map((word) => word.startMs), [transcript]);
  const { player } = props;
  const playingWord = usePlayerTime(player.time, (ms) => (player.playing ? lastAtOrBefore(wordStarts, ms) : null));
  const virtual = useVirtualizer({
    count: paragraphs.length,
    getScrollElement: () => scroller.current,
    estimateSize: (i) => 26 + Math.ceil((paragraphs[i]!.endWord - paragraphs[i]!.firstWord) / 11) * 25,
    overscan: 3,
  });
  const marks = useMemo(() => marksOf(candidate), [candidate]);
  useEffect(() => {
    if (focus === null) return;
    virtual.scrollToIndex(paragraphOf(firstWords, focus.word), { align: 'start' });
    // The block may be longer than the pane: once it is drawn, bring the word itself into view.
    const frame = requestAnimationFrame(() =>
      requestAnimationFrame(() => {
        const word = scroller.current?.querySelector<HTMLElement>(`[data-word="${focus.word}"]`);
        const pane = scroller.current;
        if (word == null || pane === null) return;
        const top = word.getBoundingClientRect().top - pane.getBoundingClientRect().top;
        pane.scrollTop += top - Math.min(110, pane.clientHeight / 4);
      }),
    );
    return () => cancelAnimationFrame(frame);
  }, [focus, firstWords, virtual]);

  const { onSelect } = props;
  const readSelection = useCallback(() => onSelect(selectedWords()), [onSelect]);
  const wordAt = useCallback((x: number, y: number): number | null => {
    for (const element of document.elementsFromPoint(x, y)) {
      const word = element instanceof HTMLElement ? element.dataset['word'] : undefined;
      if (word !== undefined) return Number(word);
    }
    return null;
  }, []);
  const startDrag =
    (edge: 'start' | 'end') =>
    (event: ReactPointerEvent<HTMLElement>): void => {
      event.preventDefault();
      const handle = event.currentTarget;
      handle.setPointerCapture(event.pointerId);
      let last: number | null = null;
      const move = (pointer: PointerEvent): void => {
        const word = wordAt(pointer.clientX, pointer.clientY);
        if (word === null || word === last) return;
        last = word;
        props.onMoveEdge(edge, edge === 'start' ? word : word + 1, false);
      };
      const end = (): void => {
        window.removeEventListener('pointermove', move);
        window.removeEventListener('pointerup', end);
        window.removeEventListener('pointercancel', end);
        if (last !== null) props.onMoveEdge(edge, edge === 'start' ? last : last + 1, true);
      };
      window.addEventListener('pointermove', move);
      window.addEventListener('pointerup', end);
      window.addEventListener('pointercancel', end);
    };

  return (
    <section aria-label={t('common.transcript')} className="relative min-h-0 bg-sheet">
      <div ref={scroller} className="h-full overflow-y-auto px-6" tabIndex={0} onMouseUp={readSelection} onKeyUp={readSelection}>
        <div className="relative mx-auto max-w-[560px]" style={{ height: virtual.getTotalSize() + 24 }}>
          {virtual.getVirtualItems().map((item) => {
            const paragraph = paragraphs[item.index]!;
            return (
              <div
                key={item.key}
                ref={virtual.measureElement}
                data-index={item.index}
                className="absolute inset-x-0 top-0"
                style={{ transform: `translateY(${item.start}px)` }}
              >
                <ParagraphRow
                  {...{ transcript, paragraph, marks }}
                  span={span}
                  lit={props.lit}
                  playingWord={playingWord !== null && playingWord >= paragraph.firstWord && playingWord < paragraph.endWord ? playingWord : null}
                  onWord={props.onWord}
                  startDrag={startDrag}
                  onNudge={props.onNudge}
                />
              </div>
            );
          })}
        </div>
      </div>
      {props.foot}
    </section>
  );
}

/** The words that the browser's selection covers; null when it covers fewer than three, which is a slip of the hand. */
function selectedWords(): DraftSpan | null {
  const selection = window.getSelection();
  if (selection === null || selection.isCollapsed) return null;
  const wordOf = (node: Node | null): number | null => {
    const element = node instanceof HTMLElement ? node : (node?.parentElement ?? null);
    const word = element?.closest<HTMLElement>('[data-word]')?.dataset['word'];
    return word === undefined ? null : Number(word);
  };
  const [a, b] = [wordOf(selection.anchorNode), wordOf(selection.focusNode)];
  if (a === null || b === null) return null;
  const span = { firstWord: Math.min(a, b), endWord: Math.max(a, b) + 1 };
  return span.endWord - span.firstWord < 3 ? null : span;
}

/** Signals by word, of the candidate's evidence. */
function marksOf(candidate: CandidateView | null): ReadonlyMap<number, SignalName[]> {
  const marks = new Map<number, SignalName[]>();
  candidate?.signals.forEach((signal, k) => {
    for (let i = 0; i + 1 < signal.evidence.length; i += 2) {
      for (let word = signal.evidence[i]!; word < signal.evidence[i + 1]!; word += 1) marks.set(word, [...(marks.get(word) ?? []), SIGNALS[k]!]);
    }
  });
  return marks;
}

interface RowProps {
  transcript: Transcript;
  paragraph: Paragraph;
  marks: ReadonlyMap<number, SignalName[]>;
  span: DraftSpan | null;
  lit: SignalName | null;
  playingWord: number | null;
  onWord: (word: number) => void;
  startDrag: (edge: 'start' | 'end') => (event: ReactPointerEvent<HTMLElement>) => void;
  onNudge: (edge: 'start' | 'end', by: number) => void;
}

const ParagraphRow = memo(function ParagraphRow({ transcript, paragraph, marks, span, lit, playingWord, onWord, startDrag, onNudge }: RowProps): ReactNode {
  const words: ReactNode[] = [];
  for (let i = paragraph.firstWord; i < paragraph.endWord; i += 1) {
    const word = transcript.words[i]!;
    const inside = span !== null && i >= span.firstWord && i < span.endWord;
    if (span !== null && i === span.firstWord)
      words.push(<Handle key="start" edge="start" transcript={transcript} word={i} startDrag={startDrag} onNudge={onNudge} />);
    const signals = inside ? marks.get(i) : undefined;
    const next = i + 1 < paragraph.endWord ? ' ' : '';
    words.push(
      <span
        key={i}
        data-word={i}
        onClick={() => onWord(i)}
        className={clsx(
          'cursor-pointer',
          inside ? 'bg-tint' : span !== null && 'text-soft',
          word.kind === 'mark' && 'text-[15px] italic',
          playingWord === i && 'bg-lit',
        )}
        style={underline(signals, lit)}
      >
        {word.text}
        {inside && i + 1 < (span?.endWord ?? 0) ? next : ''}
      </span>,
    );
    if (span !== null && i === span.endWord - 1)
      words.push(<Handle key="end" edge="end" transcript={transcript} word={i} startDrag={startDrag} onNudge={onNudge} />);
    if (!(inside && i + 1 < (span?.endWord ?? 0))) words.push(next);
  }
  return (
    <div className={clsx('grid grid-cols-[86px_1fr] gap-[14px]', paragraph.opensTurn ? 'pt-[14px]' : 'pt-[3px]')}>
      <div className="pt-[3px] text-right">
        {paragraph.opensTurn && (
          <div className="truncate text-[12.5px] font-semibold" title={paragraph.speaker ?? undefined}>
            {paragraph.speaker ?? ''}
          </div>
        )}
        <div className="time text-soft">{formatTimecode(paragraph.startMs)}</div>
      </div>
      <p dir="auto" className="font-serif text-[17px] leading-[25px]">
        {words}
      </p>
    </div>
  );
});

/** Evidence is underlined in its signal's colour; with one signal lit, only its words stay so. Two signals: two lines. */
function underline(signals: readonly SignalName[] | undefined, lit: SignalName | null): CSSProperties | undefined {
  if (signals === undefined) return undefined;
  const shown = lit === null ? signals : signals.filter((signal) => signal === lit);
  const [first, second] = shown;
  if (first === undefined) return undefined;
  const line = `inset 0 -2px 0 ${SIGNAL_LOOK[first].colour}`;
  return {
    boxShadow: second === undefined ? line : `${line}, inset 0 -4px 0 ${SIGNAL_LOOK[second].colour}`,
    ...(lit === null ? {} : { background: 'var(--lit)' }),
  };
}

/** A handle: dragged to another word, or moved by a word with the arrow keys while it has the focus. */
function Handle({
  edge,
  transcript,
  word,
  startDrag,
  onNudge,
}: {
  edge: 'start' | 'end';
  transcript: Transcript;
  word: number;
  startDrag: RowProps['startDrag'];
  onNudge: RowProps['onNudge'];
}): ReactNode {
  const ms = edge === 'start' ? transcript.words[word]!.startMs : transcript.words[word]!.endMs;
  return (
    <span className="relative inline-block w-0 align-baseline select-none">
      <span
        role="slider"
        tabIndex={0}
        aria-label={edge === 'start' ? t('sifting.start-of-the-candidate') : t('sifting.end-of-the-candidate')}
        aria-valuemin={0}
        aria-valuemax={transcript.words.length}
        aria-valuenow={word}
        aria-valuetext={`${formatTimecode(ms, 'tenths')}, ${transcript.words[word]!.text}`}
        data-testid={`handle-${edge}`}
        onPointerDown={startDrag(edge)}
        onKeyDown={(event) => {
          if (event.key !== 'ArrowLeft' && event.key !== 'ArrowRight') return;
          event.preventDefault();
          event.stopPropagation();
          onNudge(edge, event.key === 'ArrowLeft' ? -1 : 1);
        }}
        className="absolute -top-[17px] z-10 h-[23px] w-[9px] -translate-x-1/2 cursor-ew-resize touch-none after:absolute after:inset-y-0 after:left-[3px] after:w-[3px] after:bg-madder"
      />
      <span
        className={clsx(
          'time pointer-events-none absolute z-10 bg-madder px-[3px] leading-[13px] text-[10px] font-semibold whitespace-nowrap text-sheet',
          edge === 'start' ? '-top-[30px] left-[-2px]' : 'top-[6px] right-[-2px]',
        )}
      >
        {formatTimecode(ms, 'tenths')}
      </span>
    </span>
  );
}
