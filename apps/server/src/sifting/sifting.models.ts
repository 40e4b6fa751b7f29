import type { Alternative, CandidateKind, Chapter, Kind, MakeUp, RecordingPhrase, RecordingSubject, SiftLimit, SignalName } from '@sift-reel/core';
import type { CandidateState } from '@sift-reel/forms';
import { BelongsTo, Column, DataType, Default, ForeignKey, HasMany, Model, PrimaryKey, Table } from 'sequelize-typescript';

@Table({ tableName: 'briefs', underscored: true, updatedAt: false })
export class BriefRow extends Model {
  @PrimaryKey @Default(DataType.UUIDV4) @Column(DataType.UUID) declare id: string;
  @Column(DataType.UUID) declare recordingId: string;
  @Column(DataType.UUID) declare clientId: string;
  @Column(DataType.INTEGER) declare partStartMs: number;
  @Column(DataType.INTEGER) declare partEndMs: number | null;
  @Column(DataType.INTEGER) declare minMs: number;
  @Column(DataType.INTEGER) declare maxMs: number;
  @Column(DataType.INTEGER) declare roughCount: number;
  @Column(DataType.ARRAY(DataType.TEXT)) declare topics: string[];
  @Column(DataType.ARRAY(DataType.TEXT)) declare kinds: Kind[];
  @Column(DataType.ARRAY(DataType.TEXT)) declare avoid: string[];
  @Column(DataType.UUID) declare createdBy: string | null;
}

/** What a sift found. How far it is stands with its job, of the kind `sift`. */
@Table({ tableName: 'sifts', underscored: true, updatedAt: false })
export class Sift extends Model {
  @PrimaryKey @Default(DataType.UUIDV4) @Column(DataType.UUID) declare id: string;
  @Column(DataType.UUID) declare recordingId: string;
  @Column(DataType.UUID) declare clientId: string;
  @ForeignKey(() => BriefRow) @Column(DataType.UUID) declare briefId: string;
  @Column(DataType.JSONB) declare chapters: Chapter[] | null;
  @Column(DataType.JSONB) declare ridge: number[] | null;
  @Column(DataType.INTEGER) declare strongCount: number | null;
  @Column(DataType.ARRAY(DataType.TEXT)) declare limits: SiftLimit[] | null;
  @Default([]) @Column(DataType.JSONB) declare keyPhrases: RecordingPhrase[];
  @Column(DataType.ARRAY(DataType.DOUBLE)) declare weights: number[] | null;
  /** Code of the language, where it is not English. */
  @Column(DataType.TEXT) declare language: string | null;
  @Column(DataType.JSONB) declare makeUp: MakeUp | null;
  /** Null in sifts from before it was kept, too. */
  @Column(DataType.JSONB) declare subject: RecordingSubject | null;
  @Column(DataType.UUID) declare createdBy: string | null;
  declare createdAt: Date;
  @BelongsTo(() => BriefRow) declare brief: BriefRow;
}

@Table({ tableName: 'candidates', underscored: true, timestamps: false })
export class CandidateRow extends Model {
  @PrimaryKey @Default(DataType.UUIDV4) @Column(DataType.UUID) declare id: string;
  @Column(DataType.UUID) declare siftId: string;
  @Column(DataType.UUID) declare clientId: string;
  @Column(DataType.INTEGER) declare rank: number;
  @Column(DataType.REAL) declare score: number;
  @Column(DataType.INTEGER) declare startMs: number;
  @Column(DataType.INTEGER) declare endMs: number;
  @Column(DataType.INTEGER) declare firstWord: number;
  @Column(DataType.INTEGER) declare endWord: number;
  @Column(DataType.INTEGER) declare foundFirstWord: number;
  @Column(DataType.INTEGER) declare foundEndWord: number;
  @Column(DataType.TEXT) declare kind: CandidateKind;
  @Column(DataType.TEXT) declare reason: string;
  @Column(DataType.TEXT) declare firstLine: string;
  @Column(DataType.TEXT) declare lastLine: string;
  @Column(DataType.TEXT) declare title: string;
  @Column(DataType.ARRAY(DataType.TEXT)) declare hashtags: string[];
  @Default([]) @Column(DataType.JSONB) declare alternatives: Alternative[];
  /** Found by the sift, or made by somebody from a hit or a selection. */
  @Default('sift') @Column(DataType.TEXT) declare origin: 'sift' | 'own';
  @Default('open') @Column(DataType.TEXT) declare state: CandidateState;
  @HasMany(() => CandidateSignal) declare signals: CandidateSignal[];
  @HasMany(() => EvidenceRow) declare evidence: EvidenceRow[];
}

@Table({ tableName: 'candidate_signals', underscored: true, timestamps: false })
export class CandidateSignal extends Model {
  @PrimaryKey @ForeignKey(() => CandidateRow) @Column(DataType.UUID) declare candidateId: string;
  @PrimaryKey @Column(DataType.TEXT) declare signal: SignalName;
  @Column(DataType.SMALLINT) declare value: number;
  @Column(DataType.TEXT) declare sentence: string;
}

@Table({ tableName: 'evidence', underscored: true, timestamps: false })
export class EvidenceRow extends Model {
  @PrimaryKey @ForeignKey(() => CandidateRow) @Column(DataType.UUID) declare candidateId: string;
  @PrimaryKey @Column(DataType.TEXT) declare signal: SignalName;
  @PrimaryKey @Column(DataType.INTEGER) declare firstWord: number;
  @Column(DataType.INTEGER) declare endWord: number;
}

/** Vectors by content, shared by all recordings: 512 little-endian floats that tell nothing of who said what. */
@Table({ tableName: 'sentence_vectors', underscored: true, timestamps: false })
export class SentenceVector extends Model {
  @PrimaryKey @Column(DataType.TEXT) declare key: string;
  @Column(DataType.BLOB) declare vector: Buffer;
}
