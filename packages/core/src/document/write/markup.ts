import { toHtml } from 'hast-util-to-html';
import type { BlockContent, PhrasingContent, Root } from 'mdast';
import { toHast } from 'mdast-util-to-hast';
import { toMarkdown } from 'mdast-util-to-markdown';
import type { Block, DocumentContent, Inline } from '../types.js';

/** A document as CommonMark. */
export const documentMarkdown = (content: DocumentContent): string => toMarkdown(treeOf(content), { bullet: '-', rule: '-', emphasis: '_' });

/** A document as a whole page of HTML. @param language code of the text's language */
export function documentHtml(content: DocumentContent, title: string, language: string): string {
  const body = toHtml(toHast(treeOf(content)));
  const head = toHtml({ type: 'element', tagName: 'title', properties: {}, children: [{ type: 'text', value: title }] });
  return `<!doctype html>\n<html lang="${/^[\w-]+$/.test(language) ? language : 'en'}">\n<head>\n<meta charset="utf-8">\n${head}\n</head>\n<body>\n${body}\n</body>\n</html>\n`;
}

/** The tree that Markdown and HTML are written from (mdast). Where something was said is not part of it. */
const treeOf = ({ content }: DocumentContent): Root => ({ type: 'root', children: content.map(blockOf) });

function blockOf(block: Block): BlockContent {
  switch (block.type) {
    case 'heading':
      return { type: 'heading', depth: block.attrs.level, children: inlineOf(block.content) };
    case 'paragraph':
      return { type: 'paragraph', children: inlineOf(block.content) };
    case 'blockquote':
      return { type: 'blockquote', children: block.content.map(blockOf) };
    case 'horizontalRule':
      return { type: 'thematicBreak' };
    default:
      return {
        type: 'list',
        ordered: block.type === 'orderedList',
        spread: false,
        children: block.content.map((item) => ({ type: 'listItem', spread: false, children: item.content.map(blockOf) })),
      };
  }
}

/** Neighbours that are written alike are one piece: moments are no part of the text, and "**a** **b**" is not "**a b**". */
function inlineOf(content: readonly Inline[] = []): PhrasingContent[] {
  const out: PhrasingContent[] = [];
  let last = '';
  for (const piece of content) {
    if (piece.type === 'hardBreak') {
      out.push({ type: 'break' });
      last = '';
      continue;
    }
    const styles = (['bold', 'italic'] as const).filter((style) => piece.marks?.some(({ type }) => type === style));
    const key = `=${styles.join()}`;
    const before = out.at(-1);
    if (key === last && before !== undefined) innermost(before).value += piece.text;
    else
      out.push(
        styles.reduceRight<PhrasingContent>((child, style) => ({ type: style === 'bold' ? 'strong' : 'emphasis', children: [child] }), {
          type: 'text',
          value: piece.text,
        }),
      );
    last = key;
  }
  return out;
}

function innermost(node: PhrasingContent): { value: string } {
  if (node.type === 'strong' || node.type === 'emphasis') return innermost(node.children[0]!);
  if (node.type === 'text') return node;
  throw new Error(`no text stands in ${node.type}`);
}
