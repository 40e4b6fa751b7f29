import { mkdir, rm, stat, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { Inject, Injectable, type OnModuleInit } from '@nestjs/common';
import { type CaptionStrip, framesOf, type FrameSpan, playedMs, type Shape } from '@sift-reel/core';
import { JobRefusedError } from '../jobs/job-kind.js';
import type { JobRun } from '../jobs/job-run.js';
import { JobWorker } from '../jobs/job-worker.service.js';
import { SOUND_INPUT } from '../media/ffmpeg.js';
import { ffprobe } from '../media/limited.js';
import { MediaStore } from '../media/media-store.service.js';
import { MissingFileError } from '../media/store-errors.js';
import { FfmpegError, runFfmpeg } from '../media/run-ffmpeg.js';
import { TextPool } from '../text/text-pool.service.js';
import { captionList } from './caption-list.js';
import { type Drawn, evenArgs, measureArgs, renderArgs, spansOf } from './ffmpeg-args.js';
import { findLevel } from './level.js';
import { RENDER, workFolder } from './render.kind.js';
import type { RenderPlan } from './render-plan.js';
import { Render } from './rendering.models.js';

/** Shares of the whole at which its stages end. */
const [DRAWN_AT, MEASURED_AT, RENDERED_AT] = [0.1, 0.2, 0.97];
/** A minute of a short takes some 40 s on two cores; a machine may be busy. */
const LONGEST_MS = 45 * 60_000;

const NOTHING_DRAWN = Promise.resolve<Drawn>({ ground: '', captions: '', strip: { top: 0, height: 0 } });

/** Makes files of shorts, in the worker. Every stage writes anew, and the file gets its name only with its row. */
@Injectable()
export class RenderWork implements OnModuleInit {
  constructor(
    @Inject(JobWorker) private readonly worker: JobWorker,
    @Inject(MediaStore) private readonly media: MediaStore,
    @Inject(TextPool) private readonly text: TextPool,
  ) {}

  onModuleInit(): void {
    this.worker.register(RENDER, (renderId, job) => this.render(renderId, job));
  }

  private async render(renderId: string, job: JobRun): Promise<void> {
    const row = await Render.findByPk(renderId);
    if (row === null) throw new JobRefusedError('The short is gone.');
    // A folder of this run's own: a run that was taken over may still be writing into its.
    const folder = this.media.pathOf(workFolder(renderId, job.attempt), 'renders');
    const ending = row.shape === 'sound' ? 'm4a' : 'mp4';
    const made = join(folder, `made.${ending}`);
    try {
      await rm(folder, { recursive: true, force: true });
      await mkdir(folder, { recursive: true });
      await this.media.use(row.plan.source, '.', (source) => this.make(row, source, folder, made, job), job.signal);
      job.report('checking', RENDERED_AT);
      await checkMade(made, row.plan, spansOf(row.plan));
      const { size } = await stat(made);
      // Under a name of this run's own, before the row names it: one that was taken over puts its file beside, and it is swept.
      const file = `${renderId}-${job.attempt}.${ending}`;
      await this.media.put(made, file, 'renders', job.signal);
      await job.complete(async () => {
        await row.update({ file, bytes: String(size), keptFrom: new Date() });
      });
    } catch (error) {
      if (error instanceof MissingFileError) throw new JobRefusedError('The recording has another sound now. Ask for the file again.');
      if (error instanceof FfmpegError && job.attempt >= RENDER.attempts) throw new JobRefusedError(`The file could not be made: ${error.message}`);
      throw error;
    } finally {
      await rm(folder, { recursive: true, force: true });
    }
  }

  private async make(row: Render, source: string, folder: string, made: string, job: JobRun): Promise<void> {
    const { plan } = row;
    const { signal } = job;
    const totalMs = playedMs(plan.cuts);
    // Its pictures and the measuring of its sound ask nothing of each other: two cores do both at once.
    let isDrawn = plan.shape === 'sound';
    job.report(isDrawn ? 'measuring' : 'drawing', isDrawn ? DRAWN_AT : 0);
    const drawing = plan.shape === 'sound' ? NOTHING_DRAWN : this.draw(row, plan.shape, folder, job).finally(() => (isDrawn = true));
    const measure = (args: readonly string[]): Promise<string> =>
      runFfmpeg(args, {
        signal,
        longestMs: LONGEST_MS,
        onProgress: (ms) => {
          if (isDrawn) job.report('measuring', DRAWN_AT + (MEASURED_AT - DRAWN_AT) * Math.min(1, ms / totalMs));
        },
      });
    const measuring = findLevel(
      plan.loudness,
      (after) => measure(measureArgs(plan, source, after)),
      () => measure(evenArgs(plan, source)),
    );
    // Both have ended before anything is taken away under them.
    // eslint-disable-next-line no-restricted-syntax -- neither asks the database for anything that the other waits for
    await Promise.allSettled([drawing, measuring]);
    const [drawn, level] = [await drawing, await measuring];
    job.report('rendering', MEASURED_AT);
    await runFfmpeg(renderArgs(plan, source, drawn, level, made), {
      signal,
      longestMs: LONGEST_MS,
      onProgress: (ms) => job.report('rendering', MEASURED_AT + (RENDERED_AT - MEASURED_AT) * Math.min(1, ms / totalMs)),
    });
  }

  /** The ground and each caption as a picture, and the list that says how long each caption stands. */
  private async draw({ clientId, plan }: Render, shape: Shape, folder: string, job: JobRun): Promise<Drawn> {
    const { style } = plan;
    const place = plan.pictured ? 'picture' : 'ground';
    const look = { shape, style, place } as const;
    const strip = await this.text.captionStrip(clientId, { ...look, captions: plan.captions.map(({ text }) => text) });
    const picture = async (name: string, task: { readonly ground: RenderPlan['ground'] } | { readonly caption: string; readonly strip: CaptionStrip }) => {
      const path = join(folder, `${name}.png`);
      await writeFile(path, await this.text.drawFrame(clientId, { ...look, ...task }));
      return path;
    };
    const ground = await picture('ground', { ground: plan.ground });
    const blank = await picture('blank', { caption: '', strip });
    const paths: string[] = [];
    for (const [i, { text }] of plan.captions.entries()) {
      paths.push(await picture(`caption-${i}`, { caption: text, strip }));
      job.report('drawing', (DRAWN_AT * (i + 1)) / plan.captions.length);
    }
    const captions = join(folder, 'captions.txt');
    await writeFile(captions, captionList(plan, paths, blank));
    return { ground, captions, strip };
  }
}

/** Looked at by another program than the one that made it. @throws FfmpegError when it is not as long as the cut list, to a frame */
async function checkMade(path: string, plan: RenderPlan, spans: readonly FrameSpan[]): Promise<void> {
  const args = ['-v', 'error', ...SOUND_INPUT, '-count_packets', '-show_entries', 'stream=codec_type,nb_read_packets:format=duration', '-of', 'json', path];
  const { streams, format } = JSON.parse(await ffprobe(args)) as { streams: { codec_type: string; nb_read_packets: string }[]; format: { duration: string } };
  const frames = framesOf(spans);
  const wanted = (frames * plan.rate.denominator) / plan.rate.numerator;
  const seen = streams.find((one) => one.codec_type === 'video');
  if (plan.shape !== 'sound' && Number(seen?.nb_read_packets) !== frames)
    throw new FfmpegError(`${seen?.nb_read_packets ?? 'no'} frames were made, not ${frames}`);
  if (Math.abs(Number(format.duration) - wanted) > 0.1) throw new FfmpegError(`${format.duration} s were made, not ${wanted.toFixed(3)}`);
}
