import type { DocumentContent, WordRange } from '@sift-reel/core';
import { type Editor, EditorContent, type JSONContent, useEditor, useEditorState } from '@tiptap/react';
import StarterKit from '@tiptap/starter-kit';
import clsx from 'clsx';
import { Bold, Heading1, Heading2, Heading3, Italic, List, ListOrdered, type LucideIcon, Pilcrow, Quote, Redo2, Undo2 } from 'lucide-react';
import { type ReactNode, useLayoutEffect, useRef } from 'react';
import { MomentMark } from './moment-mark.js';
import { t } from '../../texts/texts.js';

/** What a document may hold, and no more: it is checked by the server, too. */
const EXTENSIONS = [
  StarterKit.configure({
    heading: { levels: [1, 2, 3] },
    code: false,
    codeBlock: false,
    link: false,
    strike: false,
    underline: false,
    trailingNode: false,
  }),
  MomentMark,
];

interface DocumentEditorProps {
  readonly content: DocumentContent;
  readonly name: string;
  readonly onChange: (content: DocumentContent) => void;
  /** Words that the text at the caret comes from; null where it comes from nowhere. */
  readonly onMoment: (said: WordRange | null) => void;
  /** Asks to hear what is said at the caret. */
  readonly onPlay: () => void;
}

/** The text, as it will be read; what is typed goes out at once. */
export function DocumentEditor({ content, name, onChange, onMoment, onPlay }: DocumentEditorProps): ReactNode {
  const latest = useRef({ onChange, onMoment, onPlay });
  latest.current = { onChange, onMoment, onPlay };
  /** What the editor itself gave out: it is shown already, and what was typed since then is newer. */
  const own = useRef(new WeakSet<object>());
  const editor = useEditor({
    extensions: EXTENSIONS,
    content: content as JSONContent,
    injectCSS: false,
    editorProps: {
      attributes: { class: 'document-text', role: 'textbox', 'aria-multiline': 'true', 'aria-label': name },
      handleKeyDown: (_, event) => {
        if (!event.altKey || event.code !== 'KeyP') return false;
        latest.current.onPlay();
        return true;
      },
    },
    onUpdate: ({ editor: now }) => {
      const given = now.getJSON() as DocumentContent;
      own.current.add(given);
      latest.current.onChange(given);
    },
    onSelectionUpdate: ({ editor: now }) => latest.current.onMoment(momentAt(now)),
  });
  // At once, before another key can be pressed on what is about to be replaced.
  useLayoutEffect(() => {
    if (own.current.has(content)) return;
    // What comes back from saving says the same: the caret stays where it is, and what was undone can be done again.
    if (!editor.schema.nodeFromJSON(content).eq(editor.state.doc)) editor.commands.setContent(content as JSONContent, { emitUpdate: false });
  }, [content, editor]);
  return (
    <>
      <Toolbar editor={editor} />
      <EditorContent editor={editor} className="min-h-0 flex-1 overflow-y-auto bg-sheet" />
    </>
  );
}

function momentAt(editor: Editor): WordRange | null {
  const { $from } = editor.state.selection;
  // At the end of a sentence, what is typed is not said, but the caret still stands in it.
  const marks = [...$from.marks(), ...($from.nodeAfter?.marks ?? []), ...($from.nodeBefore?.marks ?? [])];
  const mark = marks.find(({ type }) => type.name === 'moment');
  return mark === undefined ? null : { firstWord: mark.attrs['firstWord'] as number, endWord: mark.attrs['endWord'] as number };
}

interface Tool {
  readonly name: string;
  readonly icon: LucideIcon;
  readonly run: (editor: Editor) => void;
  readonly on?: (editor: Editor) => boolean;
  readonly can?: (editor: Editor) => boolean;
}
const heading = (level: 1 | 2 | 3, icon: LucideIcon): Tool => ({
  name: t('documents.heading', { level }),
  icon,
  run: (editor) => editor.chain().focus().toggleHeading({ level }).run(),
  on: (editor) => editor.isActive('heading', { level }),
});
const TOOLS: readonly (readonly Tool[])[] = [
  [
    { name: t('common.undo'), icon: Undo2, run: (editor) => editor.chain().focus().undo().run(), can: (editor) => editor.can().undo() },
    { name: t('documents.redo'), icon: Redo2, run: (editor) => editor.chain().focus().redo().run(), can: (editor) => editor.can().redo() },
  ],
  [
    heading(1, Heading1),
    heading(2, Heading2),
    heading(3, Heading3),
    {
      name: t('documents.plain-paragraph'),
      icon: Pilcrow,
      run: (editor) => editor.chain().focus().setParagraph().run(),
      on: (editor) => editor.isActive('paragraph'),
    },
  ],
  [
    { name: t('documents.bold'), icon: Bold, run: (editor) => editor.chain().focus().toggleBold().run(), on: (editor) => editor.isActive('bold') },
    { name: t('documents.italic'), icon: Italic, run: (editor) => editor.chain().focus().toggleItalic().run(), on: (editor) => editor.isActive('italic') },
  ],
  [
    {
      name: t('documents.bullet-list'),
      icon: List,
      run: (editor) => editor.chain().focus().toggleBulletList().run(),
      on: (editor) => editor.isActive('bulletList'),
    },
    {
      name: t('documents.numbered-list'),
      icon: ListOrdered,
      run: (editor) => editor.chain().focus().toggleOrderedList().run(),
      on: (editor) => editor.isActive('orderedList'),
    },
    {
      name: t('documents.quotation'),
      icon: Quote,
      run: (editor) => editor.chain().focus().toggleBlockquote().run(),
      on: (editor) => editor.isActive('blockquote'),
    },
  ],
];

function Toolbar({ editor }: { editor: Editor }): ReactNode {
  const state = useEditorState({
    editor,
    selector: ({ editor: now }) => TOOLS.map((group) => group.map(({ on, can }) => ({ on: on?.(now) ?? false, can: can?.(now) ?? true }))),
  });
  return (
    <div role="toolbar" aria-label={t('documents.text')} className="flex flex-none flex-wrap items-center gap-3 border-b border-rule bg-sheet px-4 py-1">
      {TOOLS.map((group, g) => (
        <span key={group[0]!.name} className="flex gap-[2px]">
          {group.map(({ name, icon: Icon, run }, k) => {
            const { on, can } = state[g]![k]!;
            return (
              <button
                key={name}
                type="button"
                title={name}
                aria-label={name}
                aria-pressed={on}
                disabled={!can}
                className={clsx('rounded-sm border p-[5px] disabled:opacity-35', on ? 'border-edge bg-tint' : 'border-transparent enabled:hover:bg-faint')}
                onMouseDown={(event) => event.preventDefault()}
                onClick={() => run(editor)}
              >
                <Icon size={15} />
              </button>
            );
          })}
        </span>
      ))}
    </div>
  );
}
