import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/react';
import { type DocumentContent, documentHtml, documentMarkdown, documentPlain } from '@sift-reel/core';
import type { ReactNode } from 'react';
import type { DocumentView } from '../../app/api.js';
import { noticed } from '../../app/notices.js';
import { useAppDispatch } from '../../app/store.js';
import { t } from '../../texts/texts.js';

const MENU = 'z-50 w-[230px] border border-rule bg-sheet py-1 shadow-[0_8px_24px_rgba(35,32,27,.2)]';
const BUTTON = 'inline-flex items-center rounded border border-ink px-[11px] py-[5px] text-xs font-semibold hover:bg-sheet';
const ITEM = 'block w-full px-3 py-[7px] text-left data-focus:bg-faint';

const FILES = [
  ['markdown', t('documents.markdown')],
  ['html', t('documents.html')],
  ['plain', t('documents.plain-text')],
  ['docx', t('documents.word-processor-docx')],
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
      say('done', t('documents.copied'));
    } catch {
      say('trouble', t('documents.the-browser-does-not-let-this'));
    }
  };
  const download = async (as: string): Promise<void> => {
    if (await onBefore()) window.location.assign(`/api/documents/${document.id}/file?as=${as}`);
  };
  return (
    <Menu>
      <MenuButton className={BUTTON}>{t('documents.take-away')}</MenuButton>
      <MenuItems anchor="bottom end" className={MENU}>
        {(
          [
            ['formatted', t('documents.copy-with-headings-and-lists')],
            ['plain', t('documents.copy-as-plain-text')],
            ['markdown', t('documents.copy-as-markdown')],
          ] as const
        ).map(([what, name]) => (
          <MenuItem key={what}>
            <button type="button" className={ITEM} onClick={() => void copy(what)}>
              {name}
            </button>
          </MenuItem>
        ))}
        <div className="my-1 border-t border-rule" />
        {[...FILES, ...(document.kind === 'chapters' ? [['chapters', t('documents.podcast-chapters-json')] as const] : [])].map(([as, name]) => (
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
