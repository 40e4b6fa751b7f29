import { describe, expect, test } from 'vitest';
import { cutListOf, playedMs } from '../cut/cut-list.js';
import { NO_EDIT, playedRuns } from '../cut/edit.js';
import { spanOfWords } from '../cut/word-span.js';
import { PLAIN_CARD } from '../document/card.js';
import type { Typeface } from '../document/set-text.js';
import { demoTranscript } from '../talk.fixture.js';
import { SHAPES } from '../plan/types.js';
import { captionCues } from '../transcript/write/captions.js';
import { captionsOfCut } from './captions-of-cut.js';
import { captionStrip, drawCaption, drawCaptionStrip, drawGround, FRAME_SIZES } from './draw.js';

const talk = demoTranscript('up-the-flue-11');
const whole = { firstWord: 40, endWord: 120, edit: NO_EDIT };

describe('captions of a cut', () => {
  const removed = [
    { firstWord: 50, endWord: 60 },
    { firstWord: 90, endWord: 93 },
  ];
  const cut = { ...whole, edit: { ...NO_EDIT, removed } };
  const runs = playedRuns(talk.words, cut);
  const captions = captionsOfCut(talk, cut);

  test('say every word that is played, and none that is cut out', () => {
    const said = captions.flatMap(({ text }) => text.split(' '));
    const wanted = runs.flatMap(({ firstWord, endWord }) => talk.words.slice(firstWord, endWord).flatMap(({ text }) => text.split(' ')));
    expect(said).toEqual(wanted);
  });

  test('of a passage that nothing is taken out of are those of its words', () => {
    const plain = captionCues(talk, 40, 120, spanOfWords(talk.words, 40, 120).startMs);
    expect(captionsOfCut(talk, whole)).toEqual(plain);
  });

  test('read as they are corrected, in the same time', () => {
    const before = captionsOfCut(talk, whole);
    const after = captionsOfCut(talk, {
      ...whole,
      edit: {
        ...NO_EDIT,
        corrected: [
          { word: 41, text: 'flue' },
          { word: 43, text: '' },
        ],
      },
    });
    expect(after[0]!.text.split(' ').slice(0, 2)).toEqual([talk.words[40]!.text, 'flue']);
    expect(after.flatMap(({ text }) => text.split(' ')).length).toBe(before.flatMap(({ text }) => text.split(' ')).length - 1);
    expect([after[0]!.startMs, after.at(-1)!.endMs]).toEqual([before[0]!.startMs, before.at(-1)!.endMs]);
  });

  test('follow one another inside what is played', () => {
    const long = playedMs(cutListOf(talk.words, runs));
    for (const [i, { startMs, endMs }] of captions.entries()) {
      expect(startMs).toBeGreaterThanOrEqual(captions[i - 1]?.endMs ?? 0);
      expect(endMs).toBeGreaterThan(startMs);
      expect(endMs).toBeLessThanOrEqual(long);
    }
  });
});

/** Letters as wide as half their size; an outline tells where it was set. */
const typeface: Typeface = {
  width: (text, size) => (text.length * size) / 2,
  outline: (text, x, y, size) => `${text}|${Math.round(x)}|${Math.round(y)}|${Math.round(size)}`,
};
const placed = (svg: string): { text: string; x: number; y: number; size: number }[] =>
  [...svg.matchAll(/<path d="([^"]*)"/g)].map(([, d]) => {
    const [text, x, y, size] = d!.split('|');
    return { text: text!, x: Number(x), y: Number(y), size: Number(size) };
  });

describe('a picture', () => {
  for (const shape of SHAPES)
    test(`${shape}: title, captions and credits stay inside it and off one another`, () => {
      const { width, height } = FRAME_SIZES[shape];
      expect([width % 2, height % 2]).toEqual([0, 0]);
      const long = 'It took me nineteen wasted drives to learn that a stove that smokes is a chimney that is cold, and that nobody had told me so';
      const still = placed(drawGround({ title: long, credits: ['Up the Flue, no. 12', '', 'Ardcree Chimneys'] }, shape, PLAIN_CARD, typeface));
      const spoken = placed(drawCaption(long, 'ground', shape, PLAIN_CARD, typeface));
      expect(still.map(({ text }) => text).join(' ')).toBe(`${long} Up the Flue, no. 12 Ardcree Chimneys`);
      for (const { text, x, y, size } of [...still, ...spoken, ...placed(drawCaption(long, 'picture', shape, PLAIN_CARD, typeface))]) {
        expect(x).toBeGreaterThan(0);
        expect(x + typeface.width(text, size)).toBeLessThanOrEqual(width);
        expect(y - size).toBeGreaterThanOrEqual(0);
        expect(y).toBeLessThan(height);
      }
      const title = still.slice(0, -2);
      expect(Math.max(...title.map(({ y }) => y))).toBeLessThan(Math.min(...spoken.map(({ y, size }) => y - size)));
      expect(Math.max(...spoken.map(({ y }) => y))).toBeLessThan(Math.min(...still.slice(-2).map(({ y, size }) => y - size)));
    });

  for (const shape of SHAPES)
    test.each(['ground', 'picture'] as const)(`${shape}: captions on a %s lie in their strip, which is far less than the picture`, (place) => {
      const { width, height } = FRAME_SIZES[shape];
      const texts = [
        'No.',
        'Cold air is heavy, so it falls',
        'It took me nineteen wasted drives to learn that a stove that smokes is a cold chimney '.repeat(9),
      ];
      const strip = captionStrip(texts, place, shape, typeface);
      // Of a short one alone it is lower, and of none it is as good as nothing.
      expect(captionStrip(['No.'], place, shape, typeface).height).toBeLessThan(strip.height);
      expect(captionStrip([], place, shape, typeface).height).toBeLessThan(height / 10);
      expect([strip.top % 2, strip.height % 2]).toEqual([0, 0]);
      expect(strip.top + strip.height).toBeLessThanOrEqual(height);
      expect(strip.height).toBeLessThan(height / 2);
      for (const text of texts) {
        const drawn = drawCaptionStrip(text, strip, place, shape, PLAIN_CARD, typeface);
        expect(drawn).toContain(`viewBox="0 ${strip.top} ${width} ${strip.height}"`);
        expect(placed(drawn)).toEqual(placed(drawCaption(text, place, shape, PLAIN_CARD, typeface)));
        for (const { y, size } of placed(drawn)) {
          expect(y - size).toBeGreaterThanOrEqual(strip.top - 1); // rounded
          expect(y + 0.24 * size).toBeLessThanOrEqual(strip.top + strip.height + 1);
        }
        for (const [, y, tall] of drawn.matchAll(/<rect [^>]*y="([\d.]+)" [^>]*height="([\d.]+)"/g)) {
          expect(Number(y)).toBeGreaterThanOrEqual(strip.top);
          expect(Number(y) + Number(tall)).toBeLessThanOrEqual(strip.top + strip.height);
        }
      }
    });

  test('is drawn of what can be read, however long its texts are', () => {
    let measured = 0;
    const counting: Typeface = { ...typeface, width: (text, size) => ((measured += text.length), typeface.width(text, size)) };
    const endless = 'flue'.repeat(250_000);
    drawCaption(endless, 'ground', 'vertical', PLAIN_CARD, counting);
    drawGround({ title: endless, credits: [endless] }, 'vertical', PLAIN_CARD, counting);
    expect(measured).toBeLessThan(100_000);
  });

  test('of a recording with a picture of its own is ground alone, and captions bring their field', () => {
    expect(placed(drawGround(null, 'vertical', PLAIN_CARD, typeface))).toEqual([]);
    expect(drawCaption('Cold air is heavy', 'picture', 'vertical', PLAIN_CARD, typeface)).toContain('fill-opacity');
    expect(drawCaption('Cold air is heavy', 'ground', 'vertical', PLAIN_CARD, typeface)).not.toContain('<rect');
  });
});
