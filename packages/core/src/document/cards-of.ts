import type { Card } from './card.js';
import type { DocumentContent } from './types.js';
import { blockText } from './write/text-of.js';

/** The cards of a document: a quotation each, with who said it where the line ends with that, and the recording. */
export function cardsOf({ content }: DocumentContent, recording: string): Card[] {
  return content.flatMap((block) => {
    if (block.type !== 'blockquote') return [];
    const said = blockText(block).replace(/\s+/g, ' ').trim();
    const [, quotation = said, name = ''] = /^(.*[”"]) — (.+)$/.exec(said) ?? [];
    return quotation === '' ? [] : [{ quotation, credits: [name, recording].filter((line) => line !== '') }];
  });
}
