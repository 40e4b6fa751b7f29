/** What is used of it. */
declare module 'fontkit' {
  interface GlyphPath {
    transform(a: number, b: number, c: number, d: number, e: number, f: number): GlyphPath;
    toSVG(): string;
  }
  /** Letters set after one another: glyphs with the place of each, in units of the font. */
  interface GlyphRun {
    readonly glyphs: readonly { readonly path: GlyphPath }[];
    readonly positions: readonly { readonly xAdvance: number; readonly xOffset: number; readonly yOffset: number }[];
    readonly advanceWidth: number;
  }
  export interface Font {
    readonly unitsPerEm: number;
    hasGlyphForCodePoint(codePoint: number): boolean;
    layout(text: string): GlyphRun;
  }
  export function create(bytes: Uint8Array): Font;
}
