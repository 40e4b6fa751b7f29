import { classValidatorResolver } from '@hookform/resolvers/class-validator';
import { KINDS, type Kind } from '@sift-reel/core';
import { BriefForm } from '@sift-reel/forms';
import clsx from 'clsx';
import type { ReactNode } from 'react';
import { type Control, Controller, type FieldErrors, useForm, type UseFormSetValue, useWatch } from 'react-hook-form';
import { ClockField, Field, inputClass, ListField, TextField } from '../../ui/fields.js';
import { Select } from '../../ui/select.js';
import { KIND_NAMES } from '../../ui/signals.js';
import { t } from '../../texts/texts.js';

/** Length bands people ask for. Common practice. */
const BANDS = [
  { name: t('sifting.under-30-s'), minMs: 10_000, maxMs: 30_000 },
  { name: '30–60 s', minMs: 30_000, maxMs: 60_000 },
  { name: '60–90 s', minMs: 60_000, maxMs: 90_000 },
  { name: '90–180 s', minMs: 90_000, maxMs: 180_000 },
  { name: t('sifting.long-cut-3-15-min'), minMs: 180_000, maxMs: 900_000 },
] as const;

export const FIRST_BRIEF: BriefForm = { partStartMs: 240_000, partEndMs: null, minMs: 30_000, maxMs: 60_000, roughCount: 12, topics: [], kinds: [], avoid: [] };

export function useBriefForm(defaults: BriefForm) {
  return useForm<BriefForm>({ resolver: classValidatorResolver(BriefForm), defaultValues: { ...defaults } });
}

export function bandName(minMs: number, maxMs: number): string {
  return BANDS.find((band) => band.minMs === minMs && band.maxMs === maxMs)?.name ?? `${minMs / 1_000}–${maxMs / 1_000} s`;
}

interface FieldsProps {
  control: Control<BriefForm>;
  setValue: UseFormSetValue<BriefForm>;
  errors: FieldErrors<BriefForm>;
  /** Field errors from the server, by field. */
  refused?: Readonly<Record<string, string>>;
  /** One field beside the other where they belong together, and the rest below one another. */
  narrow?: boolean;
}

/** The fields of a brief; used for one recording and for a client's standing brief. */
export function BriefFields({ control, setValue, errors, refused = {}, narrow = false }: FieldsProps): ReactNode {
  const values = useWatch({ control });
  const band = BANDS.findIndex((one) => one.minMs === values.minMs && one.maxMs === values.maxMs);
  const wrong = (field: keyof BriefForm): string | undefined => errors[field]?.message ?? refused[field];
  return (
    <div className={clsx('grid grid-cols-2 gap-x-5 gap-y-4', narrow && '[&>*:nth-child(n+3)]:col-span-2')}>
      <Controller
        control={control}
        name="partStartMs"
        render={({ field }) => (
          <ClockField
            label={t('sifting.part-that-counts-from')}
            value={field.value}
            onChange={(ms) => field.onChange(ms ?? 0)}
            emptyMeans="0:00"
            hint={t('sifting.greetings-and-notices-take-about-4')}
            error={wrong('partStartMs')}
          />
        )}
      />
      <Controller
        control={control}
        name="partEndMs"
        render={({ field }) => (
          <ClockField
            label={t('sifting.to')}
            value={field.value}
            onChange={field.onChange}
            emptyMeans={t('sifting.the-end')}
            hint={t('sifting.leave-out-the-sign-off')}
            error={wrong('partEndMs')}
          />
        )}
      />
      <Select
        look="field"
        label={t('sifting.length-of-a-candidate')}
        value={band < 0 ? 'own' : String(band)}
        onChange={(value) => {
          const chosen = BANDS[Number(value)];
          if (chosen === undefined) setValue('maxMs', (values.maxMs ?? 60_000) + 5_000, { shouldValidate: true });
          else {
            setValue('minMs', chosen.minMs, { shouldValidate: true });
            setValue('maxMs', chosen.maxMs, { shouldValidate: true });
          }
        }}
        error={wrong('minMs') ?? wrong('maxMs')}
        options={[...BANDS.map((one, i) => ({ value: String(i), name: one.name })), { value: 'own', name: t('sifting.as-written-below') }]}
      />
      <Field label={t('sifting.shortest-and-longest-seconds')}>
        {(ids) => (
          <div className="flex items-center gap-2">
            <input
              {...ids}
              className={inputClass}
              type="number"
              min={3}
              max={1800}
              value={(values.minMs ?? 0) / 1_000}
              onChange={(event) => setValue('minMs', Math.round(Number(event.target.value) * 1_000), { shouldValidate: true })}
            />
            <span>{t('sifting.to')}</span>
            <input
              aria-label={t('common.longest-seconds')}
              className={inputClass}
              type="number"
              min={3}
              max={1800}
              value={(values.maxMs ?? 0) / 1_000}
              onChange={(event) => setValue('maxMs', Math.round(Number(event.target.value) * 1_000), { shouldValidate: true })}
            />
          </div>
        )}
      </Field>
      <TextField
        label={t('common.about-how-many')}
        type="number"
        min={1}
        max={200}
        value={values.roughCount ?? 12}
        onChange={(event) => setValue('roughCount', Number(event.target.value), { shouldValidate: true })}
        hint={t('sifting.the-whole-ranking-is-kept-this')}
        error={wrong('roughCount')}
      />
      <Controller
        control={control}
        name="topics"
        render={({ field }) => (
          <ListField
            label={t('common.about')}
            value={field.value}
            onChange={field.onChange}
            placeholder={t('sifting.wet-wood-carbon-monoxide')}
            hint={t('sifting.topics-in-plain-words-with-commas')}
            error={wrong('topics')}
          />
        )}
      />
      <Controller control={control} name="kinds" render={({ field }) => <Kinds value={field.value} onChange={field.onChange} />} />
      <Controller
        control={control}
        name="avoid"
        render={({ field }) => (
          <ListField
            label={t('common.never-with')}
            value={field.value}
            onChange={field.onChange}
            placeholder={t('sifting.names-prices')}
            hint={t('sifting.no-candidate-will-contain-these-words')}
            error={wrong('avoid')}
          />
        )}
      />
    </div>
  );
}

function Kinds({ value, onChange }: { value: readonly Kind[]; onChange: (kinds: Kind[]) => void }): ReactNode {
  return (
    <fieldset>
      <legend className="mb-1 text-xs font-semibold">{t('sifting.kinds-of-moment-wanted')}</legend>
      <div className="grid grid-cols-2 gap-x-3 gap-y-[6px]">
        {KINDS.map((kind) => (
          <label key={kind} className="flex items-center gap-[6px]">
            <input
              type="checkbox"
              className="accent-ink"
              checked={value.includes(kind)}
              onChange={(event) => onChange(event.target.checked ? [...value, kind] : value.filter((one) => one !== kind))}
            />
            {KIND_NAMES[kind]}
          </label>
        ))}
      </div>
      <p className="mt-1 text-[11.5px] text-soft">{t('sifting.none-ticked-means-any')}</p>
    </fieldset>
  );
}
