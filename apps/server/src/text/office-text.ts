import { TranscriptRefusedError } from '@sift-reel/core/reading';
import { strFromU8, unzipSync, zipSync } from 'fflate';
import { SaxesParser } from 'saxes';

/** What an office document is told by, and where its words are. */
const BODIES = { docx: 'word/document.xml', odt: 'content.xml' } as const;
export type OfficeFormat = keyof typeof BODIES;
/** What a reader of Word documents must have beside the body, to find it. */
const BESIDE: readonly string[] = ['[Content_Types].xml', '_rels/.rels', 'word/_rels/document.xml.rels'];

/** Unpacked, in bytes: 48 hours of talk are 5 million letters; what grows further than this is no transcript. */
const LARGEST_BODY = 64 * 1_024 * 1_024;
const MOST_FILES = 5_000;

/** Begins like a ZIP archive, as office documents do. */
export const isZip = (bytes: Uint8Array): boolean => bytes[0] === 0x50 && bytes[1] === 0x4b && bytes[2] === 3 && bytes[3] === 4;

/**
 * The paragraphs of a Word (DOCX, ISO/IEC 29500) or OpenDocument text (ODT, ISO/IEC 26300), a line each. What is neither read nor
 * needed, pictures and styles, is never unpacked.
 * @throws TranscriptRefusedError `not-text` when it is neither, broken, or grows beyond any transcript
 */
export async function officeText(bytes: Uint8Array): Promise<{ readonly format: OfficeFormat; readonly text: string }> {
  const { format, parts } = partsOf(bytes);
  const text = format === 'docx' ? await wordText(parts) : openText(parts[BODIES.odt]!);
  return { format, text: text.replace(/\r\n?/g, '\n') };
}

function partsOf(bytes: Uint8Array): { readonly format: OfficeFormat; readonly parts: Readonly<Record<string, Uint8Array>> } {
  let files = 0;
  let parts: Record<string, Uint8Array>;
  try {
    parts = unzipSync(bytes, {
      filter: ({ name, originalSize }) => {
        files += 1;
        // What an archive says of a part's size, it is held to: no more is unpacked.
        if (files > MOST_FILES || originalSize > LARGEST_BODY)
          throw new TranscriptRefusedError(1, 'not-text', 'the document is far larger than any transcript');
        return Object.values<string>(BODIES).includes(name) || BESIDE.includes(name);
      },
    });
  } catch (error) {
    throw error instanceof TranscriptRefusedError ? error : new TranscriptRefusedError(1, 'not-text', 'the document is broken and cannot be opened');
  }
  for (const format of Object.keys(BODIES) as OfficeFormat[]) if (parts[BODIES[format]] !== undefined) return { format, parts };
  throw new TranscriptRefusedError(1, 'not-text', 'it is an archive, but neither a Word nor an OpenDocument text');
}

/** The reader is given what was unpacked here, within its bounds, and nothing that it would unpack itself. */
async function wordText(parts: Readonly<Record<string, Uint8Array>>): Promise<string> {
  const { default: mammoth } = await import('mammoth'); // only here: the thread that reads large transcripts stays lean
  try {
    const { value } = await mammoth.extractRawText({ buffer: Buffer.from(zipSync(parts, { level: 0 })) });
    return value.replaceAll('\n\n', '\n'); // it leaves a line between paragraphs: each is a line, and counts as one in what is refused
  } catch {
    throw new TranscriptRefusedError(1, 'not-text', 'the Word document is broken and cannot be opened');
  }
}

const TEXT_NS = 'urn:oasis:names:tc:opendocument:xmlns:text:1.0';
/** Said beside the text, not in it. */
const ASIDE: ReadonlySet<string> = new Set(['note', 'tracked-changes', 'sequence-decls', 'table-of-content']);

function openText(xml: Uint8Array): string {
  const parser = new SaxesParser({ xmlns: true, position: false });
  const lines: string[] = [];
  let line: string | null = null;
  let aside = 0;
  parser.on('error', () => {
    throw new TranscriptRefusedError(1, 'not-text', 'the OpenDocument text is broken and cannot be opened');
  });
  parser.on('opentag', ({ uri, local, attributes }) => {
    if (uri !== TEXT_NS) return;
    if (ASIDE.has(local)) aside += 1;
    else if (aside === 0 && (local === 'p' || local === 'h')) line = '';
    else if (line !== null && (local === 'line-break' || local === 'tab')) line += local === 'tab' ? '\t' : '\n';
    else if (line !== null && local === 's') line += ' '.repeat(Math.min(100, Math.max(1, Number(attributes['text:c']?.value ?? 1) || 1)));
  });
  parser.on('text', (text) => {
    if (line !== null && aside === 0) line += text.replace(/\s+/g, ' ');
  });
  parser.on('closetag', ({ uri, local }) => {
    if (uri !== TEXT_NS) return;
    if (ASIDE.has(local)) aside -= 1;
    else if (line !== null && aside === 0 && (local === 'p' || local === 'h')) {
      lines.push(line);
      line = null;
    }
  });
  parser.write(strFromU8(xml)).close();
  return `${lines.join('\n')}\n`;
}
