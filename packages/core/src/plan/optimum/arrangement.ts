import type { Instance } from './instance.js';

const EMPTY = -1;
/** What it counts that a short which keeps a place has one: more than all else together. */
const KEPT = 1e5;

/**
 * Posts of one client as they are laid out so far; every rule holds at every moment. Shorts, tracks and nodes go by their
 * index in the instance.
 */
export class Arrangement {
  /** By track and node: the short there, or −1. */
  readonly taken: readonly Int32Array[];
  /** By track and short: its node, or −1. */
  readonly where: readonly Int32Array[];
  private readonly dayUsed: readonly Int32Array[];
  private readonly weekUsed: readonly Int32Array[];
  private left = -1;
  private right = -1;
  /** Recordings of further posts that stand at the instant of a neighbour: all of those are neighbours. */
  private readonly tied: number[] = [];
  /** By track: 1 where a post came or went since this was last set to 0. */
  readonly touched: Uint8Array;
  /** A node whose short no exchange may move; none where `track` is −1. */
  readonly pin = { track: -1, node: -1 };
  /** Σ score × weight / 100, and `KEPT` for each that keeps its place. */
  value = 0;
  /** What of `value` is for places kept, once all are. */
  readonly keptValue: number;

  constructor(readonly instance: Instance) {
    this.taken = instance.tracks.map((track) => new Int32Array(track.length).fill(EMPTY));
    this.where = instance.tracks.map(() => new Int32Array(instance.shorts.length).fill(EMPTY));
    this.touched = new Uint8Array(instance.tracks.length);
    this.keptValue = KEPT * instance.keeps.reduce((sum, keeps) => sum + keeps.size, 0);
    this.dayUsed = instance.tracks.map((track) => new Int32Array(track.dayRoom.length));
    this.weekUsed = instance.tracks.map((track) => new Int32Array(track.weekRoom.length));
  }

  /** What a short brings at a node. */
  worth(c: number, i: number, s: number): number {
    return this.instance.score[s]! * this.instance.tracks[c]!.worth[i]!;
  }

  /** True where a short keeps a place on a track. */
  keeps(c: number, s: number): boolean {
    return this.keptValue > 0 && this.instance.keeps[c]!.has(s);
  }

  /** Puts every short that keeps a place where it stands now, in an empty plan. @returns whether all of them fit there together */
  placeAsItStands(): boolean {
    const { keeps } = this.instance;
    const left = (): number => keeps.reduce((sum, own, c) => sum + [...own].filter(([s, node]) => node >= 0 && this.where[c]![s] === EMPTY).length, 0);
    // A lead comes before its others, on whatever track it is.
    for (let before = Infinity; left() < before;) {
      before = left();
      keeps.forEach((own, c) => {
        for (const [s, node] of own) if (node >= 0 && this.fits(c, node, s)) this.place(c, node, s);
      });
    }
    return left() === 0;
  }

  /** True where nothing speaks against a short at an empty node. */
  fits(c: number, i: number, s: number): boolean {
    if (!this.reaches(c, i, s) || !this.isOpen(c, i)) return false;
    this.lookAround(c, i);
    return this.takes(c, i, s);
  }

  /** As `fits`, whatever else the channel has: its time and its lead let the short have the node. */
  mayHave(c: number, i: number, s: number): boolean {
    return this.reaches(c, i, s) && this.isAfterLead(c, i, s);
  }

  /** Removes one of any two in a row of one recording, of which at least one was placed. */
  removeTwins(c: number): void {
    for (let i = 0; i < this.instance.tracks[c]!.length; i += 1) {
      if (this.taken[c]![i] !== EMPTY && this.isTwin(c, i)) this.remove(c, i);
    }
  }

  /** True where what was placed at a node stands next to its own recording. */
  isTwin(c: number, i: number): boolean {
    this.lookAround(c, i);
    return this.isBeside(this.recordingAt(c, i));
  }

  /** True where a short has not been placed on a track, and the node lies in its time. */
  private reaches(c: number, i: number, s: number): boolean {
    const { first, end } = this.instance;
    return first[c]![s]! <= i && i < end[c]![s]! && this.where[c]![s] === EMPTY;
  }

  /** As `fits`, for a node that is open and was looked around last. */
  takes(c: number, i: number, s: number): boolean {
    return this.takesAfterLead(c, i, s) && this.isAfterLead(c, i, s);
  }

  /** As `takes`, wherever the short's lead will be. */
  takesAfterLead(c: number, i: number, s: number): boolean {
    return !this.isBeside(this.instance.recording[s]!) && this.reaches(c, i, s);
  }

  /** True where a post of a recording stands on a side of the node that was looked around last. */
  isBeside(recording: number): boolean {
    return recording === this.left || recording === this.right || this.isTied(recording);
  }

  /** Reads the recordings on both sides of a node, for `takes`. */
  lookAround(c: number, i: number): void {
    this.tied.length = 0;
    this.left = this.besides(c, i, -1);
    this.right = this.besides(c, i, 1);
  }

  private isTied(recording: number): boolean {
    return this.tied.length > 0 && this.tied.includes(recording);
  }

  private besides(c: number, i: number, by: -1 | 1): number {
    const j = this.neighbour(c, i, by);
    if (j < 0) return -1;
    const { at, standing, length } = this.instance.tracks[c]!;
    for (let k = j + by; k >= 0 && k < length && at[k] === at[j] && standing[k]! >= 0; k += by) this.tied.push(standing[k]!);
    return this.recordingAt(c, j);
  }

  /** True for an empty slot that its day, its week and the gap leave open. */
  isOpen(c: number, i: number): boolean {
    const track = this.instance.tracks[c]!;
    if (this.taken[c]![i] !== EMPTY || track.standing[i]! >= 0 || !this.hasRoom(c, i)) return false;
    const at = track.at[i]!;
    for (let j = i - 1; j >= 0 && at - track.at[j]! < track.gapMs; j -= 1) if (this.taken[c]![j] !== EMPTY) return false;
    for (let j = i + 1; j < track.length && track.at[j]! - at < track.gapMs; j += 1) if (this.taken[c]![j] !== EMPTY) return false;
    return true;
  }

  hasRoom(c: number, i: number): boolean {
    const { day, week, dayRoom, weekRoom } = this.instance.tracks[c]!;
    return this.dayUsed[c]![day[i]!]! < dayRoom[day[i]!]! && this.weekUsed[c]![week[i]!]! < weekRoom[week[i]!]!;
  }

  /** Recording of what is at a node, or −1. */
  recordingAt(c: number, i: number): number {
    const s = this.taken[c]![i]!;
    return s === EMPTY ? this.instance.tracks[c]!.standing[i]! : this.instance.recording[s]!;
  }

  /** True where the short's lead comes early enough, and, on the lead itself, its other posts late enough. */
  private isAfterLead(c: number, i: number, s: number): boolean {
    const { lead, leadAt, tracks, crossMs } = this.instance;
    const at = tracks[c]!.at[i]!;
    const l = lead[s]!;
    if (c !== l) {
      if (!Number.isNaN(leadAt[s])) return true; // its first node is late enough
      const node = this.where[l]![s]!;
      return node !== EMPTY && tracks[l]!.at[node]! + crossMs <= at;
    }
    for (let other = 0; other < tracks.length; other += 1) {
      const node = other === c ? EMPTY : this.where[other]![s]!;
      if (node !== EMPTY && tracks[other]!.at[node]! < at + crossMs) return false;
    }
    return true;
  }

  isPinned(c: number, i: number): boolean {
    return this.pin.track === c && this.pin.node === i;
  }

  /** True where the short stands on another channel that waits for this post of it. */
  isLeaned(c: number, s: number): boolean {
    return c === this.instance.lead[s] && this.where.some((where, other) => other !== c && where[s] !== EMPTY);
  }

  /** How many posts there are. */
  get count(): number {
    return this.where.reduce((sum, where) => sum + where.reduce((own, node) => own + Number(node !== EMPTY), 0), 0);
  }

  place(c: number, i: number, s: number): void {
    const { day, week } = this.instance.tracks[c]!;
    this.touched[c] = 1;
    this.taken[c]![i] = s;
    this.where[c]![s] = i;
    this.dayUsed[c]![day[i]!]! += 1;
    this.weekUsed[c]![week[i]!]! += 1;
    this.value += this.worth(c, i, s) + (this.keeps(c, s) ? KEPT : 0);
  }

  /** Takes what is at a node away. The caller sees to posts that lean on it. @returns the short that was there */
  clear(c: number, i: number): number {
    const { day, week } = this.instance.tracks[c]!;
    const s = this.taken[c]![i]!;
    this.touched[c] = 1;
    this.taken[c]![i] = EMPTY;
    this.where[c]![s] = EMPTY;
    this.dayUsed[c]![day[i]!]! -= 1;
    this.weekUsed[c]![week[i]!]! -= 1;
    this.value -= this.worth(c, i, s) + (this.keeps(c, s) ? KEPT : 0);
    return s;
  }

  /**
   * Takes a post away with all that leans on it: where it is a lead, the short's other posts; and, where its neighbours are
   * then two in a row of one recording, the later of them that may go.
   */
  remove(c: number, i: number): void {
    const s = this.clear(c, i);
    if (c === this.instance.lead[s] && Number.isNaN(this.instance.leadAt[s]))
      this.where.forEach((where, other) => {
        if (where[s] !== EMPTY) this.remove(other, where[s]!);
      });
    this.mendHole(c, i);
  }

  /** True where the two neighbours of an empty node are of one recording, and at least one of them was placed. */
  hasTwins(c: number, i: number): boolean {
    const before = this.neighbour(c, i, -1);
    const after = this.neighbour(c, i, 1);
    if (before < 0 || after < 0) return false;
    const isPlaced = this.taken[c]![before] !== EMPTY;
    if (!isPlaced && this.taken[c]![after] === EMPTY) return false;
    this.lookAround(c, i);
    return this.left === this.right || this.isTied(isPlaced ? this.left : this.right);
  }

  private mendHole(c: number, i: number): void {
    if (!this.hasTwins(c, i)) return;
    const after = this.neighbour(c, i, 1);
    this.remove(c, this.taken[c]![after] === EMPTY ? this.neighbour(c, i, -1) : after);
  }

  /** The next node with a post, in a direction; −1 for none. */
  neighbour(c: number, i: number, by: -1 | 1): number {
    const { length } = this.instance.tracks[c]!;
    for (let j = i + by; j >= 0 && j < length; j += by) if (this.recordingAt(c, j) >= 0) return j;
    return EMPTY;
  }

  save(): Saved {
    return { arrays: this.arrays().map((array) => array.slice()), value: this.value };
  }

  restore({ arrays, value }: Saved): void {
    this.arrays().forEach((array, i) => array.set(arrays[i]!));
    this.value = value;
  }

  private arrays(): Int32Array[] {
    return [...this.taken, ...this.where, ...this.dayUsed, ...this.weekUsed];
  }
}

export interface Saved {
  readonly arrays: readonly Int32Array[];
  readonly value: number;
}
