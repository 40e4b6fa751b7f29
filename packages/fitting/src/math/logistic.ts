import { type Chance, shuffled } from './chance.js';

/** One example: dense numbers, places of a sparse vector that share one weight, and the class it belongs to. */
export interface Example {
  readonly dense: Float32Array;
  readonly places: Int32Array;
  readonly weight: number;
  readonly label: number;
  /** How much the example counts, > 0. */
  readonly counts: number;
}

interface LogisticOptions {
  readonly classes: number;
  readonly dense: number;
  readonly sparse: number;
  readonly epochs: number;
  /** Strength of the pull of the weights towards 0: of the dense numbers before `split`, from it on, and of the sparse ones. */
  readonly pull: { readonly head: number; readonly tail: number; readonly sparse: number; readonly split: number };
  readonly rate: number;
  readonly chance: Chance;
}

const BATCH = 32;

/**
 * Multinomial logistic regression by Adam (Kingma & Ba 2015) with a falling rate and decoupled decay (Loshchilov &
 * Hutter 2019). Same examples and chance, same weights.
 * @returns rows of `dense + sparse + 1` numbers for each class, the constant last
 */
export function fitLogistic(examples: readonly Example[], options: LogisticOptions): Float32Array {
  const { classes, dense, sparse, epochs, chance } = options;
  const row = dense + sparse + 1;
  const weights = new Float32Array(classes * row);
  const gradient = new Float32Array(classes * row);
  const first = new Float32Array(classes * row);
  const second = new Float32Array(classes * row);
  const probabilities = new Float64Array(classes);
  const steps = epochs * Math.ceil(examples.length / BATCH);
  let step = 0;
  for (let epoch = 0; epoch < epochs; epoch += 1) {
    const order = shuffled(examples, chance);
    for (let from = 0; from < order.length; from += BATCH) {
      const batch = order.slice(from, from + BATCH);
      gradient.fill(0);
      for (const example of batch) addGradient(example, weights, row, dense, sparse, probabilities, gradient, 1 / batch.length);
      step += 1;
      const rate = options.rate * (1 - step / (steps + 1));
      const [c1, c2] = [1 - 0.9 ** step, 1 - 0.999 ** step];
      for (let i = 0; i < weights.length; i += 1) {
        const place = i % row;
        const g = gradient[i]!;
        first[i] = 0.9 * first[i]! + 0.1 * g;
        second[i] = 0.999 * second[i]! + 0.001 * g * g;
        const pull = place < options.pull.split ? options.pull.head : place < dense ? options.pull.tail : place < dense + sparse ? options.pull.sparse : 0;
        weights[i]! -= rate * (first[i]! / c1 / (Math.sqrt(second[i]! / c2) + 1e-8) + pull * weights[i]!);
      }
    }
  }
  return weights;
}

function addGradient(
  example: Example,
  weights: Float32Array,
  row: number,
  dense: number,
  sparse: number,
  p: Float64Array,
  gradient: Float32Array,
  share: number,
): void {
  predict(example, weights, row, dense, sparse, p);
  for (let c = 0; c < p.length; c += 1) {
    const error = (p[c]! - (c === example.label ? 1 : 0)) * share * example.counts;
    if (Math.abs(error) < 1e-7) continue;
    const at = c * row;
    for (let d = 0; d < dense; d += 1) gradient[at + d]! += error * example.dense[d]!;
    for (let k = 0; k < example.places.length; k += 1) gradient[at + dense + example.places[k]!]! += error * example.weight;
    gradient[at + dense + sparse]! += error;
  }
}

/** Probabilities of the classes for one example, into `into`. */
export function predict(
  example: Omit<Example, 'label' | 'counts'>,
  weights: Float32Array,
  row: number,
  dense: number,
  sparse: number,
  into: Float64Array,
): void {
  let most = -Infinity;
  for (let c = 0; c < into.length; c += 1) {
    const at = c * row;
    let sum = weights[at + dense + sparse]!;
    for (let d = 0; d < dense; d += 1) sum += weights[at + d]! * example.dense[d]!;
    for (let k = 0; k < example.places.length; k += 1) sum += weights[at + dense + example.places[k]!]! * example.weight;
    into[c] = sum;
    most = Math.max(most, sum);
  }
  let total = 0;
  for (let c = 0; c < into.length; c += 1) total += into[c] = Math.exp(into[c]! - most);
  for (let c = 0; c < into.length; c += 1) into[c]! /= total;
}
