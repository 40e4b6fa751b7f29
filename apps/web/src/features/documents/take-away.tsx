import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/react';
import { type DocumentContent, documentHtml, documentMarkdown, documentPlain } from '@sift-reel/core';
import type { ReactNode } from 'react';
import type { DocumentView } from '../../app/api.js';
import { noticed } from '../../app/notices.js';
import { useAppDispatch } from '../../app/store.js';

const MENU = 'z-50 w-[230px] border border-rule bg-sheet py-1 shadow-[0_8px_24px_rgba(35,32,27,.2)]';
const BUTTON = 'inline-flex items-center rounded border border-ink px-[11px] py-[5px] text-xs font-semibold hover:bg-sheet';
const ITEM = 'block w-full px-3 py-[7px] text-left data-focus:bg-faint';

const FILES = [
  ['markdown', 'Markdown'],
  ['html', 'HTML'],
  ['plain', 'Plain text'],
  ['docx', 'Word processor (docx)'],
] as const;

/** Copies the document as it is on the screen, or downloads it as it is saved. */
export function TakeAway({ document, content, onBefore }: { document: DocumentView; content: DocumentContent; onBefore: () => Promise<boolean> }): ReactNode {
  const dispatch = useAppDispatch();
  const say = (kind: 'done' | 'trouble', text: string) => dispatch(noticed({ kind, text, deedId: null }));
  const copy = async (what: 'formatted' | 'markdown' | 'plain'): Promise<void> => {
    try {
      if (what !== 'formatted') await navigator.clipboard.writeText(what === 'plain' ? documentPlain(content) : documentMarkdown(content));
      else {
        const html = documentHtml(content, document.recordingTitle, document.language);
        const kinds = { 'text/html': new Blob([html], { type: 'text/html' }), 'text/plain': new Blob([documentPlain(content)], { type: 'text/plain' }) };
        await navigator.clipboard.write([new ClipboardItem(kinds)]);
      }
      say('done', 'Copied.');
    } catch {
      say('trouble', 'The browser does not let this page copy. Download it instead.');
    }
  };
  const download = async (as: string): Promise<void> => {
    if (await onBefore()) window.location.assign(`/api/documents/${document.id}/file?as=${as}`);
  };
  return (
    <Menu>
      <MenuButton className={BUTTON}>Take away</MenuButton>
      <MenuItems anchor="bottom end" className={MENU}>
        {(
          [
            ['formatted', 'Copy with headings and lists'],
            ['plain', 'Copy as plain text'],
            ['markdown', 'Copy as Markdown'],
          ] as const
        ).map(([what, name]) => (
          <MenuItem key={what}>
            <button type="button" className={ITEM} onClick={() => void copy(what)}>
              {name}
            </button>
          </MenuItem>
        ))}
        <div className="my-1 border-t border-rule" />
        {[...FILES, ...(document.kind === 'chapters' ? [['chapters', 'Podcast chapters (JSON)'] as const] : [])].map(([as, name]) => (
          <MenuItem key={as}>
            <button type="button" className={ITEM} onClick={() => void download(as)}>
              {name}
            </button>
          </MenuItem>
        ))}
      </MenuItems>
    </Menu>
  );
}
