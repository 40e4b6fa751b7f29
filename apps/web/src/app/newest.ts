import { type Action, isFulfilled, type Middleware } from '@reduxjs/toolkit';
import { baseApi } from './base-api.js';
import { forgetWrites, rememberWrite } from './own-versions.js';

/** A thing that is written with the version that one saw. */
interface Row {
  readonly id: string;
  readonly version: number;
}

/** Of an answer to a question or to a change. */
interface AnswerMeta {
  readonly arg?: { readonly type?: 'query' | 'mutation'; readonly queryCacheKey?: string; readonly originalArgs?: unknown };
}

interface Entry {
  readonly endpointName?: string;
  readonly originalArgs?: unknown;
  readonly data?: unknown;
}

/** Written rows that are remembered; an answer older than the writing is not under way for as many writings. */
const MOST = 200;

/**
 * What a change answers is what every list and page shows from then on, before whoever asked for it goes on: the next
 * change is then made of what the last one left, and is not refused as stale while the list is still being read again.
 * An answer that was under way when the row was written does not bring the old row back.
 */
export function newestRows(): Middleware {
  const newest = new Map<string, Row>();
  const remember = (row: Row): void => {
    if ((newest.get(row.id)?.version ?? 0) > row.version) return;
    newest.delete(row.id);
    newest.set(row.id, row);
    for (const id of newest.keys()) {
      if (newest.size <= MOST) break;
      newest.delete(id);
    }
  };
  return ({ dispatch, getState }) =>
    (next) =>
    (action) => {
      const result = next(action);
      if (baseApi.util.resetApiState.match(action)) {
        newest.clear();
        forgetWrites();
      }
      if (!isFulfilled(action)) return result;
      const { arg } = action.meta as unknown as AnswerMeta;
      if (arg === undefined) return result;
      const queries = (getState() as { api: { queries: Record<string, Entry | undefined> } }).api.queries;
      const freshen = (entry: Entry | undefined): void => {
        if (entry?.endpointName === undefined) return;
        const fresh = freshened(entry.data, newest);
        if (fresh === entry.data) return;
        const change = baseApi.util.updateQueryData as unknown as (endpoint: string, args: unknown, recipe: () => unknown) => Action;
        dispatch(change(entry.endpointName, entry.originalArgs, () => fresh));
      };
      if (arg.type === 'mutation') {
        const rows = [action.payload].flat().filter(isRow);
        for (const row of rows) remember(row);
        const made = madeOf(arg.originalArgs);
        if (made !== null && isRow(action.payload)) rememberWrite(action.payload.id, made, action.payload.version);
        if (rows.length > 0) for (const entry of Object.values(queries)) freshen(entry);
      } else if (arg.type === 'query' && newest.size > 0 && arg.queryCacheKey !== undefined) freshen(queries[arg.queryCacheKey]);
      return result;
    };
}

/** The version that a change was made of: its form's. */
function madeOf(args: unknown): number | null {
  const forms = typeof args === 'object' && args !== null ? Object.values(args) : [];
  const form: unknown = forms.find((one) => typeof (one as { version?: unknown } | null)?.version === 'number');
  return form === undefined ? null : (form as { version: number }).version;
}

const isRow = (value: unknown): value is Row =>
  typeof value === 'object' && value !== null && typeof (value as Partial<Row>).id === 'string' && typeof (value as Partial<Row>).version === 'number';

/** Rows stand alone, in a list, or in a list of what was asked for, as posts do in a schedule. The same value where nothing in it is older than what was written. */
function freshened(data: unknown, newest: ReadonlyMap<string, Row>): unknown {
  if (Array.isArray(data)) {
    const rows: unknown[] = data.map((one) => freshRow(one, newest));
    return rows.some((row, i) => row !== data[i]) ? rows : data;
  }
  const row = freshRow(data, newest);
  if (row !== data || typeof data !== 'object' || data === null) return row;
  const lists = Object.entries(data).flatMap(([field, value]) => {
    const fresh = Array.isArray(value) ? freshened(value, newest) : value;
    return fresh === value ? [] : [[field, fresh] as const];
  });
  return lists.length === 0 ? data : { ...data, ...Object.fromEntries(lists) };
}

/** Two views of one row need not have the same fields: each keeps its own. */
function freshRow(row: unknown, newest: ReadonlyMap<string, Row>): unknown {
  if (!isRow(row)) return row;
  const written = newest.get(row.id);
  if (written === undefined || written.version <= row.version) return row;
  return { ...row, ...Object.fromEntries(Object.entries(written).filter(([field]) => field in row)) };
}
