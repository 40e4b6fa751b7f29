import { INTEREST_HEADER, writeCsv } from '@sift-reel/core';
import { type ReactNode, useRef, useState } from 'react';
import { api, type InterestTermView } from '../../app/api.js';
import { problemText } from '../../app/problems.js';
import { doNow } from '../../app/undo.js';
import { Button, Loading } from '../../ui/parts.js';
import { t, rich } from '../../texts/texts.js';
import { formatNumber } from '../../texts/formats.js';

const SHOWN = 8;

/** What people look for, from a CSV: it moves Currency, and its figures stand beside the key phrases of the bench. */
export function Interest({ clientId }: { clientId: string }): ReactNode {
  const list = api.useListInterestQuery(clientId);
  const [save, saving] = api.useSetInterestMutation();
  const [all, setAll] = useState(false);
  const [trouble, setTrouble] = useState<string | null>(null);
  const file = useRef<HTMLInputElement>(null);
  const terms = list.data ?? [];
  const write = (csv: string) => save({ clientId, interestForm: { csv } }).unwrap();
  const replace = (csv: string, words: string): void => {
    setTrouble(null);
    const before = toCsv(terms);
    void doNow(
      words,
      async () => {
        try {
          await write(csv);
        } catch (error) {
          setTrouble(problemText(error as Parameters<typeof problemText>[0]));
          throw error;
        }
      },
      () => write(before),
    );
  };
  const take = async (chosen: File | undefined): Promise<void> => {
    if (chosen !== undefined) replace(await chosen.text(), t('clients.took-the-interest-list', { name: chosen.name }));
    if (file.current !== null) file.current.value = ''; // the same file may be chosen again once it is mended
  };
  return (
    <section aria-label={t('clients.interest-list')}>
      <div className="flex items-baseline gap-3 border-b border-ink pb-1">
        <h2>{t('clients.interest-list')}</h2>
        {terms.length > 0 && <span className="text-soft">{t('clients.terms', { count: terms.length })}</span>}
        <span className="ml-auto flex gap-2">
          {terms.length > 0 && (
            <Button tone="quiet" disabled={saving.isLoading} onClick={() => replace(toCsv([]), t('clients.emptied-the-interest-list'))}>
              {t('clients.empty-it')}
            </Button>
          )}
          <Button disabled={saving.isLoading} onClick={() => file.current?.click()}>
            {t('clients.import-a-csv')}
          </Button>
        </span>
        <input
          ref={file}
          data-testid="interest-file"
          type="file"
          accept=".csv,text/csv"
          aria-label={t('clients.interest-list-as-csv')}
          className="hidden"
          onChange={(event) => void take(event.target.files?.[0])}
        />
      </div>
      {trouble !== null && (
        <p role="alert" className="py-2 text-madder-text">
          {trouble}
        </p>
      )}
      {list.isLoading && <Loading what={t('clients.the-interest-list')} rows={3} />}
      {list.error !== undefined && <p className="py-2 text-madder-text">{problemText(list.error)}</p>}
      {list.data !== undefined && terms.length === 0 && (
        <p className="py-2 text-soft">
          {rich('clients.what-people-look-for-now-one', { columns: (chunks) => <span className="font-mono text-[12px]">{chunks}</span> })}
        </p>
      )}
      {terms.length > 0 && (
        <table className="w-full text-left">
          <thead className="text-[12px] text-soft">
            <tr>
              <th className="py-1 font-normal">{t('clients.term')}</th>
              <th className="py-1 text-right font-normal">{t('clients.searches-a-month')}</th>
              <th className="py-1 text-right font-normal">{t('clients.competition')}</th>
              <th className="py-1 text-right font-normal">{t('clients.change-of-searches')}</th>
            </tr>
          </thead>
          <tbody>
            {(all ? terms : terms.slice(0, SHOWN)).map((term) => (
              <tr key={term.term} className="border-t border-rule">
                <td className="py-[4px]">{term.term}</td>
                <td className="time text-right">{formatNumber(term.volume)}</td>
                <td className="time text-right">{t('common.of-100', { number: Math.round(100 * term.competition) })}</td>
                <td className="time text-right">{Math.round(100 * term.change)} %</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {terms.length > SHOWN && (
        <button type="button" className="mt-1 text-[12px] underline" onClick={() => setAll(!all)}>
          {all ? t('clients.show-fewer') : t('clients.show-all', { count: terms.length })}
        </button>
      )}
    </section>
  );
}

function toCsv(terms: readonly InterestTermView[]): string {
  return writeCsv(
    INTEREST_HEADER,
    terms.map(({ term, volume, competition, change }) => [term, volume, competition, change]),
  );
}
