import { ASKED_CURRENCY, FITTED_WEIGHTS, SIGNALS } from '@sift-reel/core';
import { SlidersHorizontal } from 'lucide-react';
import { type ReactNode, useRef, useState } from 'react';
import { api } from '../../app/api.js';
import { useAppDispatch, useAppSelector } from '../../app/store.js';
import { ownVersion } from '../../app/own-versions.js';
import { doNow } from '../../app/undo.js';
import { Button } from '../../ui/parts.js';
import { SIGNAL_HINTS, SIGNAL_LOOK } from '../../ui/signals.js';
import { weightsWished } from './bench-slice.js';
import { t } from '../../texts/texts.js';

/** Sliders run over these steps; what counts is how they stand to each other. */
const MOST = 60;

/** How much each signal counts: moving one ranks the candidates again at once; the sift on record stays as it is. */
export function Weights({
  clientId,
  clientWeights,
  siftWeights,
  topicsAsked,
  clientVersion,
}: {
  clientId: string;
  clientWeights: readonly number[] | null;
  /** Before Currency is raised for topics. */
  siftWeights: readonly number[];
  topicsAsked: boolean;
  clientVersion: number;
}): ReactNode {
  const wished = useAppSelector((state) => state.bench.weights);
  const dispatch = useAppDispatch();
  const [open, setOpen] = useState(false);
  const [save, saving] = api.useSetSignalWeightsMutation();
  const shown = wished ?? siftWeights;
  const sum = shown.reduce((total, weight) => total + weight, 0);
  const own = clientWeights ?? FITTED_WEIGHTS;
  const set = (k: number, value: number): void => {
    const next = shown.map((weight, i) => (i === k ? value / 100 : weight));
    if (next.some((weight) => weight > 0)) dispatch(weightsWished(next));
  };
  const seen = useRef(clientVersion);
  seen.current = Math.max(seen.current, clientVersion);
  const write = async (weights: readonly number[] | null): Promise<void> => {
    const saved = await save({
      clientId,
      signalWeightsForm: { weights: weights === null ? null : [...weights], version: ownVersion(clientId, seen.current) },
    }).unwrap();
    seen.current = saved.version;
  };
  const saveAs = (weights: readonly number[] | null, words: string): void => {
    void doNow(
      words,
      () => write(weights),
      () => write(clientWeights),
    );
  };
  return (
    <div className="flex-none border-b border-rule">
      <button
        type="button"
        aria-expanded={open}
        aria-controls="signal-weights"
        onClick={() => setOpen(!open)}
        className="flex w-full items-center gap-2 px-[18px] py-[5px] text-left text-[12px] text-soft hover:text-ink"
      >
        <SlidersHorizontal size={13} />
        {t('sifting.what-counts')}
        {wished !== null && <span className="text-madder-text">{`· ${t('sifting.ranked-by-your-weights')}`}</span>}
      </button>
      {open && (
        <div id="signal-weights" className="px-[18px] pb-[10px]">
          <div className="grid grid-cols-[96px_1fr_34px] items-center gap-x-3 gap-y-[5px]">
            {SIGNALS.map((signal, k) => (
              <label key={signal} className="contents" title={SIGNAL_HINTS[signal]}>
                <span>{SIGNAL_LOOK[signal].name}</span>
                <input
                  type="range"
                  min={0}
                  max={MOST}
                  step={1}
                  value={Math.round((shown[k] ?? 0) * 100)}
                  onChange={(event) => set(k, Number(event.target.value))}
                  aria-valuetext={t('common.of-100', { number: Math.round(((shown[k] ?? 0) / sum) * 100) })}
                  className="slider"
                  style={{ color: SIGNAL_LOOK[signal].colour }}
                />
                <span className="time text-right">{Math.round(((shown[k] ?? 0) / sum) * 100)}</span>
              </label>
            ))}
          </div>
          <p className="mt-2 text-[11.5px] text-soft">
            {t('sifting.of-100-points-in-the-score')}
            {topicsAsked && ` ${t('sifting.the-brief-names-topics-so-currency', { times: ASKED_CURRENCY })}`}
          </p>
          <div className="mt-2 flex flex-wrap gap-2">
            <Button disabled={wished === null} onClick={() => dispatch(weightsWished(null))}>
              {t('sifting.back-to-the-sifts')}
            </Button>
            <Button disabled={same(shown, own)} onClick={() => dispatch(weightsWished([...own]))}>
              {clientWeights === null ? t('sifting.default') : t('sifting.clients-default')}
            </Button>
            <Button
              disabled={saving.isLoading || same(shown, own)}
              title={t('sifting.new-sifts-of-this-client-use')}
              onClick={() => saveAs(shown, t('sifting.saved-the-weights-for-this-client'))}
            >
              {t('sifting.save-for-client')}
            </Button>
            {clientWeights !== null && (
              <Button tone="quiet" disabled={saving.isLoading} onClick={() => saveAs(null, t('sifting.put-the-client-back-to-the'))}>
                {t('sifting.forget-clients-own')}
              </Button>
            )}
          </div>
        </div>
      )}
    </div>
  );
}

/** Whether two sets of weights come to the same shares. */
function same(a: readonly number[], b: readonly number[]): boolean {
  const [sumA, sumB] = [a, b].map((list) => list.reduce((total, weight) => total + weight, 0));
  return a.every((weight, k) => Math.abs(weight / sumA! - (b[k] ?? 0) / sumB!) < 0.004);
}
