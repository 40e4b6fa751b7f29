import { type Block, type DocumentContent, DocumentRefusedError, type Inline, type TextMark } from './types.js';

/** More is no document that anybody reads. */
const [MOST_NODES, DEEPEST, MOST_CHARACTERS] = [20_000, 8, 400_000];

/** What stands in what. */
const BLOCKS: Readonly<Record<string, 'inline' | 'blocks' | 'items' | 'nothing'>> = {
  heading: 'inline',
  paragraph: 'inline',
  blockquote: 'blocks',
  bulletList: 'items',
  orderedList: 'items',
  listItem: 'blocks',
  horizontalRule: 'nothing',
};

/**
 * Takes a document that somebody hands in: what is known of it is taken over, piece by piece, and nothing else.
 * @param wordCount of the recording: moments end there
 * @throws DocumentRefusedError with the place
 */
export function readDocument(value: unknown, wordCount: number): DocumentContent {
  const doc = objectOf(value, '');
  if (doc['type'] !== 'doc') throw new DocumentRefusedError('type', 'must be doc');
  const reader = new Reader(wordCount);
  return { type: 'doc', content: reader.blocks(doc['content'] ?? [], 'content', 1) };
}

class Reader {
  private nodes = 0;
  private characters = 0;
  constructor(private readonly wordCount: number) {}

  blocks(value: unknown, path: string, depth: number): Block[] {
    return this.nodesOf(value, path, depth).map(([node, at]) => {
      if (node['type'] === 'listItem') throw new DocumentRefusedError(at, 'a list item stands in a list');
      return this.block(node, at, depth);
    });
  }

  private items(value: unknown, path: string, depth: number): Block[] {
    return this.nodesOf(value, path, depth).map(([node, at]) => {
      if (node['type'] !== 'listItem') throw new DocumentRefusedError(at, 'a list holds list items');
      return this.block(node, at, depth);
    });
  }

  private block(node: Record<string, unknown>, path: string, depth: number): Block {
    const type = String(node['type']);
    const holds = Object.hasOwn(BLOCKS, type) ? BLOCKS[type] : undefined;
    if (holds === undefined) throw new DocumentRefusedError(`${path}.type`, 'is no kind of block that is known here');
    const attrs = type === 'heading' ? { attrs: { level: levelOf(node['attrs'], path) } } : {};
    if (holds === 'nothing') return { type } as Block;
    const inside = node['content'] ?? [];
    const content =
      holds === 'inline'
        ? this.inline(inside, `${path}.content`, depth + 1)
        : holds === 'items'
          ? this.items(inside, `${path}.content`, depth + 1)
          : this.blocks(inside, `${path}.content`, depth + 1);
    if (holds !== 'inline' && content.length === 0) throw new DocumentRefusedError(`${path}.content`, 'is empty');
    return { type, ...attrs, content } as Block;
  }

  private inline(value: unknown, path: string, depth: number): Inline[] {
    return this.nodesOf(value, path, depth).map(([node, at]) => {
      if (node['type'] === 'hardBreak') return { type: 'hardBreak' };
      if (node['type'] !== 'text') throw new DocumentRefusedError(`${at}.type`, 'must be text or hardBreak');
      const text = node['text'];
      if (typeof text !== 'string' || text === '') throw new DocumentRefusedError(`${at}.text`, 'must be text that is not empty');
      // eslint-disable-next-line no-control-regex -- what no text holds, and no database keeps
      if (/\p{Cs}/u.test(text) || /[\u0000-\u0008\u000b\u000c\u000e-\u001f]/.test(text))
        throw new DocumentRefusedError(`${at}.text`, 'holds characters that cannot be kept');
      this.characters += text.length;
      if (this.characters > MOST_CHARACTERS) throw new DocumentRefusedError(at, `more than ${MOST_CHARACTERS} characters`);
      const marks = listOf(node['marks'] ?? [], `${at}.marks`).map((mark, i) => this.mark(objectOf(mark, `${at}.marks.${i}`), `${at}.marks.${i}`));
      return marks.length === 0 ? { type: 'text', text } : { type: 'text', text, marks };
    });
  }

  private mark(mark: Record<string, unknown>, path: string): TextMark {
    if (mark['type'] === 'bold' || mark['type'] === 'italic') return { type: mark['type'] };
    if (mark['type'] !== 'moment') throw new DocumentRefusedError(`${path}.type`, 'must be bold, italic or moment');
    const { firstWord, endWord } = objectOf(mark['attrs'], `${path}.attrs`);
    if (!Number.isInteger(firstWord) || !Number.isInteger(endWord) || (firstWord as number) < 0 || (endWord as number) <= (firstWord as number))
      throw new DocumentRefusedError(`${path}.attrs`, 'firstWord and endWord must be places of words, the second after the first');
    if ((endWord as number) > this.wordCount) throw new DocumentRefusedError(`${path}.attrs.endWord`, `the recording has ${this.wordCount} words`);
    return { type: 'moment', attrs: { firstWord: firstWord as number, endWord: endWord as number } };
  }

  private nodesOf(value: unknown, path: string, depth: number): [Record<string, unknown>, string][] {
    if (depth > DEEPEST) throw new DocumentRefusedError(path, `stands deeper than ${DEEPEST} levels`);
    return listOf(value, path).map((node, i) => {
      this.nodes += 1;
      if (this.nodes > MOST_NODES) throw new DocumentRefusedError(path, `more than ${MOST_NODES} pieces`);
      return [objectOf(node, `${path}.${i}`), `${path}.${i}`];
    });
  }
}

function levelOf(attrs: unknown, path: string): 1 | 2 | 3 {
  const { level } = objectOf(attrs, `${path}.attrs`);
  if (level !== 1 && level !== 2 && level !== 3) throw new DocumentRefusedError(`${path}.attrs.level`, 'must be 1, 2 or 3');
  return level;
}

function objectOf(value: unknown, path: string): Record<string, unknown> {
  if (typeof value !== 'object' || value === null || Array.isArray(value)) throw new DocumentRefusedError(path, 'must be an object');
  return value as Record<string, unknown>;
}

function listOf(value: unknown, path: string): unknown[] {
  if (!Array.isArray(value)) throw new DocumentRefusedError(path, 'must be a list');
  return value;
}
