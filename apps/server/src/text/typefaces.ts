import { readFile } from 'node:fs/promises';
import { fileURLToPath } from 'node:url';
import type { CardStyle, Typeface } from '@sift-reel/core';
import { create, type Font } from 'fontkit';

/** The shipped fonts, in files that hold outlines for Latin and its marks; other scripts stand in `OTHER_SCRIPTS`. */
const FILES: Readonly<Record<CardStyle['typeface'], readonly string[]>> = {
  serif: ['newsreader/files/newsreader-latin-500-normal.woff', 'newsreader/files/newsreader-latin-ext-500-normal.woff'],
  sans: ['hanken-grotesk/files/hanken-grotesk-latin-600-normal.woff', 'hanken-grotesk/files/hanken-grotesk-latin-ext-600-normal.woff'],
  mono: ['spline-sans-mono/files/spline-sans-mono-latin-500-normal.woff', 'spline-sans-mono/files/spline-sans-mono-latin-ext-500-normal.woff'],
};

const OTHER_SCRIPTS = ['cyrillic', 'cyrillic-ext', 'greek', 'greek-ext', 'vietnamese', 'devanagari'].map(
  (script) => `noto-sans/files/noto-sans-${script}-500-normal.woff`,
);

/** A typeface that knows what it cannot draw. */
export interface ShippedTypeface extends Typeface {
  /** Letters, marks and figures of a text that no shipped font holds, each once. Symbols that none holds are left out of what is drawn. */
  lacks(text: string): string[];
}

const known = new Map<CardStyle['typeface'], Promise<ShippedTypeface>>();

export function typefaceOf(name: CardStyle['typeface']): Promise<ShippedTypeface> {
  let face = known.get(name);
  if (face === undefined) known.set(name, (face = load([...FILES[name], ...OTHER_SCRIPTS])));
  return face;
}

async function load(files: readonly string[]): Promise<ShippedTypeface> {
  const fonts = await Promise.all(files.map(async (file) => create(await readFile(fileURLToPath(import.meta.resolve(`@fontsource/${file}`))))));
  const holderOf = (letter: string): Font | undefined => fonts.find((font) => font.hasGlyphForCodePoint(letter.codePointAt(0)!));
  const fontFor = (letter: string): Font => holderOf(letter) ?? fonts[0]!;
  const drawable = (text: string): string => [...text.replace(/\s/gu, ' ')].filter((letter) => holderOf(letter) !== undefined).join('');
  return {
    lacks: (text) => [...new Set(text)].filter((letter) => /[\p{L}\p{M}\p{N}]/u.test(letter) && holderOf(letter) === undefined),
    width: (text, size) => runsOf(drawable(text), fontFor).reduce((sum, { font, run }) => sum + (font.layout(run).advanceWidth * size) / font.unitsPerEm, 0),
    outline: (text, x, y, size) => {
      let at = x;
      return runsOf(drawable(text), fontFor)
        .flatMap(({ font, run }) => {
          const scale = size / font.unitsPerEm;
          const { glyphs, positions } = font.layout(run);
          return glyphs.map(({ path }, i) => {
            const { xAdvance, xOffset, yOffset } = positions[i]!;
            // A font's heights grow upwards, a picture's downwards.
            const drawn = path.transform(scale, 0, 0, -scale, at + xOffset * scale, y - yOffset * scale).toSVG();
            at += xAdvance * scale;
            return drawn;
          });
        })
        .join('');
    },
  };
}

/** Letters that follow one another and stand in one font. */
function runsOf(text: string, fontFor: (letter: string) => Font): { font: Font; run: string }[] {
  const runs: { font: Font; run: string }[] = [];
  for (const letter of text) {
    const font = fontFor(letter);
    const last = runs.at(-1);
    if (last?.font === font) last.run += letter;
    else runs.push({ font, run: letter });
  }
  return runs;
}
