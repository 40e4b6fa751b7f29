import { type PlanProblem, type ProblemShort, suits } from './problem.js';
import { makeTrack, type Track } from './tracks.js';

/**
 * One client's part of a problem, in numbers. Clients share nothing, so each is solved by itself. Shorts go by their
 * index, best score first and then by id; channels by the index of their track, in their order.
 */
export interface Instance {
  readonly client: string;
  readonly tracks: readonly Track[];
  readonly shorts: readonly ProblemShort[];
  readonly score: Float64Array;
  readonly recording: Int32Array;
  /** How many recordings the shorts are of: their indexes come first, before those of posts that stand. */
  readonly recordings: number;
  /** The track on which a short goes first; −1 where no channel suits it. */
  readonly lead: Int32Array;
  /** When it stands there already, in ms; NaN where it does not. */
  readonly leadAt: Float64Array;
  /** By track and short: the nodes that it could have, from `first` to before `end`. */
  readonly first: readonly Int32Array[];
  readonly end: readonly Int32Array[];
  readonly crossMs: number;
  /** By track: shorts that keep a place there, with the node where they stand now; −1 where that is none of its slots. */
  readonly keeps: readonly ReadonlyMap<number, number>[];
}

const byId = (a: { readonly id: string }, b: { readonly id: string }): number => (a.id < b.id ? -1 : Number(a.id > b.id));

/** The clients' parts of a problem, by the client's id; those without a channel or a short are left out. */
export function instancesOf(problem: PlanProblem): Instance[] {
  const clients = [...new Set(problem.channels.map((channel) => channel.client))].sort();
  return clients.map((client) => instanceOf(problem, client)).filter((one) => one.shorts.length > 0);
}

function instanceOf(problem: PlanProblem, client: string): Instance {
  const channels = problem.channels.filter((one) => one.client === client).sort((a, b) => a.order - b.order || byId(a, b));
  const shorts = problem.shorts.filter((one) => one.client === client).sort((a, b) => b.score - a.score || byId(a, b));
  const recordings = new Map<string, number>();
  const indexOf = (recording: string): number => {
    const known = recordings.get(recording) ?? recordings.size;
    recordings.set(recording, known);
    return known;
  };
  const recording = Int32Array.from(shorts, (short) => indexOf(short.recording));
  const own = recordings.size;
  const postsOf = channels.map((channel) => problem.posts.filter((post) => post.channel === channel.id));
  const tracks = channels.map((channel, c) => makeTrack(problem, channel, postsOf[c]!, indexOf));
  const lead = Int32Array.from(shorts, (short) => tracks.findIndex((track) => suits(short, track.channel, track.platform)));
  const standsAt = (short: ProblemShort, c: number): number[] => postsOf[c]!.filter((post) => post.short === short.id).map((post) => post.atMs);
  const leadAt = Float64Array.from(shorts, (short, s) => (lead[s]! < 0 ? NaN : Math.max(-Infinity, ...standsAt(short, lead[s]!))));
  leadAt.forEach((at, s) => {
    if (at === -Infinity) leadAt[s] = NaN;
  });
  const crossMs = problem.rules.crossPostHours * 3_600_000;
  const first = tracks.map(() => new Int32Array(shorts.length));
  const end = tracks.map(() => new Int32Array(shorts.length));
  // The lead's first: where it has no place, no other channel has.
  shorts.forEach((short, s) => {
    if (lead[s]! < 0 || short.score < problem.rules.floor) return;
    for (const [c, track] of [...tracks.entries()].sort(([a], [b]) => Number(b === lead[s]) - Number(a === lead[s]))) {
      if (!suits(short, track.channel, track.platform) || standsAt(short, c).length > 0) continue;
      const leadHas = c === lead[s] || !Number.isNaN(leadAt[s]) || first[lead[s]!]![s]! < end[lead[s]!]![s]!;
      if (!leadHas) continue;
      const { fromMs, toMs } = stretchOf(problem, short, c === lead[s] ? null : leadAt[s]!, c === lead[s] ? othersAt(s) : []);
      first[c]![s] = countUntil(track.at, (at) => at < fromMs);
      end[c]![s] = Math.max(
        first[c]![s]!,
        countUntil(track.at, (at) => at <= toMs),
      );
    }
  });
  const keeps = tracks.map(({ at, standing, channel }) => {
    const nodeAt = (atMs: number): number => at.findIndex((one, i) => one === atMs && standing[i]! < 0);
    return new Map(shorts.flatMap((short, s) => (short.keeps?.[channel.id] === undefined ? [] : [[s, nodeAt(short.keeps[channel.id]!)] as const])));
  });
  return {
    client,
    tracks,
    shorts,
    score: Float64Array.from(shorts, (short) => short.score),
    recording,
    recordings: own,
    lead,
    leadAt,
    first,
    end,
    crossMs,
    keeps,
  };

  function othersAt(s: number): number[] {
    return problem.rules.leadAfterOthers === 'may-not' ? tracks.flatMap((_, c) => (c === lead[s] ? [] : standsAt(shorts[s]!, c))) : [];
  }
}

/** When a short may stand somewhere, both ends inside. @param leadAt when it stands on its lead; NaN or null where it does not, or this is it */
function stretchOf({ rules }: PlanProblem, short: ProblemShort, leadAt: number | null, othersAt: readonly number[]): { fromMs: number; toMs: number } {
  const crossMs = rules.crossPostHours * 3_600_000;
  const afterLead = leadAt === null || Number.isNaN(leadAt) ? -Infinity : leadAt + crossMs;
  return {
    fromMs: Math.max(short.notBeforeMs ?? -Infinity, afterLead),
    toMs: Math.min(short.notAfterMs ?? Infinity, ...othersAt.map((at) => at - crossMs)),
  };
}

/** How many values from the first on hold, of a sequence in which those that hold come first. */
export function countUntil(values: Float64Array, holds: (value: number) => boolean): number {
  let low = 0;
  let high = values.length;
  while (low < high) {
    const middle = (low + high) >>> 1;
    if (holds(values[middle]!)) low = middle + 1;
    else high = middle;
  }
  return low;
}
