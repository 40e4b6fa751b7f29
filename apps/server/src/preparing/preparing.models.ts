import { Column, DataType, Default, Model, PrimaryKey, Table } from 'sequelize-typescript';
import type { HeardLoudness } from '../media/heard-loudness.js';
import type { WhyProxy } from '../media/playable.js';
import type { Sprite } from './sprite.js';

/** What was made of a recording's file. Each part is null until its stage is done, or where there is nothing of it. */
@Table({ tableName: 'preparations', underscored: true, updatedAt: false })
export class Preparation extends Model {
  @PrimaryKey @Default(DataType.UUIDV4) @Column(DataType.UUID) declare id: string;
  @Column(DataType.UUID) declare recordingId: string;
  @Column(DataType.UUID) declare clientId: string;
  @Column(DataType.TEXT) declare soundFile: string;
  @Column(DataType.INTEGER) declare soundTrack: number | null;
  /** Why browsers are given another file; empty where they can play the original. Null until it was looked at. */
  @Column(DataType.ARRAY(DataType.TEXT)) declare whyProxy: WhyProxy[] | null;
  /** Names inside the folder of prepared files. */
  @Column(DataType.TEXT) declare proxyFile: string | null;
  @Column(DataType.TEXT) declare spriteFile: string | null;
  @Column(DataType.JSONB) declare sprite: Sprite | null;
  /** Null for silence, too. */
  @Column(DataType.JSONB) declare loudness: HeardLoudness | null;
  /** Length of the sound as it was counted, in ms; null until it was heard. */
  @Column(DataType.INTEGER) declare heardMs: number | null;
  declare createdAt: Date;
}
