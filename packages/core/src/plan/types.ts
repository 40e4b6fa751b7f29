import type { CopyLimits } from '../copy/types.js';
import type { CalendarDate, WallTime } from './calendar.js';

export const SHAPES = ['vertical', 'square', 'portrait', 'wide'] as const;
export type Shape = (typeof SHAPES)[number];

/** A destination's rules (a platform profile). */
interface PlatformRules {
  readonly name: string;
  readonly minDurationMs: number;
  readonly maxDurationMs: number;
  readonly shapes: readonly Shape[];
  readonly copy: CopyLimits;
  /** Most posts a calendar day on one channel. */
  readonly postsPerDay: number;
  /** Least time between two posts of one channel, in minutes. */
  readonly minGapMinutes: number;
}

/** A possible time of a channel, in every week: ISO weekday 1 to 7, minutes after midnight, weight 1 to 100. */
export interface PostingWindow {
  readonly weekday: number;
  readonly minute: number;
  readonly weight: number;
}

/** Days without posts, both ends inside. */
export interface Blackout {
  readonly fromDate: CalendarDate;
  readonly toDate: CalendarDate;
  readonly reason: string;
}

export interface PlanChannel {
  readonly id: string;
  readonly clientId: string;
  readonly name: string;
  readonly zone: string;
  /** 1 is where a short goes first; a channel with a higher number gets it later. */
  readonly order: number;
  readonly postsPerDay: number;
  readonly postsPerWeek: number;
  readonly rules: PlatformRules;
  readonly windows: readonly PostingWindow[];
  readonly blackouts: readonly Blackout[];
}

export interface PlanShort {
  readonly id: string;
  readonly clientId: string;
  readonly recordingId: string;
  readonly title: string;
  readonly lengthMs: number;
  readonly score: number;
  readonly approved: boolean;
  /** After so many days it may stand on the same channel again; null where it goes to each once. */
  readonly comesAgainDays: number | null;
  /** What of its copy breaks a channel's limits, by channel; a channel without an entry is fine. */
  readonly copyProblems: Readonly<Record<string, string>>;
}

export const POST_STATES = ['planned', 'waiting', 'sending', 'processing', 'posted', 'refused', 'missed'] as const;
/**
 * Planned; waiting for something that it cannot go out without; on its way; taken by its platform and worked on there; out; refused by the
 * platform; too late.
 */
export type PostState = (typeof POST_STATES)[number];
export const POST_WAITS = ['file', 'approval', 'words', 'right', 'account', 'stop', 'limit'] as const;
/** What a post waits for that cannot go out yet. */
export type PostWaits = (typeof POST_WAITS)[number];
/** On its way or out: it stays where it is. */
export const isUnderway = (state: PostState): boolean => state === 'sending' || state === 'processing' || state === 'posted';

/** A short on a channel at a wall time of the channel's zone. `atMs` is its instant. */
export interface PlannedPost extends WallTime {
  readonly id: string;
  readonly shortId: string;
  readonly recordingId: string;
  readonly channelId: string;
  readonly atMs: number;
  readonly state: PostState;
}

export type RefusalCode =
  | 'not-approved'
  | 'other-client'
  | 'too-long'
  | 'too-short'
  | 'other-shape'
  | 'under-floor'
  | 'outside-dates'
  | 'barred'
  | 'copy-over-limit'
  | 'already-there'
  | 'in-past'
  | 'blackout'
  | 'day-full'
  | 'week-full'
  | 'too-close'
  | 'same-recording'
  | 'before-first-channel'
  | 'after-later-channel'
  | 'skipped-hour'
  | 'no-slot'
  | 'posted';

/** Why a short may not go there; `detail` is a sentence for the producer. */
export interface Refusal {
  readonly code: RefusalCode;
  readonly detail: string;
}

export interface Plan {
  readonly channels: readonly PlanChannel[];
  readonly shorts: readonly PlanShort[];
  readonly posts: readonly PlannedPost[];
  /** Nothing is placed before this instant. */
  readonly nowMs: number;
}

/** A short reaches its next channel at least this much later. */
export const STAGGER_MS = 20 * 3_600_000;
