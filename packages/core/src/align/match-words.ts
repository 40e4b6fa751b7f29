/** Runs of so many words that stand once on either side are where two texts surely meet; longest first. */
const SURE_RUNS = [4, 3, 2, 1] as const;
/** Cells of a table of all pairs that is still filled in an instant; what is larger and has nothing sure in it was not heard. */
const MOST_CELLS = 4_000_000;

/**
 * Which heard word is which said one: the longest order-keeping match of equal words. Sure places first (runs of words that stand once
 * on either side, in order, as in patience diff), then what lies between them by dynamic programming (Needleman and Wunsch 1970, on
 * equalities alone).
 * @returns for each said word the index of the heard one, or -1; indices rise
 */
export function matchWords(said: readonly string[], heard: readonly string[]): Int32Array {
  const matches = new Int32Array(said.length).fill(-1);
  const open = [{ from: 0, to: said.length, heardFrom: 0, heardTo: heard.length }];
  for (let gap = open.pop(); gap !== undefined; gap = open.pop()) {
    const sure = surePlaces(said, heard, gap);
    if (sure.length === 0) {
      matchAll(said, heard, gap, matches);
      continue;
    }
    let { from, heardFrom } = gap;
    for (const [at, heardAt] of sure) {
      matches[at] = heardAt;
      if (at > from && heardAt > heardFrom) open.push({ from, to: at, heardFrom, heardTo: heardAt });
      [from, heardFrom] = [at + 1, heardAt + 1];
    }
    if (from < gap.to && heardFrom < gap.heardTo) open.push({ from, to: gap.to, heardFrom, heardTo: gap.heardTo });
  }
  return matches;
}

interface Gap {
  readonly from: number;
  readonly to: number;
  readonly heardFrom: number;
  readonly heardTo: number;
}

/** Pairs of a said and a heard word, rising on both sides. */
function surePlaces(said: readonly string[], heard: readonly string[], gap: Gap): (readonly [number, number])[] {
  const { from, to, heardFrom, heardTo } = gap;
  if ((to - from) * (heardTo - heardFrom) <= 2_500) return []; // the table is small and sees more
  for (const run of SURE_RUNS) {
    const heardOnce = standOnce(heard, heardFrom, heardTo, run);
    const pairs = [...standOnce(said, from, to, run)].flatMap(([key, at]) => {
      const heardAt = heardOnce.get(key);
      return heardAt === undefined ? [] : [[at, heardAt] as const];
    });
    const inOrder = longestRising(pairs.sort(([a], [b]) => a - b));
    if (inOrder.length > 0) return fill(inOrder, run);
  }
  return [];
}

/** Runs of words that stand once in a stretch, and where. */
function standOnce(words: readonly string[], from: number, to: number, run: number): Map<string, number> {
  const places = new Map<string, number>();
  for (let i = from; i + run <= to; i += 1) {
    const key = words.slice(i, i + run).join(' ');
    places.set(key, places.has(key) ? -1 : i);
  }
  for (const [key, at] of places) if (at < 0) places.delete(key);
  return places;
}

/** The longest part of pairs whose second numbers rise (Schensted 1961), by patience sorting. */
function longestRising(pairs: readonly (readonly [number, number])[]): (readonly [number, number])[] {
  const tops: number[] = [];
  const before = new Int32Array(pairs.length);
  pairs.forEach(([, value], i) => {
    let [low, high] = [0, tops.length];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (pairs[tops[middle]!]![1] < value) low = middle + 1;
      else high = middle;
    }
    before[i] = low === 0 ? -1 : tops[low - 1]!;
    tops[low] = i;
  });
  const rising: (readonly [number, number])[] = [];
  for (let i = tops.at(-1) ?? -1; i >= 0; i = before[i]!) rising.push(pairs[i]!);
  return rising.reverse();
}

/** Each word of the runs, once. */
function fill(runs: readonly (readonly [number, number])[], run: number): (readonly [number, number])[] {
  const pairs: (readonly [number, number])[] = [];
  for (const [at, heardAt] of runs)
    for (let k = 0; k < run; k += 1) {
      const last = pairs.at(-1);
      if (last === undefined || (at + k > last[0] && heardAt + k > last[1])) pairs.push([at + k, heardAt + k]);
    }
  return pairs;
}

/** All pairs of a gap: the match with the most letters in it. */
function matchAll(said: readonly string[], heard: readonly string[], { from, to, heardFrom, heardTo }: Gap, matches: Int32Array): void {
  const [rows, columns] = [to - from, heardTo - heardFrom];
  if (rows * columns > MOST_CELLS) return;
  const width = columns + 1;
  const best = new Float32Array((rows + 1) * width);
  for (let i = rows - 1; i >= 0; i -= 1)
    for (let j = columns - 1; j >= 0; j -= 1) {
      const word = said[from + i]!;
      const skipped = Math.max(best[(i + 1) * width + j]!, best[i * width + j + 1]!);
      const taken = word === heard[heardFrom + j] && word !== '' ? best[(i + 1) * width + j + 1]! + worth(word) : -1;
      best[i * width + j] = Math.max(skipped, taken);
    }
  for (let i = 0, j = 0; i < rows && j < columns;) {
    const word = said[from + i]!;
    const here = best[i * width + j]!;
    if (word === heard[heardFrom + j] && word !== '' && here === Math.fround(best[(i + 1) * width + j + 1]! + worth(word))) {
      matches[from + i] = heardFrom + j;
      i += 1;
      j += 1;
    } else if (best[(i + 1) * width + j]! >= best[i * width + j + 1]!) i += 1;
    else j += 1;
  }
}

/** A long word is heard in its place rather than by chance. */
const worth = (word: string): number => 1 + Math.min(8, word.length);
