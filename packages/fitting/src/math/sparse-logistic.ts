import { type Chance, shuffled } from './chance.js';

/** Binary examples of a fixed number of places each, flat. */
export interface SparseSet {
  readonly places: Int32Array;
  readonly features: number;
  /** 1 or 0 for each example. */
  readonly labels: Uint8Array;
}

export interface SparseLogisticOptions {
  readonly size: number;
  readonly epochs: number;
  readonly rate: number;
  /** Pull of the weights towards 0 at each example, on the places it touches. */
  readonly pull: number;
  readonly chance: Chance;
}

/** Binary logistic regression over hashed places by AdaGrad (Duchi, Hazan & Singer 2011). */
export function fitSparseLogistic(set: SparseSet, options: SparseLogisticOptions): Float32Array {
  const weights = new Float32Array(options.size);
  const squares = new Float32Array(options.size).fill(1e-2);
  const all = Array.from(set.labels, (_, i) => i);
  for (let epoch = 0; epoch < options.epochs; epoch += 1) {
    for (const i of shuffled(all, options.chance)) {
      const at = i * set.features;
      let sum = 0;
      for (let f = 0; f < set.features; f += 1) sum += weights[set.places[at + f]!]!;
      const error = 1 / (1 + Math.exp(-sum)) - set.labels[i]!;
      for (let f = 0; f < set.features; f += 1) {
        const place = set.places[at + f]!;
        const g = error + options.pull * weights[place]!;
        squares[place]! += g * g;
        weights[place]! -= (options.rate * g) / Math.sqrt(squares[place]!);
      }
    }
  }
  return weights;
}
