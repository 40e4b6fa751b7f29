import type { FrameRate, FrameSpan } from '../../cut/frames.js';
import { passagesOf, type ReadEdl } from './edl.js';
import { type EditList, EditListRefusedError } from './types.js';

/**
 * A timeline as OpenTimelineIO JSON (schemas Timeline.1, Stack.1, Track.1, Clip.1, ExternalReference.1, TimeRange.1, RationalTime.1;
 * from memory): a clip a span, on a track for the picture and one for the sound.
 */
export function writeOtio({ title, source, sourceFrames, rate, pictured, passages }: EditList): string {
  const value = rate.numerator / rate.denominator;
  const time = (frames: number) => ({ OTIO_SCHEMA: 'RationalTime.1', rate: value, value: frames });
  const range = (start: number, frames: number) => ({ OTIO_SCHEMA: 'TimeRange.1', start_time: time(start), duration: time(frames) });
  const clips = passages.flatMap((passage) =>
    passage.spans.map(({ startFrame, endFrame }) => ({
      OTIO_SCHEMA: 'Clip.1',
      name: passage.title,
      source_range: range(startFrame, endFrame - startFrame),
      media_reference: { OTIO_SCHEMA: 'ExternalReference.1', target_url: encodeURI(source), available_range: range(0, sourceFrames), metadata: {} },
      effects: [],
      markers: [],
      metadata: {},
    })),
  );
  const track = (kind: 'Video' | 'Audio') => ({
    OTIO_SCHEMA: 'Track.1',
    name: kind,
    kind,
    source_range: null,
    children: clips,
    effects: [],
    markers: [],
    metadata: {},
  });
  const children = pictured ? [track('Video'), track('Audio')] : [track('Audio')];
  const tracks = { OTIO_SCHEMA: 'Stack.1', name: 'tracks', source_range: null, children, effects: [], markers: [], metadata: {} };
  return `${JSON.stringify({ OTIO_SCHEMA: 'Timeline.1', name: title, global_start_time: null, tracks, metadata: {} }, null, 2)}\n`;
}

type Json = Record<string, unknown>;

/** The name of a schema without its version. */
const schemaOf = (value: unknown): string =>
  typeof value === 'object' && value !== null ? String((value as Json)['OTIO_SCHEMA'] ?? '').replace(/\.\d+$/, '') : '';

/**
 * Clips of the first track of an OpenTimelineIO timeline: that of the picture, or of the sound where there is none.
 * @param rate that the frames are counted in here; times of other rates are brought to it
 * @throws EditListRefusedError for what is no timeline, or holds what is no cut
 */
export function readOtio(text: string, rate: FrameRate): ReadEdl {
  const refuse = (detail: string): never => {
    throw new EditListRefusedError(0, detail);
  };
  let timeline: Json;
  try {
    timeline = JSON.parse(text) as Json;
  } catch {
    return refuse('it is no JSON');
  }
  if (schemaOf(timeline) !== 'Timeline') return refuse('it is no OpenTimelineIO timeline');
  const tracks = listOf((timeline['tracks'] as Json | undefined)?.['children']).filter((one) => schemaOf(one) === 'Track');
  const track = tracks.find((one) => one['kind'] === 'Video') ?? tracks[0] ?? refuse('it holds no track');
  const spans = listOf(track['children']).map((clip, i) => {
    if (schemaOf(clip) !== 'Clip') return refuse(`item ${i + 1} of the track is no clip but “${schemaOf(clip)}”; only cuts can be taken over`);
    const range = clip['source_range'] as Json | null | undefined;
    const [start, length] = [framesOf(range?.['start_time'], rate), framesOf(range?.['duration'], rate)];
    if (start === null || length === null || start < 0 || length <= 0) return refuse(`clip ${i + 1} does not say what of its source is played`);
    return { span: { startFrame: start, endFrame: start + length } satisfies FrameSpan, title: String(clip['name'] ?? '') };
  });
  if (spans.length === 0) refuse('its track holds no clips');
  return { title: String(timeline['name'] ?? ''), passages: passagesOf(spans) };
}

const listOf = (value: unknown): Json[] => (Array.isArray(value) ? (value as Json[]) : []);

function framesOf(time: unknown, { numerator, denominator }: FrameRate): number | null {
  const { rate, value } = (time ?? {}) as { rate?: unknown; value?: unknown };
  if (typeof rate !== 'number' || typeof value !== 'number' || !(rate > 0) || !Number.isFinite(value)) return null;
  const frames = Math.round((value / rate) * (numerator / denominator));
  return Number.isSafeInteger(frames) ? frames : null;
}
