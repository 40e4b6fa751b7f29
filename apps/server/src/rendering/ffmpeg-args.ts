import { type CaptionStrip, cutFrames, FRAME_SIZES, framesOf, type FrameRate, type FrameSpan } from '@sift-reel/core';
import { SOUND_INPUT } from '../media/ffmpeg.js';
import { evenFilter, type Level, levelFilter, SAMPLE_RATE } from './level.js';
import type { RenderPlan } from './render-plan.js';

/** So short that nobody hears it, and long enough that no cut clicks. */
const FADE_SECONDS = 0.01;
/** Read beyond a span, so that its last frame is there whatever the file's own clock. */
const BEYOND_SECONDS = 0.5;

/** Where the worker put what it drew. */
export interface Drawn {
  readonly ground: string;
  /** A list for ffmpeg's concat demuxer. */
  readonly captions: string;
  /** Where those pictures lie, over the whole width. */
  readonly strip: CaptionStrip;
}

const secondsOf = (frames: number, { numerator, denominator }: FrameRate): number => (frames * denominator) / numerator;
const samplesAt = (frames: number, rate: FrameRate): number => Math.round(secondsOf(frames, rate) * SAMPLE_RATE);

/** Each span is an input of its own: found at once in a file of ten hours, and decoded from there to the frame. */
function inputs(path: string, spans: readonly FrameSpan[], { rate, pictured, cuts }: RenderPlan): string[] {
  // A picture is cut between its frames. Sound alone is cut where it was said, whatever picture is made for it.
  const exact = !pictured && spans.length === cuts.length;
  return spans.flatMap(({ startFrame, endFrame }, i) => {
    const length = secondsOf(endFrame - startFrame, rate) + BEYOND_SECONDS;
    const start = exact ? cuts[i]!.startMs / 1_000 : secondsOf(startFrame, rate);
    return [...SOUND_INPUT, '-ss', start.toFixed(6), '-t', length.toFixed(6), '-i', path];
  });
}

/** Spans of sound, each exactly as long as its frames, faded at its ends, one after the other: `[sound]`. */
function soundChain(spans: readonly FrameSpan[], { rate, track = 0 }: RenderPlan): string[] {
  if (track === null) return [`anullsrc=r=${SAMPLE_RATE}:cl=stereo,atrim=end_sample=${samplesAt(framesOf(spans), rate)},aformat=sample_fmts=fltp[sound]`];
  let frames = 0;
  const parts = spans.map(({ startFrame, endFrame }, i) => {
    const from = samplesAt(frames, rate);
    frames += endFrame - startFrame;
    const samples = samplesAt(frames, rate) - from;
    const out = Math.max(0, samples / SAMPLE_RATE - FADE_SECONDS).toFixed(6);
    const fades = `afade=t=in:d=${FADE_SECONDS},afade=t=out:st=${out}:d=${FADE_SECONDS}`;
    return `[${i}:a:${track}]aresample=${SAMPLE_RATE}:async=1:first_pts=0,aformat=sample_fmts=fltp:channel_layouts=stereo,apad,atrim=end_sample=${samples},asetpts=PTS-STARTPTS,${fades}[a${i}]`;
  });
  return [...parts, `${spans.map((_, i) => `[a${i}]`).join('')}concat=n=${spans.length}:v=0:a=1[sound]`];
}

const BT709 = 'out_color_matrix=bt709:out_range=tv';

/** The ground, the picture on it where there is one, and the captions over both: `[seen]`. */
function pictureChain(plan: RenderPlan, spans: readonly FrameSpan[], { strip }: Drawn): string[] {
  if (plan.shape === 'sound') return [];
  const { width, height } = FRAME_SIZES[plan.shape];
  const { rate } = plan;
  const fps = `${rate.numerator}/${rate.denominator}`;
  const total = framesOf(spans);
  const [ground, captions] = [spans.length, spans.length + 1];
  const still = `[${ground}:v]scale=${BT709},format=yuv420p,loop=loop=-1:size=1,setpts=N/(${fps})/TB,fps=${fps},trim=end_frame=${total}`;
  const chain: string[] = [];
  if (plan.pictured) {
    for (const [i, { startFrame, endFrame }] of spans.entries())
      chain.push(
        // Where the file's clock starts late or ends early, its first or last frame stands.
        `[${i}:v:0]fps=${fps}:start_time=0,tpad=stop=-1:stop_mode=clone,trim=end_frame=${endFrame - startFrame},setpts=PTS-STARTPTS,` +
          `scale=w=${width}:h=${height}:force_original_aspect_ratio=decrease:force_divisible_by=2:${BT709},setsar=1,format=yuv420p[v${i}]`,
      );
    chain.push(`${spans.map((_, i) => `[v${i}]`).join('')}concat=n=${spans.length}:v=1:a=0[film]`, `${still}[ground]`);
    chain.push('[ground][film]overlay=x=(W-w)/2:y=(H-h)/2:format=yuv420:eof_action=repeat[under]');
  } else chain.push(`${still}[under]`);
  chain.push(
    `[${captions}:v]scale=${BT709},format=yuva420p[read]`,
    `[under][read]overlay=y=${strip.top}:format=yuv420:eof_action=pass,setsar=1,trim=end_frame=${total}[seen]`,
  );
  return chain;
}

export const spansOf = (plan: RenderPlan): FrameSpan[] => cutFrames(plan.cuts, plan.rate);

/** Measures what is played, as it is after `level`: ffmpeg sums it up at the end (EBU R 128). */
export function measureArgs(plan: RenderPlan, path: string, level: Level): string[] {
  // Its lines for each tenth of a second are not wanted, only its sum.
  return ['-v', 'info', ...soundAlone(plan, path, `${levelFilter(level, SAMPLE_RATE)},ebur128=peak=true:framelog=verbose`)];
}

/** The first pass of an evening out that follows the talk: what it measured is said as JSON at the end. */
export function evenArgs(plan: RenderPlan, path: string): string[] {
  return ['-v', 'info', ...soundAlone(plan, path, `${evenFilter(plan.loudness)}:print_format=json`)];
}

function soundAlone(plan: RenderPlan, path: string, filters: string): string[] {
  const spans = spansOf(plan);
  return [
    ...inputs(path, spans, plan),
    '-filter_complex',
    [...soundChain(spans, plan), `[sound]${filters}[out]`].join(';'),
    '-map',
    '[out]',
    '-f',
    'null',
    '-',
  ];
}

export function renderArgs(plan: RenderPlan, path: string, drawn: Drawn, level: Level, to: string): string[] {
  const { rate } = plan;
  const spans = spansOf(plan);
  const samples = samplesAt(framesOf(spans), rate);
  const sound = [
    ...soundChain(spans, plan),
    `[sound]${levelFilter(level)},aresample=${SAMPLE_RATE},aformat=sample_fmts=fltp:channel_layouts=stereo,apad,atrim=end_sample=${samples}[heard]`,
  ];
  const filter = [...sound, ...pictureChain(plan, spans, drawn)].join(';');
  const pictured = plan.shape !== 'sound';
  const fps = `${rate.numerator}/${rate.denominator}`;
  return [
    '-v',
    'error',
    ...inputs(path, spans, plan),
    ...(pictured ? ['-i', drawn.ground, '-f', 'concat', '-safe', '0', '-i', drawn.captions] : []),
    '-filter_complex',
    filter,
    '-map',
    '[heard]',
    ...(pictured ? ['-map', '[seen]', ...VIDEO, '-r', fps, '-g', String(Math.round((2 * rate.numerator) / rate.denominator))] : []),
    '-c:a',
    'aac',
    '-b:a',
    '160k',
    '-ar',
    String(SAMPLE_RATE),
    '-map_metadata',
    '-1',
    '-movflags',
    '+faststart',
    '-f',
    pictured ? 'mp4' : 'ipod',
    to,
  ];
}

const VIDEO = [
  ...['-c:v', 'libx264', '-preset', 'veryfast', '-profile:v', 'high', '-crf', '21', '-pix_fmt', 'yuv420p', '-fps_mode', 'cfr'],
  ...['-color_primaries', 'bt709', '-color_trc', 'bt709', '-colorspace', 'bt709', '-color_range', 'tv'],
];
