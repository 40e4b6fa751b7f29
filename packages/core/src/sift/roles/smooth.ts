import { addTimes64 } from '../inner-product.js';
import { ROLES } from './roles.js';

/** How far neighbours count: 0 leaves each sentence by itself, 1 takes the transitions at their word. */
const TRUST = 0.6;

/**
 * Probabilities of the roles with their neighbours heard: forward–backward over a first-order chain (Rabiner 1989),
 * with the sentence's own probabilities in place of the emissions and the transitions raised to `TRUST`, since talk
 * follows them loosely.
 * @param alone rows of `ROLES.length`, @param transitions row by row, from × to, relative to how common `to` is
 */
export function smoothRoles(alone: Float32Array, transitions: Float32Array): Float32Array {
  const roles = ROLES.length;
  const n = alone.length / roles;
  const step = Float64Array.from(transitions, (value) => Math.pow(value, TRUST));
  const turned = step.map((_, at) => step[(at % roles) * roles + Math.floor(at / roles)]!);
  const forward = new Float64Array(n * roles);
  const backward = new Float64Array(n * roles).fill(1);
  const row = new Float64Array(roles);
  for (let s = 0, at = 0; s < n; s += 1, at += roles) {
    if (s === 0) row.fill(1);
    else carryOver(forward, at - roles, step, row);
    for (let to = 0; to < roles; to += 1) forward[at + to] = alone[at + to]! * row[to]!;
    scaleRow(forward, at, roles);
  }
  const ahead = new Float64Array(roles);
  for (let s = n - 2, at = s * roles; s >= 0; s -= 1, at -= roles) {
    for (let to = 0; to < roles; to += 1) ahead[to] = alone[at + roles + to]! * backward[at + roles + to]!;
    scaleRow(ahead, 0, roles);
    carryOver(ahead, 0, turned, row);
    backward.set(row, at);
    scaleRow(backward, at, roles);
  }
  const out = new Float32Array(n * roles);
  for (let at = 0; at < n * roles; at += roles) {
    for (let r = at; r < at + roles; r += 1) forward[r]! *= backward[r]!;
    scaleRow(forward, at, roles);
    for (let r = at; r < at + roles; r += 1) out[r] = forward[r]!;
  }
  return out;
}

/** A role less likely than this carries nothing over; of twenty, most are. */
const UNLIKELY = 1e-4;

/** What the weights of a row of roles, from `at`, come to by way of a matrix whose rows are theirs: written into `into`. */
function carryOver(weights: Float64Array, at: number, matrix: Float64Array, into: Float64Array): void {
  const roles = into.length;
  into.fill(0);
  for (let r = 0; r < roles; r += 1) {
    const weight = weights[at + r]!;
    if (weight < UNLIKELY) continue;
    addTimes64(matrix, r * roles, weight, into, roles);
  }
}

function scaleRow(values: Float64Array, at: number, length: number): void {
  let sum = 0;
  for (let i = at; i < at + length; i += 1) sum += values[i]!;
  const factor = 1 / sum;
  for (let i = at; i < at + length; i += 1) values[i]! *= factor;
}
