import type { Block, Inline } from '../types.js';

/** The text of some pieces. */
export const inlineText = (content: readonly Inline[] = []): string => content.map((piece) => (piece.type === 'text' ? piece.text : '\n')).join('');

/** All the text of a block, its parts on lines of their own. */
export function blockText(block: Block | { readonly type: 'listItem'; readonly content: readonly Block[] }): string {
  if (block.type === 'horizontalRule') return '';
  if (block.type === 'heading' || block.type === 'paragraph') return inlineText(block.content);
  return (block.content as readonly Block[]).map(blockText).join('\n');
}

/** Every block and every part of one, from the top. */
export function* everyBlock(blocks: readonly Block[]): Generator<Block> {
  for (const block of blocks) {
    yield block;
    if ('content' in block && block.type !== 'heading' && block.type !== 'paragraph') yield* everyBlock(block.content as readonly Block[]);
  }
}
