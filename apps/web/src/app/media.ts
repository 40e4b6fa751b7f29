import { useMemo } from 'react';
import { api, type RecordingView, type SpriteView } from './api.js';

/** What of a recording is played and looked at. */
export interface Media {
  /** Where it is played from; null where there is neither sound nor picture. */
  readonly source: string | null;
  readonly pictured: boolean;
  /** Which file it is, whatever it is played from. */
  readonly of: string | null;
  /** Small pictures over its length. */
  readonly sprite: (SpriteView & { readonly url: string }) | null;
  /** While it is prepared and nothing for browsers is there yet: how far that is. */
  readonly coming: { readonly converting: boolean; readonly fraction: number; readonly leftMs: number | null } | null;
}

const NONE: Media = { source: null, pictured: false, of: null, sprite: null, coming: null };

function comingOf(preparation: RecordingView['preparation']): Media['coming'] {
  if (preparation === null || preparation.proxied || (preparation.state !== 'waiting' && preparation.state !== 'running')) return null;
  const { stage, fraction, leftMs } = preparation;
  return { converting: stage === 'converting', fraction, leftMs };
}

/** The original, or what was made of it for browsers. The address names of which file it is: what is cached of another is never played. */
export function mediaOf({ id, sound, preparation }: RecordingView): Media {
  if (sound === null) return NONE;
  const of = preparation === null ? '' : `?of=${preparation.id}`;
  const source = preparation?.proxied === true ? `/api/preparations/${preparation.id}/proxy` : `/api/recordings/${id}/sound${of}`;
  const sprite = preparation?.sprite ?? null;
  return {
    source,
    pictured: sound.picture !== null,
    of: preparation?.id ?? null,
    sprite: sprite === null ? null : { ...sprite, url: `/api/preparations/${preparation!.id}/sprite` },
    coming: comingOf(preparation),
  };
}

export const useMediaOf = (recording: RecordingView): Media => useMemo(() => mediaOf(recording), [recording]);

/** Of a recording that is named only; nothing until it is known. */
export function useMedia(recordingId: string): Media {
  const recording = api.useReadRecordingQuery(recordingId).currentData;
  return useMemo(() => (recording === undefined ? NONE : mediaOf(recording)), [recording]);
}
