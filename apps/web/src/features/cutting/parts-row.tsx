import type { Edit } from '@sift-reel/core';
import { X } from 'lucide-react';
import type { ReactNode } from 'react';
import { t } from '../../texts/texts.js';
import type { Spoken } from './spoken.js';

interface PartsProps {
  edit: Edit;
  words: Spoken;
  place: 'before' | 'after';
  locked: boolean;
  onChange: (label: string, next: Edit) => void;
}

/** Other parts of the recording that are played before the passage, or after it. */
export function Parts({ edit, words, place, locked, onChange }: PartsProps): ReactNode {
  const parts = edit[place];
  if (parts.length === 0) return null;
  return (
    <ul aria-label={place === 'before' ? t('cutting.played-before') : t('cutting.played-after')} className="flex-none border-b border-rule bg-band px-6 py-2">
      {parts.map(({ firstWord, endWord }, i) => {
        const text = words
          .slice(firstWord, endWord)
          .map((one) => one?.text ?? '…')
          .join(' ');
        return (
          <li key={`${firstWord} ${i}`} className="flex items-center gap-2">
            <span className="flex-none text-[12px] text-soft">{place === 'before' ? t('cutting.first') : t('cutting.then')}</span>
            <span className="min-w-0 flex-1 truncate font-serif text-[15px]">{text}</span>
            <button
              type="button"
              disabled={locked}
              aria-label={t('cutting.take-out', { what: text })}
              title={t('cutting.take-out', { what: text })}
              className="flex-none p-[3px] text-soft hover:text-ink disabled:opacity-45"
              onClick={() => onChange(t('cutting.took-out', { what: text }), { ...edit, [place]: parts.filter((_, k) => k !== i) })}
            >
              <X size={14} />
            </button>
          </li>
        );
      })}
    </ul>
  );
}
