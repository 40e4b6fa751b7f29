import type { SiftContext } from '../context.js';
import { hitsWithin } from '../counted-hits.js';
import { openingWord, type OpeningWord } from '../edges.js';
import type { Hit } from '../../text/tells/find-tells.js';
import { SCALES } from '../scales.js';
import type { Role } from '../roles/roles.js';
import { listed, toScale } from '../scale.js';
import { tabulate } from '../tabulate.js';
import type { Tell } from '../../text/lists/tells.js';
import type { Run } from '../types.js';
import { firstPart, type Part, rawOf, roleIn, weightOf } from './parts.js';
import { inCut, quote, type Signal, tidyEvidence } from './signal.js';
import type { WordRange } from '../../transcript/types.js';
import { SWEEPING } from '../../text/lists/edges.js';

/** People decide within about three seconds whether to stay (common practice); a line begun by then is heard out. */
const DECIDING_MS = 3_000;
const HEARD_OUT_MS = 6_500;
/** A first line longer than this takes long to get going. */
const SLOW_MS = 12_000;

const ROLE_NAMES = {
  claim: 'opens with a verdict',
  contrast: 'opens on a turn',
  problem: 'opens with a complaint',
  question: 'asks a question',
  story: 'opens in the middle of a scene',
  figure: 'opens with a figure',
  advice: 'opens with advice',
  feeling: 'opens with feeling',
  joke: 'opens with a joke',
  answer: 'answers straight away',
  explanation: 'opens with how it works',
} as const satisfies Partial<Record<Role, string>>;
const ROLES_OF_OPENING = Object.keys(ROLE_NAMES) as (keyof typeof ROLE_NAMES)[];
const TELL_NAMES = {
  question: 'asks a question',
  promise: 'makes a promise',
  figure: 'names a figure',
  surprise: 'starts with a surprise',
  opinion: 'takes a side',
  feeling: 'starts with a strong word',
  superlative: 'claims an extreme',
  contrast: 'sets up a contrast',
  address: 'speaks to the viewer',
  advice: 'starts with advice',
  story: 'starts a story',
  name: 'names somebody',
} as const satisfies Partial<Record<Tell, string>>;

/** What the first seconds do by a hit, as a producer would say it. */
function nameOf(context: SiftContext, { tell, firstWord, endWord }: Hit): string {
  const sweeps = tell === 'promise' && SWEEPING.has(context.texts.slice(firstWord, endWord).join(' '));
  return sweeps ? 'makes a sweeping claim' : TELL_NAMES[tell as keyof typeof TELL_NAMES];
}

const TELLS = Object.keys(TELL_NAMES) as (keyof typeof TELL_NAMES)[];
const IS_OPENING_TELL: ReadonlySet<Tell> = new Set(TELLS);

/** Parts of Opening: what the first line does, what is named in the first seconds, and what makes a start weak. */
export function openingParts(context: SiftContext): Part[] {
  const hits = context.sentences.map((_, first) => findOpeningHits(context, first));
  const start = (first: number): OpeningWord => openingWord(context, first);
  const atFirst = (name: string, value: (first: number) => number): Part => firstPart(context, name, value);
  return [
    ...ROLES_OF_OPENING.map((role) => atFirst(role, (first) => heardFirst(context, first, role))),
    ...TELLS.map((tell) =>
      atFirst(`${tell} words`, (first) => {
        let n = 0;
        for (const hit of hits[first]!) if (hit.tell === tell) n += 1;
        return n > 1 ? 1.3 : n;
      }),
    ),
    atFirst('plain', (first) => heardFirst(context, first, 'plain')),
    atFirst('dull', (first) => context.dull[first]!),
    atFirst('leans back', (first) => (start(first).dependent ? 1 : 0)),
    atFirst('slow', (first) => (context.sentences[first]!.endMs - context.sentences[first]!.startMs > SLOW_MS ? 1 : 0)),
    atFirst('hardly a line', (first) => (context.sentences[first]!.endWord - start(first).word <= 2 ? 1 : 0)),
  ];
}

/** Opening: do the first three seconds give a reason to stay? */
export function opening(context: SiftContext): Signal {
  const raw = rawOf(context, 'opening', openingParts(context));
  const known = tabulate(context.sentences.length, (first) => toScale(raw({ first, end: first + 1 }), SCALES.opening.ordinary, SCALES.opening.rare));
  return { name: 'opening', value: (run) => known[run.first]!, explain: (run) => explain(context, run, known) };
}

/** Points by which a start without its first line must be worse for the line to have earned the signal. */
const EARNED_FROM = 3;
/** With fewer words than this left of it, a line is none any more, and the next one would open. */
const STILL_A_LINE = 3;

function explain(context: SiftContext, run: Run, known: Float64Array): { sentence: string; evidence: { firstWord: number; endWord: number }[] } {
  const start = openingWord(context, run.first);
  const sentence = context.sentences[run.first]!;
  const hits = findOpeningHits(context, run.first).filter((hit) => weightOf('opening', `${hit.tell} words`) > 0);
  const role = ROLES_OF_OPENING.reduce((best, one) =>
    weightOf('opening', one) * roleIn(context, run.first, one) > weightOf('opening', best) * roleIn(context, run.first, best) ? one : best,
  );
  const does = roleIn(context, run.first, role) > 0.35 && weightOf('opening', role) > 0.2;
  const tells = [...new Set(hits.map((hit) => hit.tell as keyof typeof TELL_NAMES))]
    .sort((a, b) => weightOf('opening', `${b} words`) - weightOf('opening', `${a} words`))
    .slice(0, does ? 1 : 2);
  if (!does && tells.length === 0) {
    return { sentence: leaningOf(context, start) ?? 'Nothing in the first seconds asks, claims or surprises', evidence: [] };
  }
  const names: string[] = [
    ...new Set([
      ...(does ? [ROLE_NAMES[role]] : []),
      ...tells.map((tell) =>
        nameOf(
          context,
          hits.find((hit) => hit.tell === tell)!,
        ),
      ),
    ]),
  ];
  const line = inCut(context, run, sentence);
  const named = hits.filter((hit) => tells.includes(hit.tell as keyof typeof TELL_NAMES));
  // A short line has the next one in its first seconds, and what is spoken of may stand there.
  const spoken = { firstWord: line.firstWord, endWord: named.reduce((end, hit) => Math.max(end, hit.endWord), line.endWord) };
  const text = `${listed(names)}: ${quoteHolding(context, spoken, named)}`;
  // Where the next line would open as well, it is not the line but the words in it that earn something.
  const matters = run.first + 1 < run.end && known[run.first + 1]! < known[run.first]! - EARNED_FROM;
  const telling = tidyEvidence(hits.filter((hit) => hit.firstWord < sentence.endWord && (does || tells.includes(hit.tell as keyof typeof TELL_NAMES))));
  const rest = sentence.endWord - start.word - telling.reduce((sum, hit) => sum + hit.endWord - hit.firstWord, 0);
  const earned = does && matters ? [line] : rest >= STILL_A_LINE ? telling : [];
  return { sentence: text[0]!.toUpperCase() + text.slice(1), evidence: earned };
}

/** Words of a line that are quoted before it is cut. */
const QUOTED = 9;
/** To leave out fewer words than this at its start would save nothing. */
const FEW_MORE = 4;

/** The first words, as far as the last of those that are spoken of; where they come late, from the words before the first of them. */
function quoteHolding(context: SiftContext, line: WordRange, named: readonly WordRange[]): string {
  const inLine = named.filter((range) => range.endWord <= line.endWord);
  const last = inLine.at(-1)?.endWord ?? 0;
  if (last <= line.firstWord + QUOTED) return quote(context, line, QUOTED);
  if (last <= line.firstWord + QUOTED + FEW_MORE) return quote(context, line, last - line.firstWord);
  const from = Math.min(last - QUOTED, inLine[0]!.firstWord);
  return quote(context, { firstWord: from, endWord: line.endWord }, QUOTED).replace('“', '“…');
}

/** How a start leans on what came before, or null. */
function leaningOf(context: SiftContext, { word, leaning, dependent }: OpeningWord): string | null {
  if (!dependent) return null;
  const said = quote(context, { firstWord: leaning, endWord: leaning + 1 });
  return leaning === word ? `Starts on ${said}, which leans on what came before` : `Speaks of ${said} without saying what it is`;
}

/** Probability of a role in the first line; a very short line is heard together with the next one. */
function heardFirst(context: SiftContext, first: number, role: Role): number {
  const own = roleIn(context, first, role);
  const { firstWord, endWord } = context.sentences[first]!;
  if (endWord - firstWord > 6 || first + 1 >= context.sentences.length) return own;
  return 0.6 * own + 0.4 * roleIn(context, first + 1, role);
}

function findOpeningHits(context: SiftContext, first: number): Hit[] {
  const cutIn = openingWord(context, first).word;
  const startMs = context.words[cutIn]!.startMs;
  let end = first + 1;
  while (end < context.sentences.length && context.sentences[end]!.startMs < startMs + DECIDING_MS) end += 1;
  const heardOut = context.sentences[first]!.endMs - startMs <= HEARD_OUT_MS;
  const untilMs = heardOut ? Math.max(startMs + DECIDING_MS, context.sentences[first]!.endMs) : startMs + DECIDING_MS + 1_000;
  return hitsWithin(context, { first, end }, IS_OPENING_TELL).filter((hit) => context.words[hit.firstWord]!.startMs < untilMs && hit.firstWord >= cutIn);
}
