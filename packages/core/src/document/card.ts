import { cutOff, LINE_HEIGHT, setIn, shortened, type Typeface } from './set-text.js';

export const TYPEFACES = ['serif', 'sans', 'mono'] as const;
export const CARD_SHAPES = ['square', 'upright', 'wide'] as const;
export type CardShape = (typeof CARD_SHAPES)[number];

/** Pixels of each shape: 1:1, 4:5 and 16:9. */
export const CARD_SIZES: Readonly<Record<CardShape, { readonly width: number; readonly height: number }>> = {
  square: { width: 1_080, height: 1_080 },
  upright: { width: 1_080, height: 1_350 },
  wide: { width: 1_920, height: 1_080 },
};

/** How a client's quote cards look. Colours are `#rrggbb`. */
export interface CardStyle {
  readonly typeface: (typeof TYPEFACES)[number];
  readonly ground: string;
  readonly ink: string;
}
export const PLAIN_CARD: CardStyle = { typeface: 'serif', ground: '#23201b', ink: '#f3efe6' };

/** Less is not read by many: WCAG 2.2, 1.4.3 (contrast, minimum). */
export const LEAST_CONTRAST = 4.5;

/** Contrast of two colours, 1 to 21: WCAG 2.2, "contrast ratio" and "relative luminance". */
export function contrast(a: string, b: string): number {
  const [light, dark] = [luminance(a), luminance(b)].sort((x, y) => y - x);
  return (light! + 0.05) / (dark! + 0.05);
}
function luminance(colour: string): number {
  const [r, g, b] = [1, 3, 5].map((at) => {
    const value = parseInt(colour.slice(at, at + 2), 16) / 255;
    return value <= 0.04045 ? value / 12.92 : ((value + 0.055) / 1.055) ** 2.4;
  });
  return 0.2126 * r! + 0.7152 * g! + 0.0722 * b!;
}

export interface Card {
  readonly quotation: string;
  /** Who said it, and where: a line each, none empty. */
  readonly credits: readonly string[];
}

/** Parts of the shorter side. By judgement. */
const [MARGIN, LARGEST, SMALLEST, CREDIT, RULE] = [0.1, 0.085, 0.032, 0.03, 0.006];
/** Room that the quotation may take of what is between the margins; the rest is the credits'. */
const FOR_QUOTATION = 0.72;

/**
 * A quotation as an SVG picture whose letters are outlines, so that it looks the same everywhere. The largest size at which it
 * fits is taken; what no size can hold, or nobody reads on a card, is cut off with an ellipsis.
 */
export function drawCard(card: Card, shape: CardShape, style: CardStyle, typeface: Typeface): string {
  const { width, height } = CARD_SIZES[shape];
  const side = Math.min(width, height);
  const [margin, credit] = [MARGIN * side, CREDIT * side];
  const room = { width: width - 2 * margin, height: (height - 2 * margin) * FOR_QUOTATION };
  const quotation = shortened(card.quotation);
  const credits = card.credits.map((line) => cutOff(line, room.width / credit, typeface));
  const { lines, size } = setIn(quotation, room, { largest: LARGEST * side, smallest: SMALLEST * side }, typeface);
  const leading = size * LINE_HEIGHT;
  const top = margin + (room.height - lines.length * leading) / 2;
  const creditsTop = height - margin - credits.length * credit * 1.5;
  const paths = [
    ...lines.map((line, i) => typeface.outline(line, margin, top + i * leading + size, size)),
    ...credits.map((line, i) => typeface.outline(line, margin, creditsTop + (i + 1) * credit * 1.5, credit)),
  ];
  const rule = `<rect x="${round(margin)}" y="${round(creditsTop - credit)}" width="${round(margin)}" height="${round(RULE * side)}" fill="${style.ink}"/>`;
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 ${width} ${height}" role="img">`,
    `<title>${escaped([quotation, ...credits].join(' — '))}</title>`,
    `<rect width="${width}" height="${height}" fill="${style.ground}"/>`,
    ...paths.map((path) => `<path d="${path}" fill="${style.ink}"/>`),
    rule,
    '</svg>\n',
  ].join('\n');
}

const round = (value: number): number => Math.round(value * 100) / 100;
const escaped = (text: string): string => text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;');
