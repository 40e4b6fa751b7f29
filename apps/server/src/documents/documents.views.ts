import { DOCUMENT_KINDS, type DocumentKind } from '@sift-reel/core';
import { Flag, Id, Instant, OneOf, Text, Tree, Whole } from '@sift-reel/forms';

/** A document in a list. */
export class DocumentEntryView {
  @Id() id: string;
  @OneOf(DOCUMENT_KINDS) kind: DocumentKind;
  @Instant() writtenAt: string;
  @Text({ nullable: true, description: 'Who wrote it last; null where it is as it was proposed' }) writtenBy: string | null;
  @Whole() version: number;
}

export class DocumentView extends DocumentEntryView {
  @Id() clientId: string;
  @Id() recordingId: string;
  @Text() recordingTitle: string;
  @Flag({ description: 'The recording has a sound' }) sound: boolean;
  @Text({ description: 'Code of the language of the talk' }) language: string;
  @Tree({ description: 'The text as a tree' }) content: object;
}

/** What a document was once. */
export class DocumentVersionView {
  @Id() id: string;
  @Instant() writtenAt: string;
  @Text({ nullable: true, description: 'Null where it was proposed' }) writtenBy: string | null;
  @Tree({ description: 'The text as a tree' }) content: object;
}
