import { INTEREST_HEADER, writeCsv } from '@sift-reel/core';
import { type ReactNode, useRef, useState } from 'react';
import { api, type InterestTermView } from '../../app/api.js';
import { problemText } from '../../app/problems.js';
import { doNow } from '../../app/undo.js';
import { Button, Loading } from '../../ui/parts.js';

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
    if (chosen !== undefined) replace(await chosen.text(), `Took the interest list “${chosen.name}”`);
    if (file.current !== null) file.current.value = ''; // the same file may be chosen again once it is mended
  };
  return (
    <section aria-label="Interest list">
      <div className="flex items-baseline gap-3 border-b border-ink pb-1">
        <h2>Interest list</h2>
        {terms.length > 0 && <span className="text-soft">{terms.length} terms</span>}
        <span className="ml-auto flex gap-2">
          {terms.length > 0 && (
            <Button tone="quiet" disabled={saving.isLoading} onClick={() => replace(toCsv([]), 'Emptied the interest list')}>
              Empty it
            </Button>
          )}
          <Button disabled={saving.isLoading} onClick={() => file.current?.click()}>
            Import a CSV
          </Button>
        </span>
        <input
          ref={file}
          data-testid="interest-file"
          type="file"
          accept=".csv,text/csv"
          aria-label="Interest list as CSV"
          className="hidden"
          onChange={(event) => void take(event.target.files?.[0])}
        />
      </div>
      {trouble !== null && (
        <p role="alert" className="py-2 text-madder-text">
          {trouble}
        </p>
      )}
      {list.isLoading && <Loading what="the interest list" rows={3} />}
      {list.error !== undefined && <p className="py-2 text-madder-text">{problemText(list.error)}</p>}
      {list.data !== undefined && terms.length === 0 && (
        <p className="py-2 text-soft">
          What people look for now, one term a line: <span className="font-mono text-[12px]">term,volume,competition,change</span>. Candidates that touch a term
          gain in Currency.
        </p>
      )}
      {terms.length > 0 && (
        <table className="w-full text-left">
          <thead className="text-[12px] text-soft">
            <tr>
              <th className="py-1 font-normal">Term</th>
              <th className="py-1 text-right font-normal">Searches a month</th>
              <th className="py-1 text-right font-normal">Competition</th>
              <th className="py-1 text-right font-normal">Change</th>
            </tr>
          </thead>
          <tbody>
            {(all ? terms : terms.slice(0, SHOWN)).map((term) => (
              <tr key={term.term} className="border-t border-rule">
                <td className="py-[4px]">{term.term}</td>
                <td className="time text-right">{term.volume.toLocaleString('en-GB')}</td>
                <td className="time text-right">{Math.round(100 * term.competition)} of 100</td>
                <td className="time text-right">{Math.round(100 * term.change)} %</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {terms.length > SHOWN && (
        <button type="button" className="mt-1 text-[12px] underline" onClick={() => setAll(!all)}>
          {all ? 'Show fewer' : `Show all ${terms.length}`}
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
