import { Arrangement, type Saved } from './arrangement.js';
import { changeShorts, exchange, slotOrder, TIE } from './exchange.js';
import type { Instance } from './instance.js';
import type { Prices } from './prices.js';
import { type Hole, Shaker } from './shake.js';

/** How a slot chooses among the shorts that may go there. */
type Choice = 'by-score' | 'by-gain';

/** How often shorts are seated anew on all their channels. */
const SEATED = 0.15;
/** How much worth, in posts, a plan may be less than the best and still be given a longer look. */
const PROMISING = 1.5;
/** A search of fewer rounds than this has no time for new beginnings, nor for a longer look at what it finds. */
const LONG = 100;
/** How often a longer one does. */
const BEGINNINGS = 5;
/** How much worth, in posts of the usual worth, a plan may be less than the best and still be gone on from. */
const LEEWAY = 0.3;
/** How often a channel is laid out anew by a chain. */
const WOVEN = 0.15;
/** How often a short is pinned where it happens to be put. */
const PINNED = 0.7;

/** A small generator of numbers from 0 to 1 (mulberry32), so that the same problem has the same plan. */
function numbers(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4_294_967_296;
  };
}

/** Makes plans of one client, and makes them better. */
export class Search {
  readonly plan: Arrangement;
  private best: Saved;
  private readonly emptied: Saved;
  private isLong = false;
  private readonly shaker: Shaker;
  private readonly slots: readonly (readonly number[])[];
  private readonly random = numbers(20_260_323);

  constructor(
    private readonly instance: Instance,
    private readonly prices: Prices,
  ) {
    this.plan = new Arrangement(instance);
    this.slots = instance.tracks.map((_, c) => slotOrder(this.plan, c));
    this.shaker = new Shaker(this.plan, prices, this.slots, this.random);
    this.emptied = this.plan.save();
    this.best = this.emptied;
  }

  get bestValue(): number {
    return this.best.value - this.plan.keptValue;
  }

  /** A plan in which what stands is where it is now. */
  beginAsItStands(): void {
    if (this.instance.keeps.every((own) => own.size === 0)) return;
    this.empty();
    this.plan.placeAsItStands();
    this.fill('by-score', 0);
    this.improve();
    this.keep();
  }

  /** Brings the best plan found into `plan`. */
  takeBest(): Arrangement {
    this.plan.restore(this.best);
    return this.plan;
  }

  /**
   * A plan from the chains of the relaxation: at each of their nodes, in order of time, the short that brings most there. So
   * a heavy slot takes a high score and a light one a low score from the first week on, and other channels find every
   * sort among what their leads have had. Then what still fits.
   */
  follow(): void {
    this.empty();
    for (let c = 0; c < this.instance.tracks.length; c += 1) for (const { node } of this.prices.chains[c]!) this.put(c, node, 'by-gain');
    this.fill('by-score', 0);
    this.improve();
    this.keep();
  }

  /**
   * Takes a stretch of the plan away and lays it out anew, so many times (large neighbourhood search, Shaw 1998; a plan a
   * little worse than the best is gone on from, record-to-record, Dueck 1993).
   * @param goal a value that needs no bettering
   */
  refine(times: number, goal: number): void {
    this.isLong = times >= LONG;
    this.plan.restore(this.best);
    let current = this.best;
    for (let n = 0; n < times && this.bestValue < goal - TIE; n += 1) {
      const begins = n > 0 && this.isLong && n % Math.ceil(times / BEGINNINGS) === 0;
      let hole: Hole | null = null;
      const way = this.random();
      if (begins) for (let c = 0; c < this.slots.length; c += 1) this.shaker.weave(c);
      else if (way < WOVEN) this.shaker.weave(Math.floor(this.random() * this.slots.length));
      else if (way < WOVEN + SEATED) this.shaker.reseat();
      else hole = this.shaker.ruin();
      const pinned = hole !== null && this.random() < PINNED && this.shaker.pinIn(hole);
      this.fill(this.random() < 0.5 ? 'by-score' : 'by-gain', this.random() < 0.4 ? 0 : this.random());
      this.improve();
      if (pinned) {
        this.plan.pin.track = -1;
        this.plan.touched.fill(1);
        this.improve();
      }
      const leeway = ((Math.max(0, this.bestValue) * LEEWAY) / Math.max(1, this.plan.count)) * (1 - n / times);
      if (this.plan.value > this.best.value + TIE) {
        this.keep();
        current = this.best;
      } else if (begins || this.plan.value >= current.value - leeway) current = this.plan.save();
      else this.plan.restore(current);
    }
  }

  private empty(): void {
    this.plan.restore(this.emptied);
  }

  private keep(): void {
    if (this.plan.value > this.best.value + TIE) this.best = this.plan.save();
  }

  private improve(): void {
    const seen = this.plan.touched.slice();
    this.exchangeAll('single');
    if (!this.isLong || this.plan.value < this.best.value - (Math.max(0, this.bestValue) * PROMISING) / Math.max(1, this.plan.count)) return;
    this.plan.touched.set(seen);
    this.exchangeAll('chains');
  }

  private exchangeAll(depth: 'single' | 'chains'): void {
    const { touched } = this.plan;
    for (let rounds = 0; rounds < 4; rounds += 1) {
      for (let c = 0; c < this.slots.length; c += 1) {
        if (touched[c] === 0) continue;
        // A lead that moved lets others move.
        if (exchange(this.plan, c, this.slots[c]!, depth) && c === 0) touched.fill(1);
        touched[c] = 0;
      }
      if (this.slots.length === 1 || !changeShorts(this.plan)) break;
    }
    touched.fill(0);
  }

  /** Fills open slots, the heaviest first. @param noise 0 to 1: how far a slot's weight is shaken before they are sorted */
  private fill(choice: Choice, noise: number): void {
    for (let c = 0; c < this.slots.length; c += 1) this.fillTrack(c, choice, noise);
  }

  private fillTrack(c: number, choice: Choice, noise: number): void {
    const { worth } = this.instance.tracks[c]!;
    const open = this.slots[c]!.filter((i) => this.plan.isOpen(c, i));
    if (noise > 0) {
      const shaken = new Map(open.map((i) => [i, worth[i]! * (1 - noise * this.random())]));
      open.sort((a, b) => shaken.get(b)! - shaken.get(a)! || a - b);
    }
    const skipped = 0.4 * noise * this.random();
    for (const i of open) if (skipped === 0 || this.random() >= skipped) this.put(c, i, choice);
  }

  /** Puts the best short that fits at a slot, if any. */
  private put(c: number, i: number, choice: Choice): void {
    if (!this.plan.isOpen(c, i)) return;
    const { score } = this.instance;
    this.plan.lookAround(c, i);
    for (const s of this.instance.keeps[c]!.keys())
      if (this.plan.takes(c, i, s)) {
        this.plan.place(c, i, s);
        return;
      }
    let best = -1;
    let most = choice === 'by-gain' ? TIE : -1;
    for (let s = 0; s < score.length; s += 1) {
      if (choice === 'by-score' && score[s]! <= most) break;
      if (!this.plan.takes(c, i, s)) continue;
      const key = choice === 'by-score' ? score[s]! : this.prices.gainIn(this.plan, c, i, s);
      if (key <= most) continue;
      best = s;
      most = key;
    }
    if (best >= 0) this.plan.place(c, i, best);
  }
}
