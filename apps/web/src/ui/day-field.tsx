import { Popover, PopoverButton, PopoverPanel } from '@headlessui/react';
import { addDays, dayNumber } from '@sift-reel/core';
import clsx from 'clsx';
import { CalendarDays, ChevronLeft, ChevronRight } from 'lucide-react';
import { type ReactNode, useId } from 'react';
import { DayPicker } from 'react-day-picker';
import { es } from 'react-day-picker/locale/es';
import { fieldProblem } from '../texts/field-problems.js';
import { formatDay } from '../texts/formats.js';
import { language, t } from '../texts/texts.js';

/** Names of months and days in the calendar; English comes with it. */
const CALENDARS = { en: undefined, es } as const;

interface DayFieldProps {
  label: string;
  /** YYYY-MM-DD. */
  value: string;
  onChange: (day: string) => void;
  /** Days before it cannot be chosen. */
  min?: string;
  error?: string | undefined;
  className?: string;
}

const toDate = (day: string): Date => new Date(`${day}T12:00:00`);
const toDay = (date: Date): string => `${date.getFullYear()}-${String(date.getMonth() + 1).padStart(2, '0')}-${String(date.getDate()).padStart(2, '0')}`;

function isDay(text: string): boolean {
  try {
    return Number.isFinite(dayNumber(text));
  } catch {
    return false;
  }
}

/** A day, written as the rest of the program writes days, and chosen on a calendar or with the arrow keys. */
export function DayField({ label, value, onChange, min, error, className }: DayFieldProps): ReactNode {
  const id = useId();
  const known = isDay(value);
  return (
    <div className={clsx('flex flex-col gap-1', className)}>
      <span id={id} className="text-xs font-semibold">
        {label}
      </span>
      <Popover className="relative">
        <PopoverButton
          aria-labelledby={`${id} ${id}-day`}
          className={clsx(
            'flex w-full items-center justify-between gap-2 rounded border bg-sheet px-2 py-[5px] text-left',
            error === undefined ? 'border-edge' : 'border-madder',
          )}
          onKeyDown={(event) => {
            const by = { ArrowUp: 1, ArrowDown: -1, PageUp: 7, PageDown: -7 }[event.key];
            if (by === undefined || !known) return;
            event.preventDefault();
            const next = addDays(value, by);
            if (min === undefined || next >= min) onChange(next);
          }}
        >
          <span id={`${id}-day`}>{known ? `${formatDay(value)} ${value.slice(0, 4)}` : t('ui.choose-a-day')}</span>
          <CalendarDays size={14} className="text-soft" aria-hidden="true" />
        </PopoverButton>
        <PopoverPanel anchor={{ to: 'bottom start', gap: 2 }} className="z-50 border border-rule bg-sheet p-3 shadow-[0_8px_24px_rgba(35,32,27,.2)]">
          {({ close }) => (
            <DayPicker
              mode="single"
              locale={CALENDARS[language()]}
              required
              weekStartsOn={1}
              autoFocus
              selected={known ? toDate(value) : undefined}
              defaultMonth={known ? toDate(value) : min === undefined ? undefined : toDate(min)}
              disabled={min === undefined ? undefined : { before: toDate(min) }}
              onSelect={(date) => {
                onChange(toDay(date));
                close();
              }}
              components={{ Chevron: ({ orientation }) => (orientation === 'left' ? <ChevronLeft size={14} /> : <ChevronRight size={14} />) }}
              classNames={CALENDAR}
            />
          )}
        </PopoverPanel>
      </Popover>
      {error !== undefined && <div className="text-[11.5px] text-madder-text">{fieldProblem(error)}</div>}
    </div>
  );
}

const CALENDAR = {
  root: 'text-[12px]',
  months: 'relative',
  month_caption: 'flex h-[26px] items-center font-semibold',
  nav: 'absolute right-0 top-0 flex gap-1',
  button_previous: 'p-[5px] hover:bg-faint',
  button_next: 'p-[5px] hover:bg-faint',
  weekday: 'w-[30px] py-1 text-[10.5px] font-normal text-soft',
  day: 'p-0 text-center',
  day_button: 'time h-[28px] w-[30px] hover:bg-faint disabled:opacity-45',
  selected: 'bg-ink text-sheet [&_button:hover]:bg-ink',
  today: 'font-bold underline',
  outside: 'text-soft',
  disabled: 'line-through',
} as const;
