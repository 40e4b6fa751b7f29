import type { Arrangement } from './arrangement.js';
import type { Pick } from './chain.js';
import type { Instance } from './instance.js';
import type { Prices } from './prices.js';

/** How often the whole plan is laid out anew. */
const EVERYTHING = 0.1;
/** Of so many shorts the best by the prices is pinned. */
const DRAWS = 3;

/** Nodes of a track from `from` to before `to`, that posts were removed from. */
export interface Hole {
  readonly c: number;
  readonly from: number;
  readonly to: number;
}

/** Changes of a plan that are not for the better by themselves: they open ways to better ones. Every rule holds after each. */
export class Shaker {
  private readonly instance: Instance;

  /**
   * @param slots each channel's slots, heaviest first
   * @param random numbers from 0 to 1
   */
  constructor(
    private readonly plan: Arrangement,
    private readonly prices: Prices,
    private readonly slots: readonly (readonly number[])[],
    private readonly random: () => number,
  ) {
    this.instance = plan.instance;
  }

  /**
   * Lays a channel out by the best chain of recordings at shaken prices: where posts may only stand together, one keeping
   * two others apart, they come together.
   */
  weave(c: number): void {
    const { tracks, score, recording, recordings, first, end } = this.instance;
    const { length, worth, standing } = tracks[c]!;
    for (let i = 0; i < length; i += 1) if (this.plan.taken[c]![i]! >= 0) this.plan.remove(c, i);
    const price = new Float64Array(recordings * length).fill(-1);
    const shaken = this.random();
    for (let s = score.length - 1; s >= 0; s -= 1) {
      const at = recording[s]! * length;
      for (let i = first[c]![s]!; i < end[c]![s]!; i += 1)
        if (standing[i]! < 0 && this.plan.mayHave(c, i, s)) {
          const own = score[s]! * worth[i]! * (1 - shaken * this.random());
          price[at + i] = price[at + i]! < 0 ? own : (own + price[at + i]!) / 2;
        }
    }
    this.putChain(c, this.prices.chainAt(c, price));
  }

  /** Gives each of a chain's nodes a short of its recording, the heaviest the best; what then breaks a rule goes again. */
  private putChain(c: number, chain: readonly Pick[]): void {
    const { score, recording, tracks } = this.instance;
    const { worth } = tracks[c]!;
    for (const { node, recording: own } of [...chain].sort((a, b) => worth[b.node]! - worth[a.node]! || a.node - b.node))
      for (let s = 0; s < score.length; s += 1) {
        if (recording[s] !== own || !this.plan.mayHave(c, node, s)) continue;
        this.plan.place(c, node, s);
        break;
      }
    this.plan.removeTwins(c);
  }

  /** Takes a few shorts off every channel, and puts them back one after another, each where it brings most in all. */
  reseat(): void {
    const { score } = this.instance;
    const chosen: number[] = [];
    for (let n = 1 + Math.floor(this.random() * 3); n > 0; n -= 1) chosen.push(Math.floor(this.random() * score.length));
    for (const s of chosen)
      this.plan.where.forEach((where, c) => {
        if (where[s]! >= 0) this.plan.remove(c, where[s]!);
      });
    for (const s of chosen) this.seat(s);
  }

  /** Puts a short on its lead where that and its best slots elsewhere from then on bring most together, and there too. */
  private seat(s: number): void {
    const { tracks, lead, leadAt } = this.instance;
    const l = lead[s]!;
    if (l < 0 || this.plan.where[l]![s]! >= 0) return;
    const seats = tracks.map((_, c) => (c === l ? [] : this.seatsFrom(c, s)));
    const at = (c: number, node: number): number => seats[c]![node] ?? -1;
    let best = { total: 0, node: -1 };
    if (Number.isNaN(leadAt[s])) {
      for (const j of this.slots[l]!) {
        if (!this.plan.fits(l, j, s)) continue;
        let total = this.plan.worth(l, j, s);
        for (let c = 0; c < tracks.length; c += 1) {
          const seat = c === l ? -1 : at(c, this.prices.from(l, c, j, s));
          if (seat >= 0) total += this.plan.worth(c, seat, s);
        }
        if (total > best.total) best = { total, node: j };
      }
      if (best.node < 0) return;
      this.plan.place(l, best.node, s);
    }
    for (let c = 0; c < tracks.length; c += 1) {
      const seat = c === l ? -1 : at(c, best.node < 0 ? this.instance.first[c]![s]! : this.prices.from(l, c, best.node, s));
      if (seat >= 0 && this.plan.fits(c, seat, s)) this.plan.place(c, seat, s);
    }
  }

  /** For each node of a track the heaviest open slot from it on that a short may have, whatever its lead; −1 for none. */
  private seatsFrom(c: number, s: number): number[] {
    const { length, worth } = this.instance.tracks[c]!;
    const seats = Array.from({ length: length + 1 }, () => -1);
    for (let i = length - 1; i >= 0; i -= 1) {
      const later = seats[i + 1]!;
      seats[i] = later;
      if ((later >= 0 && worth[i]! < worth[later]!) || !this.plan.isOpen(c, i)) continue;
      this.plan.lookAround(c, i);
      if (this.plan.takesAfterLead(c, i, s)) seats[i] = i;
    }
    return seats;
  }

  /** Puts any short at any slot of a stretch, and pins it there: what is best around it may hold it when it may move again. */
  pinIn({ c, from, to }: Hole): boolean {
    const i = from + Math.floor(this.random() * Math.max(1, to - from));
    if (i >= this.instance.tracks[c]!.length || this.instance.tracks[c]!.standing[i]! >= 0) return false;
    const { first, end, score } = this.instance;
    const able = [...score.keys()].filter((s) => first[c]![s]! <= i && i < end[c]![s]!);
    if (able.length === 0) return false;
    const draw = (): number => able[Math.floor(this.random() * able.length)]!;
    let s = draw();
    for (let n = 1; n < DRAWS; n += 1) {
      const other = draw();
      if (this.prices.gainIn(this.plan, c, i, other) > this.prices.gainIn(this.plan, c, i, s)) s = other;
    }
    if (this.plan.taken[c]![i]! >= 0) this.plan.remove(c, i);
    if (this.plan.where[c]![s]! >= 0) this.plan.remove(c, this.plan.where[c]![s]!);
    if (!this.plan.isOpen(c, i) || !this.plan.mayHave(c, i, s)) return false;
    this.plan.place(c, i, s);
    if (!this.part(c, i, -1) || !this.part(c, i, 1) || this.plan.isTwin(c, i)) {
      if (this.plan.taken[c]![i]! >= 0) this.plan.remove(c, i);
      return false;
    }
    Object.assign(this.plan.pin, { track: c, node: i });
    return true;
  }

  /**
   * Parts a post from a neighbour of its recording by another between them, which may come from elsewhere on the channel;
   * where there is none, the neighbour goes. @returns false where the post cannot stay, or has gone with its neighbour
   */
  private part(c: number, i: number, by: -1 | 1): boolean {
    const { plan } = this;
    const { recording, score } = this.instance;
    const own = recording[plan.taken[c]![i]!]!;
    const other = plan.neighbour(c, i, by);
    if (other < 0 || plan.recordingAt(c, other) !== own) return true;
    const from = Math.floor(this.random() * score.length);
    for (let k = i + by; k !== other; k += by) {
      if (!plan.isOpen(c, k)) continue;
      for (let n = 0; n < score.length; n += 1) {
        const t = (from + n) % score.length;
        if (recording[t] === own) continue;
        const was = plan.where[c]![t]!;
        if (was >= 0) {
          plan.clear(c, was);
          const goes = !plan.hasTwins(c, was) && plan.fits(c, k, t);
          plan.place(c, was, t);
          if (!goes) continue;
          plan.clear(c, was);
        } else if (!plan.fits(c, k, t)) continue;
        plan.place(c, k, t);
        return true;
      }
    }
    if (plan.taken[c]![other]! < 0) return false;
    plan.remove(c, other);
    return plan.taken[c]![i] !== -1 && this.part(c, i, by);
  }

  /** Removes a run of posts of a channel, sometimes of all channels at that time, sometimes only of one recording. */
  ruin(): Hole | null {
    const { tracks } = this.instance;
    const c = Math.floor(this.random() * tracks.length);
    const { length, at } = tracks[c]!;
    if (length === 0) return null;
    const all = this.random() < EVERYTHING;
    const from = all ? 0 : Math.floor(this.random() * length);
    let left = all ? length : 1 + Math.floor(this.random() * 7);
    let to = from;
    const others = all || this.random() < 0.3;
    const recording = !all && this.random() < 0.2 ? this.plan.recordingAt(c, from) : -1;
    for (; to < length && left > 0; to += 1) {
      if (this.plan.taken[c]![to]! < 0 || (recording >= 0 && this.plan.recordingAt(c, to) !== recording)) continue;
      this.plan.remove(c, to);
      left -= 1;
    }
    const hole = { c, from, to };
    if (!others) return hole;
    const until = to < length ? at[to]! : Infinity;
    tracks.forEach((track, other) => {
      if (other === c) return;
      for (let i = 0; i < track.length; i += 1)
        if (track.at[i]! >= at[from]! && track.at[i]! <= until && this.plan.taken[other]![i]! >= 0) this.plan.remove(other, i);
    });
    return hole;
  }
}
