import clsx from 'clsx';
import { parseClock, formatTimecode } from '@sift-reel/core';
import { type InputHTMLAttributes, type ReactNode, type TextareaHTMLAttributes, useEffect, useId, useState } from 'react';
import { fieldProblem } from '../texts/field-problems.js';
import { t } from '../texts/texts.js';

export const inputClass =
  'w-full rounded border border-edge bg-sheet px-2 py-[5px] text-[13px] text-ink placeholder:text-soft disabled:bg-paper disabled:text-ink aria-[invalid=true]:border-madder';

interface FieldProps {
  label: string;
  hint?: ReactNode;
  error?: string | undefined;
  aside?: ReactNode;
  className?: string;
  children: (ids: { id: string; 'aria-invalid': boolean; 'aria-describedby': string | undefined }) => ReactNode;
}

/** A label, its control, and beside it what is wrong. */
export function Field({ label, hint, error, aside, className, children }: FieldProps): ReactNode {
  const id = useId();
  const noteId = `${id}-note`;
  const note = error ?? hint;
  return (
    <div className={clsx('flex flex-col gap-1', className)}>
      <div className="flex items-baseline justify-between gap-2">
        <label htmlFor={id} className="text-xs font-semibold">
          {label}
        </label>
        {aside}
      </div>
      {children({ id, 'aria-invalid': error !== undefined, 'aria-describedby': note === undefined ? undefined : noteId })}
      {note !== undefined && (
        <div id={noteId} className={clsx('text-[11.5px]', error === undefined ? 'text-soft' : 'text-madder-text')}>
          {error === undefined ? note : fieldProblem(error)}
        </div>
      )}
    </div>
  );
}

type TextProps = InputHTMLAttributes<HTMLInputElement> & Omit<FieldProps, 'children'>;
export function TextField({ label, hint, error, aside, className, ...input }: TextProps): ReactNode {
  return <Field {...{ label, hint, error, aside, className }}>{(ids) => <input {...input} {...ids} className={inputClass} />}</Field>;
}

type AreaProps = TextareaHTMLAttributes<HTMLTextAreaElement> & Omit<FieldProps, 'children'>;
export function AreaField({ label, hint, error, aside, className, ...input }: AreaProps): ReactNode {
  return (
    <Field {...{ label, hint, error, aside, className }}>{(ids) => <textarea rows={4} {...input} {...ids} className={clsx(inputClass, 'resize-y')} />}</Field>
  );
}

/** A list of words or phrases, typed with commas. */
export function ListField({
  value,
  onChange,
  ...rest
}: Omit<FieldProps, 'children'> & { value: readonly string[]; onChange: (value: string[]) => void; placeholder?: string; disabled?: boolean }): ReactNode {
  const { placeholder, disabled, ...field } = rest;
  const [text, setText] = useState(value.join(', '));
  const joined = value.join('\n');
  useEffect(() => {
    setText((typed) => (splitList(typed).join('\n') === joined ? typed : joined.split('\n').join(', ')));
  }, [joined]);
  return (
    <Field {...field}>
      {(ids) => (
        <input
          {...ids}
          className={inputClass}
          value={text}
          disabled={disabled}
          placeholder={placeholder}
          onChange={(event) => {
            setText(event.target.value);
            onChange(splitList(event.target.value));
          }}
        />
      )}
    </Field>
  );
}

function splitList(text: string): string[] {
  return [
    ...new Set(
      text
        .split(/[,;\n]/)
        .map((part) => part.replace(/^#/, '').trim())
        .filter((part) => part !== ''),
    ),
  ];
}

/** A list, one of it on each line. */
export function LinesField({
  value,
  onChange,
  placeholder,
  rows = 3,
  ...field
}: Omit<FieldProps, 'children'> & { value: readonly string[]; onChange: (value: string[]) => void; placeholder?: string; rows?: number }): ReactNode {
  const [text, setText] = useState(value.join('\n'));
  const joined = value.join('\n');
  useEffect(() => {
    setText((typed) => (lines(typed).join('\n') === joined ? typed : joined));
  }, [joined]);
  return (
    <Field {...field}>
      {(ids) => (
        <textarea
          {...ids}
          rows={rows}
          className={clsx(inputClass, 'resize-y')}
          value={text}
          placeholder={placeholder}
          onChange={(event) => {
            setText(event.target.value);
            onChange(lines(event.target.value));
          }}
        />
      )}
    </Field>
  );
}

const lines = (text: string): string[] =>
  text
    .split('\n')
    .map((line) => line.trim())
    .filter((line) => line !== '');

/** A time of the recording, typed as mm:ss; empty means none. */
export function ClockField({
  value,
  onChange,
  emptyMeans,
  ...field
}: Omit<FieldProps, 'children'> & { value: number | null; onChange: (ms: number | null) => void; emptyMeans?: string }): ReactNode {
  const [text, setText] = useState(value === null ? '' : formatTimecode(value));
  useEffect(() => {
    // A field that was emptied stays empty, though the form may take it for 0: somebody is about to type into it.
    const says = (typed: string): boolean => (typed.trim() === '' ? value === null || value === 0 : parseClock(typed) === value);
    setText((typed) => (says(typed) ? typed : value === null ? '' : formatTimecode(value)));
  }, [value]);
  const bad = text.trim() !== '' && parseClock(text) === null;
  return (
    <Field {...field} error={bad ? t('ui.must-be-a-time-such-as') : field.error}>
      {(ids) => (
        <input
          {...ids}
          className={clsx(inputClass, 'font-mono')}
          value={text}
          placeholder={emptyMeans}
          onChange={(event) => {
            setText(event.target.value);
            const typed = event.target.value.trim();
            const ms = typed === '' ? null : parseClock(typed);
            if (typed === '' || ms !== null) onChange(ms);
          }}
        />
      )}
    </Field>
  );
}
