import { type Edit, type EditedPassage, NO_EDIT, type Targets, type TruthRule } from '@sift-reel/core';
import type { IncludeOptions } from 'sequelize';
import { BelongsTo, Column, DataType, Default, ForeignKey, HasMany, Model, PrimaryKey, Table } from 'sequelize-typescript';
import { Recording } from '../recordings/recordings.models.js';
import { CandidateRow } from '../sifting/sifting.models.js';

/** A person's word that something is right though it was not said. */
export interface Tick {
  readonly rule: TruthRule;
  readonly text: string;
  readonly by: string;
  readonly at: string;
}

/** A kept candidate. The row stays when the candidate is not kept any more, so that its words are not lost. */
@Table({ tableName: 'shorts', underscored: true, updatedAt: false })
export class Short extends Model {
  @PrimaryKey @Default(DataType.UUIDV4) @Column(DataType.UUID) declare id: string;
  @Column(DataType.UUID) declare clientId: string;
  @ForeignKey(() => Recording) @Column(DataType.UUID) declare recordingId: string;
  @ForeignKey(() => CandidateRow) @Column(DataType.UUID) declare candidateId: string;
  @Column(DataType.INTEGER) declare firstWord: number;
  @Column(DataType.INTEGER) declare endWord: number;
  @Column(DataType.INTEGER) declare startMs: number;
  @Column(DataType.INTEGER) declare endMs: number;
  /** What is made of it between its ends, and how long that plays. */
  @Default(NO_EDIT) @Column(DataType.JSONB) declare edit: Edit;
  @Column(DataType.INTEGER) declare playedMs: number;
  @Column(DataType.REAL) declare score: number;
  /** It stays true and worth showing: it may come again where its client wants that. */
  @Default(false) @Column(DataType.BOOLEAN) declare evergreen: boolean;
  @Column(DataType.UUID) declare approvedBy: string | null;
  @Column(DataType.DATE) declare approvedAt: Date | null;
  /** Counts every change of span or words, of all channels together; the database does it, by triggers. */
  @Default(1) @Column(DataType.INTEGER) declare version: number;
  /** The version that was approved: this one, or null. The database takes it away with any change. */
  @Column(DataType.INTEGER) declare approvedVersion: number | null;
  /** What was not said in the passage and somebody says is right all the same. */
  @Default([]) @Column(DataType.JSONB) declare ticks: Tick[];
  @BelongsTo(() => Recording) declare recording: Recording;
  @BelongsTo(() => CandidateRow) declare candidate: CandidateRow;
  @HasMany(() => CopyRow) declare copies: CopyRow[];
  @HasMany(() => Translation) declare translations: Translation[];
}

/** The passage that a short plays. */
export const passageOf = ({ firstWord, endWord, edit }: Short): EditedPassage => ({ firstWord, endWord, edit });

/** The words of a short: for all channels where `channelId` is null, else a channel's own. */
@Table({ tableName: 'copies', underscored: true, createdAt: false })
export class CopyRow extends Model {
  @PrimaryKey @Default(DataType.UUIDV4) @Column(DataType.UUID) declare id: string;
  @ForeignKey(() => Short) @Column(DataType.UUID) declare shortId: string;
  @Column(DataType.UUID) declare clientId: string;
  @Column(DataType.UUID) declare channelId: string | null;
  @Column(DataType.TEXT) declare title: string;
  @Column(DataType.TEXT) declare description: string;
  @Column(DataType.ARRAY(DataType.TEXT)) declare hashtags: string[];
  @Column(DataType.ARRAY(DataType.TEXT)) declare keywords: string[];
  @Column(DataType.TEXT) declare coverLine: string;
}

/** What the words of a slot were once: proposed, or written by somebody. */
@Table({ tableName: 'copy_versions', underscored: true, timestamps: false })
export class CopyVersion extends Model {
  @PrimaryKey @Default(DataType.UUIDV4) @Column(DataType.UUID) declare id: string;
  @Column(DataType.UUID) declare clientId: string;
  @Column(DataType.UUID) declare shortId: string;
  @Column(DataType.UUID) declare channelId: string | null;
  @Column(DataType.UUID) declare writtenBy: string | null;
  @Column(DataType.BOOLEAN) declare proposed: boolean;
  @Column(DataType.DATE) declare writtenAt: Date;
  @Column(DataType.TEXT) declare title: string;
  @Column(DataType.TEXT) declare description: string;
  @Column(DataType.ARRAY(DataType.TEXT)) declare hashtags: string[];
  @Column(DataType.ARRAY(DataType.TEXT)) declare keywords: string[];
  @Column(DataType.TEXT) declare coverLine: string;
}

/** The words and captions of a short in another language. */
@Table({ tableName: 'translations', underscored: true, timestamps: false })
export class Translation extends Model {
  @PrimaryKey @Default(DataType.UUIDV4) @Column(DataType.UUID) declare id: string;
  @Column(DataType.UUID) declare clientId: string;
  @ForeignKey(() => Short) @Column(DataType.UUID) declare shortId: string;
  @Column(DataType.TEXT) declare language: string;
  @Default({}) @Column(DataType.JSONB) declare targets: Targets;
  /** What each text was translated from. */
  @Default({}) @Column(DataType.JSONB) declare sources: Targets;
  /** The program that drafted what nobody has changed since; null where a person wrote it. */
  @Column(DataType.TEXT) declare draftedBy: string | null;
  /** Version of the short at which a person has read it; null for a draft. The database takes it away with any change. */
  @Column(DataType.INTEGER) declare readVersion: number | null;
  @Column(DataType.UUID) declare readBy: string | null;
  @Column(DataType.DATE) declare readAt: Date | null;
  @Default(1) @Column(DataType.INTEGER) declare version: number;
}

/** All that a short is shown and sent with. It is there while its candidate is kept. */
export const KEPT_WITH_ALL: IncludeOptions[] = [
  { model: CandidateRow, where: { state: 'kept' } },
  { model: Recording },
  { model: CopyRow },
  { model: Translation, attributes: ['id', 'shortId', 'language', 'targets', 'readVersion'] },
];
