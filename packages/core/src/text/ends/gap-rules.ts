import { OPENERS, QUESTION_WORDS, SUBJECT_PRONOUNS } from '../lists/talk.js';
import type { PartOfSpeech } from '../tagger.js';
import { WEAK_OPENERS } from '../lists/edges.js';

/** Strength of an end before word `k` by rules of grammar, about -3 (never) to +2 (likely). */
export function ruleStrength(texts: readonly string[], tags: readonly PartOfSpeech[], k: number): number {
  const tag = tags[k - 1]!;
  const cut = tag === 'ADP' || tag === 'DET' || tag === 'CCONJ' || tag === 'SCONJ' || tag === 'AUX' ? -0.8 : 0;
  return cut + startStrength(texts[k]!, texts[k + 1] ?? '', tags[k]!, tags[k + 1], tag);
}

function startStrength(next: string, after: string, tag: PartOfSpeech, afterTag: PartOfSpeech | undefined, previousTag: PartOfSpeech): number {
  const verbAfter = afterTag === 'VERB' || afterTag === 'AUX' || afterTag === 'ADV';
  const canClose =
    previousTag === 'NOUN' || previousTag === 'PROPN' || previousTag === 'ADV' || previousTag === 'ADJ' || previousTag === 'NUM' || previousTag === 'PRON';
  if (OPENERS.has(next)) {
    const strong = !WEAK_OPENERS.has(next);
    const clause = SUBJECT_PRONOUNS.has(after) || QUESTION_WORDS.has(after) || afterTag === 'DET' || afterTag === 'PROPN';
    return (strong ? 0.9 : -0.1) + (clause ? 0.75 : 0) + (canClose ? 0.2 : 0);
  }
  if (SUBJECT_PRONOUNS.has(next)) return (verbAfter || next.includes("'") ? 0.95 : 0.1) + (canClose ? 0.35 : -0.6);
  if (QUESTION_WORDS.has(next)) return (afterTag === 'AUX' || next.includes("'") ? 0.8 : 0) + (canClose ? 0.2 : -0.6);
  if (tag === 'ADP' || tag === 'PART') return -1.2;
  if (tag === 'DET') return canClose ? 0.1 : -0.8;
  if (tag === 'VERB' || tag === 'AUX') return -0.9;
  return canClose ? -0.4 : -0.9;
}
