import {
  type Card,
  type CardShape,
  type CardStyle,
  chaptersJson,
  chaptersOf,
  type DocumentContent,
  documentHtml,
  type DocumentKind,
  documentMarkdown,
  documentPlain,
  type DocumentRequest,
  type CaptionStrip,
  captionStrip,
  drawCaptionStrip,
  drawCard as drawnCard,
  drawGround,
  type GroundTexts,
  makeDocument as madeDocument,
  NothingToWriteError,
  type Shape,
} from '@sift-reel/core';
import { documentDocx } from './document-docx.js';
import { typefaceOf } from './typefaces.js';
import { type OnTranscript, unpackTalk } from './unpack.js';

export interface MakeDocumentTask extends OnTranscript, Omit<DocumentRequest, 'transcript'> {
  readonly kind: DocumentKind;
}
/** What was made, or why nothing can be. */
export type MadeDocument = { readonly content: DocumentContent } | { readonly nothing: string };

export function makeDocument({ talk, kind, ...request }: MakeDocumentTask): MadeDocument {
  try {
    return { content: madeDocument(kind, { ...request, transcript: unpackTalk(talk) }) };
  } catch (error) {
    if (error instanceof NothingToWriteError) return { nothing: error.message };
    throw error;
  }
}

export const DOCUMENT_FORMATS = ['markdown', 'html', 'plain', 'docx', 'chapters'] as const;
export type DocumentFormat = (typeof DOCUMENT_FORMATS)[number];

export interface WriteDocumentTask extends OnTranscript {
  readonly content: DocumentContent;
  readonly title: string;
  /** Code of the talk's language. */
  readonly language: string;
  readonly as: DocumentFormat;
}

export async function writeDocument({ talk, content, title, language, as }: WriteDocumentTask): Promise<Uint8Array> {
  switch (as) {
    case 'docx':
      return documentDocx(content, title, language);
    case 'chapters': {
      const { words, durationMs } = unpackTalk(talk);
      return bytesOf(chaptersJson(chaptersOf(content, words), durationMs));
    }
    case 'html':
      return bytesOf(documentHtml(content, title, language));
    case 'markdown':
      return bytesOf(documentMarkdown(content));
    case 'plain':
      return bytesOf(documentPlain(content));
  }
}
const bytesOf = (text: string): Uint8Array => new TextEncoder().encode(text);

interface FrameLook {
  readonly shape: Shape;
  readonly style: CardStyle;
  readonly place: 'ground' | 'picture';
}
/** A picture of a rendered short: its ground, or the strip of one of its captions over nothing. */
export type DrawFrameTask = FrameLook & ({ readonly ground: GroundTexts | null } | { readonly caption: string; readonly strip: CaptionStrip });

export interface CaptionStripTask extends FrameLook {
  readonly captions: readonly string[];
}

/** The part of the picture that the captions need. */
export async function captionStripOf({ captions, shape, style, place }: CaptionStripTask): Promise<CaptionStrip> {
  return captionStrip(captions, place, shape, await typefaceOf(style.typeface));
}

export async function drawFrame(task: DrawFrameTask): Promise<Uint8Array> {
  const { shape, style, place } = task;
  const typeface = await typefaceOf(style.typeface);
  return pngOf('caption' in task ? drawCaptionStrip(task.caption, task.strip, place, shape, style, typeface) : drawGround(task.ground, shape, style, typeface));
}

async function pngOf(svg: string): Promise<Uint8Array> {
  const { Resvg } = await import('@resvg/resvg-js');
  return new Uint8Array(new Resvg(svg, { font: { loadSystemFonts: false } }).render().asPng());
}

export interface DrawCardTask {
  readonly card: Card;
  readonly shape: CardShape;
  readonly style: CardStyle;
  readonly as: 'svg' | 'png';
}

export async function drawCard({ card, shape, style, as }: DrawCardTask): Promise<Uint8Array> {
  const svg = drawnCard(card, shape, style, await typefaceOf(style.typeface));
  if (as === 'svg') return bytesOf(svg);
  return pngOf(svg);
}
