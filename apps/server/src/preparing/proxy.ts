import { SOUND_INPUT } from '../media/ffmpeg.js';

/** Lines of the shorter side: a player is a few hundred px high. */
const LINES = 540;
/** Between two whole pictures, in seconds: what a leap decodes at most. */
const WHOLE_EVERY = 0.5;

const SHORTER = `scale=w='trunc(iw*sar/2)*2':h='trunc(ih/2)*2',setsar=1,scale=w='if(gte(iw,ih),-2,min(iw,${LINES}))':h='if(gte(iw,ih),min(ih,${LINES}),-2)'`;
/** Begins where the file begins, and fills what is missing: sound stays with its picture. */
const SOUND = ['-af', 'aresample=48000:async=1:first_pts=0', '-c:a', 'aac', '-b:a', '128k', '-ac', '2'];
const PICTURE = ['-vf', `${SHORTER},format=yuv420p`, '-c:v', 'libx264', '-preset', 'ultrafast', '-tune', 'fastdecode', '-crf', '27'];

/**
 * A file that browsers play, found from any place in an instant: small, H.264 with whole pictures close together, AAC. Times are
 * those of the original.
 * @param track the chosen sound track, null for none
 */
export function proxyArgs(path: string, pictured: boolean, track: number | null, to: string): string[] {
  return [
    ...['-v', 'error', ...SOUND_INPUT, '-i', path],
    ...(pictured ? ['-map', '0:v:0', ...PICTURE, '-fps_mode', 'vfr', '-force_key_frames', `expr:gte(t,n_forced*${WHOLE_EVERY})`] : ['-vn']),
    ...(track === null ? ['-an'] : ['-map', `0:a:${track}`, ...SOUND]),
    ...['-map_metadata', '-1', '-movflags', '+faststart', '-f', pictured ? 'mp4' : 'ipod', to],
  ];
}
