import { type SiftContext, hitsWithin, Sums } from '../context.js';
import { counted, listed, toScale } from '../scale.js';
import { tabulate } from '../tabulate.js';
import type { Run } from '../types.js';
import { type HeardVoice, hearVoice } from '../voice.js';
import { wordsOf } from './parts.js';
import { differentHits, quote, type Signal, tidyEvidence } from './signal.js';

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
  const pauses = new Sums(tabulate(sentences.length, (s) => countPauses(context, s, PAUSE_MS, HOLE_MS)));
  const holes = new Sums(tabulate(sentences.length, (s) => countPauses(context, s, HOLE_MS, Infinity)));
  const turns = new Sums(tabulate(sentences.length, (s) => (s > 0 && sentences[s - 1]!.speaker !== sentences[s]!.speaker ? 1 : 0)));
  const stumblesIn = (run: Run): number => context.count('filler', run) + context.count('repeat', run);
  const stumbles = new Sums(tabulate(sentences.length, (s) => stumblesIn({ first: s, end: s + 1 })));
  const voice = context.input.voice ?? null;
  const heard: (run: Run) => HeardVoice | null = voice === null ? () => null : hearVoice(voice, sentences);
  const pace = (run: Run): number => (context.wordCounts.sum(run) * 60_000) / Math.max(1, spokenMs.sum(run));
  const raw = (run: Run): number => {
    const words = Math.max(1, context.wordCounts.sum(run));
    const wpm = pace(run);
    const off = wpm < LIVELY_LOW ? (LIVELY_LOW - wpm) / 40 : wpm > LIVELY_HIGH ? (wpm - LIVELY_HIGH) / 50 : 0;
    const minutes = Math.max(0.2, spokenMs.sum(run) / 60_000);
    return (
      1 -
      Math.min(2, off) -
      (60 * stumbles.sum(run)) / (words + 10) -
      Math.min(1, holes.sum(run) / minutes / 3) * 0.6 +
      Math.min(0.4, turns.sum(run) / minutes / 20) +
      liveliness(heard(run))
    );
  };
  return {
    name: 'delivery',
    value: (run) => toScale(raw(run), 0.05, 1.25),
    explain: (run) => {
      const given = context.input.transcript.wordTimes === 'given';
      const parts = [`${Math.round(pace(run))} words a minute`, ofStumbles(context, run, stumbles.sum(run))];
      const pauseCount = pauses.sum(run);
      if (given && pauseCount > 0) parts.push(counted(pauseCount, 'clean pause'));
      const voiced = heard(run);
      if (voiced !== null) parts.push(ofVoice(voiced));
      const by = [...(voiced === null ? [] : ['sound']), 'text', ...(given ? ['word times'] : [])];
      const alone = by.length === 1 ? ' alone' : '';
      return {
        sentence: `${parts.join(', ')}; judged by ${listed(by)}${alone}`,
        evidence: tidyEvidence(bestSaid(context, run, raw).map((s) => wordsOf(context, s))),
      };
    },
  };
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
  const shown = differentHits(context, hitsWithin(context, run, ['filler', 'repeat']), 2).map((hit) => quote(context, hit));
  return `${counted(n, 'filler or false start', 'fillers or false starts')} (${shown.join(', ')})`;
}

/** The two sentences that are said best, where they are said better than the rest. */
function bestSaid(context: SiftContext, run: Run, raw: (run: Run) => number): number[] {
  const whole = raw(run);
  const of = (s: number): number => raw({ first: s, end: s + 1 });
  return Array.from({ length: run.end - run.first }, (_, k) => run.first + k)
    .filter((s) => context.sentences[s]!.endWord - context.sentences[s]!.firstWord >= TELLING_WORDS && of(s) > whole)
    .sort((a, b) => of(b) - of(a) || a - b)
    .slice(0, 2);
}

function countPauses(context: SiftContext, s: number, fromMs: number, toMs: number): number {
  const { firstWord, endWord } = context.sentences[s]!;
  let n = 0;
  for (let i = Math.max(1, firstWord); i < endWord; i += 1) {
    const gap = context.words[i]!.startMs - context.words[i - 1]!.endMs;
    if (gap >= fromMs && gap < toMs) n += 1;
  }
  return n;
}
