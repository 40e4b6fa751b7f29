import { listed } from '../scale.js';
import type { Tell } from '../../text/lists/tells.js';
import type { Hit } from '../../text/tells/find-tells.js';
import { hitsWithin } from '../counted-hits.js';
import type { SiftContext } from '../context.js';
import { openingWord } from '../edges.js';
import type { Run, SignalName, SignalReading } from '../types.js';
import type { WordRange } from '../../transcript/types.js';

/** What a signal says of one run, before its name and scale are put on. */
interface Explanation {
  readonly sentence: string;
  /** Word ranges counted from the start of the part. */
  readonly evidence: readonly WordRange[];
}

/**
 * One signal, prepared for one recording. `value` is asked for every run and must be cheap (constant time, or as long as
 * the opening); `explain` is asked only for the chosen ones.
 */
export interface Signal {
  readonly name: SignalName;
  /** 0 to 100; 50 is ordinary talk, 90 is rare. */
  value(run: Run): number;
  explain(run: Run): Explanation;
}

/** Ranges in order, without overlaps; of two that overlap the longer stays. At most `most`. */
export function tidyEvidence(ranges: readonly WordRange[], most = 8): WordRange[] {
  const byLength = [...ranges].sort((a, b) => b.endWord - b.firstWord - (a.endWord - a.firstWord) || a.firstWord - b.firstWord);
  const kept: WordRange[] = [];
  for (const range of byLength) {
    if (kept.length === most) break;
    if (range.endWord > range.firstWord && kept.every((other) => other.endWord <= range.firstWord || range.endWord <= other.firstWord)) {
      kept.push({ firstWord: range.firstWord, endWord: range.endWord });
    }
  }
  return kept.sort((a, b) => a.firstWord - b.firstWord);
}

/** The words of a range as they were said, for quoting; cut after `most` words. */
export function quote(context: SiftContext, range: WordRange, most = 8): string {
  const words = context.words.slice(range.firstWord, Math.min(range.endWord, range.firstWord + most)).map((word) => word.text);
  const text = words.join(' ').replace(/^["'“‘(]+|[,.;:!"'”’)]+$/g, '');
  return `“${text}${range.endWord - range.firstWord > most ? '…' : ''}”`;
}

/** What a signal found, and the words it found it in: "Two numbers and a plain verdict: “…”". */
export function sentenceOf(found: readonly string[], quoted: readonly string[]): string {
  const text = `${listed(found)}: ${listed(quoted)}`;
  return text[0]!.toUpperCase() + text.slice(1);
}

/** First hits of different wording, for quoting. */
export function differentHits(context: SiftContext, hits: readonly Hit[], most: number): Hit[] {
  const seen = new Set<string>();
  return hits.filter((hit) => {
    const text = context.texts.slice(hit.firstWord, hit.endWord).join(' ');
    if (seen.has(text) || seen.size === most) return false;
    seen.add(text);
    return true;
  });
}

/** Of a range of words, what is in the cut of a run: fillers before it and what trails behind it are not heard. */
export function inCut(context: SiftContext, run: Run, { firstWord, endWord }: WordRange): WordRange {
  return { firstWord: Math.max(firstWord, openingWord(context, run.first).word), endWord: Math.min(endWord, context.closings[run.end - 1]!) };
}

/** Hits of some tells in the cut of a run. */
export function hitsHeard(context: SiftContext, run: Run, tells: readonly Tell[] | ReadonlySet<Tell>): Hit[] {
  const cut = inCut(context, run, { firstWord: 0, endWord: Infinity });
  return hitsWithin(context, run, tells).filter((hit) => hit.firstWord >= cut.firstWord && hit.endWord <= cut.endWord);
}

export function toReading(signal: Signal, run: Run, context: SiftContext): SignalReading {
  const { sentence, evidence } = signal.explain(run);
  const shift = context.wordOffset;
  return {
    signal: signal.name,
    value: Math.round(signal.value(run)),
    sentence,
    evidence: evidence
      .map((range) => inCut(context, run, range))
      .filter(({ firstWord, endWord }) => firstWord < endWord)
      .map(({ firstWord, endWord }) => ({ firstWord: firstWord + shift, endWord: endWord + shift })),
  };
}
