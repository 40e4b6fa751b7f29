import type { Copy } from '../types.js';

/** What words may break: the first four say something that was not said, the others are not how the client writes. */
export const TRUTH_RULES = ['figure', 'name', 'quotation', 'claim'] as const;
export const VOICE_RULES = ['avoid', 'use', 'spelling', 'capitals', 'comma', 'person', 'emoji', 'length'] as const;
export type TruthRule = (typeof TRUTH_RULES)[number];
export type VoiceRule = (typeof VOICE_RULES)[number];
export type CheckRule = TruthRule | VoiceRule;

/** A place in a field that breaks a rule. */
export interface Finding {
  readonly field: keyof Copy;
  /** Which tag or keyword; null in a field that is one text. */
  readonly item: number | null;
  /** Characters (UTF-16) of the text from `from` to `to` (not inside). */
  readonly from: number;
  readonly to: number;
  readonly rule: CheckRule;
  /** The characters themselves. */
  readonly text: string;
  /** What is wrong, in a sentence. */
  readonly detail: string;
  /** What would take their place, null where only a person can tell. */
  readonly mend: string | null;
}

/** What a rule finds in one text. */
export type Found = Omit<Finding, 'field' | 'item'>;

export const isTruth = (finding: { readonly rule: CheckRule }): boolean => (TRUTH_RULES as readonly string[]).includes(finding.rule);

/** A place found by a pattern. @param match with its index */
export function foundAt(rule: CheckRule, text: string, from: number, to: number, detail: string, mend: string | null = null): Found {
  return { rule, from, to, text: text.slice(from, to), detail, mend };
}
