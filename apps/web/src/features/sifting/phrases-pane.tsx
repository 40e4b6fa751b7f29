import clsx from 'clsx';
import type { ReactNode } from 'react';
import type { CandidateView, KeyPhraseView } from '../../app/api.js';
import { useAppDispatch, useAppSelector } from '../../app/store.js';
import { filtered } from './bench-slice.js';
import { carries } from './rank.js';
import { t } from '../../texts/texts.js';
import { formatNumber } from '../../texts/formats.js';

/** The recording's key phrases: how often they are said, in how many candidates, and how much they are looked for. */
export function PhrasesPane({ phrases, candidates }: { phrases: readonly KeyPhraseView[]; candidates: readonly CandidateView[] }): ReactNode {
  const chosen = useAppSelector((state) => state.bench.filter.phrase);
  const dispatch = useAppDispatch();
  if (phrases.length === 0) return <p className="font-serif text-[15px] leading-[1.4] text-soft">{t('sifting.no-phrase-is-said-twice-in')}</p>;
  const known = phrases.some((phrase) => phrase.volume !== null);
  return (
    <div>
      <p className="mb-2 text-[12px] text-soft">
        {t('sifting.choose-one-to-see-only-the')}
        {!known && ` ${t('sifting.the-client-has-no-interest-list')}`}
      </p>
      <table className="w-full text-left">
        <thead className="text-[11.5px] text-soft">
          <tr>
            <th className="py-1 font-normal">{t('sifting.phrase')}</th>
            <th className="py-1 text-right font-normal" title={t('sifting.how-often-it-is-said')}>
              {t('sifting.said')}
            </th>
            <th className="py-1 pl-2 text-right font-normal" title={t('sifting.how-many-candidates-carry-it')}>
              {t('sifting.in')}
            </th>
            <th className="py-1 pl-2 text-right font-normal" title={t('sifting.searches-a-month-and-the-change')}>
              {t('sifting.interest')}
            </th>
          </tr>
        </thead>
        <tbody>
          {phrases.map((phrase) => {
            const on = chosen?.text === phrase.text;
            const carrying = candidates.filter((one) => carries(one, phrase.firstWords)).length;
            return (
              <tr key={phrase.text} className={clsx('border-t border-rule', on && 'bg-sheet')}>
                <td className="py-[5px]">
                  <button
                    type="button"
                    aria-pressed={on}
                    disabled={carrying === 0}
                    onClick={() => dispatch(filtered({ phrase: on ? null : { text: phrase.text, firstWords: phrase.firstWords } }))}
                    className={clsx('text-left enabled:hover:underline disabled:text-soft', on && 'font-semibold')}
                  >
                    {phrase.text}
                  </button>
                </td>
                <td className="time text-right">{phrase.count}</td>
                <td className="time pl-2 text-right">{carrying}</td>
                <td
                  className="time pl-2 text-right whitespace-nowrap"
                  title={phrase.competition === null ? undefined : t('sifting.competition-of-100', { number: Math.round(100 * phrase.competition) })}
                >
                  {phrase.volume === null ? '–' : `${formatNumber(phrase.volume)} ${change(phrase.change ?? 0)}`}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </div>
  );
}

function change(value: number): string {
  const percent = Math.round(100 * value);
  return percent === 0 ? '' : `${percent > 0 ? '+' : '−'}${Math.abs(percent)} %`;
}
