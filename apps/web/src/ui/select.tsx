import { Field as HeadlessField, Label, Listbox, ListboxButton, ListboxOption, ListboxOptions } from '@headlessui/react';
import clsx from 'clsx';
import { Check, ChevronDown } from 'lucide-react';
import type { ReactNode } from 'react';

interface Option<V extends string> {
  readonly value: V;
  readonly name: ReactNode;
}

interface SelectProps<V extends string> {
  /** Told to screen readers, and shown above where `shown` is set. */
  label: string;
  value: V;
  options: readonly Option<V>[];
  onChange: (value: V) => void;
  /** `field`: with its label above, like other fields. `inline`: in a row of controls. `bare`: as text, until it is touched. */
  look?: 'field' | 'inline' | 'bare';
  strong?: boolean;
  error?: string | undefined;
  hint?: ReactNode;
  className?: string;
}

const LOOKS = {
  field: 'w-full rounded border border-edge bg-sheet px-2 py-[5px] text-[13px]',
  inline: 'rounded border border-edge bg-sheet px-2 py-[5px]',
  bare: 'min-h-[24px] w-full rounded border border-transparent py-[2px] text-soft hover:border-edge data-open:border-edge',
} as const;

/** One of a few, chosen from a list on our own paper. */
export function Select<V extends string>({
  label,
  value,
  options,
  onChange,
  look = 'inline',
  strong = false,
  error,
  hint,
  className,
}: SelectProps<V>): ReactNode {
  const chosen = options.find((option) => option.value === value) ?? options[0];
  return (
    <HeadlessField className={clsx('min-w-0', look === 'field' && 'flex flex-col gap-1', className)}>
      <Label className={look === 'field' ? 'text-xs font-semibold' : 'sr-only'}>{label}</Label>
      <Listbox value={chosen?.value ?? ('' as V)} onChange={onChange} invalid={error !== undefined}>
        <ListboxButton className={clsx('flex min-w-0 items-center justify-between gap-2 text-left', LOOKS[look], strong && 'font-semibold')}>
          <span className="min-w-0 truncate">{chosen?.name}</span>
          <ChevronDown size={12} className="flex-none" aria-hidden="true" />
        </ListboxButton>
        <ListboxOptions
          anchor={{ to: 'bottom start', gap: 2 }}
          className="z-50 max-h-[320px] min-w-(--button-width) overflow-y-auto border border-rule bg-sheet py-1 shadow-[0_8px_24px_rgba(35,32,27,.2)] outline-none"
        >
          {options.map((option) => (
            <ListboxOption
              key={option.value}
              value={option.value}
              className="group flex cursor-pointer items-center justify-between gap-4 px-3 py-[6px] whitespace-nowrap data-focus:bg-faint data-selected:font-semibold"
            >
              {option.name}
              <Check size={12} className="invisible group-data-selected:visible" aria-hidden="true" />
            </ListboxOption>
          ))}
        </ListboxOptions>
      </Listbox>
      {(error ?? hint) !== undefined && <div className={clsx('text-[11.5px]', error === undefined ? 'text-soft' : 'text-madder-text')}>{error ?? hint}</div>}
    </HeadlessField>
  );
}
