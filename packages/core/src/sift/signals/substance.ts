import type { SiftContext } from '../context.js';
import { SCALES } from '../scales.js';
import type { Role } from '../roles/roles.js';
import { type FigureKind, figureKind } from '../said.js';
import { counted, toScale } from '../scale.js';
import { countedPart, leadingRole, type Part, rawOf, richestSentences, rolePart, standOutPart, tellPart, wordsOf, standingOut } from './parts.js';
import { differentHits, hitsHeard, quote, sentenceOf, type Signal, tidyEvidence } from './signal.js';
import type { WordRange } from '../../transcript/types.js';

/** What makes talk worth keeping, and how a producer would call it. */
const ROLE_NAMES = {
  claim: 'a plain verdict',
  advice: 'advice that can be used',
  figure: 'a fact with its figure',
  explanation: 'how it works',
  contrast: 'what turned out otherwise',
  problem: 'what goes wrong',
  story: 'something that happened',
  answer: 'a straight answer',
} as const satisfies Partial<Record<Role, string>>;
const ROLES_OF_SUBSTANCE = Object.keys(ROLE_NAMES) as (keyof typeof ROLE_NAMES)[];

/** Parts of Substance: shares of verdicts, advice, facts and reasons, with figures, causes and naming words. */
export function substanceParts(context: SiftContext): Part[] {
  return [
    standOutPart(context),
    ...ROLES_OF_SUBSTANCE.map((role) => rolePart(context, role)),
    rolePart(context, 'plain'),
    tellPart(context, 'figure'),
    tellPart(context, 'cause'),
    tellPart(context, 'advice'),
    countedPart(context, 'naming words', (i) => context.tags[i] === 'NOUN' || context.tags[i] === 'NUM' || context.tags[i] === 'PROPN'),
  ];
}

const FIGURE_NAMES = {
  money: ['a sum of money', 'sums of money'],
  percentage: ['a percentage', 'percentages'],
  duration: ['a length of time', 'lengths of time'],
  number: ['a number', 'numbers'],
} as const satisfies Record<FigureKind, readonly [string, string]>;

/** Figures by kind, as a producer would say it: "a sum of money", "three numbers". */
function named(context: SiftContext, figures: readonly WordRange[]): string[] {
  const kinds = figures.map((figure) => figureKind(context.texts, figure));
  return Object.entries(FIGURE_NAMES).flatMap(([kind, [one, many]]) => {
    const n = kinds.filter((other) => other === kind).length;
    return n === 0 ? [] : n === 1 ? one : counted(n, one, many);
  });
}

const nothingIn = ({ language }: SiftContext): string =>
  language === null
    ? 'Little that is concrete: no verdict, advice, facts or reasons'
    : `No figures, and no more than the rest of this recording says; more cannot be known in ${language.name}`;

/** Substance: concrete, useful, specific. */
export function substance(context: SiftContext): Signal {
  const raw = rawOf(context, 'substance', substanceParts(context));
  return {
    name: 'substance',
    value: (run) => toScale(raw(run), SCALES.substance.ordinary, SCALES.substance.rare),
    explain: (run) => {
      const figures = hitsHeard(context, run, ['figure']);
      const rich = richestSentences(context, run, 'substance', raw, ROLES_OF_SUBSTANCE, 3);
      if (rich.length === 0) {
        const out = standingOut(context, run, raw, 2);
        if (out.length > 0) {
          const said = [...named(context, figures), 'more than the rest of this recording says'];
          return {
            sentence: sentenceOf(said, [quote(context, wordsOf(context, run, out[0]!), 12)]),
            evidence: tidyEvidence(out.map((s) => wordsOf(context, run, s))),
          };
        }
        if (figures.length === 0) return { sentence: nothingIn(context), evidence: [] };
      }
      const kinds: string[] = [...new Set(rich.map((s) => ROLE_NAMES[leadingRole(context, s, ROLES_OF_SUBSTANCE) as keyof typeof ROLE_NAMES]))].slice(0, 2);
      const parts = [...kinds, ...named(context, figures)];
      const quoted =
        rich.length > 0 ? [quote(context, wordsOf(context, run, rich[0]!), 12)] : differentHits(context, figures, 2).map((hit) => quote(context, hit));
      return { sentence: sentenceOf(parts, quoted), evidence: tidyEvidence(rich.length > 0 ? rich.map((s) => wordsOf(context, run, s)) : figures, 8) };
    },
  };
}
