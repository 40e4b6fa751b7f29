import type { SiftContext } from '../context.js';
import { Sums } from '../sums.js';
import { counted, listed, toScale } from '../scale.js';
import { tabulate } from '../tabulate.js';
import type { Run } from '../types.js';
import { type HeardVoice, hearVoice } from '../voice.js';
import { wordsOf } from './parts.js';
import { differentHits, hitsHeard, quote, type Signal, tidyEvidence } from './signal.js';

/** A pause that is heard as a pause, and one that is heard as a hole, in ms. */
const PAUSE_MS = 350;
const HOLE_MS = 1_400;
/** Easy, lively talk in words a minute. Common practice: 150 to 185. */
const LIVELY_LOW = 150;
const LIVELY_HIGH = 185;
/** A voice that moves over this many semitones (standard deviation) neither drones nor sings; from memory, two to four are usual in talk. */
const USUAL_MOVE = 2.6;
const MOVE_SCALE = 1.6;
/** A voice raised by this many dB is plainly raised. */
const LIFT_SCALE_DB = 4;
/** Sentences shorter than this tell little of how somebody speaks. */
const TELLING_WORDS = 5;

/**
 * Delivery: pace, pauses, few fillers, and, where the sound is at hand, how the voice moves and rises. How much each counts
 * is set by judgement: the marked talks have no sound.
 */
export function delivery(context: SiftContext): Signal {
  const { sentences } = context;
  const spokenMs = new Sums(tabulate(sentences.length, (s) => sentences[s]!.endMs - sentences[s]!.startMs));
  const pauses = pausesWithin(context, PAUSE_MS, HOLE_MS);
  const holes = pausesWithin(context, HOLE_MS, Infinity);
  const changes = new Sums(tabulate(sentences.length, (s) => (s > 0 && sentences[s - 1]!.speaker !== sentences[s]!.speaker ? 1 : 0)));
  const turns = (run: Run): number => changes.sum(afterFirst(run));
  const stumblesIn = (run: Run): number => context.count('filler', run) + context.count('repeat', run);
  const stumbles = new Sums(tabulate(sentences.length, (s) => stumblesIn({ first: s, end: s + 1 })));
  const voice = context.input.voice ?? null;
  const heard: (run: Run) => HeardVoice | null = voice === null ? () => null : hearVoice(voice, sentences);
  const pace = (run: Run): number => (context.wordCounts.sum(run) * 60_000) / Math.max(1, spokenMs.sum(run));
  const counts = (run: Run): Counts => ({
    words: context.wordCounts.sum(run),
    spokenMs: spokenMs.sum(run),
    stumbles: stumbles.sum(run),
    holes: holes(run),
    turns: turns(run),
  });
  const raw = (run: Run): number => rawOf(counts(run)) + liveliness(heard(run));
  /** The counts of a passage that some sentences are cut out of: where they were, a hole gapes. */
  const countsWithout = (run: Run, gone: readonly number[]): Counts => {
    const left = Array.from({ length: run.end - run.first }, (_, k) => run.first + k).filter((s) => !gone.includes(s));
    const sum = { words: 0, spokenMs: 0, stumbles: 0, holes: 0, turns: 0 };
    left.forEach((s, k) => {
      const own = counts({ first: s, end: s + 1 });
      const before = k === 0 ? null : sentences[left[k - 1]!]!;
      sum.words += own.words;
      sum.spokenMs += own.spokenMs;
      sum.stumbles += own.stumbles;
      sum.holes += own.holes + (before !== null && sentences[s]!.startMs - before.endMs >= HOLE_MS ? 1 : 0);
      sum.turns += before !== null && before.speaker !== sentences[s]!.speaker ? 1 : 0;
    });
    return sum;
  };
  return {
    name: 'delivery',
    value: (run) => toScale(raw(run), 0.05, 1.25),
    explain: (run) => {
      const given = context.input.transcript.wordTimes !== 'spread';
      const parts = [`${Math.round(pace(run))} words a minute`];
      if (context.language === null) parts.push(ofStumbles(context, run, stumbles.sum(run)));
      const pauseCount = pauses(run);
      if (given && pauseCount > 0) parts.push(counted(pauseCount, 'clean pause'));
      const voiced = heard(run);
      if (voiced !== null) parts.push(ofVoice(voiced));
      const by = [...(voiced === null ? [] : ['sound']), 'text', ...(given ? ['word times'] : [])];
      const alone = by.length === 1 ? ' alone' : '';
      return {
        sentence: `${parts.join(', ')}; judged by ${listed(by)}${alone}`,
        evidence: tidyEvidence(
          bestSaid(context, run, raw, (gone) => rawOf(countsWithout(run, gone)) < rawOf(counts(run))).map((s) => wordsOf(context, run, s)),
        ),
      };
    },
  };
}

/** What is counted of a passage. */
interface Counts {
  readonly words: number;
  readonly spokenMs: number;
  readonly stumbles: number;
  readonly holes: number;
  readonly turns: number;
}

function rawOf({ words, spokenMs, stumbles, holes, turns }: Counts): number {
  const wpm = (words * 60_000) / Math.max(1, spokenMs);
  const off = wpm < LIVELY_LOW ? (LIVELY_LOW - wpm) / 40 : wpm > LIVELY_HIGH ? (wpm - LIVELY_HIGH) / 50 : 0;
  const minutes = Math.max(0.2, spokenMs / 60_000);
  return 1 - Math.min(2, off) - (60 * stumbles) / (Math.max(1, words) + 10) - Math.min(1, holes / minutes / 3) * 0.6 + Math.min(0.4, turns / minutes / 20);
}

const within = (value: number): number => Math.min(1, Math.max(-1, value));

/** What the voice adds to the raw measure, -0.55 to 0.55; nothing where it was not heard. */
function liveliness(voice: HeardVoice | null): number {
  return voice === null ? 0 : 0.35 * within((voice.movesSemitones - USUAL_MOVE) / MOVE_SCALE) + 0.2 * within(voice.liftDb / LIFT_SCALE_DB);
}

function ofVoice({ movesSemitones, liftDb }: HeardVoice): string {
  const moves = `the voice moves over ${movesSemitones.toFixed(1)} semitones`;
  const lift = Math.round(liftDb);
  return lift === 0 ? moves : `${moves}, ${Math.abs(lift)} dB ${lift > 0 ? 'above' : 'below'} the usual`;
}

function ofStumbles(context: SiftContext, run: Run, n: number): string {
  if (n === 0) return 'no fillers or false starts';
  const shown = differentHits(context, hitsHeard(context, run, ['filler', 'repeat']), 2).map((hit) => quote(context, hit));
  return `${counted(n, 'filler or false start', 'fillers or false starts')} (${shown.join(', ')})`;
}

/**
 * The two sentences that are said best, where they are said better than the passage is on the average of its sentences
 * (a change of voice lies between sentences, so none is measured against the whole), and the passage would be poorer
 * without them.
 */
function bestSaid(context: SiftContext, run: Run, raw: (run: Run) => number, poorerWithout: (gone: readonly number[]) => boolean): number[] {
  const each = Array.from({ length: run.end - run.first }, (_, k) => ({ s: run.first + k, raw: raw({ first: run.first + k, end: run.first + k + 1 }) }));
  const usual = each.reduce((sum, one) => sum + one.raw, 0) / each.length;
  const best = each
    .filter(({ s, raw: own }) => context.sentences[s]!.endWord - context.sentences[s]!.firstWord >= TELLING_WORDS && own > usual)
    .sort((a, b) => b.raw - a.raw || a.s - b.s)
    .map(({ s }) => s)
    .filter((s) => poorerWithout([s]))
    .slice(0, 2);
  return best.length === 2 && !poorerWithout(best) ? best.slice(0, 1) : best;
}

/** The sentences of a run but the first: what stands before a passage (a pause, a change of voice) is not said in it. */
const afterFirst = ({ first, end }: Run): Run => ({ first: Math.min(first + 1, end), end });

/** How many pauses of a length a passage holds: those inside its sentences, and those before each sentence but the first. */
function pausesWithin({ words, sentences }: SiftContext, fromMs: number, toMs: number): (run: Run) => number {
  const isPause = (i: number): number => {
    const gap = i === 0 ? -1 : words[i]!.startMs - words[i - 1]!.endMs;
    return gap >= fromMs && gap < toMs ? 1 : 0;
  };
  const inside = new Sums(
    tabulate(sentences.length, (s) => {
      let n = 0;
      for (let i = sentences[s]!.firstWord + 1; i < sentences[s]!.endWord; i += 1) n += isPause(i);
      return n;
    }),
  );
  const before = new Sums(tabulate(sentences.length, (s) => isPause(sentences[s]!.firstWord)));
  return (run) => inside.sum(run) + before.sum(afterFirst(run));
}
