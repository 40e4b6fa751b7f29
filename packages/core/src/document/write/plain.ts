import type { Block, DocumentContent } from '../types.js';
import { inlineText } from './text-of.js';

/** A document without any markup, as it is pasted into a form: blocks with an empty line between, lists with a dash or a number. */
export const documentPlain = (content: DocumentContent): string => `${blocksPlain(content.content)}\n`;

const blocksPlain = (blocks: readonly Block[]): string =>
  blocks
    .map(blockPlain)
    .join('\n\n')
    .replace(/\n{3,}/g, '\n\n')
    .trim();

function blockPlain(block: Block): string {
  switch (block.type) {
    case 'heading':
    case 'paragraph':
      return inlineText(block.content);
    case 'blockquote':
      return blocksPlain(block.content);
    case 'horizontalRule':
      return '';
    default:
      return block.content
        .map(({ content }, i) => `${block.type === 'orderedList' ? `${i + 1}.` : '-'} ${blocksPlain(content).replace(/\n\n/g, '\n  ')}`)
        .join('\n');
  }
}
