import type { ReactNode } from 'react';
import type { ClientView } from '../../app/api.js';
import { doNow } from '../../app/undo.js';
import { Select } from '../../ui/select.js';

interface SpanSelectProps {
  label: string;
  days: number | null;
  version: number;
  /** Those that agencies agree on; another that is set already is offered, too. */
  spans: readonly number[];
  /** What no span means. */
  none: string;
  nameOf: (days: number) => string;
  done: string;
  put: (days: number | null, version: number) => Promise<ClientView>;
  hint: string;
}

/** A span of days of a client, or none; with its undo. */
export function SpanSelect({ label, days, version, spans, none, nameOf, done, put, hint }: SpanSelectProps): ReactNode {
  const choose = (value: string): void => {
    const next = value === 'none' ? null : Number(value);
    if (next === days) return;
    let seen = version;
    const write = async (to: number | null): Promise<void> => {
      seen = (await put(to, seen)).version;
    };
    void doNow(
      done,
      () => write(next),
      () => write(days),
    );
  };
  const all = [...new Set([...spans, ...(days === null ? [] : [days])])].sort((a, b) => a - b);
  return (
    <Select
      look="field"
      label={label}
      value={days === null ? 'none' : String(days)}
      onChange={choose}
      options={[{ value: 'none', name: none }, ...all.map((span) => ({ value: String(span), name: nameOf(span) }))]}
      hint={hint}
    />
  );
}
