import type { DocumentContent, DocumentKind } from '@sift-reel/core';
import { BelongsTo, Column, DataType, Default, ForeignKey, Model, PrimaryKey, Table } from 'sequelize-typescript';
import { Recording } from '../recordings/recordings.models.js';

/** A text made from a recording, one of each kind, as it is now. */
@Table({ tableName: 'documents', underscored: true, updatedAt: false })
export class DocumentRow extends Model {
  @PrimaryKey @Default(DataType.UUIDV4) @Column(DataType.UUID) declare id: string;
  @Column(DataType.UUID) declare clientId: string;
  @ForeignKey(() => Recording) @Column(DataType.UUID) declare recordingId: string;
  @Column(DataType.TEXT) declare kind: DocumentKind;
  @Column(DataType.JSONB) declare content: DocumentContent;
  @Default(1) @Column(DataType.INTEGER) declare version: number;
  @BelongsTo(() => Recording) declare recording: Recording;
}

/** What a document was once: proposed, or written by somebody. */
@Table({ tableName: 'document_versions', underscored: true, timestamps: false })
export class DocumentVersion extends Model {
  @PrimaryKey @Default(DataType.UUIDV4) @Column(DataType.UUID) declare id: string;
  @Column(DataType.UUID) declare clientId: string;
  @Column(DataType.UUID) declare documentId: string;
  @Column(DataType.UUID) declare writtenBy: string | null;
  @Column(DataType.BOOLEAN) declare proposed: boolean;
  @Column(DataType.DATE) declare writtenAt: Date;
  @Column(DataType.JSONB) declare content: DocumentContent;
}
