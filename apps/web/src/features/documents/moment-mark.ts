import { Mark } from '@tiptap/core';

/** Text that comes from words of the recording. What is typed behind it is not said. */
export const MomentMark = Mark.create({
  name: 'moment',
  inclusive: false,
  excludes: '',
  addAttributes() {
    const place = (attribute: string, name: string) => ({
      default: 0,
      parseHTML: (element: HTMLElement) => Number(element.getAttribute(attribute)),
      renderHTML: (attributes: Record<string, unknown>) => ({ [attribute]: String(attributes[name]) }),
    });
    return { firstWord: place('data-first-word', 'firstWord'), endWord: place('data-end-word', 'endWord') };
  },
  parseHTML: () => [{ tag: 'span[data-first-word][data-end-word]' }],
  renderHTML: ({ HTMLAttributes }) => ['span', HTMLAttributes, 0],
});
