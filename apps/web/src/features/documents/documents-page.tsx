import { DOCUMENT_KINDS, type DocumentKind, unpackTranscript } from '@sift-reel/core';
import clsx from 'clsx';
import { skipToken } from '@reduxjs/toolkit/query';
import { type ReactNode, useMemo } from 'react';
import { Link, NavLink, useNavigate, useParams } from 'react-router';
import { api, type DocumentEntryView } from '../../app/api.js';
import { problemText } from '../../app/problems.js';
import { Button, EmptyState, Loading, PageHead, Trouble } from '../../ui/parts.js';
import { DocumentDesk } from './document-desk.js';
import { DOCUMENT_NAMES } from './kinds.js';
import { t } from '../../texts/texts.js';

/** What is made of a recording beside its shorts. */
export function DocumentsPage(): ReactNode {
  const { recordingId = '', kind: asked } = useParams();
  const recording = api.useReadRecordingQuery(recordingId);
  const entries = api.useListDocumentsQuery(recordingId);
  const packed = api.useReadTranscriptQuery(recording.currentData?.transcript == null ? skipToken : recordingId);
  const transcript = useMemo(() => (packed.currentData === undefined ? null : unpackTranscript(packed.currentData)), [packed.currentData]);
  const error = recording.error ?? entries.error ?? packed.error;
  if (error !== undefined)
    return <Trouble title={t('documents.the-documents-cannot-be-shown')} detail={problemText(error)} onRetry={() => void entries.refetch()} />;
  if (recording.currentData === undefined || entries.currentData === undefined) return <Loading what={t('documents.the-documents')} />;
  const kind = DOCUMENT_KINDS.find((one) => one === asked) ?? null;
  const entry = entries.currentData.find((one) => one.kind === kind);
  return (
    <div className="flex h-full flex-col">
      <PageHead title={recording.currentData.title} aside={t('common.documents')}>
        <Link
          to={`/recordings/${recordingId}`}
          className="inline-flex items-center rounded border border-ink px-[11px] py-[5px] text-xs font-semibold hover:bg-sheet"
        >
          {t('documents.to-the-bench')}
        </Link>
      </PageHead>
      <div className="flex min-h-0 flex-1 max-md:flex-col">
        <Kinds recordingId={recordingId} entries={entries.currentData} />
        {kind === null ? (
          <EmptyState title={t('documents.more-from-the-same-recording')}>{t('documents.each-document-is-made-of-what')}</EmptyState>
        ) : entry === undefined ? (
          <NotMade key={kind} kind={kind} recordingId={recordingId} sifted={recording.currentData.latestSift?.state === 'done'} />
        ) : transcript === null ? (
          <Loading what={t('common.the-transcript')} rows={12} />
        ) : (
          <Loaded key={entry.id} documentId={entry.id} transcript={transcript} />
        )}
      </div>
    </div>
  );
}

function Loaded({ documentId, transcript }: { documentId: string; transcript: ReturnType<typeof unpackTranscript> }): ReactNode {
  const document = api.useReadDocumentQuery(documentId);
  if (document.currentData !== undefined) return <DocumentDesk document={document.currentData} transcript={transcript} />;
  if (document.error !== undefined)
    return <Trouble title={t('documents.the-document-cannot-be-shown')} detail={problemText(document.error)} onRetry={() => void document.refetch()} />;
  return <Loading what={t('documents.the-document')} rows={12} />;
}

function Kinds({ recordingId, entries }: { recordingId: string; entries: readonly DocumentEntryView[] }): ReactNode {
  return (
    <nav
      aria-label={t('common.documents')}
      className="w-[210px] flex-none overflow-y-auto border-r border-rule py-2 max-md:flex max-md:w-full max-md:overflow-x-auto max-md:border-r-0 max-md:border-b max-md:py-0"
    >
      {DOCUMENT_KINDS.map((kind) => {
        const entry = entries.find((one) => one.kind === kind);
        return (
          <NavLink
            key={kind}
            to={`/recordings/${recordingId}/documents/${kind}`}
            className={({ isActive }) =>
              clsx(
                'block border-l-[3px] px-4 py-[7px] max-md:flex-none max-md:border-l-0',
                isActive ? 'border-ink bg-sheet' : 'border-transparent hover:bg-sheet',
              )
            }
          >
            <span className={clsx('block', entry === undefined && 'text-soft')}>{DOCUMENT_NAMES[kind].name}</span>
            <span className="block text-[11px] text-soft max-md:hidden">
              {entry === undefined ? t('documents.not-made') : (entry.writtenBy ?? t('documents.as-it-was-made'))}
            </span>
          </NavLink>
        );
      })}
    </nav>
  );
}

function NotMade({ kind, recordingId, sifted }: { kind: DocumentKind; recordingId: string; sifted: boolean }): ReactNode {
  const [make, making] = api.useMakeDocumentMutation();
  const navigate = useNavigate();
  const { name, what } = DOCUMENT_NAMES[kind];
  return (
    <EmptyState
      title={name}
      action={
        sifted ? (
          <Button tone="fill" disabled={making.isLoading} onClick={() => void make({ recordingId, newDocumentForm: { kind } })}>
            {making.isLoading ? t('documents.reading-the-recording') : t('documents.make-it')}
          </Button>
        ) : (
          <Button tone="fill" onClick={() => void navigate(`/recordings/${recordingId}`)}>
            {t('documents.sift-the-recording-first')}
          </Button>
        )
      }
    >
      {what} {sifted ? t('documents.it-is-made-only-of-what') : t('documents.documents-are-made-of-the-chapters')}
      {making.error !== undefined && (
        <p role="alert" className="mt-3 font-sans text-[13px] text-madder-text">
          {problemText(making.error)}
        </p>
      )}
    </EmptyState>
  );
}
