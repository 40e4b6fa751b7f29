import { Search } from 'lucide-react';
import { type ReactNode, useEffect, useState } from 'react';
import { problemText } from '../app/problems.js';
import { t } from '../texts/texts.js';
import { Loading } from './parts.js';

const WAIT_MS = 300;

interface SearchFieldProps {
  label: string;
  placeholder: string;
  query: string;
  /** Told when somebody has stopped typing, without the space around it. */
  onQuery: (query: string) => void;
  id?: string;
  autoFocus?: boolean;
}

/** What is looked for in a transcript. */
export function SearchField({ label, placeholder, query, onQuery, id, autoFocus }: SearchFieldProps): ReactNode {
  const [typed, setTyped] = useState(query);
  useEffect(() => {
    const timer = setTimeout(() => onQuery(typed.trim()), WAIT_MS);
    return () => clearTimeout(timer);
  }, [typed, onQuery]);
  return (
    <label className="flex items-center gap-2 rounded border border-rule bg-sheet px-2 py-[5px]">
      <Search size={13} className="text-soft" />
      <input
        id={id}
        autoFocus={autoFocus}
        aria-label={label}
        value={typed}
        onChange={(event) => setTyped(event.target.value)}
        placeholder={placeholder}
        maxLength={200}
        className="w-full bg-transparent outline-none placeholder:text-soft"
      />
    </label>
  );
}

interface SearchStatusProps {
  /** What the API has said, of a query that is not empty. */
  found: { readonly error?: unknown; readonly isFetching: boolean; readonly currentData?: { readonly hits: readonly unknown[] } | undefined };
  /** Said after the number of hits. */
  children?: ReactNode;
}

/** How a search stands: on its way, found so many, or why not. */
export function SearchStatus({ found: { error, isFetching, currentData }, children }: SearchStatusProps): ReactNode {
  if (error !== undefined)
    return (
      <p role="alert" className="text-madder-text">
        {problemText(error)}
      </p>
    );
  if (currentData === undefined) return isFetching ? <Loading what={t('sifting.the-hits')} rows={5} /> : null;
  return (
    <p role="status" className="text-[12px] text-soft">
      {currentData.hits.length === 0 ? t('sifting.nothing-found') : t('sifting.hits', { count: currentData.hits.length })}
      {children}
    </p>
  );
}
