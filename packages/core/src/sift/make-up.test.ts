import { describe, expect, it } from 'vitest';
import { DEMO_TALKS, demoTranscript, toVtt, transcriptOf } from '../talk.fixture.js';
import { buildContext } from './context.js';
import { describeMakeUp, makeUpOf } from './make-up.js';
import { type MakeUp, RIDGE_STEPS, STUFFS, type Stuff } from './types.js';

const BRIEF = { partStartMs: 0, partEndMs: null, minMs: 15_000, maxMs: 60_000, roughCount: 5, topics: [], kinds: [], avoid: [] };
const of = (transcript: ReturnType<typeof transcriptOf>, brief: Partial<typeof BRIEF> = {}): MakeUp =>
  makeUpOf(buildContext({ transcript, brief: { ...BRIEF, ...brief }, clientTags: [], sentenceVectors: null, topicVectors: null }))!;
const shareOf = ({ shares }: MakeUp, stuff: Stuff): number => shares[STUFFS.indexOf(stuff)]!;
const talk = (lines: readonly string[]): ReturnType<typeof transcriptOf> => transcriptOf(toVtt(lines.map((text) => ({ speaker: 'Ann', text }))));

const CLICKS = Array.from({ length: 12 }, (_, i) => [
  `Now click the settings tab and scroll down to the button number ${i + 1}.`,
  'Then you drag the slider in this panel here to the left and click save.',
]).flat();
const TALES = Array.from({ length: 12 }, () => [
  'When I was nine my father came into the shed one night and he said nothing.',
  'I was so ashamed that I cried and ran home, and she laughed at me.',
]).flat();

describe('what a recording is made of', () => {
  it.each(DEMO_TALKS)('is shared out over all of its speech: %s', (name) => {
    const transcript = demoTranscript(name);
    const { shares, steps } = of(transcript);
    expect(shares.reduce((sum, share) => sum + share, 0)).toBeCloseTo(1, 2);
    expect(steps).toHaveLength(RIDGE_STEPS);
    expect(steps.every((stuff) => Number.isInteger(stuff) && stuff >= -1 && stuff < STUFFS.length)).toBe(true);
    expect(steps.some((stuff) => stuff >= 0)).toBe(true);
  });
  it('tells clicking through a screen from stories, each at its time', () => {
    const both = of(talk([...CLICKS, ...TALES]));
    expect(shareOf(of(talk(CLICKS)), 'procedure')).toBeGreaterThan(0.7);
    expect(shareOf(of(talk(TALES)), 'stories')).toBeGreaterThan(0.7);
    expect(STUFFS[both.steps[Math.round(0.2 * RIDGE_STEPS)]!]).toBe('procedure');
    expect(STUFFS[both.steps[Math.round(0.8 * RIDGE_STEPS)]!]).toBe('stories');
  });
  it('is of the part that counts alone', () => {
    const transcript = talk([...CLICKS, ...TALES]);
    const half = transcript.sentences[CLICKS.length]!.startMs;
    const part = of(transcript, { partStartMs: half });
    expect(shareOf(part, 'stories')).toBeGreaterThan(0.7);
    expect(part.steps.slice(0, Math.floor((half / transcript.durationMs) * RIDGE_STEPS)).every((stuff) => stuff === -1)).toBe(true);
  });
});

describe('describeMakeUp', () => {
  it.each<[number[], number[], string]>([
    [[0.1, 0, 0, 0.02, 0.83, 0.05], [60, 20, 10, 8, 3], 'Mostly procedure at a screen: few passages stand by themselves.'],
    [[0.2, 0.13, 0, 0.02, 0.6, 0.05], [60, 55, 10, 8], 'Mostly procedure at a screen, some explaining and verdicts: some passages stand by themselves.'],
    [[0.1, 0.4, 0.1, 0.35, 0.05, 0], [90, 80, 70], 'A mixture of verdicts and stories: most passages stand by themselves.'],
    [[0, 0, 0, 0, 0, 1], [], 'Mostly greetings and housekeeping: few passages stand by themselves.'],
  ])('%j', (shares, scores, sentence) => expect(describeMakeUp({ shares }, scores)).toBe(sentence));
});
