import type { Arrangement } from './arrangement.js';
import { ChainSearch, type Pick } from './chain.js';
import type { Instance } from './instance.js';
import type { Track } from './tracks.js';

/** Before a price at a slot: a recording that no short of could be there is worth nothing to a chain, not even 0. */
const CANNOT = -1;
/** What it costs a short to go without a place that it keeps: more than anything is worth. */
const WITHOUT = -1e6;
/** How much the newest of what is broken counts against all before it. */
const FRESH = 0.1;

/** How often first prices are reckoned anew. */
const BEGINNINGS = 4;

/** What moves its prices together: a week of a channel, a slot, or a recording at a slot. */
export type Grain = 'week' | 'slot' | 'recording';

/**
 * The relaxation. Channels and shorts are taken apart: a channel sells its slots, a recording at a slot at a price, and
 * wants the dearest chain that its rules allow; a short buys the slots that leave it most, the lead's first. What both say
 * they will do need not agree, so channels' takings and shorts' leavings together are at least the value of the best plan,
 * whatever the prices are (Lagrangian decomposition: Guignard and Kim 1987). The better the prices, the more they agree.
 *
 * All rules are in it: those of a channel in its chain, and that a short goes to a channel once, after its lead, in its own.
 */
export class Prices {
  /** By track and slot: what the recordings there cost at the least. */
  readonly chains: readonly Pick[][];
  /** By track, by recording and node: the price; −1 where no short of the recording could be. */
  readonly price: readonly Float64Array[];
  private readonly broken: Readonly<Record<Grain, readonly Float64Array[]>>;
  private readonly searches: readonly ChainSearch[];
  /** By lead's track and other track: for a node of the lead, the first node of the other that is late enough after it. */
  private readonly after: readonly (readonly Int32Array[])[];
  /** By track, by short and node: the most that is left to it from the node on, and where. */
  private readonly tail: readonly Float64Array[];
  private readonly tailAt: readonly Int32Array[];
  /** By short: what is left to it of its lead and all that the lead lets it have. */
  private readonly left: Float64Array;
  /** What is left to a short at each node of its lead; written for one after another. */
  private readonly offers: Float64Array;
  /** By track and short: the node that it buys, or −1. */
  private readonly bought: readonly Int32Array[];

  /** @param allKept whether there are plans in which every short that keeps a place has one: then the bound is of those */
  constructor(
    private readonly instance: Instance,
    private readonly allKept: boolean,
  ) {
    const { tracks, shorts, recordings, crossMs } = instance;
    this.price = tracks.map((track) => new Float64Array(recordings * track.length).fill(CANNOT));
    this.broken = {
      week: tracks.map((track) => new Float64Array(track.weekRoom.length)),
      slot: tracks.map((track) => new Float64Array(track.length)),
      recording: tracks.map((track) => new Float64Array(recordings * track.length)),
    };
    this.searches = tracks.map((track) => new ChainSearch(track, recordings));
    this.chains = tracks.map(() => []);
    this.after = tracks.map((lead) => tracks.map((track) => firstAfter(track, lead, crossMs)));
    this.tail = tracks.map((track) => new Float64Array(shorts.length * (track.length + 1)));
    this.tailAt = tracks.map((track) => new Int32Array(shorts.length * (track.length + 1)));
    this.left = new Float64Array(shorts.length);
    this.offers = new Float64Array(Math.max(...tracks.map((track) => track.length)));
    this.bought = tracks.map(() => new Int32Array(shorts.length));
    this.beginAll();
  }

  /**
   * Prices to begin with. Only shorts that get a slot on their lead compete for others, and what they get there is a part
   * of what they pay for their lead; so both are reckoned from each other a few times, and the best are kept.
   */
  private beginAll(): void {
    const { tracks } = this.instance;
    let led: ReadonlySet<number> | null = null;
    let best = { bound: Infinity, prices: this.save() };
    for (let rounds = 0; rounds < BEGINNINGS; rounds += 1) {
      const next = new Set<number>();
      // A lead comes before all channels that wait for it.
      for (let c = tracks.length - 1; c >= 0; c -= 1) for (const s of this.begin(tracks[c]!, c, led)) next.add(s);
      const bound = this.bound();
      if (bound >= best.bound) break;
      best = { bound, prices: this.save() };
      led = next;
    }
    this.restore(best.prices);
  }

  /**
   * The prices of a channel that takes what is worth most in all, the best shorts at the best times: a slot costs what the
   * best of those that get none would pay, and from slot to heavier slot what the lesser of the two shorts gains by it.
   * Where it is their lead, shorts pay with what other channels leave them besides; those have their prices already.
   * @param led shorts that have got a slot on their lead; null where that is not known
   * @returns the shorts that get a slot here, where it is their lead
   */
  private begin(track: Track, c: number, led: ReadonlySet<number> | null): number[] {
    const { score, first, end, recording, lead } = this.instance;
    const worths = [...track.worth].filter((_, i) => track.standing[i]! < 0).sort((a, b) => b - a);
    const rooms = track.weekRoom.reduce((sum, room) => sum + room, 0);
    const able = [...score.keys()].filter((s) => first[c]![s]! < end[c]![s]! && (led === null || led.has(s) || !this.waits(c, s)));
    const besides = Float64Array.from(score, () => 0);
    for (const s of able) besides[s] = this.leftBesides(c, s);
    const taken = Math.min(worths.length, rooms, able.length);
    const usual = worths.slice(0, taken).reduce((sum, worth) => sum + worth, 0) / Math.max(1, taken);
    const ranked = [...able].sort((a, b) => score[b]! * usual + besides[b]! - score[a]! * usual - besides[a]! || a - b);
    const winners = ranked.slice(0, taken).sort((a, b) => a - b);
    const left = new Float64Array(score.length);
    let price = ranked.slice(taken).reduce((most, s) => Math.max(most, score[s]! * worths[taken - 1]! + besides[s]!), 0);
    for (let k = winners.length - 1; k >= 0; k -= 1) {
      const s = winners[k]!;
      if (k + 1 < winners.length) price += (worths[k]! - worths[k + 1]!) * score[winners[k + 1]!]!;
      left[s] = Math.max(0, score[s]! * worths[k]! + besides[s]! - price);
    }
    // Slots of one weight cost the same, and a channel has few weights.
    const priceOf = new Map(
      [...new Set(worths)].map((worth) => [worth, able.reduce((most, s) => Math.max(most, score[s]! * worth + besides[s]! - left[s]!), 0)]),
    );
    const prices = Float64Array.from(track.worth, (worth) => priceOf.get(worth) ?? 0);
    for (let s = 0; s < score.length; s += 1) {
      const at = recording[s]! * track.length;
      for (let i = first[c]![s]!; i < end[c]![s]!; i += 1) if (track.standing[i]! < 0) this.price[c]![at + i] = prices[i]!;
    }
    return winners.filter((s) => lead[s] === c);
  }

  /** What is left to a short on the channels after its lead, wherever it stands there. */
  private leftBesides(c: number, s: number): number {
    const { tracks, lead, first, end } = this.instance;
    if (c !== lead[s]) return 0;
    let sum = 0;
    for (let other = c + 1; other < tracks.length; other += 1) {
      if (first[other]![s]! >= end[other]![s]!) continue;
      this.readTail(other, s);
      sum += this.tail[other]![s * (tracks[other]!.length + 1) + first[other]![s]!]!;
    }
    return sum;
  }

  /** The bound at these prices; leaves the chains and what the shorts buy. */
  bound(): number {
    let bound = 0;
    this.searches.forEach((search, c) => {
      bound += search.best(this.price[c]!, this.chains[c]!);
    });
    for (let s = 0; s < this.left.length; s += 1) {
      this.left[s] = this.buy(s);
      bound += this.left[s]!;
    }
    return bound;
  }

  /** The best chain of a track at other prices than these. */
  chainAt(c: number, price: Float64Array): readonly Pick[] {
    const chain: Pick[] = [];
    this.searches[c]!.best(price, chain);
    return chain;
  }

  /** What is left to a short that buys as it likes best. */
  private buy(s: number): number {
    const { tracks, lead, leadAt, first, end, score, recording } = this.instance;
    const l = lead[s]!;
    let left = 0;
    for (let c = 0; c < tracks.length; c += 1) {
      this.bought[c]![s] = -1;
      if (c !== l) this.readTail(c, s);
    }
    if (l < 0) return 0;
    if (!Number.isNaN(leadAt[s])) {
      for (let c = 0; c < tracks.length; c += 1) if (c !== l && first[c]![s]! < end[c]![s]!) left += this.take(c, s, first[c]![s]!);
      return left;
    }
    if (this.mustBuy(l, s)) left = WITHOUT;
    const { standing, worth } = tracks[l]!;
    const [from, to] = [first[l]![s]!, end[l]![s]!];
    const { offers } = this;
    const price = this.price[l]!;
    const at = recording[s]! * worth.length;
    for (let j = from; j < to; j += 1) offers[j] = score[s]! * worth[j]! - price[at + j]!;
    for (let c = 0; c < tracks.length; c += 1) {
      const [least, most] = [first[c]![s]!, end[c]![s]!];
      if (c === l || least >= most) continue;
      const tail = this.tail[c]!;
      const base = s * (tracks[c]!.length + 1);
      const after = this.after[l]![c]!;
      for (let j = from; j < to; j += 1) {
        const i = after[j]!;
        offers[j] = offers[j]! + tail[base + (i < least ? least : i > most ? most : i)]!;
      }
    }
    let best = -1;
    for (let j = from; j < to; j += 1)
      if (offers[j]! > left && standing[j]! < 0) {
        left = offers[j]!;
        best = j;
      }
    if (best < 0) return left;
    this.bought[l]![s] = best;
    for (let c = 0; c < tracks.length; c += 1) if (c !== l && first[c]![s]! < end[c]![s]!) this.take(c, s, this.from(l, c, best, s));
    return left;
  }

  /** What a short brings at a node, and, where that is its lead, what is left to it elsewhere from then on. */
  private brings(c: number, s: number, i: number): number {
    const { tracks, score, lead, first, end } = this.instance;
    let all = score[s]! * tracks[c]!.worth[i]!;
    if (c !== lead[s]) return all;
    for (let other = 0; other < tracks.length; other += 1)
      if (other !== c && first[other]![s]! < end[other]![s]!) all += this.tail[other]![s * (tracks[other]!.length + 1) + this.from(c, other, i, s)]!;
    return all;
  }

  /** What a plan gains by a short at an empty node, where the short's lead stands in it now. */
  gainIn({ where }: Arrangement, c: number, i: number, s: number): number {
    const l = this.instance.lead[s]!;
    return this.gain(c, s, i, c === l ? -1 : where[l]![s]!);
  }

  /**
   * What a plan gains by a short at an empty node, by these prices: what it brings, less what would be left to it of the
   * best that it could have instead.
   * @param leadNode where its lead stands in the plan; −1 where it stood before, or this is the lead
   */
  private gain(c: number, s: number, i: number, leadNode: number): number {
    const { lead, first, tracks } = this.instance;
    if (c === lead[s]) return this.brings(c, s, i) - this.left[s]!;
    const from = leadNode < 0 ? first[c]![s]! : this.from(lead[s]!, c, leadNode, s);
    return this.brings(c, s, i) - this.tail[c]![s * (tracks[c]!.length + 1) + from]!;
  }

  /** The first node of another track that a short may have when its lead has `j`; its end where there is none. */
  from(l: number, c: number, j: number, s: number): number {
    const { first, end } = this.instance;
    return Math.min(end[c]![s]!, Math.max(first[c]![s]!, this.after[l]![c]![j]!));
  }

  /** True where a short keeps a place that is a slot of its own time. */
  private mustBuy(c: number, s: number): boolean {
    if (!this.allKept) return false;
    const home = this.instance.keeps[c]!.get(s) ?? -1;
    return home >= this.instance.first[c]![s]! && home < this.instance.end[c]![s]!;
  }

  private take(c: number, s: number, from: number): number {
    const at = s * (this.instance.tracks[c]!.length + 1) + from;
    this.bought[c]![s] = this.tailAt[c]![at]!;
    return this.tail[c]![at]!;
  }

  /** The most that is left to a short on a track, from each of its nodes on. */
  private readTail(c: number, s: number): void {
    const { tracks, first, end, score, recording } = this.instance;
    const { worth, standing, length } = tracks[c]!;
    const price = this.price[c]!;
    const at = recording[s]! * length;
    const tail = this.tail[c]!;
    const tailAt = this.tailAt[c]!;
    const base = s * (length + 1);
    const last = end[c]![s]!;
    tail[base + last] = this.mustBuy(c, s) ? WITHOUT : 0;
    tailAt[base + last] = -1;
    for (let i = last - 1; i >= first[c]![s]!; i -= 1) {
      const left = score[s]! * worth[i]! - price[at + i]!;
      const better = standing[i]! < 0 && left > tail[base + i + 1]!;
      tail[base + i] = better ? left : tail[base + i + 1]!;
      tailAt[base + i] = better ? i : tailAt[base + i + 1]!;
    }
  }

  /**
   * Moves the prices towards agreement: up where more is bought than sold, down where less is. What is broken is smoothed
   * over the steps before, since chains and purchases are many times as good as each other (the volume algorithm, Barahona
   * and Anbil 2000).
   * @param toBest how far the bound is from what it may come down to; the step is in proportion (Polyak 1969)
   * @param share of that step, more than 0
   * @param grain what has one move in common
   */
  step(toBest: number, share: number, grain: Grain): void {
    const broken = this.broken[grain];
    let norm = 0;
    broken.forEach((own, c) => {
      const { length, week } = this.instance.tracks[c]!;
      for (let i = 0; i < own.length; i += 1) own[i] = own[i]! * (1 - FRESH);
      const note = (recording: number, node: number, amount: number): void => {
        const at = grain === 'week' ? week[node]! : grain === 'slot' ? node : recording * length + node;
        own[at]! += amount;
      };
      for (const { node, recording } of this.chains[c]!) note(recording, node, -FRESH);
      this.bought[c]!.forEach((node, s) => {
        if (node >= 0) note(this.instance.recording[s]!, node, FRESH);
      });
      for (const by of own) norm += by * by;
    });
    if (norm === 0) return;
    const length = (share * toBest) / norm;
    broken.forEach((own, c) => {
      const price = this.price[c]!;
      const track = this.instance.tracks[c]!;
      for (let at = 0, i = 0; at < price.length; at += 1, i = i + 1 === track.length ? 0 : i + 1) {
        if (price[at]! < 0) continue;
        const by = grain === 'week' ? own[track.week[i]!]! : grain === 'slot' ? own[i]! : own[at]!;
        price[at] = Math.max(0, price[at]! + length * by);
      }
    });
  }

  /**
   * Makes leads dearer and other channels cheaper the earlier they are, in a straight line that ends at the last slot: an
   * early lead lets a short have more elsewhere, and early slots elsewhere have few shorts that may go there.
   * @param by price that is added at the first slot, for each channel that waits for a lead
   */
  lean(by: number): void {
    const { tracks, lead, score } = this.instance;
    const from = Math.min(...tracks.map((track) => track.at[0] ?? Infinity));
    const to = Math.max(...tracks.map((track) => track.at.at(-1) ?? -Infinity));
    tracks.forEach((track, c) => {
      let leaning = 0;
      for (let s = 0; s < score.length; s += 1)
        for (let other = 0; other < tracks.length; other += 1) if (this.waits(other, s)) leaning += c === lead[s] ? 1 : c === other ? -1 : 0;
      const most = (by * leaning) / score.length;
      const price = this.price[c]!;
      for (let at = 0, i = 0; at < price.length; at += 1, i = i + 1 === track.length ? 0 : i + 1)
        if (price[at]! >= 0) price[at] = Math.max(0, price[at]! + (most * (to - track.at[i]!)) / (to - from));
    });
  }

  /** True where a short could go to a channel after a lead that it has not yet. */
  private waits(c: number, s: number): boolean {
    const { lead, leadAt, first, end } = this.instance;
    return c !== lead[s] && Number.isNaN(leadAt[s]) && first[c]![s]! < end[c]![s]!;
  }

  save(): readonly Float64Array[] {
    return this.price.map((prices) => prices.slice());
  }

  restore(saved: readonly Float64Array[]): void {
    this.price.forEach((prices, c) => prices.set(saved[c]!));
  }
}

/** For each node of a lead, the first node of another track that lies so much later; its length where none does. */
function firstAfter(track: Track, lead: Track, crossMs: number): Int32Array {
  const first = new Int32Array(lead.length);
  for (let j = 0, i = 0; j < lead.length; j += 1) {
    while (i < track.length && track.at[i]! < lead.at[j]! + crossMs) i += 1;
    first[j] = i;
  }
  return first;
}
