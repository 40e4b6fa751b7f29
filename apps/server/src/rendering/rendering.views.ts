import { Decimal, Flag, Id, Instant, OneOf, Text, Whole } from '@sift-reel/forms';
import { JOB_STATES, type JobState } from '../jobs/job-kind.js';
import { RENDER_SHAPES, type RenderShape } from './render-plan.js';

export class RenderForm {
  @OneOf(RENDER_SHAPES) shape: RenderShape;
}

/** A file of a short: asked for, at work, or there. */
export class RenderView {
  @Id() id: string;
  @Id() shortId: string;
  @OneOf(RENDER_SHAPES) shape: RenderShape;
  @OneOf(JOB_STATES) state: JobState;
  @Text() stage: string;
  @Decimal() fraction: number;
  @Whole({ nullable: true }) leftMs: number | null;
  @Text({ nullable: true }) failure: string | null;
  @Text() askedBy: string;
  @Instant() askedAt: string;
  @Whole() durationMs: number;
  @Whole({ nullable: true, description: 'Null until it is there' }) bytes: number | null;
  @Flag({ description: 'The short has changed since' }) outdated: boolean;
}
