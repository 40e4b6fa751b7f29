import { SOUND_INPUT } from '../media/ffmpeg.js';
import { hasLongIndex, onlyRewrapped, type WhyProxy } from '../media/playable.js';
import type { Probed } from '../media/probe.js';

/** Lines of the shorter side: a player is a few hundred px high. */
const LINES = 540;
/** Between two whole pictures, in seconds: what a leap decodes at most. */
const WHOLE_EVERY = 0.5;

const SHORTER = `scale=w='trunc(iw*sar/2)*2':h='trunc(ih/2)*2',setsar=1,scale=w='if(gte(iw,ih),-2,min(iw,${LINES}))':h='if(gte(iw,ih),min(ih,${LINES}),-2)'`;
/** Begins where the file begins, and fills what is missing: sound stays with its picture. */
const SOUND = ['-af', 'aresample=48000:async=1:first_pts=0', '-c:a', 'aac', '-b:a', '128k', '-ac', '2'];
const PICTURE = ['-vf', `${SHORTER},format=yuv420p`, '-c:v', 'libx264', '-preset', 'ultrafast', '-tune', 'fastdecode', '-crf', '27'];

const WHOLE = ['-fps_mode', 'vfr', '-force_key_frames', `expr:gte(t,n_forced*${WHOLE_EVERY})`];
/**
 * Fragments of four seconds, each with its own index, and a list of where they stand in front: a player reads a few hundred kB of
 * ten hours instead of 23 MB. The first fragment is looked at before the header is written, so that a picture's delay is listed
 * as in the original instead of moving it.
 */
const FRAGMENTS = ['-movflags', '+frag_keyframe+delay_moov+default_base_moof+global_sidx', '-frag_duration', '4000000', '-min_frag_duration', '4000000'];
const ONE_INDEX = ['-movflags', '+faststart'];

/**
 * A file that browsers play, found from any place in an instant: small, H.264 with whole pictures close together, AAC; or the same
 * samples in another wrapping, where that is all that it needs. Times are those of the original.
 * @param track the chosen sound track, null for none
 */
export function proxyArgs(path: string, probed: Pick<Probed, 'durationMs' | 'picture'>, track: number | null, why: readonly WhyProxy[], to: string): string[] {
  const [pictured, copied] = [probed.picture !== null, onlyRewrapped(why)];
  return [
    ...['-v', 'error', ...SOUND_INPUT, '-i', path],
    ...(pictured ? ['-map', '0:v:0', ...(copied ? ['-c:v', 'copy'] : [...PICTURE, ...WHOLE])] : ['-vn']),
    ...(track === null ? ['-an'] : ['-map', `0:a:${track}`, ...(copied ? ['-c:a', 'copy'] : SOUND)]),
    ...['-map_metadata', '-1', ...(hasLongIndex(probed) ? FRAGMENTS : ONE_INDEX), '-f', pictured || copied ? 'mp4' : 'ipod', to],
  ];
}
