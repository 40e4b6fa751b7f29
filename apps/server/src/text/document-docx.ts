import type { Block, DocumentContent, Inline } from '@sift-reel/core';
import { AlignmentType, Document, HeadingLevel, type IParagraphOptions, LevelFormat, Packer, Paragraph, TextRun } from 'docx';

const [BULLETS, NUMBERS] = ['bullets', 'numbers'];
const LEVELS = [0, 1, 2, 3];
const INDENT = 480;
const HEADINGS = [HeadingLevel.HEADING_1, HeadingLevel.HEADING_2, HeadingLevel.HEADING_3] as const;

/** A document as a file for word processors (ECMA-376). @param language code of the text's language */
export async function documentDocx(content: DocumentContent, title: string, language: string): Promise<Uint8Array> {
  const lists = { next: 0 };
  const children = content.content.flatMap((block) => paragraphsOf(block, {}, lists, -1));
  const levels = (format: (typeof LevelFormat)[keyof typeof LevelFormat], text: (level: number) => string) =>
    LEVELS.map((level) => ({
      level,
      format,
      text: text(level),
      alignment: AlignmentType.START,
      style: { paragraph: { indent: { left: INDENT * (level + 1), hanging: INDENT / 2 } } },
    }));
  const file = new Document({
    title,
    creator: 'Sift Reel',
    styles: { default: { document: { run: { language: { value: language } } } } },
    numbering: {
      config: [
        { reference: BULLETS, levels: levels(LevelFormat.BULLET, () => '•') },
        { reference: NUMBERS, levels: levels(LevelFormat.DECIMAL, (level) => `%${level + 1}.`) },
      ],
    },
    sections: [{ children }],
  });
  return new Uint8Array(await Packer.toBuffer(file));
}

/** @param level of the list that it stands in, -1 in none; @param lists counts ordered lists, so that each begins with 1 */
function paragraphsOf(block: Block, options: IParagraphOptions, lists: { next: number }, level: number): Paragraph[] {
  switch (block.type) {
    case 'heading':
      return [new Paragraph({ ...options, heading: HEADINGS[block.attrs.level - 1]!, children: runsOf(block.content) })];
    case 'paragraph':
      return [new Paragraph({ spacing: { after: 120 }, ...options, children: runsOf(block.content) })];
    case 'horizontalRule':
      return [new Paragraph({ ...options, thematicBreak: true })];
    case 'blockquote':
      return block.content.flatMap((inside) => paragraphsOf(inside, { ...options, indent: { left: INDENT }, style: 'IntenseQuote' }, lists, level));
    default: {
      const deeper = Math.min(level + 1, LEVELS.at(-1)!);
      const numbering =
        block.type === 'orderedList' ? { reference: NUMBERS, level: deeper, instance: (lists.next += 1) } : { reference: BULLETS, level: deeper };
      return block.content.flatMap(({ content }) =>
        content.flatMap((inside, i) => paragraphsOf(inside, i === 0 && inside.type === 'paragraph' ? { ...options, numbering } : options, lists, deeper)),
      );
    }
  }
}

function runsOf(content: readonly Inline[] = []): TextRun[] {
  return content.map((piece) =>
    piece.type === 'hardBreak'
      ? new TextRun({ break: 1 })
      : new TextRun({
          text: piece.text,
          bold: piece.marks?.some(({ type }) => type === 'bold') ?? false,
          italics: piece.marks?.some(({ type }) => type === 'italic') ?? false,
        }),
  );
}
