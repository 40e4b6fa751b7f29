import type { SiftContext } from './context.js';
import { listed } from './scale.js';
import { type Role, ROLES } from './roles/roles.js';
import { type MakeUp, RIDGE_STEPS, STUFFS, type Stuff } from './types.js';

/** What each role of a sentence is the stuff of. */
const STUFF_OF: Readonly<Record<Role, Stuff>> = {
  claim: 'verdicts',
  contrast: 'verdicts',
  problem: 'verdicts',
  explanation: 'explaining',
  advice: 'explaining',
  figure: 'explaining',
  plain: 'explaining',
  question: 'questions',
  answer: 'questions',
  story: 'stories',
  feeling: 'stories',
  joke: 'stories',
  walkThrough: 'procedure',
  waiting: 'procedure',
  greeting: 'chatter',
  housekeeping: 'chatter',
  sponsor: 'chatter',
  subscribe: 'chatter',
  smallTalk: 'chatter',
  incomplete: 'chatter',
};
const PLACES = ROLES.map((role) => STUFFS.indexOf(STUFF_OF[role]));

/**
 * How much on either side is heard with a sentence: what talk is made of does not change with each of them. A share of the
 * recording, since that is how it is seen; and no less than so many ms.
 */
const HEARD_SHARE = 1 / 160;
const HEARD_MS = 8_000;

/**
 * What a recording is made of: shares of the time of speech, and the stuff of each step of the seam; null where the language is
 * not known, or nothing is said.
 */
export function makeUpOf(context: SiftContext): MakeUp | null {
  const { sentences } = context;
  if (context.language !== null || sentences.length === 0) return null;
  const own = sentences.map((_, s) => ofSentence(context.roles, s));
  const totals = STUFFS.map(() => 0);
  const steps = new Array<number>(RIDGE_STEPS).fill(-1);
  const { durationMs } = context.input.transcript;
  const stepMs = durationMs / RIDGE_STEPS;
  const heardMs = Math.max(HEARD_MS, HEARD_SHARE * durationMs);
  const around = STUFFS.map(() => 0);
  const hear = (k: number, sign: 1 | -1): void =>
    own[k]!.forEach((share, stuff) => (around[stuff]! += sign * share * (sentences[k]!.endMs - sentences[k]!.startMs)));
  let [from, to] = [0, 0];
  sentences.forEach(({ startMs, endMs }, s) => {
    for (; to < sentences.length && sentences[to]!.startMs <= endMs + heardMs; to += 1) hear(to, 1);
    for (; sentences[from]!.endMs < startMs - heardMs; from += 1) hear(from, -1);
    own[s]!.forEach((share, stuff) => (totals[stuff]! += share * (endMs - startMs)));
    const leading = around.indexOf(Math.max(...around));
    const last = Math.min(RIDGE_STEPS - 1, Math.floor((endMs - 1) / stepMs));
    for (let step = Math.floor(startMs / stepMs); step <= last; step += 1) steps[step] = leading;
  });
  const all = totals.reduce((sum, total) => sum + total, 0);
  return { shares: totals.map((total) => Math.round((1_000 * total) / Math.max(1, all)) / 1_000), steps };
}

function ofSentence(roles: Float32Array, s: number): number[] {
  const out = STUFFS.map(() => 0);
  PLACES.forEach((stuff, role) => (out[stuff]! += roles[s * ROLES.length + role]!));
  return out;
}

const NAMES: Readonly<Record<Stuff, string>> = {
  explaining: 'explaining',
  verdicts: 'verdicts',
  questions: 'questions and answers',
  stories: 'stories',
  procedure: 'procedure at a screen',
  chatter: 'greetings and housekeeping',
};

/** From this share on a recording is mostly of one stuff; from the second on a stuff is worth a word. */
const MOSTLY = 0.45;
const SOME = 0.12;

/**
 * What kind of recording this is, in one sentence, and what that means for its candidates.
 * @param scores of the ranking; a candidate that is strong stands by itself
 * @example 'Mostly procedure at a screen, some explaining: few passages stand by themselves.'
 */
export function describeMakeUp({ shares }: Pick<MakeUp, 'shares'>, scores: readonly number[]): string {
  const named = STUFFS.map((stuff, k) => ({ name: NAMES[stuff], share: shares[k]! }))
    .sort((a, b) => b.share - a.share)
    .filter(({ share }, k) => k === 0 || share >= SOME)

    .slice(0, 3);
  const [first, ...rest] = named;
  const head =
    first!.share >= MOSTLY
      ? `Mostly ${first!.name}${rest.length > 0 ? `, some ${listed(rest.map(({ name }) => name))}` : ''}`
      : `A mixture of ${listed(named.map(({ name }) => name))}`;
  const strong = scores.filter((score) => score >= 50).length / Math.max(1, scores.length);
  const many = strong < 0.25 ? 'few' : strong < 0.6 ? 'some' : 'most';
  return `${head}: ${many} passages stand by themselves.`;
}
