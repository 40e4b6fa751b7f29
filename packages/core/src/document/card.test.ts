import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { document, paragraph, quote, text } from './build.js';
import { type Card, CARD_SHAPES, CARD_SIZES, contrast, drawCard, PLAIN_CARD } from './card.js';
import type { Typeface } from './set-text.js';
import { cardsOf } from './cards-of.js';

/** Every letter is half as wide as high; an outline is its place. */
const drawn: { text: string; x: number; y: number; size: number }[] = [];
const BLOCKS: Typeface = {
  width: (line, size) => ([...line].length * size) / 2,
  outline: (line, x, y, size) => {
    drawn.push({ text: line, x, y, size });
    return `M${x} ${y}`;
  },
};
const draw = (card: Card, shape: (typeof CARD_SHAPES)[number]) => {
  drawn.length = 0;
  return { svg: drawCard(card, shape, PLAIN_CARD, BLOCKS), lines: [...drawn] };
};

describe('contrast', () =>
  // WCAG 2.2: black on white is 21:1, the same colour 1:1; #767676 on white is the lightest grey of 4.54:1 (Understanding 1.4.3, from memory).
  it.each([
    ['#000000', '#ffffff', 21],
    ['#ffffff', '#ffffff', 1],
    ['#767676', '#ffffff', 4.54],
  ])('of %s and %s', (a, b, ratio) => expect(contrast(a, b)).toBeCloseTo(ratio, 2)));

describe('a card', () => {
  const CARD = { quotation: '“The chimney is cold, and cold air is heavy.”', credits: ['Maeve', 'Up the flue'] };
  it.each(CARD_SHAPES)('holds all its words inside its margins (%s)', (shape) => {
    const { width, height } = CARD_SIZES[shape];
    const { svg, lines } = draw(CARD, shape);
    expect(svg).toContain(`width="${width}" height="${height}"`);
    expect(
      lines
        .slice(0, -2)
        .map((line) => line.text)
        .join(' '),
    ).toBe(CARD.quotation);
    for (const line of lines) {
      expect(line.x + BLOCKS.width(line.text, line.size)).toBeLessThanOrEqual(0.95 * width);
      expect(line.y).toBeLessThan(0.95 * height);
    }
  });
  it('takes a short quotation larger than a long one, and cuts off what no size can hold', () => {
    const size = (words: number) => draw({ ...CARD, quotation: Array(words).fill('word').join(' ') }, 'square').lines[0]!.size;
    expect(size(4)).toBeGreaterThan(size(60));
    expect(draw({ ...CARD, quotation: Array(3_000).fill('word').join(' ') }, 'square').lines.some((line) => line.text.endsWith('…'))).toBe(true);
  });
  it('measures little of what nobody reads on a card: one word without end, and one as long as a book', () => {
    for (const quotation of ['a'.repeat(400_000), Array(50_000).fill('word').join(' ')]) {
      let measured = 0;
      const counting: Typeface = {
        ...BLOCKS,
        width: (line, size) => {
          measured += line.length;
          return BLOCKS.width(line, size);
        },
      };
      const svg = drawCard({ quotation, credits: [quotation] }, 'square', PLAIN_CARD, counting);
      expect(svg).toContain('…');
      expect(measured).toBeLessThan(20_000);
    }
  });
  it('is well-formed whatever is said, and never loses a word that fits', () =>
    fc.assert(
      fc.property(fc.array(fc.stringMatching(/^[a-z<>&"']{1,9}$/), { minLength: 1, maxLength: 40 }), (words) => {
        const { svg, lines } = draw({ quotation: words.join(' '), credits: [] }, 'wide');
        expect(lines.map((line) => line.text).join(' ')).toBe(words.join(' '));
        expect(/<title>([^<]*)<\/title>/.exec(svg)).not.toBeNull();
        expect(svg.match(/&(?!amp;|lt;|gt;)/)).toBeNull();
      }),
    ));
  it('is one of each quotation, with who said it', () =>
    expect(
      cardsOf(
        document(paragraph(text('no card')), quote(paragraph(text('“Said — twice.”'), text(' — Ann'))), quote(paragraph(text('Nobody’s'))), quote(paragraph())),
        'Up the flue',
      ),
    ).toEqual([
      { quotation: '“Said — twice.”', credits: ['Ann', 'Up the flue'] },
      { quotation: 'Nobody’s', credits: ['Up the flue'] },
    ]));
});
