import { formatTimecode } from '@sift-reel/core';
import { Search } from 'lucide-react';
import { type ReactNode, useEffect, useState } from 'react';
import { api, type SearchHitView } from '../../app/api.js';
import { problemText } from '../../app/problems.js';
import { Button, Loading } from '../../ui/parts.js';
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

const WAIT_MS = 300;

const noMeaning = (language: string | null): string =>
  language === null ? t('sifting.meaning-cannot-be-searched-until-the') : t('sifting.meaning-cannot-be-searched-the-talk', { language });

/** Search of the transcript by words and by meaning; a hit can be made a candidate. */
export function FindPane({ recordingId, query, onQuery, onGoTo, onMake, making, language }: FindPaneProps): ReactNode {
  const [typed, setTyped] = useState(query);
  useEffect(() => {
    const timer = setTimeout(() => onQuery(typed.trim()), WAIT_MS);
    return () => clearTimeout(timer);
  }, [typed, onQuery]);
  const found = api.useSearchRecordingQuery({ recordingId, q: query }, { skip: query === '' });
  const hits = query === '' ? [] : (found.currentData?.hits ?? []);
  return (
    <div className="flex flex-col gap-3">
      <label className="flex items-center gap-2 rounded border border-rule bg-sheet px-2 py-[5px]">
        <Search size={13} className="text-soft" />
        <input
          id="find-words"
          aria-label={t('sifting.find-in-the-transcript')}
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
          placeholder={language === null ? t('sifting.words-or-what-it-should-mean') : t('sifting.words')}
          maxLength={200}
          className="w-full bg-transparent outline-none placeholder:text-soft"
        />
      </label>
      {query === '' && (
        <p className="font-serif text-[15px] leading-[1.4] text-soft">
          {`${language === null ? t('sifting.finds-sentences-by-their-words-in') : t('sifting.finds-sentences-by-their-words')} ${t('sifting.hits-stand-on-the-seam-any')}`}
        </p>
      )}
      {found.error !== undefined && query !== '' && (
        <p role="alert" className="text-madder-text">
          {problemText(found.error)}
        </p>
      )}
      {query !== '' && found.isFetching && hits.length === 0 && <Loading what={t('sifting.the-hits')} rows={5} />}
      {query !== '' && found.currentData !== undefined && (
        <p role="status" className="text-[12px] text-soft">
          {hits.length === 0 ? t('sifting.nothing-found') : t('sifting.hits', { count: hits.length })}
          {found.currentData.byMeaning ? '' : ` ${noMeaning(language)}`}
        </p>
      )}
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
