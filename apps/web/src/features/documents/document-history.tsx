import { blockText, type DocumentContent } from '@sift-reel/core';
import type { ReactNode } from 'react';
import { api, type DocumentView } from '../../app/api.js';
import { problemText } from '../../app/problems.js';
import { Dialog, DialogFoot } from '../../ui/dialog.js';
import { Button } from '../../ui/parts.js';
import { t, rich } from '../../texts/texts.js';

interface DocumentHistoryProps {
  readonly document: DocumentView;
  readonly onTake: (content: DocumentContent) => void;
  readonly onClose: () => void;
}

/** What a document was, and who wrote it; any of it can be taken back. */
export function DocumentHistory({ document, onTake, onClose }: DocumentHistoryProps): ReactNode {
  const versions = api.useListDocumentVersionsQuery(document.id);
  return (
    <Dialog open onClose={onClose} title={t('common.who-wrote-what')} wide>
      {versions.error !== undefined && <p className="text-madder-text">{problemText(versions.error)}</p>}
      <ol className="divide-y divide-rule border-y border-rule">
        {(versions.currentData ?? []).map((one, i) => {
          const content = one.content as unknown as DocumentContent;
          return (
            <li key={one.id} className="grid grid-cols-[150px_1fr_auto] items-baseline gap-x-3 py-2 text-[12px]">
              <span className="text-soft">
                {rich('common.at-utc', { at: one.writtenAt.slice(0, 16).replace('T', ' '), time: (chunks) => <span className="time">{chunks}</span> })}
                <span className="block truncate">{one.writtenBy ?? t('documents.made-from-the-recording-inline')}</span>
              </span>
              <span className="line-clamp-3 font-serif text-[14px] whitespace-pre-line">{content.content.map(blockText).join('\n').slice(0, 400)}</span>
              {i > 0 && (
                <Button tone="quiet" onClick={() => onTake(content)}>
                  {t('documents.take-this')}
                </Button>
              )}
            </li>
          );
        })}
      </ol>
      <DialogFoot>
        <Button onClick={onClose}>{t('common.close')}</Button>
      </DialogFoot>
    </Dialog>
  );
}
