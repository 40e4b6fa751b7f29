import type { Arrangement } from './arrangement.js';

/** Differences under this are ties. */
export const TIE = 1e-9;

/** The slots of a channel, heaviest first and then earliest; its shorts go best first as they are. */
export function slotOrder({ instance }: Arrangement, c: number): number[] {
  const { worth, standing } = instance.tracks[c]!;
  return [...worth.keys()].filter((i) => standing[i]! < 0).sort((a, b) => worth[b]! - worth[a]! || a - b);
}

/**
 * Exchanges on one channel until none of them makes the plan better, or as good and earlier.
 * @param depth `chains` looks for two moves together as well, which takes as long as all the rest
 * @returns whether any did
 */
export function exchange(plan: Arrangement, c: number, slots: readonly number[], depth: 'single' | 'chains'): boolean {
  let changed = false;
  for (let rounds = 0; rounds < 20; rounds += 1) {
    const moved = moveUp(plan, c, slots);
    const better = takeBetter(plan, c, slots);
    const swapped = swap(plan, c, slots);
    if (!moved && !better && !swapped && (depth === 'single' || !shift(plan, c, slots))) return changed;
    changed = true;
  }
  return changed;
}

/** Moves posts to heavier empty slots, and to earlier ones of the same weight. */
function moveUp(plan: Arrangement, c: number, slots: readonly number[]): boolean {
  const { worth } = plan.instance.tracks[c]!;
  let changed = false;
  for (const from of slots) {
    const s = plan.taken[c]![from]!;
    if (s < 0 || plan.isPinned(c, from)) continue;
    const score = plan.instance.score[s]!;
    let open = false;
    for (const to of slots) {
      const gain = score * (worth[to]! - worth[from]!);
      if (gain < -TIE) break;
      if (plan.taken[c]![to]! >= 0 || (gain <= TIE && to >= from)) continue;
      if (!open) {
        plan.clear(c, from);
        open = true;
      }
      if (!plan.fits(c, to, s)) continue;
      plan.place(c, to, s);
      if (!plan.hasTwins(c, from)) {
        open = false;
        changed = true;
        break;
      }
      plan.clear(c, to);
    }
    if (open) plan.place(c, from, s);
  }
  return changed;
}

/** Puts a better short, which the channel has not, in the place of a lesser, and any in an empty slot. */
function takeBetter(plan: Arrangement, c: number, slots: readonly number[]): boolean {
  const { score, first, end } = plan.instance;
  const { worth } = plan.instance.tracks[c]!;
  const where = plan.where[c]!;
  let spare: number[] = [];
  const readSpare = (): void => {
    spare = [];
    for (let s = 0; s < score.length; s += 1) if (where[s]! < 0 && first[c]![s]! < end[c]![s]!) spare.push(s);
    // Those that keep a place come before any that is better.
    if (plan.instance.keeps[c]!.size > 0) spare.sort((a, b) => Number(plan.keeps(c, b)) - Number(plan.keeps(c, a)) || a - b);
  };
  readSpare();
  let changed = false;
  for (const i of slots) {
    if (spare.length === 0) return changed;
    const own = plan.taken[c]![i]!;
    const least = own < 0 ? 0 : score[own]!;
    const isMore = (s: number): boolean => plan.keeps(c, s) || score[s]! > least + TIE;
    if (own >= 0 && plan.keeps(c, own)) continue;
    if (worth[i]! === 0 || plan.isPinned(c, i) || !isMore(spare[0]!) || (own < 0 ? !plan.isOpen(c, i) : plan.isLeaned(c, own))) continue;
    if (own >= 0) plan.clear(c, i);
    plan.lookAround(c, i);
    let better = -1;
    for (const s of spare) {
      if (!isMore(s)) break;
      if (!plan.takes(c, i, s)) continue;
      better = s;
      break;
    }
    if (better < 0) {
      if (own >= 0) plan.place(c, i, own);
      continue;
    }
    plan.place(c, i, better);
    readSpare();
    changed = true;
  }
  return changed;
}

/** Lets two posts change places where the better comes to the heavier slot. */
function swap(plan: Arrangement, c: number, slots: readonly number[]): boolean {
  const { score, first, end } = plan.instance;
  const { worth } = plan.instance.tracks[c]!;
  const used = slots.filter((i) => plan.taken[c]![i]! >= 0 && !plan.isPinned(c, i));
  let changed = false;
  for (let x = 0; x < used.length; x += 1) {
    const i = used[x]!;
    for (let y = x + 1; y < used.length; y += 1) {
      const j = used[y]!;
      const [a, b] = [plan.taken[c]![i]!, plan.taken[c]![j]!];
      if ((score[b]! - score[a]!) * (worth[i]! - worth[j]!) <= TIE) continue;
      if (j < first[c]![a]! || j >= end[c]![a]! || i < first[c]![b]! || i >= end[c]![b]!) continue;
      if (changePlaces(plan, c, i, j)) changed = true;
    }
  }
  return changed;
}

/** Moves a post to an open slot, even a lighter one, where a short that the channel has not takes its place and is worth more. */
function shift(plan: Arrangement, c: number, slots: readonly number[]): boolean {
  const { score, first, end, recording } = plan.instance;
  const { worth } = plan.instance.tracks[c]!;
  const where = plan.where[c]!;
  const open = slots.filter((i) => plan.isOpen(c, i));
  if (open.length === 0) return false;
  const spare = [...score.keys()].filter((s) => where[s]! < 0 && first[c]![s]! < end[c]![s]!);
  if (spare.length === 0) return false;
  for (const i of slots) {
    const s = plan.taken[c]![i]!;
    if (s < 0 || plan.isPinned(c, i)) continue;
    const most = spare.find((t) => first[c]![t]! <= i && i < end[c]![t]! && recording[t] !== recording[s]);
    if (most === undefined) continue;
    for (const to of open) {
      const loss = score[s]! * (worth[i]! - worth[to]!);
      if (loss >= score[most]! * worth[i]! - TIE) break;
      if (to < first[c]![s]! || to >= end[c]![s]!) continue;
      plan.clear(c, i);
      if (plan.fits(c, to, s)) {
        plan.place(c, to, s);
        plan.lookAround(c, i);
        const other = plan.isOpen(c, i) ? spare.find((t) => plan.takes(c, i, t)) : undefined;
        if (other !== undefined && score[other]! * worth[i]! > loss + TIE) {
          plan.place(c, i, other);
          return true;
        }
        plan.clear(c, to);
      }
      plan.place(c, i, s);
    }
  }
  return false;
}

/** Lets the shorts of two nodes change places, where the rules let them. */
export function changePlaces(plan: Arrangement, c: number, i: number, j: number): boolean {
  const a = plan.clear(c, i);
  const b = plan.clear(c, j);
  if (plan.fits(c, i, b)) {
    plan.place(c, i, b);
    if (plan.fits(c, j, a)) {
      plan.place(c, j, a);
      return true;
    }
    plan.clear(c, i);
  }
  plan.place(c, i, a);
  plan.place(c, j, b);
  return false;
}

/**
 * Lets two shorts change all their places on all channels, where the better comes to the heavier ones together; of each
 * the lead still goes first. One of them may have none.
 */
export function changeShorts(plan: Arrangement): boolean {
  const { score, tracks } = plan.instance;
  const heft = (s: number): number => tracks.reduce((sum, { worth }, c) => sum + (plan.where[c]![s]! < 0 ? 0 : worth[plan.where[c]![s]!]!), 0);
  const hefts = Float64Array.from(score, (_, s) => heft(s));
  let changed = false;
  for (let a = 0; a < score.length; a += 1)
    for (let b = a + 1; b < score.length; b += 1) {
      if ((score[a]! - score[b]!) * (hefts[b]! - hefts[a]!) <= TIE || !tradeAll(plan, a, b)) continue;
      [hefts[a], hefts[b]] = [hefts[b]!, hefts[a]!];
      changed = true;
    }
  return changed;
}

function tradeAll(plan: Arrangement, a: number, b: number): boolean {
  const { tracks, lead, first, end } = plan.instance;
  if (lead[a] !== lead[b]) return false;
  const pinned = plan.pin.track < 0 ? -1 : plan.taken[plan.pin.track]![plan.pin.node]!;
  if (pinned === a || pinned === b) return false;
  const places = tracks.map((_, c) => [plan.where[c]![a]!, plan.where[c]![b]!] as const);
  const inTime = (c: number, i: number, s: number): boolean => i < 0 || (first[c]![s]! <= i && i < end[c]![s]!);
  if (!places.every(([ofA, ofB], c) => inTime(c, ofA, b) && inTime(c, ofB, a))) return false;
  if (places.some(([ofA, ofB], c) => (ofB < 0 && plan.keeps(c, a)) || (ofA < 0 && plan.keeps(c, b)))) return false;
  places.forEach(([ofA, ofB], c) => {
    if (ofA >= 0) plan.clear(c, ofA);
    if (ofB >= 0) plan.clear(c, ofB);
  });
  const done: (readonly [number, number])[] = [];
  const put = (c: number, i: number, s: number): boolean => {
    if (i < 0) return true;
    if (!plan.fits(c, i, s)) return false;
    plan.place(c, i, s);
    done.push([c, i]);
    return true;
  };
  const order = [...tracks.keys()].sort((x, y) => Number(y === lead[a]) - Number(x === lead[a]));
  if (order.every((c) => put(c, places[c]![0], b) && put(c, places[c]![1], a))) return true;
  for (const [c, i] of done) plan.clear(c, i);
  places.forEach(([ofA, ofB], c) => {
    if (ofA >= 0) plan.place(c, ofA, a);
    if (ofB >= 0) plan.place(c, ofB, b);
  });
  return false;
}
