import { type Edit, tightened, type TighteningSort } from '@sift-reel/core';
import { Check, Volume2, X } from 'lucide-react';
import { type ReactNode, useState } from 'react';
import { api, type ShortView, type TighteningView } from '../../app/api.js';
import { problemText } from '../../app/problems.js';
import { formatNumber } from '../../texts/formats.js';
import { t } from '../../texts/texts.js';
import { Button, Loading, Trouble } from '../../ui/parts.js';
import { Select } from '../../ui/select.js';
import type { Spoken } from './spoken.js';

const NAMES: Readonly<Record<TighteningSort, string>> = {
  pause: t('cutting.sort-pause'),
  filler: t('cutting.sort-filler'),
  repeat: t('cutting.sort-repeat'),
  'false-start': t('cutting.sort-false-start'),
};
const LONGEST_SILENCES = [0.5, 0.8, 1.2] as const;
const PADDINGS = [0.1, 0.25, 0.4] as const;

const keyOf = ({ sort, firstWord, endWord }: TighteningView): string => `${sort} ${firstWord} ${endWord}`;
const inSeconds = (ms: number): string => formatNumber(ms / 1_000, 1);

interface TightenProps {
  short: ShortView;
  words: Spoken;
  edit: Edit;
  locked: boolean;
  onChange: (label: string, next: Edit) => void;
  /** Plays what is around a cut, with the cut in it. */
  onHear: (one: TighteningView) => void;
  onShow: (one: TighteningView) => void;
}

/** Cuts that would tighten a short, one by one: heard, taken, or refused. */
export function TightenPane({ short, words, edit, locked, onChange, onHear, onShow }: TightenProps): ReactNode {
  const [silence, setSilence] = useState<number>(0.8);
  const [padding, setPadding] = useState<number>(0.25);
  const [refused, setRefused] = useState<ReadonlySet<string>>(new Set());
  const asked = api.useProposeTighteningQuery({ shortId: short.id, pauseMs: Math.round(silence * 1_000), paddingMs: Math.round(padding * 1_000) });
  const proposals = (asked.currentData ?? []).filter((one) => !refused.has(keyOf(one)));
  const sum = proposals.reduce((total, { savedMs }) => total + savedMs, 0);
  const wordsOf = ({ sort, firstWord, endWord }: TighteningView): string => {
    const said = words.slice(firstWord, endWord).map((one) => one?.text ?? '…');
    return sort === 'pause' ? said.join(' … ') : said.join(' ');
  };
  return (
    <section aria-label={t('cutting.tighten')} className="flex min-h-0 flex-1 flex-col">
      <div className="flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-rule px-4 py-2 text-[12px]">
        <Choice label={t('cutting.silences-over')} value={silence} options={LONGEST_SILENCES} onChange={setSilence} />
        <Choice label={t('cutting.leave-on-each-side')} value={padding} options={PADDINGS} onChange={setPadding} />
        <Button
          className="ml-auto"
          disabled={locked || proposals.length === 0}
          onClick={() => onChange(t('cutting.tightened', { seconds: inSeconds(sum) }), proposals.reduce<Edit>(tightened, edit))}
        >
          {t('cutting.take-all', { count: proposals.length, seconds: inSeconds(sum) })}
        </Button>
      </div>
      {asked.error !== undefined && (
        <Trouble title={t('cutting.nothing-can-be-proposed')} detail={problemText(asked.error)} onRetry={() => void asked.refetch()} />
      )}
      {asked.currentData === undefined && asked.error === undefined && <Loading what={t('cutting.tighten')} rows={4} />}
      <ul className="min-h-0 flex-1 overflow-y-auto">
        {proposals.map((one) => (
          <li key={keyOf(one)} className="flex items-center gap-2 border-b border-rule px-4 py-[5px]">
            <button type="button" className="min-w-0 flex-1 text-left" onClick={() => onShow(one)}>
              <span className="block truncate font-serif text-[14px]">{wordsOf(one)}</span>
              <span className="block text-[11px] text-soft">
                {NAMES[one.sort]} · {t('cutting.saves', { seconds: formatNumber(one.savedMs / 1_000, 2) })}
              </span>
            </button>
            <IconButton label={t('cutting.hear', { what: wordsOf(one) })} onClick={() => onHear(one)} icon={<Volume2 size={14} />} />
            <IconButton
              label={t('cutting.take', { what: wordsOf(one) })}
              disabled={locked}
              onClick={() => onChange(t('cutting.took', { what: wordsOf(one) }), tightened(edit, one))}
              icon={<Check size={14} />}
            />
            <IconButton
              label={t('cutting.refuse', { what: wordsOf(one) })}
              onClick={() => setRefused(new Set([...refused, keyOf(one)]))}
              icon={<X size={14} />}
            />
          </li>
        ))}
        {asked.currentData !== undefined && proposals.length === 0 && <li className="px-4 py-4 text-soft">{t('cutting.nothing-to-tighten')}</li>}
      </ul>
    </section>
  );
}

function IconButton({ label, icon, onClick, disabled = false }: { label: string; icon: ReactNode; onClick: () => void; disabled?: boolean }): ReactNode {
  return (
    <button
      type="button"
      aria-label={label}
      title={label}
      disabled={disabled}
      className="flex-none rounded border border-transparent p-[4px] text-soft hover:border-edge hover:text-ink disabled:opacity-45"
      onClick={onClick}
    >
      {icon}
    </button>
  );
}

function Choice({
  label,
  value,
  options,
  onChange,
}: {
  label: string;
  value: number;
  options: readonly number[];
  onChange: (value: number) => void;
}): ReactNode {
  return (
    <span className="flex items-center gap-1 text-soft">
      <span aria-hidden="true">{label}</span>
      <Select
        look="bare"
        label={label}
        value={String(value)}
        onChange={(next) => onChange(Number(next))}
        options={options.map((one) => ({ value: String(one), name: t('cutting.seconds-short', { seconds: formatNumber(one, 2) }) }))}
      />
    </span>
  );
}
