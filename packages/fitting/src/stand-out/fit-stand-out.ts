import { HASHES, HEARD, heardAround, type StandOutFeatures, type StandOutModel, weigh } from '@sift-reel/core/fitting';

/** One recording as the model reads it, with what readers say of each of its sentences. */
export interface StandOutExample {
  readonly features: StandOutFeatures;
  /** Mean grade of the readers, 0 to 1. */
  readonly worth: Float64Array;
  /** How much each sentence counts: its time. */
  readonly counts: Float64Array;
}

/** How dear a weight is, by what it weighs: see `penalties`. */
export interface StandOutPrices {
  readonly vector: number;
  readonly role: number;
  readonly surface: number;
  /** For a feature whose spread is 1; others in proportion. */
  readonly place: number;
  readonly word: number;
}

export interface StandOutShape {
  readonly vectors: number;
  readonly roles: number;
  readonly surface: number;
}

const STEPS = 150;

/**
 * Ridge regression of the readers' grades, each recording's taken about its own mean, solved by conjugate gradients (Hestenes
 * & Stiefel 1952) with the penalties as preconditioner. No chance in it: same examples, same weights.
 */
export function fitStandOut(examples: readonly StandOutExample[], shape: StandOutShape, prices: StandOutPrices): StandOutModel {
  const { vectors, row } = examples[0]!.features;
  const own = (vectors?.dimensions ?? 0) + row + HASHES;
  const price = penalties(examples, shape, prices);
  const inverse = price.map((one) => 1 / one);
  const times = (model: Float64Array): Float64Array => {
    const out = model.map((value, i) => value * price[i]!);
    for (const one of examples) turnedBack(one, own, centred(one, predict(one, own, model)), out);
    return out;
  };
  const target = new Float64Array(price.length);
  for (const one of examples) turnedBack(one, own, centred(one, one.worth), target);
  const model = new Float64Array(price.length);
  const rest = target.slice();
  let steered = rest.map((value, i) => value * inverse[i]!);
  const direction = steered.slice();
  let power = dot(rest, steered);
  const start = power;
  for (let step = 0; step < STEPS && power > 1e-9 * start; step += 1) {
    const image = times(direction);
    const length = power / dot(direction, image);
    for (let i = 0; i < model.length; i += 1) {
      model[i]! += length * direction[i]!;
      rest[i]! -= length * image[i]!;
    }
    steered = rest.map((value, i) => value * inverse[i]!);
    const next = dot(rest, steered);
    for (let i = 0; i < model.length; i += 1) direction[i] = steered[i]! + (next / power) * direction[i]!;
    power = next;
  }
  return { own: Float32Array.from(model.subarray(0, own)), around: Float32Array.from(model.subarray(own)) };
}

const dot = (a: Float64Array, b: Float64Array): number => a.reduce((sum, value, i) => sum + value * b[i]!, 0);

function predict({ features }: StandOutExample, own: number, model: Float64Array): Float64Array {
  const around = heardAround(weigh(features, Float32Array.from(model.subarray(own))));
  return weigh(features, Float32Array.from(model.subarray(0, own))).map((value, s) => value + around[s]!);
}

/** About the recording's own mean, each times how much its sentence counts. */
function centred({ counts }: StandOutExample, values: Float64Array): Float64Array {
  const mean = dot(values, counts) / counts.reduce((sum, count) => sum + count, 0);
  return values.map((value, s) => (value - mean) * counts[s]!);
}

/** Adds to each weight what its feature has in common with `values`. */
function turnedBack({ features }: StandOutExample, own: number, values: Float64Array, into: Float64Array): void {
  const { vectors, row, rows, words } = features;
  const dimensions = vectors?.dimensions ?? 0;
  for (const [list, at, end] of [
    [values, 0, own],
    [heardBack(values), own, into.length],
  ] as const) {
    const numbers = at + dimensions;
    const read = end - numbers - HASHES;
    list.forEach((value, s) => {
      for (let d = 0; d < dimensions; d += 1) into[at + d]! += value * vectors!.data[s * dimensions + d]!;
      for (let f = 0; f < read; f += 1) into[numbers + f]! += value * rows[s * row + f]!;
      const { places, weight } = words[s]!;
      for (const place of places) into[numbers + read + place]! += value * weight;
    });
  }
}

/** The transpose of `heardAround`: what a sentence gives to the means around it. */
function heardBack(values: Float64Array, reach = HEARD): Float64Array {
  const n = values.length;
  const shared = values.map((value, s) => value / (Math.min(n - 1, s + reach) - Math.max(0, s - reach) + 1));
  return shared.map((_, s) => {
    let sum = 0;
    for (let k = Math.max(0, s - reach); k <= Math.min(n - 1, s + reach); k += 1) sum += shared[k]!;
    return sum;
  });
}

function penalties(examples: readonly StandOutExample[], shape: StandOutShape, prices: StandOutPrices): Float64Array {
  const plain = [
    ...new Array<number>(shape.vectors).fill(prices.vector),
    ...new Array<number>(shape.roles).fill(prices.role),
    ...new Array<number>(shape.surface).fill(prices.surface),
  ];
  const place = spreads(examples, shape.roles + shape.surface).map((spread) => prices.place * Math.max(1e-6, spread));
  const words = new Array<number>(HASHES).fill(prices.word);
  return Float64Array.from([...plain, ...place, ...words, ...plain, ...words]);
}

/** Variance of the features from `from` on, each recording's about its own mean. */
function spreads(examples: readonly StandOutExample[], from: number): number[] {
  const row = examples[0]!.features.row;
  return Array.from({ length: row - from }, (_, p) => {
    let sum = 0;
    let n = 0;
    for (const { features } of examples) {
      const values = Float64Array.from({ length: features.sentences }, (__, s) => features.rows[s * row + from + p]!);
      const mean = values.reduce((total, value) => total + value, 0) / values.length;
      for (const value of values) sum += (value - mean) ** 2;
      n += values.length;
    }
    return sum / n;
  });
}
