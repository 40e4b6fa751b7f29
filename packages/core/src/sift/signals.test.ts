import { describe, expect, it } from 'vitest';
import { toVtt, transcriptOf } from '../talk.fixture.js';
import { buildContext, type SiftContext } from './context.js';
import { hitsWithin } from './counted-hits.js';
import { canClose, canOpen, openingWord } from './edges.js';
import { kindOf } from './kinds.js';
import { counted, listed, raised, roundScore, toScale } from './scale.js';
import { weightsFor } from './reweigh.js';
import { buildScorer } from './score.js';
import { buildSignals } from './signals/index.js';
import { tidyEvidence } from './signals/signal.js';
import type { Tell } from '../text/lists/tells.js';
import { type Brief, SIGNALS, type SignalName } from './types.js';

const BRIEF: Brief = { partStartMs: 0, partEndMs: null, minMs: 5_000, maxMs: 60_000, roughCount: 5, topics: [], kinds: [], avoid: [] };

type Line = string | { speaker?: string; text: string };
const contextOf = (lines: readonly Line[], brief: Partial<Brief> = {}, clientTags: string[] = []): SiftContext =>
  buildContext({
    transcript: transcriptOf(toVtt(lines.map((line) => (typeof line === 'string' ? { speaker: 'Ann', text: line } : line)))),
    brief: { ...BRIEF, ...brief },
    clientTags,
    sentenceVectors: null,
    topicVectors: null,
  });

/** Value and explanation of a signal for the whole of a little talk. */
function judge(
  name: SignalName,
  lines: readonly Line[],
  brief: Partial<Brief> = {},
  clientTags: string[] = [],
): { value: number; sentence: string; words: string[] } {
  const context = contextOf(lines, brief, clientTags);
  const signal = buildSignals(context)[SIGNALS.indexOf(name)]!;
  const run = { first: 0, end: context.sentences.length };
  const { sentence, evidence } = signal.explain(run);
  return {
    value: signal.value(run),
    sentence,
    words: evidence.map((range) =>
      context.words
        .slice(range.firstWord, range.endWord)
        .map((word) => word.text)
        .join(' '),
    ),
  };
}

const FLAT = ['We went along there for a while.', 'It was more or less like the others.', 'Then we came back again.', 'That was about it really.'];

describe('signals: more of what earns them is worth more, and its words are the evidence', () => {
  it.each<[SignalName, string[], string[]]>([
    [
      'substance',
      [
        'Hold one sheet of paper there for thirty seconds.',
        'It costs two cents, because paper is cheap.',
        'You should never use forty.',
        'For example, ours took nine weeks.',
      ],
      ['never use forty'],
    ],
    [
      'charge',
      ['I think that is nonsense!', 'I could not believe it, I was terrified.', 'It is the worst thing anybody ever did.', 'We cried and cried. [laughter]'],
      ['could not believe', 'terrified.'],
    ],
  ])('%s', (name, strong, evidence) => {
    const judged = judge(name, strong);
    expect(judged.value).toBeGreaterThan(judge(name, FLAT).value + 25);
    for (const words of evidence) expect(judged.words.join(' | ')).toContain(words);
  });
  it('substance and charge fall when the words that earned them are taken out', () => {
    const lines = ['You should hold it for thirty seconds.', 'I could not believe how simple it was.', 'We were going along there and it was a shed.'];
    for (const [name, without] of [
      ['substance', ['You could hold it for a bit.', lines[1]!, lines[2]!]],
      ['charge', [lines[0]!, 'I saw how simple it was.', lines[2]!]],
    ] as const)
      expect(judge(name, without).value).toBeLessThan(judge(name, lines).value);
  });
  it('opening: a question with a price beats a slow start, and a pronoun with nothing to stand for is marked down', () => {
    const strong = judge('opening', ['What if I told you the answer costs forty pence?', ...FLAT]);
    const slow = judge('opening', ['We went along there for a while and looked about.', ...FLAT]);
    const hanging = judge('opening', ['It was more or less like that.', ...FLAT]);
    expect(strong.value).toBeGreaterThan(slow.value + 20);
    expect(slow.value).toBeGreaterThan(hanging.value);
    expect(strong.sentence).toMatch(/asks a question/i);
    expect(hanging.sentence).toContain('leans on what came before');
  });
  it('opening looks at the first seconds only', () => {
    const late = judge('opening', [
      'We went along there for a while, and next a while longer, and there were some sheds, and some more sheds.',
      'What if I told you it costs forty pence?',
    ]);
    expect(late.words).toEqual([]);
  });
  it('stands alone: a question that is left outside costs, one that is inside pays', () => {
    const lines: Line[] = [
      { speaker: 'Ann', text: 'How do you know that it is dry?' },
      { speaker: 'Bo', text: 'You split the log and look at the heart of it.' },
      { speaker: 'Bo', text: 'Under twenty per cent is dry.' },
    ];
    const context = contextOf(lines);
    const signal = buildSignals(context)[1]!;
    expect(signal.value({ first: 0, end: 3 })).toBeGreaterThan(signal.value({ first: 1, end: 3 }) + 5);
    expect(signal.explain({ first: 1, end: 3 }).sentence).toContain('left outside');
    expect(signal.explain({ first: 0, end: 3 }).sentence).toContain('Keeps the question with its answer');
  });
  it('stands alone: where sentences were restored, a start that is a guess counts less, and is said to be one', () => {
    const context = contextOf(['we went down to the old harbour with the boat and it was cold and my father who had a coat on said well now it rains']);
    const sure = { ...context, doubts: new Float64Array(context.sentences.length + 1) };
    const unsure = { ...sure, doubts: Float64Array.from(sure.doubts, (_, s) => (s === 0 ? 0.9 : 0)) };
    const run = { first: 0, end: context.sentences.length };
    const [a, b] = [sure, unsure].map((one) => buildSignals(one)[1]!);
    expect(b!.value(run)).toBeLessThan(a!.value(run) - 5);
    expect(b!.explain(run).sentence).toContain('Where it begins is a guess');
    expect(a!.explain(run).sentence).not.toContain('guess');
    const end = { ...sure, doubts: Float64Array.from(sure.doubts, (_, s) => (s === run.end ? 0.9 : 0)) };
    expect(buildSignals(end)[1]!.explain(run).sentence).toContain('where it ends is a guess');
  });
  it('stands alone: an end that the next sentence takes up is worse', () => {
    const first = 'The man lost his kitchen and they paid him nothing.';
    const end = (after: string): number => {
      const context = contextOf([first, after, 'Sweeping is seventy euro.']);
      return buildSignals(context)[1]!.value({ first: 0, end: 1 });
    };
    expect(end('Because he swept it himself.')).toBeLessThan(end('He swept it himself.'));
  });
  it('delivery: fillers and false starts cost, and are shown', () => {
    const clean = judge('delivery', FLAT);
    const stumbling = judge('delivery', ['We um we went uh along there there for a while.', 'It it was er more or less like the others.']);
    expect(clean.value).toBeGreaterThan(stumbling.value + 20);
    expect(stumbling.sentence).toContain('five fillers or false starts (“um”, “uh”)');
    expect(clean.sentence).toContain('judged by text alone');
  });
  it('delivery: what lies before a passage, a hole or a change of voice, is not said in it', () => {
    const said = ['We went along there for a while until noon.', 'Then we came back again by the road.', 'That was about it, as far as I know.'];
    const valueAfter = (speaker: string, gapMs: number): number => {
      let atMs = 0;
      const cues = ['It was more or less like the others.', ...said].map((text, i) => {
        const startMs = atMs + (i === 1 ? gapMs : 60);
        atMs = startMs + text.split(' ').length * 380;
        const stamp = (ms: number): string => new Date(ms).toISOString().slice(11, 23);
        return `${stamp(startMs)} --> ${stamp(atMs)}\n<v ${i === 0 ? speaker : 'Ann'}>${text}\n`;
      });
      const context = buildContext({
        transcript: transcriptOf(`WEBVTT\n\n${cues.join('\n')}`),
        brief: BRIEF,
        clientTags: [],
        sentenceVectors: null,
        topicVectors: null,
      });
      expect(context.sentences).toHaveLength(4);
      return buildSignals(context)[SIGNALS.indexOf('delivery')]!.value({ first: 1, end: 4 });
    };
    expect(valueAfter('Bo', 60)).toBe(valueAfter('Ann', 60));
    expect(valueAfter('Ann', 4_000)).toBe(valueAfter('Ann', 60));
  });
  it('currency: a client’s tag and an interest term are found by meaning, where no word of them is said', () => {
    const lines = [
      'We went along there for a while until noon.',
      'The thing in the corner warms the whole of the room.',
      'Then we came back again by the road.',
    ];
    const rows = (...list: number[][]): { dimensions: number; data: Float32Array } => ({ dimensions: 3, data: Float32Array.from(list.flat()) });
    const input = {
      transcript: transcriptOf(toVtt(lines.map((text) => ({ speaker: 'Ann', text })))),
      brief: BRIEF,
      topicVectors: null,
      sentenceVectors: rows([1, 0, 0], [0, 0.8, 0.6], [1, 0, 0]),
    };
    const read = (more: Partial<Parameters<typeof buildContext>[0]>, first = 1): { value: number; sentence: string } => {
      const signal = buildSignals(buildContext({ ...input, clientTags: [], ...more }))[SIGNALS.indexOf('currency')]!;
      return { value: signal.value({ first, end: first + 1 }), sentence: signal.explain({ first, end: first + 1 }).sentence };
    };
    const tagged = { clientTags: ['wetLogs', 'stoves'], tagVectors: rows([0, 0, 1], [0, 1, 0]) };
    expect(read(tagged).value).toBeGreaterThan(read(tagged, 0).value + 15);
    expect(read(tagged).sentence).toBe('Near the client’s “stoves” in meaning: “The thing in the corner warms the whole of…”');
    const interest = [
      { term: 'stoves', volume: 900, competition: 0.2, change: 0 },
      { term: 'noon', volume: 5, competition: 0.2, change: 0 },
    ];
    const wanted = read({ interest, interestVectors: rows([0, 1, 0]) });
    expect(wanted.sentence).toContain('Near the looked-for “stoves”');
    expect(read({ interest, interestVectors: rows([0, 1, 0]) }, 0).sentence).toBe('Noon: looked for now');
    expect(read({ clientTags: ['stoves'] }).sentence).toContain('none of the topics, tags or terms');
  });
  it('opening quotes the words it speaks of, however late they come in the line', () => {
    const { sentence } = judge('opening', ['With thatch all around a chimney of that sort one will go for forty pence.', ...FLAT]);
    expect(sentence).toMatch(/names a figure.*forty pence/i);
    expect(sentence).toContain('“…');
    expect(judge('opening', ['I told them all to keep it somewhere.', ...FLAT]).sentence).not.toMatch(/figure/);
  });
  it('a first line that speaks of something unnamed is said to lean back, with the word', () => {
    const lines = ['We put it over there.', ...FLAT];
    expect(judge('opening', lines).sentence).toMatch(/Speaks of “it” without saying what it is|: /);
    expect(judge('standsAlone', lines).sentence).toContain('Leans on what came before: “We put it”');
  });
  it('opening quotes on into the next line where the first is short', () => {
    const { sentence } = judge('opening', ['Fat and lime.', 'You are running a soap works at the bottom of your drive.']);
    expect(sentence).toMatch(/^Speaks to the viewer.*: “Fat and lime\. You/);
  });
  it('opening: what leaves nobody out is a sweeping claim, what says more is to come a promise', () => {
    expect(judge('opening', ['Nobody sweeps a chimney like that.', ...FLAT]).sentence).toMatch(/makes a sweeping claim/i);
    expect(judge('opening', ['Here’s the thing with chimneys that are old.', ...FLAT]).sentence).toMatch(/makes a promise/i);
  });
  it('delivery: a word that ends one sentence and begins the next is no stumble', () => {
    expect(judge('delivery', ['He was burning turf.', 'Turf wants to stay in overnight.']).sentence).toContain('no fillers');
  });
  it('currency: the brief’s topics count with their inflections, and are named', () => {
    const lines = ['We burned some wet logs in the kilns.', ...FLAT];
    const asked = judge('currency', lines, { topics: ['kiln', 'wet log'] });
    expect(asked.value).toBeGreaterThan(judge('currency', FLAT, { topics: ['kiln'] }).value + 20);
    expect(asked.words).toEqual(['wet logs', 'kilns.']);
    expect(asked.sentence).toContain('kiln');
    expect(judge('currency', lines, {}, ['wetLogs']).sentence).toContain('the client’s own');
    expect(judge('currency', lines)).toMatchObject({ value: 50, words: [] });
  });
});

describe('tells', () => {
  const found = (text: string, tell: Tell): string[] => {
    const context = contextOf([text]);
    return hitsWithin(context, { first: 0, end: context.sentences.length }, [tell]).map((hit) =>
      context.words
        .slice(hit.firstWord, hit.endWord)
        .map((word) => word.text)
        .join(' '),
    );
  };
  it.each<[string, Tell, string[]]>([
    ['It took forty one per cent of nine hundred and twelve euro.', 'figure', ['forty one per cent', 'nine hundred and twelve euro.']],
    ['We paid $3,500 for 12% of it in 2019.', 'figure', ['$3,500', '12%', '2019.']],
    ['A hundred people came at half past two.', 'figure', ['A hundred people', 'half', 'two.']],
    ['One of them said no one knew.', 'figure', []],
    ['We had twenty-one hens.', 'figure', ['twenty-one']],
    ['I was devastated and then delighted.', 'feeling', ['devastated', 'delighted.']],
    ['Like, yes, well, fine.', 'feeling', []],
    ['The the cat sat.', 'repeat', ['the']],
    ['It was very very cold.', 'repeat', []],
    ['Why not? Because. Really?', 'question', ['not?', 'Really?']],
    ['That is the strangest and most useful shed.', 'superlative', ['strangest', 'most']],
    ['Honest people rest in the west.', 'superlative', []],
    ['This is brought to you by nobody, use the code shed.', 'sponsor', ['brought to you by', 'use the code']],
  ])('%s → %s', (text, tell, words) => expect(found(text, tell)).toEqual(words));
  it('colours a sponsor read beyond the words that give it away', () => {
    const context = contextOf([
      'So that was the storm.',
      'This episode is brought to you by a blanket firm.',
      'They are wool and they wash well.',
      'I have had two for years.',
      ...Array.from({ length: 12 }, () => 'Now the roof came off in one piece and landed on the shed.'),
    ]);
    expect(context.dull[1]).toBeGreaterThan(0.7);
    expect(context.dull[1]! + context.dull[2]! + context.dull[3]!).toBeGreaterThan(1);
    expect(context.dull.at(-1)).toBeLessThan(context.dull[1]! - 0.3);
  });
});

describe('edges', () => {
  const open = (text: string): [string, boolean, boolean] => {
    const context = contextOf([text]);
    const { word, dependent } = openingWord(context, 0);
    return [context.words[word]!.text, dependent, canOpen(context, 0)];
  };
  it.each<[string, [string, boolean, boolean]]>([
    ['Yeah, um, what if I told you?', ['what', false, true]],
    ['You know, I mean, the wall was warm.', ['the', false, true]],
    ['[laughter] So anyway the dog came in.', ['the', false, true]],
    ['No, no, we dug a trench.', ['we', false, true]],
    ['No one tells you that.', ['No', false, true]],
    ['It was cold.', ['It', true, true]],
    ['That is why the fire went out.', ['That', true, true]],
    ['This is why the fire went out.', ['This', false, true]],
    ['It was the dog.', ['It', false, true]],
    ['This house is four hundred years old.', ['This', false, true]],
    ['The second one was worse.', ['The', true, true]],
    ['And so that’s why he left.', ['that’s', true, true]],
    ['I think it’s something people say.', ['I', true, true]],
    ['I think it’s a mistake to buy in October.', ['I', false, true]],
    ['I think that people were wrong.', ['I', false, true]],
    ['I think that he was wrong.', ['I', true, true]],
    ['Only his mother must have known about the tin.', ['Only', true, true]],
    ['And when she came on, the whole street was dark.', ['when', true, true]],
    ['My father said he was sorry about the wall.', ['My', false, true]],
    ['One day the baker lost his hat in the river.', ['One', false, true]],
    ['We dug it up.', ['We', true, true]],
    ['My father kept it in overnight.', ['My', false, true]],
    ['I have always kept it in overnight.', ['I', true, true]],
    ['Twenty seven years ago I wrote it.', ['Twenty', true, true]],
    ['I like this green.', ['I', false, true]],
    ['Um, yeah.', ['Um,', true, false]],
    ['Right.', ['Right.', true, false]],
  ])('%s', (text, expected) => expect(open(text)).toEqual(expected));
  it.each<[string, boolean]>([
    ['We dug it up.', true],
    ['We dug it up and…', true], // before “and”
    ['We dug it up and the…', false],
    ['So I went to the –', false],
    ['and then the', false],
    ['they paid nothing', true],
    ['Did they? [laughter]', true],
  ])('closes on “%s”: %s', (text, closes) => expect(canClose(contextOf([text]), 0)).toBe(closes));
});

describe('kinds', () => {
  it.each<[string, Line[]]>([
    [
      'answer',
      [
        { speaker: 'Ann', text: 'How often should I get it swept?' },
        { speaker: 'Bo', text: 'Once for gas and again for wood.' },
        { speaker: 'Bo', text: 'The rest is up to the house.' },
      ],
    ],
    [
      'story',
      [
        'I remember when I was small there was this shed.',
        'One day my father came in and he said come out.',
        'And then I went and I got the ladder, and she said stop.',
      ],
    ],
    ['advice', ['Make sure you check the date.', 'Start with the small one, and never the big one.', 'You need to leave it, instead of pulling.']],
    ['humour', ['He wore it to the door. [laughter]', 'He wore it home. [laughter]', 'It was not his. [laughter]']],
    ['figures', ['It was nine metres and forty kilos.', 'That is 360 euro for two years.', 'We did sixty of them in three weeks.']],
  ])('%s', (kind, lines) => {
    const context = contextOf(lines);
    expect(kindOf(context, { first: 0, end: context.sentences.length })).toBe(kind);
  });
});

describe('scale and score', () => {
  it('puts ordinary at 50 and rare at 90', () => {
    expect(toScale(3, 3, 8)).toBe(50);
    expect(toScale(8, 3, 8)).toBeCloseTo(90, 9);
    expect(toScale(-100, 3, 8)).toBeGreaterThanOrEqual(0);
    expect(raised(50, Math.log(3))).toBeCloseTo(75, 9);
    expect([raised(0, 2), raised(100, 2)]).toEqual([0, 100]);
    expect(raised(99, 0.5)).toBeLessThan(99.5);
    expect([roundScore(-3), roundScore(101), roundScore(66.66)]).toEqual([0, 100, 66.7]);
  });
  it('says numbers and lists as people do', () => {
    expect([counted(1, 'figure'), counted(3, 'figure'), counted(12, 'piece of advice', 'pieces of advice')]).toEqual([
      'one figure',
      'three figures',
      '12 pieces of advice',
    ]);
    expect([listed([]), listed(['a']), listed(['a', 'b']), listed(['a', 'b', 'c'])]).toEqual(['', 'a', 'a and b', 'a, b and c']);
  });
  it('counts currency for more where the brief names topics', () => {
    const [plain, asked] = [weightsFor(false), weightsFor(true)];
    expect(asked[5]!).toBeGreaterThan(plain[5]! * 2);
    for (const weights of [plain, asked]) expect(weights.reduce((sum, weight) => sum + weight, 0)).toBeCloseTo(1, 9);
  });
  it('marks dull talk down, whatever its figures', () => {
    const sponsor = contextOf([
      'This is brought to you by a blanket firm.',
      'Use the code wool for ten per cent off and free delivery on two.',
      'It is the best blanket, and I love it.',
    ]);
    const score = buildScorer(sponsor, buildSignals(sponsor));
    expect(score({ first: 0, end: 3 })).toBeLessThan(20);
  });
  it('keeps the longer of two ranges that overlap, in order', () => {
    expect(
      tidyEvidence([
        { firstWord: 8, endWord: 9 },
        { firstWord: 2, endWord: 5 },
        { firstWord: 4, endWord: 6 },
        { firstWord: 8, endWord: 9 },
      ]),
    ).toEqual([
      { firstWord: 2, endWord: 5 },
      { firstWord: 8, endWord: 9 },
    ]);
  });
});
