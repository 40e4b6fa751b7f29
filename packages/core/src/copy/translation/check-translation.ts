import { characters } from '../characters.js';
import { captionLimit, runsOf, type Targets, type TextUnit } from './units.js';

export const TRANSLATION_RULES = ['missing', 'too-long', 'too-fast', 'numbers', 'sounds'] as const;
export type TranslationRule = (typeof TRANSLATION_RULES)[number];

/** What is wrong with the translation of a unit. */
export interface TranslationFinding {
  readonly unit: string;
  readonly rule: TranslationRule;
  readonly detail: string;
}

/** Numbers as they are written: 1,500 and 1.500 and 1 500 are one. */
const numbersIn = (text: string): string[] => (text.match(/\d+(?:[.,\u00a0\u202f ]\d+)*/g) ?? []).map((number) => number.replace(/\D/g, '')).sort();

/** What is missing, too long for its field or its time, or says other numbers than what was said. */
export function checkTranslation(units: readonly TextUnit[], targets: Targets): TranslationFinding[] {
  return units.flatMap((unit) => {
    const target = (targets[unit.id] ?? '').trim();
    if (target === '') return [{ unit: unit.id, rule: 'missing', detail: 'is not translated' } as const];
    const found: TranslationFinding[] = [];
    const length = characters(target);
    if (unit.limit !== null && length > unit.limit)
      found.push(
        unit.time === null
          ? { unit: unit.id, rule: 'too-long', detail: `${length} characters, ${unit.limit} allowed` }
          : { unit: unit.id, rule: 'too-fast', detail: `${length} characters, ${captionLimit(unit.time)} can be read in its time` },
      );
    const [said, written] = [numbersIn(unit.source), numbersIn(target)];
    if (said.join() !== written.join())
      found.push({ unit: unit.id, rule: 'numbers', detail: `says ${spelled(written)} where the source says ${spelled(said)}` });
    const sounds = (text: string): number => runsOf(text).filter(({ emphasis }) => emphasis).length;
    if (unit.time !== null && sounds(unit.source) !== sounds(target))
      found.push({ unit: unit.id, rule: 'sounds', detail: 'does not have the sounds in brackets that the source has' });
    return found;
  });
}

const spelled = (numbers: readonly string[]): string => (numbers.length === 0 ? 'no number' : numbers.join(', '));
