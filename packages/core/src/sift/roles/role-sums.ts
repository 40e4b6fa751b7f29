import type { Sentence } from '../../transcript/types.js';
import type { Hit } from '../../text/tells/find-tells.js';
import { DULL_TELLS, type Tell } from '../../text/lists/tells.js';
import { Sums } from '../sums.js';
import { tabulate } from '../tabulate.js';
import { DULL_ROLES, type Role, roleAt, ROLES } from './roles.js';

/** Words of the sentences times the probability of a role, summed; made when a role is first asked for. */
export function roleSums(roles: Float32Array, sentences: readonly Sentence[]): (role: Role) => Sums {
  const made = new Map<Role, Sums>();
  return (role) => {
    let sums = made.get(role);
    if (sums === undefined) made.set(role, (sums = sumRole(roles, role, sentences)));
    return sums;
  };
}

function sumRole(roles: Float32Array, role: Role, sentences: readonly Sentence[]): Sums {
  const at = roleAt(role);
  return new Sums(sentences.map(({ firstWord, endWord }, s) => roles[s * ROLES.length + at]! * (endWord - firstWord)));
}

/** A phrase that is plainly of a greeting or an offer makes a sentence at least this dull, whatever the model says. */
const PLAIN_PHRASE = 0.35;

/** 0 to 1 for each sentence: how surely nobody should post it (see `DULL_ROLES`). */
export function findDull(roles: Float32Array, sentences: readonly Sentence[], hits: readonly Hit[], starts: Int32Array): Float64Array {
  const places = DULL_ROLES.map(roleAt);
  return tabulate(sentences.length, (s) => {
    let sum = 0;
    for (const place of places) sum += roles[s * ROLES.length + place]!;
    let plain = false;
    for (let h = starts[s]!; h < starts[s + 1]!; h += 1) plain ||= (DULL_TELLS as readonly Tell[]).includes(hits[h]!.tell);
    return plain ? Math.max(PLAIN_PHRASE, sum) : sum;
  });
}
