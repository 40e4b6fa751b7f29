import { type Chance, shuffled } from './chance.js';

/** Binary examples of a fixed number of places each, and of numbers if there are any, flat. */
interface SparseSet {
  readonly places: Int32Array;
  readonly features: number;
  readonly numbers?: { readonly values: Float32Array; readonly columns: number };
  /** 1 or 0 for each example. */
  readonly labels: Uint8Array;
}

interface SparseLogisticOptions {
  readonly size: number;
  readonly epochs: number;
  readonly rate: number;
  /** Pull of the weights towards 0 at each example, on the places it touches; numbers are not pulled. */
  readonly pull: number;
  readonly chance: Chance;
}

/**
 * Binary logistic regression over hashed places and numbers by AdaGrad (Duchi, Hazan & Singer 2011).
 * @returns a weight for each place, then one for each column of numbers
 */
export function fitSparseLogistic(set: SparseSet, options: SparseLogisticOptions): Float32Array {
  const { values, columns } = set.numbers ?? { values: new Float32Array(0), columns: 0 };
  const weights = new Float32Array(options.size + columns);
  const squares = new Float32Array(weights.length).fill(1e-2);
  const step = (place: number, g: number): void => {
    squares[place]! += g * g;
    weights[place]! -= (options.rate * g) / Math.sqrt(squares[place]!);
  };
  const all = Array.from(set.labels, (_, i) => i);
  for (let epoch = 0; epoch < options.epochs; epoch += 1) {
    for (const i of shuffled(all, options.chance)) {
      const at = i * set.features;
      let sum = 0;
      for (let f = 0; f < set.features; f += 1) sum += weights[set.places[at + f]!]!;
      for (let c = 0; c < columns; c += 1) sum += weights[options.size + c]! * values[i * columns + c]!;
      const error = 1 / (1 + Math.exp(-sum)) - set.labels[i]!;
      for (let f = 0; f < set.features; f += 1) {
        const place = set.places[at + f]!;
        step(place, error + options.pull * weights[place]!);
      }
      for (let c = 0; c < columns; c += 1) step(options.size + c, error * values[i * columns + c]!);
    }
  }
  return weights;
}
