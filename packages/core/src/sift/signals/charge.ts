import type { SiftContext } from '../context.js';
import { SCALES } from '../scales.js';
import type { Role } from '../roles/roles.js';
import { SAYING_WORDS } from '../../text/lists/roles.js';
import { toScale } from '../scale.js';
import type { Tell } from '../../text/lists/tells.js';
import { countedPart, leadingRole, type Part, rawOf, richestSentences, rolePart, tellPart, wordsOf, standOutPart, standingOut } from './parts.js';
import { hitsHeard, quote, sentenceOf, type Signal, tidyEvidence } from './signal.js';

const ROLE_NAMES = {
  feeling: 'feeling',
  joke: 'a joke',
  contrast: 'a turn nobody expects',
  problem: 'a complaint in plain words',
  claim: 'an opinion without a hedge',
  story: 'a scene told as it happened',
} as const satisfies Partial<Record<Role, string>>;
const ROLES_OF_CHARGE = Object.keys(ROLE_NAMES) as (keyof typeof ROLE_NAMES)[];
const EXCLAIMS = /!["'”’)]*$/;
const TELLS: readonly Tell[] = ['feeling', 'laugh', 'opinion', 'surprise'];

/** Parts of Charge: shares of feeling, jokes, turns, complaints and scenes, strong words, and people speaking for themselves. */
export function chargeParts(context: SiftContext): Part[] {
  return [
    standOutPart(context),
    ...ROLES_OF_CHARGE.map((role) => rolePart(context, role)),
    rolePart(context, 'plain'),
    ...TELLS.map((tell) => tellPart(context, tell)),
    tellPart(context, 'superlative'),
    tellPart(context, 'contrast'),
    countedPart(context, 'direct speech', (i) => SAYING_WORDS.has(context.texts[i]!)),
    countedPart(context, 'exclamations', (i) => context.words[i]!.text.includes('!') && EXCLAIMS.test(context.words[i]!.text)),
  ];
}

/** Charge: feeling, contrast, opinion, surprise, laughter. */
export function charge(context: SiftContext): Signal {
  const raw = rawOf(context, 'charge', chargeParts(context));
  return {
    name: 'charge',
    value: (run) => toScale(raw(run), SCALES.charge.ordinary, SCALES.charge.rare),
    explain: (run) => {
      const hits = hitsHeard(context, run, TELLS);
      const rich = richestSentences(context, run, 'charge', raw, ROLES_OF_CHARGE, 3);
      const out = rich.length > 0 ? [] : standingOut(context, run, raw, 2);
      if (rich.length === 0 && out.length === 0 && hits.length === 0) return { sentence: 'Even in tone: no feeling, opinion, turn or laughter', evidence: [] };
      const kinds: string[] = [...new Set(rich.map((s) => ROLE_NAMES[leadingRole(context, s, ROLES_OF_CHARGE) as keyof typeof ROLE_NAMES]))].slice(0, 2);
      if (hits.some((hit) => hit.tell === 'laugh')) kinds.push('laughter');
      if (out.length > 0) kinds.push('more in it than in the rest of this recording');
      const shown = [...rich, ...out];
      const words = shown.length > 0 ? shown.map((s) => wordsOf(context, run, s)) : hits;
      const quoted = shown.length > 0 ? quote(context, words[0]!, 12) : quote(context, hits[0]!);
      return { sentence: sentenceOf(kinds.length > 0 ? kinds : ['strong words'], [quoted]), evidence: tidyEvidence(words) };
    },
  };
}
