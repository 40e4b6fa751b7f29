import { api } from '../../app/api.js';
import { store } from '../../app/store.js';
import { type FilePair, isLoose, isVideo, understand, upload } from './upload.js';
import { type Bringing, uploadChanged, uploadCleared, uploadsAdded } from './upload-slice.js';
import { t } from '../../texts/texts.js';

let nextId = 1;
let chain: Promise<void> = Promise.resolve();

/** Brings pairs of files in, one after the other; each is taken whole or not at all. It goes on when the screen is left. */
export function bringIn(pairs: readonly FilePair[], client: { readonly id: string; readonly name: string }): void {
  const added = pairs.map((pair) => {
    const shown: Bringing = {
      id: nextId++,
      base: pair.base,
      hasTranscript: pair.transcript !== null,
      media: pair.sound === null ? null : isVideo(pair.sound.name) ? 'video' : 'sound',
      clientName: client.name,
      state: 'waiting',
      fraction: 0,
      leftMs: null,
      detail: '',
      understood: null,
    };
    return { pair, shown };
  });
  store.dispatch(uploadsAdded(added.map(({ shown }) => shown)));
  for (const { pair, shown } of added) {
    const queue = (): void => {
      chain = chain.then(() => send(shown.id, pair, client.id));
    };
    if (pair.transcript !== null && isLoose(pair.transcript.name)) void ask(shown.id, pair.transcript, queue);
    else queue();
  }
}

/** What is done with files whose transcript somebody is asked about. */
const asked = new Map<number, () => void>();

/** Shows how a transcript was understood; the files wait until somebody says that it is right. */
async function ask(id: number, transcript: File, queue: () => void): Promise<void> {
  store.dispatch(uploadChanged({ id, state: 'understanding' }));
  const outcome = await understand(transcript);
  if (outcome.kind === 'refused') {
    store.dispatch(uploadChanged({ id, state: 'refused', detail: outcome.problem.detail }));
    return;
  }
  asked.set(id, queue);
  store.dispatch(uploadChanged({ id, state: 'asking', understood: outcome.answer }));
}

/** It is right: the files take their turn. */
export function takeUnderstood(id: number): void {
  const queue = asked.get(id);
  if (queue === undefined) return;
  asked.delete(id);
  store.dispatch(uploadChanged({ id, state: 'waiting', understood: null }));
  queue();
}

/** It is not: nothing of the files is sent. */
export function leaveUnderstood(id: number): void {
  asked.delete(id);
  store.dispatch(uploadCleared(id));
}

const stops = new Map<number, AbortController>();

/** Ends an upload that is on its way; nothing of it stays. */
export function stopBringing(id: number): void {
  stops.get(id)?.abort();
}

/** Nothing is said of the time that is left before so much of it has gone by, in ms. */
const SETTLED_MS = 2_000;

/** How long the rest takes at the pace so far. What an earlier try had sent already says nothing of the pace. */
export function paceOf(startedMs: number): (fraction: number, nowMs: number) => number | null {
  let first: { readonly fraction: number; readonly ms: number } | null = null;
  return (fraction, nowMs) => {
    first ??= { fraction, ms: startedMs };
    const [sent, tookMs] = [fraction - first.fraction, nowMs - first.ms];
    return tookMs < SETTLED_MS || sent <= 0 ? null : (tookMs * (1 - fraction)) / sent;
  };
}

async function send(id: number, pair: FilePair, clientId: string): Promise<void> {
  const change = (fields: Partial<Bringing>): void => {
    store.dispatch(uploadChanged({ id, ...fields }));
  };
  change({ state: 'sending' });
  const stop = new AbortController();
  stops.set(id, stop);
  const pace = paceOf(Date.now());
  const outcome = await upload(
    `/api/clients/${clientId}/recordings`,
    pair,
    (fraction) => change({ fraction, state: fraction >= 1 ? 'reading' : 'sending', leftMs: pace(fraction, Date.now()) }),
    stop.signal,
  );
  stops.delete(id);
  if (outcome.kind === 'refused') return change({ state: 'refused', detail: outcome.problem.detail });
  const repairs = outcome.answer.transcript?.repairCount ?? 0;
  change({ state: 'done', detail: repairs === 0 ? t('recordings.brought-in') : t('recordings.brought-in-places-repaired', { count: repairs }) });
  store.dispatch(
    api.util.invalidateTags([
      { type: 'Recording', id: 'LIST' },
      { type: 'Client', id: 'LIST' },
    ]),
  );
}

// Closing the window would break off what is on its way.
if (typeof window !== 'undefined')
  window.addEventListener('beforeunload', (event) => {
    if (store.getState().uploads.some((one) => one.state === 'sending' || one.state === 'waiting' || one.state === 'asking')) event.preventDefault();
  });
