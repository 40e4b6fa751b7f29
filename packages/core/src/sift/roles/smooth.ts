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
  const row = new Float64Array(roles).fill(1);
  for (let s = 0, at = 0; s < n; s += 1, at += roles) {
    if (s > 0) carryOver(forward, at - roles, step, row);
    for (let to = 0; to < roles; to += 1) forward[at + to] = alone[at + to]! * row[to]!;
    scaleRow(forward, at, roles);
  }
  const ahead = new Float64Array(roles);
  for (let s = n - 2, at = s * roles; s >= 0; s -= 1, at -= roles) {
    for (let to = 0; to < roles; to += 1) ahead[to] = alone[at + roles + to]! * backward[at + roles + to]!;
    scaleRow(ahead, 0, roles);
    carryOver(ahead, 0, turned, row);
    for (let r = 0; r < roles; r += 1) backward[at + r] = row[r]!;
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

/**
 * What the weights of a row of roles, from `at`, come to by way of a matrix whose rows are theirs: written into `into`. Four
 * rows at a time, so that each sum is fetched and put back a quarter as often.
 */
function carryOver(weights: Float64Array, at: number, matrix: Float64Array, into: Float64Array): void {
  const roles = into.length;
  for (let k = 0; k < roles; k += 1) into[k] = 0; // `fill` takes as long as all the rest on rows this short
  let r = 0;
  for (; r + 3 < roles; r += 4) {
    const [a, b, c, d] = [weights[at + r]!, weights[at + r + 1]!, weights[at + r + 2]!, weights[at + r + 3]!];
    for (let k = 0, m = r * roles; k < roles; k += 1, m += 1) {
      into[k] = into[k]! + (a * matrix[m]! + b * matrix[m + roles]!) + (c * matrix[m + 2 * roles]! + d * matrix[m + 3 * roles]!);
    }
  }
  for (; r < roles; r += 1) for (let k = 0; k < roles; k += 1) into[k] = into[k]! + weights[at + r]! * matrix[r * roles + k]!;
}

function scaleRow(values: Float64Array, at: number, length: number): void {
  let sum = 0;
  for (let i = at; i < at + length; i += 1) sum += values[i]!;
  const factor = 1 / sum;
  for (let i = at; i < at + length; i += 1) values[i]! *= factor;
}
