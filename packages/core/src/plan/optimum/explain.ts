import { formatDay, formatMinute, type WallTime } from '../calendar.js';
import { slotsOf } from '../slots.js';
import type { RefusalCode } from '../types.js';
import { wallTimeAt } from '../zone.js';
import { Arrangement } from './arrangement.js';
import { type Instance, instancesOf } from './instance.js';
import type { PlanProblem, ProblemChannel } from './problem.js';
import { effortFor, type PlanSolution, sizeOf, type SolvedPost, solveInstance } from './solve.js';

/** A short that has no place on a channel of its client, with the reason in a sentence. */
export interface UnplacedShort {
  readonly short: string;
  readonly channel: string;
  readonly code: RefusalCode;
  readonly why: string;
}

export interface ExplainedPlan extends PlanSolution {
  readonly posts: readonly (SolvedPost & { readonly why: string })[];
  readonly unplaced: readonly UnplacedShort[];
}

/** Up to this size what would change a refusal is found by laying out again with the change; it takes as long as the plan. */
const MOST_TRIED = 60_000;
/** Changes of a channel that are tried, one at a time. */
const CHANGES: readonly { readonly words: string; readonly of: (channel: ProblemChannel) => ProblemChannel }[] = [
  { words: 'One more post a week', of: (channel) => ({ ...channel, perWeek: channel.perWeek + 1 }) },
  { words: 'One more post a day', of: (channel) => ({ ...channel, perDay: channel.perDay + 1 }) },
];

/** A plan with the reason for each place, and for each place that a short has not. Every sentence is true of this plan. */
export function explainPlan(problem: PlanProblem, solution: PlanSolution): ExplainedPlan {
  const explainers = new Map(instancesOf(problem).map((instance) => [instance.client, new Explainer(problem, instance, solution.posts)]));
  const clientOf = new Map(problem.channels.map((channel) => [channel.id, channel.client]));
  return {
    ...solution,
    posts: solution.posts.map((post) => ({ ...post, why: explainers.get(clientOf.get(post.channel)!)!.whyThere(post) })),
    unplaced: [...explainers.values()].flatMap((one) => one.unplaced()),
  };
}

const named = (local: WallTime): string => `${formatDay(local.date)} ${formatMinute(local.minute)}`;
const rounded = (value: number): string => String(Math.round(value * 10) / 10);
const count = (n: number, one: string, many: string): string => (n === 1 ? `1 ${one}` : `${n} ${many}`);

class Explainer {
  private readonly plan: Arrangement;
  private readonly gained = new Map<string, ReadonlyMap<string, SolvedPost>>();

  constructor(
    private readonly problem: PlanProblem,
    private readonly instance: Instance,
    posts: readonly SolvedPost[],
  ) {
    this.plan = new Arrangement(instance);
    const indexOf = new Map(instance.shorts.map((short, s) => [short.id, s]));
    instance.tracks.forEach((track, c) => {
      const nodeAt = new Map([...track.at].map((at, i) => [track.standing[i]! < 0 ? at : NaN, i]));
      for (const post of posts) if (post.channel === track.channel.id) this.plan.place(c, nodeAt.get(post.atMs)!, indexOf.get(post.short)!);
    });
  }

  whyThere(post: SolvedPost): string {
    const c = this.instance.tracks.findIndex((track) => track.channel.id === post.channel);
    const s = this.instance.shorts.findIndex((short) => short.id === post.short);
    const { score, lead } = this.instance;
    const parts = [`Weight ${rounded(post.weight)} times score ${rounded(score[s]!)} adds ${rounded(post.worth)}`];
    if (c !== lead[s]) parts.push(this.afterLead(s));
    parts.push(this.heavier(c, this.plan.where[c]![s]!, s));
    return `${parts.join('; ')}.`;
  }

  private nameOf(c: number): string {
    return this.instance.tracks[c]!.channel.name ?? this.instance.tracks[c]!.channel.id;
  }

  private shortName(s: number): string {
    return this.instance.shorts[s]!.name ?? this.instance.shorts[s]!.id;
  }

  private afterLead(s: number): string {
    const { lead, leadAt, tracks } = this.instance;
    const l = lead[s]!;
    const at = Number.isNaN(leadAt[s]) ? tracks[l]!.at[this.plan.where[l]![s]!]! : leadAt[s]!;
    return `${this.nameOf(l)} has it on ${named(wallTimeAt(tracks[l]!.channel.zone, at))} (${tracks[l]!.channel.zone}), ${rounded(this.problem.rules.crossPostHours)} hours or more before`;
  }

  /** Why the short has none of the heavier times of the channel. */
  private heavier(c: number, i: number, s: number): string {
    const { worth, standing } = this.instance.tracks[c]!;
    const heavier = [...worth.keys()].filter((j) => standing[j]! < 0 && worth[j]! > worth[i]!);
    if (heavier.length === 0) return 'no time in these days is heavier here';
    this.plan.clear(c, i);
    const why = this.whyNoneOf(heavier, c, i, s);
    this.plan.place(c, i, s);
    return why;
  }

  /** Why a short that was taken from a node has none of these. */
  private whyNoneOf(nodes: readonly number[], c: number, i: number, s: number): string {
    const { tracks, first, end, score, lead } = this.instance;
    const { worth, local } = tracks[c]!;
    const taken = this.plan.taken[c]!;
    const inTime = nodes.filter((j) => first[c]![s]! <= j && j < end[c]![s]!);
    if (inTime.length === 0) return 'no heavier time lies in its days';
    const may = c === lead[s] ? inTime : inTime.filter((j) => this.plan.mayHave(c, j, s));
    if (may.length === 0) return 'every heavier time comes too soon after its lead';
    const open = may.filter((j) => taken[j]! < 0 || score[taken[j]!]! < score[s]!);
    if (open.length === 0) return 'the heavier times have shorts of its score or better';
    const j = open.reduce((most, one) => (worth[one]! > worth[most]! ? one : most));
    if (taken[j]! >= 0) return `${named(local[j]!)} is heavier, and has “${this.shortName(taken[j]!)}”: changed over, the two would break a rule or bring less`;
    if (this.plan.hasTwins(c, i)) return `on ${named(local[j]!)}, which is heavier, it would leave two of one recording in a row here`;
    return `${named(local[j]!)} is heavier, but ${this.closed(c, j, s) ?? 'its posts elsewhere would come too soon after'}`;
  }

  /** What keeps a short from an empty node, in words; null for nothing but its lead. */
  private closed(c: number, j: number, s: number): string | null {
    const { tracks, recording } = this.instance;
    const { day, week, dayRoom, weekRoom, channel, platform } = tracks[c]!;
    const full = this.roomOf(c);
    if (full.week[week[j]!]! >= weekRoom[week[j]!]!) return `its week has ${count(channel.perWeek, 'post', 'posts')} already`;
    if (full.day[day[j]!]! >= dayRoom[day[j]!]!) return `its day has ${count(Math.min(channel.perDay, platform.perDay), 'post', 'posts')} already`;
    if (!this.plan.isOpen(c, j)) return `it lies less than ${channel.gapMinutes} minutes from another post`;
    for (const by of [-1, 1] as const) {
      const other = this.plan.neighbour(c, j, by);
      if (other >= 0 && this.plan.recordingAt(c, other) === recording[s])
        return `the post ${by < 0 ? 'before' : 'after'} it, on ${named(tracks[c]!.local[other]!)}, is of the same recording`;
    }
    this.plan.lookAround(c, j);
    if (this.plan.isBeside(recording[s]!)) return 'the post beside it, one of two at one instant, is of the same recording';
    return null;
  }

  private roomOf(c: number): { readonly day: Int32Array; readonly week: Int32Array } {
    const { day, week, dayRoom, weekRoom } = this.instance.tracks[c]!;
    const used = { day: new Int32Array(dayRoom.length), week: new Int32Array(weekRoom.length) };
    this.plan.taken[c]!.forEach((s, i) => {
      if (s < 0) return;
      used.day[day[i]!]! += 1;
      used.week[week[i]!]! += 1;
    });
    return used;
  }

  unplaced(): UnplacedShort[] {
    const { tracks, shorts } = this.instance;
    return shorts.flatMap((short, s) =>
      tracks.flatMap(({ channel }, c) => {
        const stands = this.problem.posts.some((post) => post.short === short.id && post.channel === channel.id);
        if (this.plan.where[c]![s]! >= 0 || stands) return [];
        return [{ short: short.id, channel: channel.id, ...this.whyNot(c, s) }];
      }),
    );
  }

  private whyNot(c: number, s: number): { readonly code: RefusalCode; readonly why: string } {
    return this.unfit(c, s) ?? this.noTime(c, s) ?? this.noLead(c, s) ?? this.outdone(c, s);
  }

  private unfit(c: number, s: number): { readonly code: RefusalCode; readonly why: string } | null {
    const { rules } = this.problem;
    const short = this.instance.shorts[s]!;
    const { channel, platform } = this.instance.tracks[c]!;
    const barred = short.barred?.[channel.id];
    if (short.seconds > platform.maxSeconds)
      return {
        code: 'too-long',
        why: `${rounded(short.seconds)} s is over the ${rounded(platform.maxSeconds)} s that ${platform.name ?? platform.id} allows; ${rounded(short.seconds - platform.maxSeconds)} s less would fit.`,
      };
    if (short.seconds < platform.minSeconds)
      return {
        code: 'too-short',
        why: `${rounded(short.seconds)} s is under the ${rounded(platform.minSeconds)} s that ${platform.name ?? platform.id} asks for.`,
      };
    if (!platform.shapes.includes(short.shape))
      return { code: 'other-shape', why: `Its shape is ${short.shape}; ${platform.name ?? platform.id} takes ${platform.shapes.join(', ')}.` };
    if (barred !== undefined) return { code: 'barred', why: barred };
    if (short.score < rules.floor) return { code: 'under-floor', why: `Its score, ${rounded(short.score)}, is under the floor of ${rounded(rules.floor)}.` };
    return null;
  }

  private noTime(c: number, s: number): { readonly code: RefusalCode; readonly why: string } | null {
    const { from, to } = this.problem;
    const short = this.instance.shorts[s]!;
    const { channel, platform, standing } = this.instance.tracks[c]!;
    const name = this.nameOf(c);
    const stretch = `between ${formatDay(from)} and ${formatDay(to)}`;
    if (channel.windows.length === 0) return { code: 'no-slot', why: `${name} has no posting windows.` };
    const raw = slotsOf(channel, from, to, this.problem.nowMs);
    if (raw.length === 0) return { code: 'no-slot', why: `${name} has no window ${stretch} that is not blacked out or over.` };
    if (!standing.includes(-1)) {
      const change = this.change(c, s);
      return {
        code: 'no-slot',
        why: `Posts that stand leave ${name} no slot ${stretch}: ${channel.perWeek} a week, ${Math.min(channel.perDay, platform.perDay)} a day, ${channel.gapMinutes} minutes apart.${change === null ? '' : ` ${change}`}`,
      };
    }
    if (short.notBeforeMs !== null || short.notAfterMs !== null) {
      const inDays = raw.some((slot) => slot.atMs >= (short.notBeforeMs ?? -Infinity) && slot.atMs <= (short.notAfterMs ?? Infinity));
      if (!inDays) return { code: 'outside-dates', why: `No slot of ${name} ${stretch} lies in the days that the short may be posted in.` };
    }
    return null;
  }

  private noLead(c: number, s: number): { readonly code: RefusalCode; readonly why: string } | null {
    const { lead, leadAt, tracks } = this.instance;
    const l = lead[s]!;
    if (c === l) return null;
    const hours = rounded(this.problem.rules.crossPostHours);
    const node = this.plan.where[l]![s]!;
    if (Number.isNaN(leadAt[s]) && node < 0)
      return {
        code: 'before-first-channel',
        why: `It has no place on ${this.nameOf(l)}, which comes before ${this.nameOf(c)}; with one there it could follow ${hours} hours later.`,
      };
    const at = Number.isNaN(leadAt[s]) ? tracks[l]!.at[node]! : leadAt[s]!;
    const late = tracks[c]!.at.some((slot, i) => tracks[c]!.standing[i]! < 0 && slot >= at + this.problem.rules.crossPostHours * 3_600_000);
    if (late) return null;
    return {
      code: 'before-first-channel',
      why: `${this.nameOf(l)} has it on ${named(wallTimeAt(tracks[l]!.channel.zone, at))} (${tracks[l]!.channel.zone}), and no slot of ${this.nameOf(c)} in these days comes ${hours} hours later.`,
    };
  }

  /** Where it could stand, as far as it goes by itself, and what is there instead. */
  private outdone(c: number, s: number): { readonly code: RefusalCode; readonly why: string } {
    const { tracks, first, end, score } = this.instance;
    const track = tracks[c]!;
    const nodes = [...track.at.keys()].filter((i) => track.standing[i]! < 0 && first[c]![s]! <= i && i < end[c]![s]! && this.plan.mayHave(c, i, s));
    if (nodes.length === 0) return { code: 'no-slot', why: `No slot of ${this.nameOf(c)} in these days is left to it.` };
    const held = nodes.filter((i) => this.plan.taken[c]![i]! >= 0);
    const better = held.filter((i) => score[this.plan.taken[c]![i]!]! >= score[s]!);
    const reasons = new Map<string, number>();
    for (const i of nodes) {
      if (this.plan.taken[c]![i]! >= 0) continue;
      const closed = this.closed(c, i, s);
      const kind =
        closed === null
          ? 'bring nothing'
          : closed.startsWith('its week')
            ? 'lie in full weeks'
            : closed.startsWith('its day')
              ? 'lie on full days'
              : closed.startsWith('the post')
                ? 'lie next to its own recording'
                : 'lie too near to other posts';
      reasons.set(kind, (reasons.get(kind) ?? 0) + 1);
    }
    const parts: string[] = [];
    if (better.length > 0)
      parts.push(
        `${better.length} ${better.length === 1 ? 'has a higher score' : 'have higher scores'} (${better.length === 1 ? '' : 'the least '}${rounded(Math.min(...better.map((i) => score[this.plan.taken[c]![i]!]!)))}, this one ${rounded(score[s]!)})`,
      );
    if (held.length > better.length) {
      const least = held.filter((i) => !better.includes(i)).map((i) => this.shortName(this.plan.taken[c]![i]!));
      parts.push(
        `${least.length} have “${least[0]}”${least.length > 1 ? ' and other' : ', a'} lower score${least.length > 1 ? 's' : ''} in whose place it may not stand, or would bring less in all`,
      );
    }
    for (const [kind, n] of reasons) parts.push(`${n} ${n === 1 ? kind.replace(/^lie/, 'lies').replace('bring', 'brings') : kind}`);
    const change = this.change(c, s);
    return {
      code: 'no-slot',
      why: `Of ${count(nodes.length, 'slot', 'slots')} that it could have, ${parts.join(', ')}.${change === null ? '' : ` ${change}`}`,
    };
  }

  /** What would have to be otherwise, found by laying out again; null where it was not tried. */
  private change(c: number, s: number): string | null {
    if (sizeOf(this.problem) > MOST_TRIED) return null;
    for (const [n, change] of CHANGES.entries()) {
      const post = this.gainedBy(c, n).get(this.instance.shorts[s]!.id);
      if (post !== undefined) return `${change.words} on ${this.nameOf(c)} would place it on ${named(post.local)}.`;
    }
    return 'One more post a week, or one more a day, would not place it.';
  }

  /** A channel's posts when it is laid out again with a change, by the short. */
  private gainedBy(c: number, n: number): ReadonlyMap<string, SolvedPost> {
    const key = `${c} ${n}`;
    let known = this.gained.get(key);
    if (known === undefined) {
      const own = this.instance.tracks[c]!.channel;
      const channels = this.problem.channels.map((channel) => (channel === own ? CHANGES[n]!.of(channel) : channel));
      const changed = instancesOf({ ...this.problem, channels }).find((one) => one.client === this.instance.client);
      const posts = changed === undefined ? [] : solveInstance(changed, effortFor(this.problem)).posts;
      known = new Map(posts.filter((post) => post.channel === own.id).map((post) => [post.short, post]));
      this.gained.set(key, known);
    }
    return known;
  }
}
