import type { Track } from './tracks.js';

/** A recording at a node of a track, both by index. */
export interface Pick {
  readonly node: number;
  readonly recording: number;
}

const NONE = -1;
/** States of one channel that are told apart. With more, days are not counted, and then weeks neither: the bound stays one. */
const MOST_STATES = 200_000;

/**
 * The best chain of recordings on one channel, where each recording has a price at each node: the rules of the channel hold
 * (a day's and a week's posts, the gap, never one recording twice in a row, posts that stand on both sides); which shorts
 * there are does not matter. Exact, by dynamic programming over the nodes in order of time.
 *
 * A state is the node that was used last, with the posts of its week and of its day so far. It keeps its two best ways that
 * end on different recordings, and a slot its three best recordings: whatever stands next, the best way that may precede it
 * is among two, and the two best that can end here come from three.
 */
export class ChainSearch {
  private readonly n: number;
  private readonly weekly: number;
  private readonly daily: number;
  private readonly countsWeeks: boolean;
  private readonly countsDays: boolean;
  /** By entry: value, the last recording, whether a new post ends it, the entry before. */
  private readonly value: Float64Array;
  private readonly recording: Int32Array;
  private readonly isNew: Uint8Array;
  private readonly previous: Int32Array;
  private readonly start: number;
  /** Two entries each: of all nodes up to one, and of those of its week with so many posts. */
  private readonly upTo: Int32Array;
  private readonly inWeek: Int32Array;
  private readonly dayStart: Int32Array;
  private readonly weekStart: Int32Array;
  /** The last node that lies at least the gap before; −1 where there is none. */
  private readonly before: Int32Array;
  private readonly top: Int32Array;
  private readonly topGain: Float64Array;
  private first = NONE;
  private second = NONE;

  /** @param recordings how many there are that new posts may be of; they go by their index */
  constructor(
    private readonly track: Track,
    private readonly recordings: number,
  ) {
    this.n = track.length;
    const inDay = countBy(track, track.day, track.dayRoom.length);
    const inWeek = countBy(track, track.week, track.weekRoom.length);
    const daily = Math.max(1, ...inDay.map((slots, day) => Math.min(slots, track.dayRoom[day]!)));
    const weekly = Math.max(1, ...inWeek.map((slots, week) => Math.min(slots, track.weekRoom[week]!)));
    const countsWeeks = inWeek.some((slots, week) => slots > track.weekRoom[week]!);
    this.countsWeeks = countsWeeks && this.n * (weekly + 1) <= MOST_STATES;
    this.weekly = this.countsWeeks ? weekly : 0;
    this.countsDays = inDay.some((slots, day) => slots > track.dayRoom[day]!) && this.n * (this.weekly + 1) * (daily + 1) <= MOST_STATES;
    this.daily = this.countsDays ? daily : 0;
    const entries = this.n * (this.weekly + 1) * (this.daily + 1) * 2 + 1;
    this.value = new Float64Array(entries);
    this.recording = new Int32Array(entries);
    this.isNew = new Uint8Array(entries);
    this.previous = new Int32Array(entries);
    this.start = entries - 1;
    this.recording[this.start] = NONE;
    this.previous[this.start] = NONE;
    this.upTo = new Int32Array((this.n + 1) * 2);
    this.inWeek = new Int32Array(this.n * (this.weekly + 1) * 2);
    this.dayStart = startsOf(track.day);
    this.weekStart = startsOf(track.week);
    this.before = new Int32Array(this.n);
    for (let i = 0, j = -1; i < this.n; i += 1) {
      while (track.at[j + 1]! <= track.at[i]! - track.gapMs) j += 1;
      this.before[i] = j;
    }
    this.top = new Int32Array(this.n * 3);
    this.topGain = new Float64Array(this.n * 3);
  }

  /**
   * The chain of greatest gain; where states are too many to count days and weeks, one that may overfill them.
   * @param gain what a recording brings at a node, by recording and then by node; nothing below 0 is taken for it
   */
  best(gain: Float64Array, into: Pick[]): number {
    const { track } = this;
    this.findTop(gain);
    this.value.fill(-Infinity);
    this.value[this.start] = 0;
    this.upTo[0] = this.start;
    this.upTo[1] = NONE;
    let standing = -1;
    for (let i = 0; i < this.n; i += 1) {
      if (track.standing[i]! >= 0) {
        this.stand(i, standing);
        standing = i;
      } else this.fill(i, standing);
      this.gather(i, standing === i);
    }
    into.length = 0;
    const end = this.upTo[this.n * 2]!;
    const perNode = (this.weekly + 1) * (this.daily + 1) * 2;
    for (let entry = end; entry !== NONE && entry !== this.start; entry = this.previous[entry]!)
      if (this.isNew[entry] === 1) into.push({ node: Math.floor(entry / perNode), recording: this.recording[entry]! });
    into.reverse();
    return end === NONE ? 0 : this.value[end]!;
  }

  private entry(i: number, k: number, d: number): number {
    return ((i * (this.weekly + 1) + k) * (this.daily + 1) + d) * 2;
  }

  /** The three best recordings at each slot. */
  private findTop(gain: Float64Array): void {
    const { top, topGain, n } = this;
    top.fill(NONE);
    topGain.fill(-Infinity);
    for (let r = 0; r < this.recordings; r += 1) {
      for (let i = 0, at = 0; i < n; i += 1, at += 3) {
        const g = gain[r * n + i]!;
        if (g < 0 || g <= topGain[at + 2]!) continue;
        let place = at + 2;
        while (place > at && g > topGain[place - 1]!) {
          topGain[place] = topGain[place - 1]!;
          top[place] = top[place - 1]!;
          place -= 1;
        }
        topGain[place] = g;
        top[place] = r;
      }
    }
  }

  /** Takes an entry among the two best that end on different recordings. */
  private offer(entry: number): void {
    if (entry === NONE || this.value[entry]! === -Infinity) return;
    const v = this.value[entry]!;
    const { first, second } = this;
    if (first === NONE) this.first = entry;
    else if (this.recording[entry] === this.recording[first]) {
      if (v > this.value[first]!) this.first = entry;
    } else if (v > this.value[first]!) {
      this.second = first;
      this.first = entry;
    } else if (second === NONE || v > this.value[second]!) this.second = entry;
  }

  private offerPool(pool: Int32Array, at: number): void {
    this.offer(pool[at]!);
    this.offer(pool[at + 1]!);
  }

  /** The states of a slot. @param standing the last post that stands before it, which no way may leave out; −1 for none */
  private fill(i: number, standing: number): void {
    const { track } = this;
    const latest = this.before[i]!;
    const k0 = this.countsWeeks ? 1 : 0;
    const d0 = this.countsDays ? 1 : 0;
    const maxK = this.countsWeeks ? Math.min(this.weekly, track.weekRoom[track.week[i]!]!) : 0;
    const maxD = this.countsDays ? Math.min(this.daily, track.dayRoom[track.day[i]!]!) : 0;
    for (let k = k0; k <= maxK; k += 1)
      for (let d = d0; d <= maxD; d += 1) {
        this.first = NONE;
        this.second = NONE;
        if (d === d0) {
          const weekBefore = Math.min(latest, this.weekStart[i]! - 1);
          if (k === k0 && weekBefore >= standing) this.offerPool(this.upTo, (weekBefore + 1) * 2);
          const dayBefore = Math.min(latest, this.dayStart[i]! - 1);
          if (dayBefore >= this.weekStart[i]! && dayBefore >= standing) this.offerPool(this.inWeek, (dayBefore * (this.weekly + 1) + k - k0) * 2);
        }
        for (let j = Math.max(this.dayStart[i]!, standing); j <= latest; j += 1) {
          const entry = this.entry(j, k - k0, d - d0);
          this.offer(entry);
          this.offer(entry + 1);
        }
        if (this.first !== NONE) this.extend(i, this.entry(i, k, d));
      }
  }

  /** The two best ways that end on different recordings at a slot, out of the two best before it. */
  private extend(i: number, entry: number): void {
    const { first, second, top, topGain, value, recording } = this;
    for (let t = i * 3; t < i * 3 + 3; t += 1) {
      const r = top[t]!;
      if (r === NONE) return;
      const from = recording[first] === r ? second : first;
      if (from === NONE) continue;
      const v = topGain[t]! + value[from]!;
      if (v > value[entry]!) {
        this.copy(entry, entry + 1);
        this.set(entry, v, r, 1, from);
      } else if (v > value[entry + 1]!) this.set(entry + 1, v, r, 1, from);
    }
  }

  private set(entry: number, value: number, recording: number, isNew: 0 | 1, previous: number): void {
    this.value[entry] = value;
    this.recording[entry] = recording;
    this.isNew[entry] = isNew;
    this.previous[entry] = previous;
  }

  private copy(from: number, to: number): void {
    this.set(to, this.value[from]!, this.recording[from]!, 1, this.previous[from]!);
  }

  /** The states of a post that stands: it is passed by every way, and counts for nothing (its day's and week's room is less by it). */
  private stand(i: number, standing: number): void {
    const { track } = this;
    const r = track.standing[i]!;
    for (let k = 0; k <= this.weekly; k += 1)
      for (let d = 0; d <= this.daily; d += 1) {
        this.first = NONE;
        this.second = NONE;
        let direct = NONE; // from the post that stands before it, whatever both are of
        const consider = (entry: number): void => {
          this.offer(entry);
          if (entry !== NONE && this.isNew[entry] === 0 && this.value[entry]! > (direct === NONE ? -Infinity : this.value[direct]!)) direct = entry;
        };
        if (d === 0) {
          const weekBefore = this.weekStart[i]! - 1;
          if (k === 0 && weekBefore >= standing) {
            this.offerPool(this.upTo, (weekBefore + 1) * 2);
            if (standing < 0) consider(this.start);
            else for (let kk = 0; kk <= this.weekly; kk += 1) for (let dd = 0; dd <= this.daily; dd += 1) consider(this.entry(standing, kk, dd));
          }
          const dayBefore = this.dayStart[i]! - 1;
          if (dayBefore >= this.weekStart[i]! && dayBefore >= standing) {
            this.offerPool(this.inWeek, (dayBefore * (this.weekly + 1) + k) * 2);
            if (standing >= this.weekStart[i]!) for (let dd = 0; dd <= this.daily; dd += 1) consider(this.entry(standing, k, dd));
          }
        }
        for (let j = Math.max(this.dayStart[i]!, standing); j < i; j += 1) {
          const entry = this.entry(j, k, d);
          consider(entry);
          consider(entry + 1);
        }
        const other = this.first !== NONE && this.recording[this.first] === r ? this.second : this.first;
        const from = other === NONE || (direct !== NONE && this.value[direct]! >= this.value[other]!) ? direct : other;
        if (from !== NONE) this.set(this.entry(i, k, d), this.value[from]!, r, 0, from);
      }
  }

  /** Brings the pools up to a node; a post that stands begins them anew. */
  private gather(i: number, isStanding: boolean): void {
    const at = (i + 1) * 2;
    this.first = isStanding ? NONE : this.upTo[i * 2]!;
    this.second = isStanding ? NONE : this.upTo[i * 2 + 1]!;
    for (let k = 0; k <= this.weekly; k += 1)
      for (let d = 0; d <= this.daily; d += 1) {
        const entry = this.entry(i, k, d);
        this.offer(entry);
        this.offer(entry + 1);
      }
    this.upTo[at] = this.first;
    this.upTo[at + 1] = this.second;
    for (let k = 0; k <= this.weekly; k += 1) {
      const goesOn = !isStanding && this.weekStart[i]! < i;
      this.first = goesOn ? this.inWeek[((i - 1) * (this.weekly + 1) + k) * 2]! : NONE;
      this.second = goesOn ? this.inWeek[((i - 1) * (this.weekly + 1) + k) * 2 + 1]! : NONE;
      for (let d = 0; d <= this.daily; d += 1) {
        const entry = this.entry(i, k, d);
        this.offer(entry);
        this.offer(entry + 1);
      }
      this.inWeek[(i * (this.weekly + 1) + k) * 2] = this.first;
      this.inWeek[(i * (this.weekly + 1) + k) * 2 + 1] = this.second;
    }
  }
}

/** Slots of each day or week. */
function countBy(track: Track, group: Int32Array, groups: number): number[] {
  const counts = Array.from({ length: groups }, () => 0);
  for (let i = 0; i < track.length; i += 1) if (track.standing[i]! < 0) counts[group[i]!]! += 1;
  return counts;
}

/** For each node the first of its group, where groups lie together. */
function startsOf(group: Int32Array): Int32Array {
  const starts = new Int32Array(group.length);
  for (let i = 1; i < group.length; i += 1) starts[i] = group[i] === group[i - 1] ? starts[i - 1]! : i;
  return starts;
}
