import { Decimal, Flag, Id, Instant, OneOf, Text, Whole } from '@sift-reel/forms';
import { JOB_STATES, type JobState } from '../jobs/job-kind.js';
import { RENDER_SHAPES, type RenderShape } from './render-plan.js';

export class RenderForm {
  @OneOf(RENDER_SHAPES) shape: RenderShape;
  @Id({ optional: true, description: 'As loud as this platform plays; left out, as the first of the client’s channels that takes the shape' })
  platformProfileId?: string;
}

/** Which shorts are meant, and which of their files. */
export class RendersQuery {
  @OneOf(RENDER_SHAPES) shape: RenderShape;
  @Text({ pattern: /^[\da-f-]{36}(?:,[\da-f-]{36}){0,59}$/i, max: 2_300, says: 'must be 1 to 60 ids with commas' }) shortIds: string;
  @Id({ optional: true, description: 'Files as loud as this platform plays; left out, as the first of each client’s channels that takes the shape' })
  platformProfileId?: string;
}

/** Whether a short has a file of its present words and ends. */
export class ReadyView {
  @Id() shortId: string;
  @Text() title: string;
  @Flag() ready: boolean;
}

/** A finished file whose time is nearly over. */
export class GoingFileView {
  @Id() id: string;
  @Id() shortId: string;
  @Id() clientId: string;
  @Text() title: string;
  @OneOf(RENDER_SHAPES) shape: RenderShape;
  @Whole() bytes: number;
  @Instant() goesAt: string;
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
  @Decimal({ description: 'Integrated, LUFS' }) loudness: number;
  @Decimal({ description: 'At most, dBTP' }) truePeak: number;
  @Flag({ description: 'What it was made of has changed since' }) outdated: boolean;
}
