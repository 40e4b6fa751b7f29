import { SOUND_INPUT } from '../media/ffmpeg.js';
import type { Picture } from '../media/probe.js';

/** Small pictures of a recording in one sheet, row by row: the first is of its beginning, each next one `everyMs` later; the last stands for what is left. */
export interface Sprite {
  readonly columns: number;
  readonly count: number;
  readonly everyMs: number;
  /** Of one picture, in px. */
  readonly width: number;
  readonly height: number;
}

const MOST = 200;
const CLOSEST_MS = 2_000;
const [BOX_WIDTH, BOX_HEIGHT] = [160, 90];
const COLUMNS = 20;

const even = (px: number): number => Math.max(2, 2 * Math.round(px / 2));

export function spriteOf({ width, height }: Picture, durationMs: number): Sprite {
  const everyMs = Math.max(CLOSEST_MS, Math.ceil(durationMs / MOST));
  const count = Math.max(1, Math.floor(durationMs / everyMs));
  const scale = Math.min(BOX_WIDTH / width, BOX_HEIGHT / height);
  return { columns: Math.min(COLUMNS, count), count, everyMs, width: even(width * scale), height: even(height * scale) };
}

/** Decodes whole pictures only, so an hour is looked through in seconds. */
export function spriteArgs(path: string, { columns, count, everyMs, width, height }: Sprite, to: string): string[] {
  const rows = Math.ceil(count / columns);
  const filter = `fps=1000/${everyMs}:start_time=0,scale=${width}:${height},setsar=1,trim=end_frame=${count},tile=${columns}x${rows}`;
  return ['-v', 'error', '-skip_frame', 'nokey', ...SOUND_INPUT, '-i', path, '-map', '0:v:0', '-an', '-vf', filter, '-frames:v', '1', '-q:v', '5', to];
}
