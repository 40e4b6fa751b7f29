import { POST_STATES, POST_WAITS, type PostState, type PostWaits, type RefusalCode } from '@sift-reel/core';
import { Day, Decimal, Flag, Id, Instant, OneOf, Parts, Text, TextList, Whole } from '@sift-reel/forms';
import { BlackoutView, ChannelView } from '../clients/clients.views.js';

export class BatchView {
  @Id() id: string;
  @Text() name: string;
  @TextList({ format: 'uuid', maxItems: 500, description: 'Members that can go out: kept, and approved as they are' }) shortIds: string[];
  @Instant() createdAt: string;
  @Whole() version: number;
}

export class CopyProblemByChannelView {
  @Id() channelId: string;
  @Text() detail: string;
}

/** A short as the schedule needs it. */
export class ScheduleShortView {
  @Id() id: string;
  @Id() clientId: string;
  @Id() recordingId: string;
  @Text() recordingTitle: string;
  @Text() title: string;
  @Whole() lengthMs: number;
  @Decimal() score: number;
  @Flag() approved: boolean;
  @Whole({ nullable: true, description: 'After so many days it may stand on a channel again; null where it goes to each once' }) comesAgainDays: number | null;
  @Parts(() => CopyProblemByChannelView) copyProblems: CopyProblemByChannelView[];
}

export class PostView {
  @Id() id: string;
  @Id() clientId: string;
  @Id() channelId: string;
  @Id() shortId: string;
  @Id({ nullable: true }) batchId: string | null;
  @Id() recordingId: string;
  @Day() date: string;
  @Whole() minute: number;
  @Instant() at: string;
  @OneOf(POST_STATES) state: PostState;
  @OneOf(POST_WAITS, { nullable: true, description: 'What it waits for, where that is its state' }) waits: PostWaits | null;
  @Text({ nullable: true, description: 'Why it was refused, or is too late' }) failure: string | null;
  @Text() why: string;
  @Flag({ description: 'Laying out may move it on its channel' }) movable: boolean;
  @Whole() version: number;
}

/** All that the schedule shows and checks by: every post, so that neighbours outside the shown weeks count too. */
export class ScheduleView {
  @Parts(() => ChannelView) channels: ChannelView[];
  @Parts(() => BlackoutView) blackouts: BlackoutView[];
  @Parts(() => ScheduleShortView) shorts: ScheduleShortView[];
  @Parts(() => PostView) posts: PostView[];
  @Instant({ description: 'The server’s clock; nothing is placed before it' }) now: string;
}

export class PlacementView {
  @Id() shortId: string;
  @Id() channelId: string;
  @Day() date: string;
  @Whole() minute: number;
  @Instant() at: string;
  @Text() why: string;
  @Decimal({ description: 'Score times weight, by 100' }) worth: number;
}

/** A post that stands and may move, with a better place on its channel. */
export class ProposedMoveView extends PlacementView {
  @Id() postId: string;
  @Whole({ description: 'Of the post, as it was seen' }) version: number;
  @Day() fromDate: string;
  @Whole() fromMinute: number;
  @Decimal({ description: 'Score times weight, by 100, where it stands' }) worthBefore: number;
}

export class UnplacedView {
  @Id() shortId: string;
  @Id() channelId: string;
  @Text() code: RefusalCode;
  @Text() detail: string;
}

export class PlanFilePlaceView {
  @Whole({ description: 'Of the file, from 1' }) line: number;
  @Id() shortId: string;
  @Id() channelId: string;
  @Day() date: string;
  @Whole() minute: number;
  @Text() why: string;
}

export class RefusedLineView {
  @Whole({ description: 'Of the file, from 1' }) line: number;
  @Text({ description: 'The column' }) field: string;
  @Text() detail: string;
}

/** What of a plan that was made elsewhere can be placed, beside what stands. */
export class PlanFileView {
  @Parts(() => PlanFilePlaceView) placements: PlanFilePlaceView[];
  @Parts(() => RefusedLineView) refused: RefusedLineView[];
  @Whole({ description: 'Lines that stand on the schedule already' }) standing: number;
}

/** A private address at which a client’s posts are read as a calendar. */
export class CalendarView {
  @Id() id: string;
  @Id() clientId: string;
  @Text({ description: 'Whom it is for' }) name: string;
  @Instant({ nullable: true, description: 'When it was last read, to some ten minutes' }) readAt: string | null;
  @Instant() createdAt: string;
}

export class CalendarMadeView extends CalendarView {
  @Text({ description: 'Told this once' }) address: string;
}

export class ProposalView {
  @Parts(() => PlacementView) placements: PlacementView[];
  @Parts(() => ProposedMoveView) moves: ProposedMoveView[];
  @Parts(() => UnplacedView) unplaced: UnplacedView[];
  @Decimal({ description: 'What the placements are worth together, and what the moves add to it' }) value: number;
  @Decimal({ description: 'No plan of these shorts on these days is worth more' }) bound: number;
}
