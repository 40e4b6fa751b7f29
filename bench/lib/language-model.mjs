// The English language model of Debian's pocketsphinx-en-us (0.8+5prealpha+1-15; BSD-2-Clause, Carnegie Mellon University and
// Alpha Cephei Inc.): 72,547 words, 2 million pairs and 1.7 million threes of them, with where sentences begin and end. Its
// file is a bit-packed trie keyed by the last word first, as in Heafield (2011), with quantised probabilities.
import { readFileSync } from 'node:fs';
import { needDebian } from '../../scripts/lib/packages.mjs';

const FILE = '/usr/share/pocketsphinx/model/en-us/en-us.lm.bin';
const HEAD = 'Trie Language Model';
const BINS = 65_536;
/** The file's logarithms are to the base 1.0001. */
const toNatural = (value) => value * Math.log(1.0001);

export async function readLanguageModel() {
  await needDebian(['pocketsphinx-en-us']);
  const file = readFileSync(FILE);
  if (file.toString('latin1', 0, HEAD.length) !== HEAD || file[HEAD.length] !== 3) throw new Error(`${FILE}: not a language model of three words`);
  let at = HEAD.length + 1;
  const counts = [0, 1, 2].map((i) => file.readUInt32LE(at + 4 * i));
  at += 16; // the counts, and a number that says nothing
  const floats = () => {
    const values = Float64Array.from({ length: BINS }, (_, i) => toNatural(file.readFloatLE(at + 4 * i)));
    at += 4 * BINS;
    return values;
  };
  const [pairProb, pairBackoff, threeProb] = [floats(), floats(), floats()];
  const words = { at, bytes: 12 };
  at += words.bytes * (counts[0] + 1);
  const bitsFor = (n) => Math.floor(Math.log2(n)) + 1;
  const wordBits = bitsFor(counts[0]);
  const nextBits = bitsFor(counts[2]);
  const layer = (entryBits, n) => {
    const start = at;
    at += Math.floor(((n + 1) * entryBits + 7) / 8) + 8;
    return (row, offset, bits) => {
      const bit = row * entryBits + offset;
      return Number((file.readBigUInt64LE(start + Math.floor(bit / 8)) >> BigInt(bit % 8)) & ((1n << BigInt(bits)) - 1n));
    };
  };
  const pair = layer(wordBits + 32 + nextBits, counts[1]);
  const three = layer(wordBits + 16, counts[2]);
  const names = file
    .toString('latin1', at + 4, at + 4 + file.readUInt32LE(at))
    .split('\0')
    .slice(0, counts[0]);
  const ids = new Map(names.map((name, id) => [name, id]));

  const prob = (w) => toNatural(file.readFloatLE(words.at + words.bytes * w));
  const backoff = (w) => toNatural(file.readFloatLE(words.at + words.bytes * w + 4));
  const firstPair = (w) => file.readUInt32LE(words.at + words.bytes * w + 8);
  const pairAt = (row) => ({
    row,
    before: pair(row, 0, wordBits),
    backoff: pairBackoff[pair(row, wordBits, 16)],
    prob: pairProb[pair(row, wordBits + 16, 16)],
  });
  /** The entry of `before w`, or undefined. */
  function findPair(before, w) {
    let [low, high] = [firstPair(w), firstPair(w + 1) - 1];
    while (low <= high) {
      const middle = (low + high) >> 1;
      const found = pair(middle, 0, wordBits);
      if (found === before) return pairAt(middle);
      if (found < before) low = middle + 1;
      else high = middle - 1;
    }
    return undefined;
  }
  return {
    names,
    ids,
    prob,
    backoff,
    findPair,
    /** Log of how likely `w` is after `before`. */
    probAfter: (before, w) => findPair(before, w)?.prob ?? backoff(before) + prob(w),
    *pairsOf(w) {
      for (let row = firstPair(w); row < firstPair(w + 1); row += 1) yield pairAt(row);
    },
    /** Threes that end in a pair: the word before it, and the log of how likely its last word is after the two. */
    *threesOf({ row }) {
      const nextOf = (one) => pair(one, wordBits + 32, nextBits);
      for (let k = nextOf(row); k < nextOf(row + 1); k += 1) yield { before: three(k, 0, wordBits), prob: threeProb[three(k, wordBits, 16)] };
    },
  };
}

/**
 * What tells at a gap whether a sentence ends there: log-odds of an end and a new beginning against running on, split as in
 * the core's `word-odds.ts`. The `most` entries that count most are kept: by how often they are met and how much they tell.
 */
export async function oddsOfEnds({ words: mostWords, entries: most }) {
  const model = await readLanguageModel();
  const { names, ids, prob, backoff, findPair, probAfter } = model;
  const [start, end] = [ids.get('<s>'), ids.get('</s>')];
  const found = [];
  const add = (often, kind, list, value) => found.push({ counts: often * Math.abs(value), kind, words: list.map((w) => names[w]), value });
  for (let w = 0; w < names.length; w += 1) {
    if (w === start) continue;
    for (const pair of model.pairsOf(w)) {
      const { before } = pair;
      if (before === start) continue;
      const oftenBefore = prob(before);
      if (w !== end) add(Math.exp(oftenBefore + pair.prob), 'across', [before, w], backoff(before) + prob(w) - pair.prob);
      for (const three of model.threesOf(pair)) {
        const told = three.prob - (pair.prob + (findPair(three.before, before)?.backoff ?? 0));
        if (w === end) add(Math.exp(prob(three.before) + probAfter(three.before, before)), 'pairBefore', [three.before, before], told);
        else if (three.before === start) add(Math.exp(oftenBefore + pair.prob), 'pairAfter', [before, w], told);
        else add(Math.exp(prob(three.before) + probAfter(three.before, before) + three.prob), 'three', [three.before, before, w], -told);
      }
    }
  }
  const common = names
    .map((_, w) => w)
    .filter((w) => w !== start && w !== end)
    .sort((a, b) => prob(b) - prob(a))
    .slice(0, mostWords);
  return [
    ...common.map((w) => ({ kind: 'before', words: [names[w]], value: probAfter(w, end) - backoff(w) })),
    ...common.map((w) => ({ kind: 'after', words: [names[w]], value: probAfter(start, w) - prob(w) })),
    ...found.sort((a, b) => b.counts - a.counts).slice(0, most),
  ];
}
