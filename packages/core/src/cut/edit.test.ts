import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { demoTranscript } from '../talk.fixture.js';
import type { Transcript, Word } from '../transcript/types.js';
import { cutListOf, playedMs, sourceAt } from './cut-list.js';
import { type Edit, editProblem, joinedRuns, NO_EDIT, playedRuns, runsWithout, tidyEdit } from './edit.js';
import { playedTalk } from './played-talk.js';
import { proposeTightening, tightened } from './tighten.js';

/** Words with the pause after each in ms, where it is not 50: "um|900". */
function talkOf(...lines: string[]): Transcript {
  const words: Word[] = [];
  let pause = '0';
  const sentences = lines.map((line) => {
    const firstWord = words.length;
    for (const one of line.split(' ')) {
      const startMs = (words.at(-1)?.endMs ?? 0) + Number(pause);
      const [text, after = '50'] = one.split('|');
      words.push({ text: text!, kind: 'word', speaker: 0, startMs, endMs: startMs + 300 });
      pause = after;
    }
    return { firstWord, endWord: words.length, speaker: 0, startMs: words[firstWord]!.startMs, endMs: words.at(-1)!.endMs };
  });
  return { words, sentences, speakers: ['Ann'], durationMs: words.at(-1)!.endMs, wordTimes: 'given', sentenceEnds: 'written' };
}

const run = (firstWord: number, endWord: number) => ({ firstWord, endWord });
const cutsOf = (talk: Transcript, edit: Edit, ends = run(0, talk.words.length)) => cutListOf(talk.words, playedRuns(talk.words, { ...ends, edit }));
const textOf = (talk: Transcript, edit: Edit): string =>
  playedTalk(talk, { ...run(0, talk.words.length), edit })
    .words.map(({ text }) => text)
    .join(' ');

const talk = demoTranscript('up-the-flue-11');
const [FROM, TO] = [200, 320];
const anyRun = fc.integer({ min: FROM - 10, max: TO + 5 }).chain((at) => fc.integer({ min: 1, max: 12 }).map((long) => run(at, at + long)));
const anyEdit = fc.record({
  removed: fc.array(anyRun, { maxLength: 8 }),
  pauses: fc.array(fc.record({ afterWord: fc.integer({ min: FROM, max: TO }), leftMs: fc.integer({ min: 0, max: 900 }) }), { maxLength: 12 }),
  corrected: fc.array(fc.record({ word: fc.integer({ min: FROM, max: TO }), text: fc.constantFrom('', 'flue', 'two words', talk.words[5]!.text) }), {
    maxLength: 6,
  }),
  before: fc.array(anyRun, { maxLength: 2 }),
  after: fc.array(anyRun, { maxLength: 2 }),
});

describe('an edit', () => {
  test('plays every word that stays and none that goes, never cut into, for any edit', () => {
    fc.assert(
      fc.property(anyEdit, (edit) => {
        const gone = new Set(edit.removed.flatMap(({ firstWord, endWord }) => Array.from({ length: endWord - firstWord }, (_, k) => firstWord + k)));
        const played = playedRuns(talk.words, { ...run(FROM, TO), edit });
        const order = played.flatMap(({ firstWord, endWord }) => Array.from({ length: endWord - firstWord }, (_, k) => firstWord + k));
        const wanted = [...edit.before, run(FROM, TO), ...edit.after]
          .flatMap(({ firstWord, endWord }) => Array.from({ length: endWord - firstWord }, (_, k) => firstWord + k))
          .filter((word) => !gone.has(word));
        expect(order).toEqual(wanted);
        for (const one of played) {
          const [span] = cutListOf(talk.words, [one]);
          expect(span!.startMs).toBeLessThanOrEqual(talk.words[one.firstWord]!.startMs);
          expect(span!.endMs).toBeGreaterThanOrEqual(talk.words[one.endWord - 1]!.endMs);
          expect(span!.startMs).toBeGreaterThanOrEqual(talk.words[one.firstWord - 1]!.endMs);
          expect(span!.endMs).toBeLessThanOrEqual(talk.words[one.endWord]!.startMs);
        }
      }),
    );
  });

  test('has words at the times at which the cut list plays them, for any edit', () => {
    fc.assert(
      fc.property(anyEdit, (given) => {
        const edit = { ...given, corrected: [] };
        const cuts = cutsOf(talk, edit, run(FROM, TO));
        const said = playedTalk(talk, { ...run(FROM, TO), edit });
        expect(said.durationMs).toBe(playedMs(cuts));
        const order = playedRuns(talk.words, { ...run(FROM, TO), edit }).flatMap(({ firstWord, endWord }) => talk.words.slice(firstWord, endWord));
        for (const [i, word] of said.words.entries()) {
          expect([word.text, word.endMs - word.startMs]).toEqual([order[i]!.text, order[i]!.endMs - order[i]!.startMs]);
          expect(sourceAt(cuts, word.startMs)).toBe(order[i]!.startMs);
        }
        // Every word is in one sentence, and no sentence is empty.
        expect(said.sentences.flatMap(({ firstWord, endWord }) => said.words.slice(firstWord, endWord))).toEqual(said.words);
      }),
    );
  });

  test('that is tidied plays the same', () => {
    fc.assert(
      fc.property(anyEdit, (edit) => {
        const tidy = tidyEdit(edit);
        expect(tidyEdit(tidy)).toEqual(tidy);
        expect(cutsOf(talk, tidy, run(FROM, TO))).toEqual(cutsOf(talk, edit, run(FROM, TO)));
      }),
    );
  });

  test('cuts a pause down to what is left of it, half on each side, and leaves a shorter one alone', () => {
    const slow = talkOf('cold|2000 air|400 sinks');
    const edit = {
      ...NO_EDIT,
      pauses: [
        { afterWord: 0, leftMs: 501 },
        { afterWord: 1, leftMs: 500 },
      ],
    };
    const cuts = cutsOf(slow, edit);
    expect(cuts).toEqual([
      { startMs: 0, endMs: 300 + 251 },
      { startMs: 2_300 - 250, endMs: 3_300 },
    ]);
    expect(playedMs(cuts)).toBe(3_300 - 2_000 + 501);
  });

  test('brings words back one by one', () => {
    expect(runsWithout([run(3, 9), run(12, 13)], run(5, 6))).toEqual([run(3, 5), run(6, 9), run(12, 13)]);
    expect(joinedRuns([run(5, 7), run(1, 3), run(3, 4), run(6, 6 + 2)])).toEqual([run(1, 4), run(5, 8)]);
  });

  test('joins and splits words as they read', () => {
    const wrong = talkOf('every one sweeps the chimneyflue');
    const edit = {
      ...NO_EDIT,
      corrected: [
        { word: 0, text: 'Everyone' },
        { word: 1, text: '' },
        { word: 4, text: 'chimney flue' },
      ],
    };
    expect(textOf(wrong, edit)).toBe('Everyone sweeps the chimney flue');
    const { words } = playedTalk(wrong, { ...run(0, 5), edit });
    expect([words[0]!.startMs, words[0]!.endMs]).toEqual([0, wrong.words[1]!.endMs]);
  });

  test('plays other parts around the passage, each a sentence of its own', () => {
    const three = talkOf('one two.', 'three four.', 'five six.');
    const said = playedTalk(three, { ...run(0, 2), edit: { ...NO_EDIT, before: [run(4, 6)], after: [run(3, 4)] } });
    expect(said.sentences.map(({ firstWord, endWord }) => said.words.slice(firstWord, endWord).map(({ text }) => text))).toEqual([
      ['five', 'six.'],
      ['one', 'two.'],
      ['four.'],
    ]);
  });

  test('is refused with the field that cannot be played', () => {
    const three = talkOf('one two three');
    const problem = (edit: Partial<Edit>) => editProblem(three.words, { ...run(0, 3), edit: { ...NO_EDIT, ...edit } });
    expect(problem({})).toBeNull();
    expect(problem({ removed: [run(0, 2)] })).toBeNull();
    expect(problem({ removed: [run(0, 3)] })).toEqual({ field: 'removed', detail: 'leaves nothing of the passage' });
    expect(problem({ removed: [run(0, 1), run(2, 4)] })?.field).toBe('removed.1');
    expect(problem({ after: [run(2, 2)] })?.field).toBe('after.0');
    const whole = Array.from({ length: 20 }, () => run(0, talk.words.length));
    expect(editProblem(talk.words, { ...run(0, 3), edit: { ...NO_EDIT, after: whole } })?.field).toBe('after');
    expect(problem({ pauses: [{ afterWord: 2, leftMs: 0 }] })?.field).toBe('pauses.0.afterWord');
    expect(problem({ corrected: [{ word: 3, text: '' }] })?.field).toBe('corrected.0.word');
  });
});

describe('tightening', () => {
  const loose = talkOf('So um|900 we, we burn it, you know, dry.|2000', "I've got the, I've got my old flue.");
  const found = proposeTightening(loose, { ...run(0, loose.words.length), edit: NO_EDIT });

  test('finds long silences, sounds, repeats and starts that broke off, with what each saves', () => {
    const said = found.map(({ sort, firstWord, endWord }) => [
      sort,
      loose.words
        .slice(firstWord, endWord)
        .map(({ text }) => text)
        .join(' '),
    ]);
    expect(said).toEqual([
      ['filler', 'um'],
      ['pause', 'um we,'],
      ['repeat', 'we,'],
      ['filler', 'you know,'],
      ['pause', "dry. I've"],
      ['false-start', "I've got the,"],
    ]);
    expect(found.find(({ sort, savedMs }) => sort === 'pause' && savedMs === 1_500)).toBeDefined(); // 2 s less 2 × 0.25 s
  });

  test('all taken together leaves what was meant', () => {
    const edit = found.reduce(tightened, NO_EDIT);
    expect(textOf(loose, edit)).toBe("So we burn it, dry. I've got my old flue.");
    expect(proposeTightening(loose, { ...run(0, loose.words.length), edit })).toEqual([]);
  });

  test('of talk at large saves time with every cut, and never takes a sentence whole', () => {
    const whole = { ...run(0, talk.words.length), edit: NO_EDIT };
    const cuts = proposeTightening(talk, whole);
    expect(cuts.length).toBeGreaterThan(10);
    const edit = cuts.reduce(tightened, NO_EDIT);
    const before = playedMs(cutsOf(talk, NO_EDIT));
    expect(playedMs(cutsOf(talk, edit))).toBeLessThan(before);
    for (const { firstWord, endWord } of talk.sentences) expect(edit.removed.some((one) => one.firstWord <= firstWord && one.endWord >= endWord)).toBe(false);
  });
});
