import type { TranscriptFormat } from '@sift-reel/core';
import type { AlignmentKind, AlignmentOutcome } from '@sift-reel/forms';
import { Column, DataType, Default, Model, PrimaryKey, Table } from 'sequelize-typescript';

/** Listening for the words of a recording: to give its text times, to make those of its cues true, or to write a draft. */
@Table({ tableName: 'alignments', underscored: true, updatedAt: false })
export class Alignment extends Model {
  @PrimaryKey @Default(DataType.UUIDV4) @Column(DataType.UUID) declare id: string;
  @Column(DataType.UUID) declare recordingId: string;
  @Column(DataType.UUID) declare clientId: string;
  @Column(DataType.TEXT) declare kind: AlignmentKind;
  @Column(DataType.TEXT) declare soundFile: string;
  @Column(DataType.INTEGER) declare soundTrack: number;
  /** Of text without times: the file it came in, how it was written, and its paragraphs as gzipped JSON. */
  @Column(DataType.TEXT) declare sourceName: string | null;
  @Column(DataType.TEXT) declare format: TranscriptFormat | null;
  @Column(DataType.TEXT) declare encoding: string | null;
  @Column(DataType.BLOB) declare said: Buffer | null;
  /** Words heard so far, as gzipped JSON, up to so many ms of the recording, by which recogniser. Let go of when they are used. */
  @Column(DataType.BLOB) declare heard: Buffer | null;
  @Default(0) @Column(DataType.INTEGER) declare heardMs: number;
  @Column(DataType.TEXT) declare recogniser: string | null;
  /** Of the words, the share that was heard. */
  @Column(DataType.REAL) declare share: number | null;
  /** What came of it; null until the job is done. */
  @Column(DataType.TEXT) declare outcome: AlignmentOutcome | null;
  declare createdAt: Date;
}
