import type { CalendarDate } from '../calendar.js';

/** What a platform asks of every channel on it. Lengths in seconds, both ends allowed. */
export interface ProblemPlatform {
  readonly id: string;
  /** What people call it; its id where that is missing. */
  readonly name?: string;
  readonly minSeconds: number;
  readonly maxSeconds: number;
  readonly shapes: readonly string[];
  /** Most posts on one calendar day of a channel. */
  readonly perDay: number;
}

/** A possible time in every week: ISO weekday 1 to 7, minutes after midnight, weight 0 to 100. */
interface ProblemWindow {
  readonly weekday: number;
  readonly minute: number;
  readonly weight: number;
}

/** Days without posts, both ends inside. */
interface ProblemBlackout {
  readonly from: CalendarDate;
  readonly to: CalendarDate;
}

export interface ProblemChannel {
  readonly id: string;
  readonly name?: string;
  readonly client: string;
  readonly platform: string;
  /** A name of the IANA time zone database; days and weeks of the channel are this zone's. */
  readonly zone: string;
  /** Its place among its client's channels; they differ within a client. */
  readonly order: number;
  readonly perDay: number;
  readonly perWeek: number;
  readonly gapMinutes: number;
  readonly windows: readonly ProblemWindow[];
  readonly blackouts: readonly ProblemBlackout[];
}

export interface ProblemShort {
  readonly id: string;
  readonly name?: string;
  readonly client: string;
  readonly recording: string;
  /** 0 or more. */
  readonly score: number;
  readonly seconds: number;
  readonly shape: string;
  /** Instants, both inside; null where nothing binds. */
  readonly notBeforeMs: number | null;
  readonly notAfterMs: number | null;
  /** Channels that do not suit it for a reason outside this problem, with the reason in a sentence. */
  readonly barred?: Readonly<Record<string, string>>;
  /** Channels on which it stands now, each with the instant: it may move there, and keeps a place. */
  readonly keeps?: Readonly<Record<string, number>>;
}

/** A post that stands: it is not moved. It may lie anywhere in time, and its short need not be among the shorts. */
export interface StandingPost {
  readonly short: string;
  readonly channel: string;
  readonly recording: string;
  readonly atMs: number;
}

interface ProblemRules {
  /** Hours between a short's post on its lead and its post elsewhere. */
  readonly crossPostHours: number;
  /** Least score of a short that is placed. */
  readonly floor: number;
  /**
   * Whether a short that stands on another channel may still get its lead, later than there. Default: it may. Where people
   * place by hand under the rule that the lead goes first, it may not.
   */
  readonly leadAfterOthers?: 'may' | 'may-not';
}

/**
 * Which posts make Σ score × weight / 100 greatest, over all channels and days from `from` to `to` (both inside, each
 * channel's own calendar days). The rules are in docs/decisions/0025-plan-to-the-optimum.md.
 */
export interface PlanProblem {
  /** Nothing is placed before this instant. */
  readonly nowMs: number;
  readonly from: CalendarDate;
  readonly to: CalendarDate;
  readonly platforms: readonly ProblemPlatform[];
  readonly channels: readonly ProblemChannel[];
  readonly shorts: readonly ProblemShort[];
  readonly posts: readonly StandingPost[];
  readonly rules: ProblemRules;
}

/** True where a short's client, length and shape suit a channel, and nothing bars it; what a lead is judged by. */
export function suits(short: ProblemShort, channel: ProblemChannel, platform: ProblemPlatform): boolean {
  return (
    short.client === channel.client &&
    platform.minSeconds <= short.seconds &&
    short.seconds <= platform.maxSeconds &&
    platform.shapes.includes(short.shape) &&
    short.barred?.[channel.id] === undefined
  );
}
