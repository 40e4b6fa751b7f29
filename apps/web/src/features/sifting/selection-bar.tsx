import { formatLength, type Transcript } from '@sift-reel/core';
import type { ReactNode } from 'react';
import { atFoot } from '../../ui/foot.js';
import { Button } from '../../ui/parts.js';
import type { DraftSpan } from './transcript-pane.js';
import { t } from '../../texts/texts.js';

/** What can be done with words that are selected in the transcript. */
export function SelectionBar({
  transcript,
  span,
  making,
  onMake,
}: {
  transcript: Transcript;
  span: DraftSpan;
  making: boolean;
  onMake: () => void;
}): ReactNode {
  const words = span.endWord - span.firstWord;
  const lengthMs = transcript.words[span.endWord - 1]!.endMs - transcript.words[span.firstWord]!.startMs;
  return (
    <div ref={atFoot} className="absolute inset-x-0 bottom-0 z-20 flex items-center gap-3 border-t border-rule bg-paper px-6 py-[7px]" data-testid="selection">
      <span>
        <b>{t('sifting.words-words', { words })}</b> <span className="time text-soft">{formatLength(lengthMs)}</span>{' '}
        <span className="text-soft">{t('sifting.selected')}</span>
      </span>
      <Button tone="fill" className="ml-auto" disabled={making} keyName="c" onClick={onMake}>
        {t('sifting.make-a-candidate')}
      </Button>
    </div>
  );
}
