import { useEffect } from 'react';
import { api } from './api.js';
import { useAppDispatch } from './store.js';

interface ProgressEvent {
  readonly siftId: string;
  readonly recordingId: string;
  readonly state: 'waiting' | 'running' | 'done' | 'failed' | 'cancelled';
  readonly stage: string;
  readonly fraction: number;
  readonly leftMs: number | null;
}

/** Live progress of every sift, over server-sent events (which the browser itself takes up again when the line drops). */
export function useProgress(): void {
  const dispatch = useAppDispatch();
  useEffect(() => {
    const source = new EventSource('/api/progress');
    source.onmessage = (message: MessageEvent<string>) => {
      const event = JSON.parse(message.data) as ProgressEvent | { beat: true };
      if ('beat' in event) return;
      if (event.state === 'running') {
        dispatch(
          api.util.updateQueryData('listRecordings', undefined, (recordings) => {
            const sift = recordings.find((one) => one.id === event.recordingId)?.latestSift;
            if (sift != null && sift.id === event.siftId)
              Object.assign(sift, { state: event.state, stage: event.stage, fraction: event.fraction, leftMs: event.leftMs });
          }),
        );
        dispatch(
          api.util.updateQueryData('listSifts', event.recordingId, (sifts) => {
            const sift = sifts.find((one) => one.id === event.siftId);
            if (sift !== undefined) Object.assign(sift, { state: event.state, stage: event.stage, fraction: event.fraction, leftMs: event.leftMs });
          }),
        );
      } else dispatch(api.util.invalidateTags(['recordings', 'sifting']));
    };
    // What happened while the line was down is not told again: load once more when it is back.
    let dropped = false;
    source.onerror = () => {
      dropped = true;
    };
    source.onopen = () => {
      if (dropped) dispatch(api.util.invalidateTags(['recordings', 'sifting']));
      dropped = false;
    };
    return () => source.close();
  }, [dispatch]);
}

const STAGES: Readonly<Record<string, string>> = {
  waiting: 'waiting for a worker',
  reading: 'reading the transcript',
  listening: 'listening to the voices',
  vectors: 'weighing what is meant',
  segments: 'finding the chapters',
  scoring: 'scoring passages',
  choosing: 'choosing the best set',
  explaining: 'writing the reasons',
  done: 'done',
};

export function stageName(stage: string): string {
  return STAGES[stage] ?? stage;
}
