import { formatTimecode } from '@sift-reel/core';
import type { ReactNode } from 'react';
import { api, type SearchHitView } from '../../app/api.js';
import { Button } from '../../ui/parts.js';
import { SearchField, SearchStatus } from '../../ui/transcript-search.js';
import { t } from '../../texts/texts.js';

interface FindPaneProps {
  recordingId: string;
  query: string;
  onQuery: (query: string) => void;
  onGoTo: (word: number) => void;
  onMake: (hit: SearchHitView) => void;
  making: boolean;
  /** Name of the language of the talk, where it is not understood. */
  language: string | null;
}

const noMeaning = (language: string | null): string =>
  language === null ? t('sifting.meaning-cannot-be-searched-until-the') : t('sifting.meaning-cannot-be-searched-the-talk', { language });

/** Search of the transcript by words and by meaning; a hit can be made a candidate. */
export function FindPane({ recordingId, query, onQuery, onGoTo, onMake, making, language }: FindPaneProps): ReactNode {
  const found = api.useSearchRecordingQuery({ recordingId, q: query }, { skip: query === '' });
  const hits = query === '' ? [] : (found.currentData?.hits ?? []);
  return (
    <div className="flex flex-col gap-3">
      <SearchField
        id="find-words"
        label={t('sifting.find-in-the-transcript')}
        placeholder={language === null ? t('sifting.words-or-what-it-should-mean') : t('sifting.words')}
        query={query}
        onQuery={onQuery}
      />
      {query === '' && (
        <p className="font-serif text-[15px] leading-[1.4] text-soft">
          {`${language === null ? t('sifting.finds-sentences-by-their-words-in') : t('sifting.finds-sentences-by-their-words')} ${t('sifting.hits-stand-on-the-seam-any')}`}
        </p>
      )}
      {query !== '' && <SearchStatus found={found}>{found.currentData?.byMeaning === true ? '' : ` ${noMeaning(language)}`}</SearchStatus>}
      <ul className="flex flex-col gap-[11px]">
        {hits.map((hit) => (
          <li key={hit.firstWord} data-testid="hit">
            <div className="flex items-center gap-2">
              <button type="button" className="time text-madder-text hover:underline" onClick={() => onGoTo(hit.firstWord)}>
                {formatTimecode(hit.startMs)}
              </button>
              <span className="text-[12px] text-soft">{hit.by === 'words' ? t('sifting.by-its-words') : t('sifting.by-what-it-means')}</span>
              <Button tone="quiet" className="ml-auto" disabled={making} title={t('sifting.makes-a-candidate-of-the-best')} onClick={() => onMake(hit)}>
                {t('sifting.make-a-candidate')}
              </Button>
            </div>
            <p className="line-clamp-3 font-serif text-[15px] leading-[1.4]">{hit.text}</p>
          </li>
        ))}
      </ul>
    </div>
  );
}
