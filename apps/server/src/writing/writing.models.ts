import type { Finding } from '@sift-reel/core';
import { Column, DataType, Default, Model, PrimaryKey, Table } from 'sequelize-typescript';
import type { WriterRequest, WrittenWords } from './writer.js';

/** What was found wrong with what came: each title by itself, and the rest. */
export interface WritingFindings {
  readonly titles: readonly (readonly Finding[])[];
  readonly rest: readonly Finding[];
  /** The answer's language where it is another than the talk's. */
  readonly otherLanguage: string | null;
  readonly speaksToProgram: boolean;
}

/** One question to the writing service, what was sent and what came. Kept. */
@Table({ tableName: 'writings', underscored: true, updatedAt: false })
export class Writing extends Model {
  @PrimaryKey @Default(DataType.UUIDV4) @Column(DataType.UUID) declare id: string;
  @Column(DataType.UUID) declare clientId: string;
  @Column(DataType.UUID) declare shortId: string;
  @Column(DataType.UUID) declare askedBy: string | null;
  declare createdAt: Date;
  @Column(DataType.JSONB) declare request: WriterRequest;
  /** As it came; null until then. */
  @Column(DataType.TEXT) declare answer: string | null;
  @Column(DataType.JSONB) declare words: WrittenWords | null;
  @Column(DataType.JSONB) declare findings: WritingFindings | null;
}
