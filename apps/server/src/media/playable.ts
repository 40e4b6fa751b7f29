import type { Probed } from './probe.js';

/** Why a browser cannot play a file as we need it: at all, or from any place within an instant. */
export type WhyProxy = 'container' | 'picture-codec' | 'sound-codec' | 'other-track' | 'places-guessed' | 'pictures-apart' | 'large' | 'long-index';

const PICTURES: ReadonlySet<string> = new Set(['h264', 'vp8', 'vp9', 'av1']);
const SOUNDS = /^(?:aac|mp3|opus|vorbis|flac|pcm_(?:u8|s16le|s24le|f32le))$/;
/** Of frames that come without an index: a place is found by what share of the bytes it should be at, off by seconds and by minutes. */
const GUESSED: ReadonlySet<string> = new Set(['mp3', 'aac']);
const MP4 = 'mov,mp4,m4a,3gp,3g2,mj2';
const PLAYED_CONTAINERS: ReadonlySet<string> = new Set(['ogg', 'mp3', 'wav', 'flac', MP4, 'matroska,webm', 'aac']);
/** A file of this container is played everywhere only with what WebM allows. */
const WEBM = 'matroska,webm';
const WEBM_CODECS: ReadonlySet<string> = new Set(['vp8', 'vp9', 'av1', 'opus', 'vorbis']);
/** A leap decodes up to so much, in ms: about 50 ms' work where pictures are small. */
const FURTHEST_APART_MS = 1_100;
/** Samples in an index that is read before anything plays: some 0.4 s of work. */
const LONGEST_INDEX = 1_000_000;
/** Of sound, a second: 1,024 values of 48 kHz each. */
const SOUND_SAMPLES = 47;
/** What can stand in fragments without being made anew. */
const REWRAPPED: ReadonlySet<string> = new Set(['h264', 'vp9', 'av1', 'aac', 'mp3', 'opus', 'flac']);
/** Lines of the shorter side; more than this takes longer to decode than to show. */
const MOST_LINES = 1_080;

/**
 * What speaks against playing a file as it stands; nothing where it can be.
 * @param track the chosen sound track, null for none
 * @param gapMs longest time between whole pictures
 */
export function whyProxy({ durationMs, format, picture, soundTracks }: Probed, track: number | null, gapMs: number): WhyProxy[] {
  const sound = track === null ? undefined : soundTracks[track];
  const why: WhyProxy[] = [];
  const codecs = [picture?.codec, sound?.codec].filter((one) => one !== undefined);
  if (!PLAYED_CONTAINERS.has(format) || (format === WEBM && !codecs.every((one) => WEBM_CODECS.has(one)))) why.push('container');
  if (picture !== null && !PICTURES.has(picture.codec)) why.push('picture-codec');
  if (sound !== undefined && !SOUNDS.test(sound.codec)) why.push('sound-codec');
  if (soundTracks.length > 1) why.push('other-track'); // which of them it would play is the browser's to say
  if (picture === null && GUESSED.has(format)) why.push('places-guessed');
  if (picture !== null && gapMs > FURTHEST_APART_MS) why.push('pictures-apart');
  if (picture !== null && Math.min(picture.width, picture.height) > MOST_LINES) why.push('large');
  if (format === MP4 && codecs.every((one) => REWRAPPED.has(one)) && hasLongIndex({ durationMs, picture })) why.push('long-index');
  return why;
}

/** Whether a browser reads for long before it plays, where all that a file holds is listed in one place. */
export const hasLongIndex = ({ durationMs, picture }: Pick<Probed, 'durationMs' | 'picture'>): boolean =>
  (durationMs / 1_000) * (SOUND_SAMPLES + (picture === null ? 0 : picture.rate.numerator / picture.rate.denominator)) > LONGEST_INDEX;

/** Whether another wrapping is all that a file needs. */
export const onlyRewrapped = (why: readonly WhyProxy[]): boolean => why.every((one) => one === 'long-index');
