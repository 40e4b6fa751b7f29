import type { Copy, Language, Word } from '@sift-reel/core';

/** The language of written words where it is surely not English; null for English, or too little to tell by. */
export async function languageOfWords(copies: readonly Copy[]): Promise<Language | null> {
  const { findLanguage } = await import('@sift-reel/core/language'); // 60 MB, which go with the thread
  const texts = copies.flatMap(({ title, description, coverLine }) => [title, description, coverLine]);
  return findLanguage(texts.flatMap((text) => text.split(/\s+/)).map((text): Word => ({ text, startMs: 0, endMs: 0, speaker: -1, kind: 'word' })));
}
