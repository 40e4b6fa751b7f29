import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { DEMO_TALKS, demoLines, demoTranscript, toVtt, transcriptOf } from '../talk.fixture.js';
import { JOINS_BACK, TAILS, TAILS_AFTER_PAUSE } from '../text/lists/clauses.js';
import { PERSONS, STANDS_FOR } from '../text/lists/edges.js';
import { FILLER_SOUNDS, LEADING_FILLERS } from '../text/lists/talk.js';
import type { Transcript } from '../transcript/types.js';
import { sift, siftSteps } from './sift.js';
import { type Brief, SIGNALS, type SiftInput, type SiftResult } from './types.js';
import { WEIGHTS } from './score.js';
import { normalise } from '../text/normalise.js';

const BRIEF: Brief = { partStartMs: 0, partEndMs: null, minMs: 25_000, maxMs: 60_000, roughCount: 12, topics: [], kinds: [], avoid: [] };
const input = (transcript: Transcript, brief: Partial<Brief> = {}, clientTags: string[] = []): SiftInput => ({
  transcript,
  brief: { ...BRIEF, ...brief },
  clientTags,
  sentenceVectors: null,
  topicVectors: null,
});

const said = ({ words }: Transcript, from: number, to: number): string[] =>
  words
    .slice(from, to)
    .filter(({ kind }) => kind === 'word')
    .map(({ text }) => normalise(text))
    .filter((text) => text !== '');
const asSaid = (text: string): string => said(transcriptOf(`WEBVTT\n\n00:01.000 --> 00:09.000\n<v Ann>${text}\n`), 0, Infinity).join(' ');
/** What a sentence quotes, as words with a space around them. What it leans on stands before the cut, and is quoted as missing. */
const quotesOf = (sentence: string): string[] =>
  /^Leans on/.test(sentence) ? [] : [...sentence.matchAll(/“…?([^”…[]+)…?”/g)].map((match) => ` ${asSaid(match[1]!)} `);
const TRAILING = new Set([...TAILS, ...TAILS_AFTER_PAUSE].flat());

function endsWell(transcript: Transcript, endWord: number): boolean {
  const last = transcript.sentences.find((sentence) => sentence.firstWord < endWord && endWord <= sentence.endWord)!;
  return said(transcript, endWord, last.endWord).every((word) => TRAILING.has(word));
}

/** Before the start there are fillers alone, or it is a clause of its own: behind a comma or "and", of nothing that stands for something. */
function startsWell(transcript: Transcript, firstWord: number): boolean {
  const first = transcript.sentences.find((sentence) => sentence.firstWord <= firstWord && firstWord < sentence.endWord)!;
  const before = said(transcript, first.firstWord, firstWord);
  const fillers = before.every(
    (word) => LEADING_FILLERS.has(word) || JOINS_BACK.has(word) || /^(?:you|know|i|mean|sort|kind|of|all|right|course|let|me|see)$/.test(word),
  );
  if (fillers) return true;
  const clause = said(transcript, firstWord, Math.min(first.endWord, firstWord + 6));
  const apart = /[,;:—–-]$/.test(transcript.words[firstWord - 1]!.text) || LEADING_FILLERS.has(before.at(-1)!) || JOINS_BACK.has(before.at(-1)!);
  return apart && clause.length >= 4 && clause.every((word) => !STANDS_FOR.has(word) && !PERSONS.has(word));
}

/** What must be true of every result, on any talk. */
function checkResult({ transcript, brief }: SiftInput, result: SiftResult): void {
  const byTime = [...result.candidates].sort((a, b) => a.startMs - b.startMs);
  byTime.forEach((one, i) => {
    if (i > 0) expect(one.startMs, 'no two overlap').toBeGreaterThanOrEqual(byTime[i - 1]!.endMs);
  });
  result.candidates.forEach((one, i) => {
    expect(one.rank).toBe(i + 1);
    if (i > 0) expect(one.score).toBeLessThanOrEqual(result.candidates[i - 1]!.score);
    expect(one.endMs - one.startMs).toBeGreaterThanOrEqual(brief.minMs);
    expect(one.endMs - one.startMs).toBeLessThanOrEqual(brief.maxMs);
    expect(one.startMs).toBeGreaterThanOrEqual(brief.partStartMs);
    expect(one.endMs).toBeLessThanOrEqual(brief.partEndMs ?? transcript.durationMs);
    expect(endsWell(transcript, one.endWord), 'ends with a sentence, or before what trails behind it').toBe(true);
    expect(startsWell(transcript, one.firstWord), `starts well, on “${transcript.words[one.firstWord]!.text}”`).toBe(true);
    expect(FILLER_SOUNDS.has(normalise(transcript.words[one.firstWord]!.text)), 'does not start with a sound of thinking').toBe(false);
    expect(one.startMs).toBeLessThanOrEqual(transcript.words[one.firstWord]!.startMs);
    if (one.firstWord > 0) expect(one.startMs, 'not inside the word before').toBeGreaterThanOrEqual(transcript.words[one.firstWord - 1]!.endMs);
    if (one.endWord < transcript.words.length) expect(one.endMs, 'not inside the word after').toBeLessThanOrEqual(transcript.words[one.endWord]!.startMs);
    const heard = ` ${said(transcript, one.firstWord, one.endWord).join(' ')} `;
    for (const line of [one.firstLine, one.lastLine].map(asSaid)) expect(line === '' || heard.includes(` ${line} `), `“${line}” is heard`).toBe(true);
    for (const name of SIGNALS) {
      const { value, sentence, evidence } = one.signals[name];
      expect(value).toBeGreaterThanOrEqual(0);
      expect(value).toBeLessThanOrEqual(100);
      expect(sentence.length).toBeGreaterThan(10);
      if (name !== 'currency') for (const quoted of quotesOf(sentence)) expect(heard, `quotes only what is heard: ${sentence}`).toContain(quoted);
      evidence.forEach((range) => {
        expect(range.firstWord).toBeGreaterThanOrEqual(one.firstWord);
        expect(range.endWord).toBeLessThanOrEqual(one.endWord);
        expect(range.endWord).toBeGreaterThan(range.firstWord);
      });
    }
    expect(one.reason).toMatch(/\.$/);
    expect(one.title.length).toBeGreaterThan(0);
    expect(one.title.length).toBeLessThanOrEqual(70);
  });
  expect(result.strongCount).toBeLessThanOrEqual(result.candidates.length);
  const sentenceStarts = new Set(transcript.sentences.map((sentence) => sentence.startMs));
  result.chapters.forEach((chapter) => {
    expect(sentenceStarts.has(chapter.startMs), 'a chapter starts exactly where its first sentence does').toBe(true);
    expect(chapter.title.split(' ').length).toBeLessThanOrEqual(6);
  });
}

describe.each(DEMO_TALKS)('sift of %s', (name) => {
  const transcript = demoTranscript(name);
  const result = sift(input(transcript));
  it('holds its promises', () => checkResult(input(transcript), result));
  it('finds something to post', () => expect(result.candidates.length).toBeGreaterThan(3));
  it('gives the same again', () => expect(sift(input(transcript))).toEqual(result));
  it('shifts with the times', () => {
    const by = 77_345;
    const move = <T extends { startMs: number; endMs: number }>(one: T): T => ({ ...one, startMs: one.startMs + by, endMs: one.endMs + by });
    const moved: Transcript = {
      ...transcript,
      words: transcript.words.map(move),
      sentences: transcript.sentences.map(move),
      durationMs: transcript.durationMs + by,
    };
    const again = sift(input(moved, { partStartMs: by }));
    const back = <T extends { startMs: number; endMs: number }>(one: T): T => ({ ...one, startMs: one.startMs - by, endMs: one.endMs - by });
    expect(again.candidates.map((one) => ({ ...back(one), alternatives: one.alternatives.map(back) }))).toEqual(result.candidates);
    expect(again.chapters.map((one) => one.startMs - by)).toEqual(result.chapters.map((one) => one.startMs));
  });
  it('keeps to the part, the avoided words and the length of a brief', () => {
    const asked = input(transcript, {
      partStartMs: 120_000,
      partEndMs: transcript.durationMs - 90_000,
      minMs: 15_000,
      maxMs: 30_000,
      avoid: ['thing', 'money'],
    });
    const own = sift(asked);
    checkResult(asked, own);
    for (const one of own.candidates)
      expect(transcript.words.slice(one.firstWord, one.endWord).some((word) => /^(?:things?|money)$/.test(normalise(word.text)))).toBe(false);
  });
});

describe('sift', () => {
  it('is not touched by what lies outside the part', () => {
    const lines = demoLines('up-the-flue-11');
    const alone = transcriptOf(toVtt(lines));
    const more = transcriptOf(toVtt([...lines, ...demoLines('what-goes-down-31').slice(0, 60)]));
    const brief = { partEndMs: alone.durationMs };
    expect(sift(input(more, brief)).candidates).toEqual(sift(input(alone, brief)).candidates);
  });
  it('leaves greetings, the sponsor and the sign-off alone', () => {
    const transcript = demoTranscript('up-the-flue-12');
    const top = sift(input(transcript)).candidates.slice(0, 10);
    for (const one of top) {
      const said = transcript.words
        .slice(one.firstWord, one.endWord)
        .map((word) => word.text)
        .join(' ');
      expect(said).not.toMatch(/brought to you by|use the code|leave us a review|Hello and welcome/);
    }
  });
  it('ranks what the brief asks about higher', () => {
    const transcript = demoTranscript('up-the-flue-12');
    const about = (result: SiftResult): number =>
      result.candidates.slice(0, 8).filter((one) =>
        /alarm|monoxide/i.test(
          transcript.words
            .slice(one.firstWord, one.endWord)
            .map((word) => word.text)
            .join(' '),
        ),
      ).length;
    const plain = sift(input(transcript));
    const asked = sift(input(transcript, { topics: ['carbon monoxide', 'alarm'] }));
    expect(about(asked)).toBeGreaterThan(about(plain));
    expect(asked.candidates[0]!.signals.currency.evidence.length + asked.candidates[1]!.signals.currency.evidence.length).toBeGreaterThan(0);
  });
  it('says low scores of a dull hour', () => {
    const dull = Array.from({ length: 40 }, (_, i) => ({
      speaker: i % 2 ? 'Ann' : 'Bo',
      text: [
        'Okay so we will move on to the next item then.',
        'I think that was it, more or less.',
        'We can come to that in a bit.',
        'There was some of that as well, yes.',
      ][i % 4]!,
    }));
    const result = sift(input(transcriptOf(toVtt(dull))));
    expect(result.strongCount).toBe(0);
  });
  it('tells its stages, in order, from 0 to 1', () => {
    const steps = siftSteps(input(demoTranscript('up-the-flue-11')));
    const fractions: number[] = [];
    for (let step = steps.next(); step.done !== true; step = steps.next()) fractions.push(step.value.fraction);
    expect(fractions).toEqual([...fractions].sort((a, b) => a - b));
    expect(fractions[0]).toBe(0);
  });
  it.each([
    [{ minMs: 1_000 }, 'minMs'],
    [{ minMs: 60_000, maxMs: 30_000 }, 'minMs'],
    [{ partStartMs: 99_000_000 }, 'partStartMs'],
    [{ partStartMs: 60_000, partEndMs: 30_000 }, 'partEndMs'],
  ])('refuses the brief %j with its field', (brief, field) => {
    expect(() => sift(input(demoTranscript('up-the-flue-11'), brief))).toThrow(expect.objectContaining({ name: 'BriefRefusedError', field }));
  });
  it('finds nothing in a part without sentences, and says so', () => {
    const result = sift(input(transcriptOf('WEBVTT\n\n00:10.000 --> 00:12.000\nHello there.\n'), { partStartMs: 11_000 }));
    expect(result).toMatchObject({ candidates: [], strongCount: 0 });
    expect(result.limits).toContain('short-part');
  });
  it('holds its promises on made-up talk of any shape', () => {
    const texts = fc.constantFrom(
      'Um, so, yeah.',
      'What did it cost?',
      'It cost forty pence and I nearly cried.',
      'And then he left.',
      'You should never do that.',
      'no full stop here',
      'I think it is nonsense!',
      '[laughter]',
      'Because of the wet.',
      'We were standing in the rain for nine hours',
    );
    fc.assert(
      fc.property(fc.array(fc.record({ speaker: fc.constantFrom('Ann', 'Bo'), text: texts }), { minLength: 1, maxLength: 60 }), (lines) => {
        const asked = input(transcriptOf(toVtt(lines)), { minMs: 5_000, maxMs: 20_000 });
        checkResult(asked, sift(asked));
      }),
      {
        numRuns: 60,
        examples: [
          // Evidence ran over the end that a tail had been cut off from.
          [
            [
              { speaker: 'Ann', text: 'It cost forty pence and I nearly cried.' },
              { speaker: 'Bo', text: 'We were standing in the rain for nine hours' },
              { speaker: 'Bo', text: 'Um, so, yeah.' },
            ],
          ],
        ],
      },
    );
  });
  it('has weights that sum to one', () => expect(SIGNALS.reduce((sum, name) => sum + WEIGHTS[name], 0)).toBeCloseTo(1, 9));
});
