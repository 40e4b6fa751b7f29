import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { toVtt, transcriptOf } from '../../talk.fixture.js';
import { buildContext, type SiftContext } from '../context.js';
import type { Vectors } from '../types.js';
import { endParts, goesOn, readEnds, startParts, subjectTurns } from './ends.js';
import { buildSignals } from './index.js';

type Line = readonly [speaker: string, text: string];
const contextOf = (lines: readonly Line[]): SiftContext =>
  buildContext({
    transcript: transcriptOf(toVtt(lines.map(([speaker, text]) => ({ speaker, text })))),
    brief: { partStartMs: 0, partEndMs: null, minMs: 3_000, maxMs: 60_000, roughCount: 5, topics: [], kinds: [], avoid: [] },
    clientTags: [],
    sentenceVectors: null,
    topicVectors: null,
  });

/** What a part of an end says of a sentence, by name. */
function endOf(lines: readonly Line[], s: number, name: string): number {
  const context = contextOf(lines);
  const after = s + 1 < context.sentences.length ? s + 1 : null;
  return endParts(context, readEnds(context))
    .find((part) => part.name === name)!
    .value(s, after);
}

describe('ends', () => {
  it.each<[string, boolean]>([
    ['So it isn’t about germs, and it isn’t about the size.', true],
    ['I told her to do one thing.', true],
    ['And do you know what?', true],
    ['It isn’t about germs, it’s the walk that is left in the sole.', false],
    ['We paid nine euro for the bag.', false],
  ])('“%s” waits for the rest: %s', (text, waits) => {
    const lines: Line[] = [
      ['Ann', 'We talked about old shoes.'],
      ['Ann', text],
      ['Ann', 'A shoe that was worn has the first walk in it.'],
    ];
    expect(endOf(lines, 1, 'sets up')).toBe(waits ? 1 : 0);
  });
  it('nothing waits for the rest where the talk ends', () => expect(endOf([['Ann', 'I told her to do one thing.']], 0, 'sets up')).toBe(0));
  it('the pay-off is left outside only where the same speaker says it in the same breath', () => {
    const payOff = 'That is the worst thing anybody ever did to me, and I cried.';
    const went: Line = ['Ann', 'We went down to the shed.'];
    expect(endOf([went, ['Ann', payOff]], 0, 'pay-off left outside')).toBeGreaterThan(0.5);
    expect(endOf([went, ['Bo', payOff]], 0, 'pay-off left outside')).toBe(0);
    expect(endOf([went], 0, 'pay-off left outside')).toBe(0);
  });
  it('a question by somebody else marks an end, one by the same speaker does not', () => {
    const said: Line = ['Ann', 'It was thirty one per cent water.'];
    expect(endOf([said, ['Bo', 'And what did he say?']], 0, 'asked on')).toBe(1);
    expect(endOf([said, ['Ann', 'And what did he say?']], 0, 'asked on')).toBe(0);
  });
  it('a question put to the other asks for more; one that a story ends on does not', () => {
    const told: Line[] = [
      ['Ann', 'I went round to knock on the door of the house.'],
      ['Ann', 'I had my coat and my goggles on.'],
    ];
    const putIn: Line[] = [...told, ['Bo', 'And what did she say?'], ['Ann', 'She said nothing for a while.']];
    expect(endOf(putIn, 2, 'asks for more')).toBe(1);
    const punch: Line[] = [...told, ['Ann', 'And she said, does your mother know that you are out?'], ['Bo', 'No!']];
    expect(endOf(punch, 2, 'asks for more')).toBe(0);
    // At the very end of the talk nobody answers, and the first words of a talk are nobody's question to a story.
    expect(endOf(putIn.slice(0, 3), 2, 'asks for more')).toBe(0);
    expect(
      endOf(
        [
          ['Bo', 'How do you do it?'],
          ['Ann', 'I sit and wait.'],
        ],
        0,
        'asks for more',
      ),
    ).toBe(0);
  });
  it('a passage that begins or ends inside a quotation says so, and stands alone less well', () => {
    const context = contextOf([
      ['Ann', 'She wrote to us, “We have had no water for a week.'],
      ['Ann', 'The pipe is cracked.”'],
      ['Ann', 'We went out there on a Friday with the big pump.'],
      ['Ann', 'It was dark.'],
    ]);
    // Of ends alone: four sentences have no ground from which one could stand out.
    const standsAlone = buildSignals({ ...context, standOut: new Float64Array(context.sentences.length) })[1]!;
    expect(standsAlone.explain({ first: 1, end: 4 }).sentence).toContain('Begins inside a quotation');
    expect(standsAlone.explain({ first: 0, end: 1 }).sentence).toContain('ends inside a quotation');
    expect(standsAlone.explain({ first: 0, end: 4 }).sentence).not.toContain('quotation');
    expect(standsAlone.value({ first: 0, end: 2 })).toBeGreaterThan(standsAlone.value({ first: 0, end: 1 }));
  });
  it('an answer without its question is a bad start', () => {
    const context = contextOf([
      ['Bo', 'How often should I sweep it?'],
      ['Ann', 'Once a year, in the spring.'],
    ]);
    const outside = startParts(context, readEnds(context)).find((part) => part.name === 'question left outside')!;
    expect([outside.value(1, 0), outside.value(0, null)]).toEqual([1, 0]);
  });
  it('a thought goes on where it is taken up, set up or paid off at once', () => {
    const context = contextOf([
      ['Ann', 'The chimney was warm.'],
      ['Ann', 'Because there was a fire behind the plaster.'],
      ['Ann', 'I told her one thing.'],
      ['Bo', 'We walked back along the road.'],
      ['Bo', 'There was a shed.'],
    ]);
    expect([0, 2, 3].map((s) => goesOn(context, s, s + 1))).toEqual([true, true, false]);
    const standsAlone = buildSignals(context)[1]!;
    expect(standsAlone.explain({ first: 0, end: 3 }).sentence).toContain('though the thought goes on');
    expect(standsAlone.explain({ first: 0, end: 4 }).sentence).toContain('ends on a finished thought');
  });
});

describe('turns of the subject', () => {
  const rows = (directions: readonly number[]): Vectors => {
    const data = new Float32Array(directions.length * 3);
    directions.forEach((d, row) => (data[row * 3 + d] = 1));
    return { dimensions: 3, data };
  };
  it('are complete where one subject follows another, and none inside of one', () => {
    const turns = subjectTurns(rows([0, 0, 0, 0, 0, 0, 1, 1, 1, 1, 1, 1]), 12);
    expect(turns[6]).toBeCloseTo(1, 9);
    expect(turns[1]).toBeCloseTo(0, 9);
    expect(turns[11]).toBeCloseTo(0, 9);
    expect(turns[4]!).toBeLessThan(turns[5]!);
    expect(turns[7]!).toBeLessThan(turns[6]!);
  });
  it('stand at both ends of the talk, however short it is', () => {
    expect([...subjectTurns(rows([0]), 1)]).toEqual([1, 1]);
    expect([...subjectTurns(rows([]), 0)]).toEqual([1]);
  });
  it('are what the blocks on both sides say, added up anew for each gap', () => {
    const vectors = fc.array(fc.float({ min: -1, max: 1, noNaN: true }), { minLength: 60, maxLength: 60 });
    fc.assert(
      fc.property(vectors, (values) => {
        const [n, dimensions] = [20, 3];
        const data = Float32Array.from(values);
        const turns = subjectTurns({ dimensions, data }, n);
        for (let s = 1; s < n; s += 1) {
          const sum = (from: number, to: number): number[] =>
            [0, 1, 2].map((d) => Array.from({ length: Math.max(0, to - from) }, (_, i) => data[(from + i) * 3 + d]!).reduce((a, b) => a + b, 0));
          const [a, b] = [sum(Math.max(0, s - 3), s), sum(s, Math.min(n, s + 3))];
          const dot = (x: number[], y: number[]): number => x.reduce((all, value, d) => all + value * y[d]!, 0);
          const length = dot(a, a) * dot(b, b);
          if (length > 1e-6) expect(turns[s]!).toBeCloseTo(1 - Math.max(0, dot(a, b) / Math.sqrt(length)), 4);
          expect(turns[s]!).toBeGreaterThanOrEqual(0);
          expect(turns[s]!).toBeLessThanOrEqual(1);
        }
      }),
    );
  });
});
