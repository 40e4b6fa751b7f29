import type { CardStyle } from '../document/card.js';
import { cutOff, LINE_HEIGHT, setIn, type Typeface } from '../document/set-text.js';
import type { Shape } from '../plan/types.js';

/** Pixels of a rendered picture, by its shape. All even, as 4:2:0 asks for. */
export const FRAME_SIZES: Readonly<Record<Shape, { readonly width: number; readonly height: number }>> = {
  vertical: { width: 1_080, height: 1_920 },
  square: { width: 1_080, height: 1_080 },
  portrait: { width: 1_080, height: 1_350 },
  wide: { width: 1_920, height: 1_080 },
};

/** Parts of the shorter side. By judgement: players lay their own controls over what is nearer to the edges. */
const [MARGIN, TITLE, CREDIT, LARGEST, SMALLEST, RULE] = [0.08, 0.062, 0.03, 0.092, 0.04, 0.006];
/** Parts of the height: where captions stand on a ground of their own, and where over a picture. */
const MIDDLE = { top: 0.3, height: 0.4 };
const LOWER = { top: 0.66, height: 0.16 };
/** Part of the shorter side: what letters reach below their lines at most. */
const TAILS = 0.02;

/** What stands still on the ground: the title above, who and where below. Empty lines are not drawn. */
export interface GroundTexts {
  readonly title: string;
  readonly credits: readonly string[];
}

/** The ground of a picture as SVG; letters are outlines. Where a picture of the recording lies on it, nothing else does. */
export function drawGround(texts: GroundTexts | null, shape: Shape, { ground, ink }: CardStyle, typeface: Typeface): string {
  const { width, height } = FRAME_SIZES[shape];
  const side = Math.min(width, height);
  const margin = MARGIN * side;
  const paths: string[] = [];
  if (texts !== null) {
    const [size, credit] = [TITLE * side, CREDIT * side];
    const room = { width: width - 2 * margin, height: MIDDLE.top * height - 2 * margin };
    const { lines, size: set } = setIn(texts.title, room, { largest: size, smallest: size * 0.5 }, typeface);
    lines.forEach((line, i) => paths.push(typeface.outline(line, margin, margin + i * set * LINE_HEIGHT + set, set)));
    const credits = texts.credits.filter((line) => line !== '').map((line) => cutOff(line, room.width / credit, typeface));
    const top = height - margin - credits.length * credit * 1.5;
    credits.forEach((line, i) => paths.push(typeface.outline(line, margin, top + (i + 1) * credit * 1.5, credit)));
  }
  const rule =
    texts === null ? '' : `<rect x="${margin}" y="${height * (MIDDLE.top + MIDDLE.height)}" width="${margin}" height="${RULE * side}" fill="${ink}"/>`;
  return svg(shape, `<rect width="${width}" height="${height}" fill="${ground}"/>${rule}${paths.map((path) => `<path d="${path}" fill="${ink}"/>`).join('')}`);
}

/** Where captions stand: in the middle of a ground, or low on a picture. */
export type CaptionPlace = 'ground' | 'picture';

/** Pixels; both even, as 4:2:0 asks for. */
export interface CaptionStrip {
  readonly top: number;
  readonly height: number;
}

/** How a caption's lines are set: `size` is that of the letters, `leading` from line to line, `top` of the first, in pixels. */
function setCaption(text: string, place: CaptionPlace, shape: Shape, typeface: Typeface): { lines: string[]; size: number; leading: number; top: number } {
  const { width, height } = FRAME_SIZES[shape];
  const side = Math.min(width, height);
  const band = place === 'ground' ? MIDDLE : LOWER;
  const room = { width: width - 2 * MARGIN * side, height: band.height * height };
  const most = place === 'ground' ? LARGEST : LARGEST * 0.8;
  const { lines, size } = setIn(text, room, { largest: most * side, smallest: SMALLEST * side }, typeface);
  const leading = size * LINE_HEIGHT;
  const empty = room.height - lines.length * leading;
  return { lines, size, leading, top: band.top * height + (place === 'ground' ? empty / 2 : empty) };
}

/** The part of a picture, over its whole width, outside of which none of the captions draws anything: mostly a tenth of it. */
export function captionStrip(texts: readonly string[], place: CaptionPlace, shape: Shape, typeface: Typeface): CaptionStrip {
  const { width, height } = FRAME_SIZES[shape];
  const tails = TAILS * Math.min(width, height);
  // One that says nothing stands where captions stand, and takes no room.
  const ends = ['', ...texts].map((text) => {
    const { lines, leading, top } = setCaption(text, place, shape, typeface);
    return { top, bottom: top + lines.length * leading + tails };
  });
  const top = 2 * Math.floor(ends.reduce((least, one) => Math.min(least, one.top), height) / 2);
  const bottom = 2 * Math.ceil(ends.reduce((most, one) => Math.max(most, one.bottom), 0) / 2);
  return { top, height: bottom - top };
}

/** A caption over nothing, as SVG of the whole picture: on a picture with a field of the ground's colour under it. */
export function drawCaption(text: string, place: CaptionPlace, shape: Shape, style: CardStyle, typeface: Typeface): string {
  return svg(shape, captionInside(text, place, shape, style, typeface));
}

/** The same, as SVG of a strip of the picture alone. @see captionStrip */
export function drawCaptionStrip(text: string, strip: CaptionStrip, place: CaptionPlace, shape: Shape, style: CardStyle, typeface: Typeface): string {
  return svg(shape, captionInside(text, place, shape, style, typeface), strip);
}

function captionInside(text: string, place: CaptionPlace, shape: Shape, { ground, ink }: CardStyle, typeface: Typeface): string {
  const { width, height } = FRAME_SIZES[shape];
  const { lines, size, leading, top } = setCaption(text, place, shape, typeface);
  const drawn = lines.map((line, i) => {
    const long = typeface.width(line, size);
    const x = place === 'ground' ? MARGIN * Math.min(width, height) : (width - long) / 2;
    const y = top + i * leading;
    const field =
      place === 'ground'
        ? ''
        : `<rect x="${round(x - size * 0.3)}" y="${round(y)}" width="${round(long + size * 0.6)}" height="${round(leading)}" fill="${ground}" fill-opacity="0.86"/>`;
    return `${field}<path d="${typeface.outline(line, x, y + size, size)}" fill="${ink}"/>`;
  });
  return drawn.join('');
}

const round = (value: number): number => Math.round(value * 100) / 100;

function svg(shape: Shape, inside: string, { top, height }: CaptionStrip = { top: 0, height: FRAME_SIZES[shape].height }): string {
  const { width } = FRAME_SIZES[shape];
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 ${top} ${width} ${height}">${inside}</svg>\n`;
}
