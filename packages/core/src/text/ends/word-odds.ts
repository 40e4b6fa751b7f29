import { HASH_BASIS, hashOn } from '../hash.js';
import { fromText, toText } from '../pack-weights.js';
import { WORD_ODDS } from './word-odds-table.js';

/**
 * What a table of odds is kept by: what a word says alone, before the gap and after it; a pair across the gap; the pairs
 * before and after it; three words across it.
 */
export const ODDS_KINDS = ['before', 'after', 'across', 'pairBefore', 'pairAfter', 'three'] as const;
type OddsKind = (typeof ODDS_KINDS)[number];

/** Number of odds that are read at a gap. */
export const GAP_ODDS = 5;
/** Words that the table does not have: names, numbers, rare words. */
const RARE_BEFORE = -2;
const RARE_AFTER = -1;
/** Odds are kept in tenths; a byte holds 12.7. */
const STEP = 0.1;

/** A table of odds as text: sorted keys as differences, seven bits a byte, and a byte for each value. */
interface PackedOdds {
  readonly keys: string;
  readonly values: string;
}

/** Key of a word or of words in order; one in some 1,500 shares it with another's, which the model bears. */
export function oddsKey(kind: OddsKind, ...words: readonly string[]): number {
  return words.reduce((key, word) => joined(key, hashOf(word)), KIND_SEEDS[kind]);
}

/** @param odds natural log-odds by key, held to 12.7 either way */
export function packOdds(odds: ReadonlyMap<number, number>): PackedOdds {
  const sorted = [...odds].sort(([a], [b]) => a - b);
  const keys: number[] = [];
  let last = 0;
  for (const [key] of sorted) {
    let rest = key - last;
    last = key;
    for (; rest >= 128; rest = Math.floor(rest / 128)) keys.push((rest % 128) + 128);
    keys.push(rest);
  }
  const values = Int8Array.from(sorted, ([, value]) => Math.max(-127, Math.min(127, Math.round(value / STEP))));
  return { keys: toText(Uint8Array.from(keys)), values: toText(new Uint8Array(values.buffer)) };
}

/** Odds looked up by key in constant time (open addressing). */
export class OddsTable {
  private readonly keys: Uint32Array;
  private readonly values: Int8Array;
  private readonly mask: number;

  constructor(packed: PackedOdds) {
    const values = new Int8Array(fromText(packed.values).buffer);
    const size = 2 ** Math.ceil(Math.log2(2 * values.length + 1));
    this.mask = size - 1;
    this.keys = new Uint32Array(size);
    this.values = new Int8Array(size);
    let key = 0;
    let row = 0;
    let step = 0;
    let scale = 1;
    for (const byte of fromText(packed.keys)) {
      step += (byte & 127) * scale;
      scale *= 128;
      if (byte >= 128) continue;
      key += step;
      const at = this.placeOf(key);
      this.keys[at] = key;
      this.values[at] = values[row]!;
      row += 1;
      step = 0;
      scale = 1;
    }
  }

  /** Natural log-odds, or `otherwise` where the table has nothing. */
  get(key: number, otherwise = 0): number {
    const at = this.placeOf(key);
    return this.keys[at] === key ? this.values[at]! * STEP : otherwise;
  }

  /** The place of a key, or the empty one where it would stand; no key is 0. */
  private placeOf(key: number): number {
    let at = key & this.mask;
    while (this.keys[at] !== 0 && this.keys[at] !== key) at = (at + 1) & this.mask;
    return at;
  }
}

let trained: OddsTable | undefined;

/**
 * Reads the odds at gaps between words: how much likelier a sentence ends and another begins there than that it runs on,
 * by a language model of three words in the manner of Stolcke & Shriberg (1996), in natural logarithms. Split in five, so
 * that a fit may weigh them: the word before, the word after, the two across, the pairs on either side, and three across.
 * @param texts normalised words
 */
export function readWordOdds(texts: readonly string[], table = (trained ??= new OddsTable(WORD_ODDS))): (k: number, into: Float32Array) => void {
  const hashes = Uint32Array.from(texts, hashOf);
  const n = texts.length;
  const none = hashOf('');
  const at = (i: number): number => (i >= 0 && i < n ? hashes[i]! : none);
  const two = (kind: OddsKind, i: number): number => table.get(joined(joined(KIND_SEEDS[kind], at(i)), at(i + 1)));
  const three = (i: number): number => table.get(joined(joined(joined(KIND_SEEDS.three, at(i)), at(i + 1)), at(i + 2)));
  return (k, into) => {
    into[0] = table.get(joined(KIND_SEEDS.before, at(k - 1)), RARE_BEFORE);
    into[1] = table.get(joined(KIND_SEEDS.after, at(k)), RARE_AFTER);
    into[2] = two('across', k - 1);
    into[3] = two('pairBefore', k - 2) + two('pairAfter', k);
    into[4] = three(k - 2) + three(k - 1);
  };
}

const KIND_SEEDS = Object.fromEntries(ODDS_KINDS.map((kind, i) => [kind, Math.imul(i + 1, 0x9e3779b1) >>> 0])) as Readonly<Record<OddsKind, number>>;

const hashOf = (word: string): number => hashOn(HASH_BASIS, word) >>> 0;

/** A key with one more word: 28 bits, never 0. */
function joined(key: number, hash: number): number {
  let h = Math.imul(key ^ hash, 0x85ebca6b);
  h = Math.imul(h ^ (h >>> 13), 0xc2b2ae35);
  return ((h ^ (h >>> 16)) & 0x0fffffff) + 1;
}
