import type { FeedPerson, GivenChapter, Repair, SentenceEnds, TranscriptFormat, WordTimes } from '@sift-reel/core';
import type { Picture, SoundTrack } from '../media/probe.js';
import { Column, DataType, Default, ForeignKey, HasOne, Model, PrimaryKey, Table } from 'sequelize-typescript';

/** What the feed said of a recording that was an episode. */
export interface RecordingOrigin {
  readonly feedTitle: string;
  readonly publishedAt: string | null;
  readonly link: string | null;
  readonly season: number | null;
  readonly seasonName: string;
  readonly number: string;
  readonly persons: readonly FeedPerson[];
  readonly chapters: readonly GivenChapter[];
}

@Table({ tableName: 'recordings', underscored: true, updatedAt: false })
export class Recording extends Model {
  @PrimaryKey @Default(DataType.UUIDV4) @Column(DataType.UUID) declare id: string;
  @Column(DataType.UUID) declare clientId: string;
  @Column(DataType.TEXT) declare title: string;
  @Column(DataType.TEXT) declare baseName: string;
  @Column(DataType.INTEGER) declare durationMs: number | null;
  /** Name inside the media folder; never a path from outside. */
  @Column(DataType.TEXT) declare soundFile: string | null;
  @Column(DataType.TEXT) declare soundName: string | null;
  @Column(DataType.BIGINT) declare soundBytes: string | null;
  @Column(DataType.TEXT) declare soundType: string | null;
  /** What is seen of the sound's file; null for sound alone. */
  @Column(DataType.JSONB) declare picture: Picture | null;
  @Default([]) @Column(DataType.JSONB) declare soundTracks: SoundTrack[];
  /** Which of them is the recording's; null where there is none. */
  @Column(DataType.INTEGER) declare soundTrack: number | null;
  /** Null for what was brought in by hand, and for a plain link. */
  @Column(DataType.JSONB) declare origin: RecordingOrigin | null;
  @Column(DataType.UUID) declare createdBy: string | null;
  @Default(1) @Column(DataType.INTEGER) declare version: number;
  declare createdAt: Date;
  @HasOne(() => TranscriptRow) declare transcript: TranscriptRow | null;
}

/** `packed` is the gzipped JSON of the core's PackedTranscript, sent to the browser as it stands. */
@Table({ tableName: 'transcripts', underscored: true, updatedAt: false })
export class TranscriptRow extends Model {
  @PrimaryKey @ForeignKey(() => Recording) @Column(DataType.UUID) declare recordingId: string;
  @Column(DataType.UUID) declare clientId: string;
  @Column(DataType.TEXT) declare sourceName: string;
  @Column(DataType.TEXT) declare format: TranscriptFormat;
  @Column(DataType.TEXT) declare encoding: string;
  /** Where the last word ends; null in rows of an older schema. */
  @Column(DataType.INTEGER) declare durationMs: number | null;
  @Column(DataType.INTEGER) declare wordCount: number;
  @Column(DataType.INTEGER) declare sentenceCount: number;
  @Column(DataType.ARRAY(DataType.TEXT)) declare speakers: string[];
  @Column(DataType.TEXT) declare wordTimes: WordTimes;
  /** In which sound it was heard where its words end: see `heardOf`. Null where they are cut by their times alone. */
  @Column(DataType.TEXT) declare endsHeardIn: string | null;
  @Column(DataType.TEXT) declare sentenceEnds: SentenceEnds;
  @Column(DataType.BLOB) declare packed: Buffer;
  @Column(DataType.INTEGER) declare repairCount: number;
  @Column(DataType.JSONB) declare repairs: Repair[];
}

/** What was heard of a recording: see the core's `VoiceTrack`. Holds for one sound file only. */
@Table({ tableName: 'voice_tracks', underscored: true, timestamps: false })
export class VoiceTrackRow extends Model {
  @PrimaryKey @Column(DataType.UUID) declare recordingId: string;
  @Column(DataType.UUID) declare clientId: string;
  @Column(DataType.TEXT) declare soundFile: string;
  @Column(DataType.BLOB) declare levels: Buffer;
  @Column(DataType.BLOB) declare pitches: Buffer;
}
