import { hash, verify } from '@node-rs/argon2';
import pLimit from 'p-limit';

/** `Algorithm.Argon2id` of the package, whose const enum cannot be read with isolated modules. */
const ARGON2ID = 2;
/** 19 MiB, two passes, one lane: OWASP's recommendation of 2023 (from memory). */
const OPTIONS = { algorithm: ARGON2ID, memoryCost: 19_456, timeCost: 2, parallelism: 1 };
/** At once: the others wait, so that a hundred guesses cost no more memory than two. */
const atOnce = pLimit(2);

export function hashPassword(password: string): Promise<string> {
  return atOnce(() => hash(password, OPTIONS));
}

let decoy: Promise<string> | undefined;

/** Checks a password; takes as long for an unknown user (`null`), so that the time does not tell who exists. */
export async function checkPassword(passwordHash: string | null, password: string): Promise<boolean> {
  decoy ??= hashPassword('a password nobody has');
  const against = passwordHash ?? (await decoy);
  const matches = await atOnce(() => verify(against, password, OPTIONS));
  return matches && passwordHash !== null;
}
