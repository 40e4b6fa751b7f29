import type { PostState, PostWaits } from '@sift-reel/core';
import { Column, DataType, Default, ForeignKey, HasMany, Model, PrimaryKey, Table } from 'sequelize-typescript';

@Table({ tableName: 'batches', underscored: true, updatedAt: false })
export class Batch extends Model {
  @PrimaryKey @Default(DataType.UUIDV4) @Column(DataType.UUID) declare id: string;
  @Column(DataType.TEXT) declare name: string;
  @Column(DataType.UUID) declare createdBy: string | null;
  @Default(1) @Column(DataType.INTEGER) declare version: number;
  declare createdAt: Date;
  @HasMany(() => BatchShort) declare members: BatchShort[];
}

@Table({ tableName: 'batch_shorts', underscored: true, timestamps: false })
export class BatchShort extends Model {
  @PrimaryKey @ForeignKey(() => Batch) @Column(DataType.UUID) declare batchId: string;
  @PrimaryKey @Column(DataType.UUID) declare shortId: string;
  @Column(DataType.UUID) declare clientId: string;
}

/** A private address at which a client's posts are read as a calendar. */
@Table({ tableName: 'calendars', underscored: true, updatedAt: false })
export class Calendar extends Model {
  @PrimaryKey @Default(DataType.UUIDV4) @Column(DataType.UUID) declare id: string;
  @Column(DataType.UUID) declare clientId: string;
  /** Whom it is for. */
  @Column(DataType.TEXT) declare name: string;
  @Column(DataType.TEXT) declare tokenHash: string;
  @Column(DataType.DATE) declare readAt: Date | null;
  @Column(DataType.UUID) declare createdBy: string | null;
  declare createdAt: Date;
}

@Table({ tableName: 'posts', underscored: true, updatedAt: false })
export class Post extends Model {
  @PrimaryKey @Default(DataType.UUIDV4) @Column(DataType.UUID) declare id: string;
  @Column(DataType.UUID) declare clientId: string;
  @Column(DataType.UUID) declare channelId: string;
  @Column(DataType.UUID) declare shortId: string;
  @Column(DataType.UUID) declare batchId: string | null;
  @Column(DataType.DATEONLY) declare date: string;
  @Column(DataType.SMALLINT) declare minute: number;
  @Column(DataType.DATE) declare at: Date;
  @Default('planned') @Column(DataType.TEXT) declare state: PostState;
  /** Why it failed; kept when it is marked as posted, so that the mark can be taken back. */
  @Column(DataType.TEXT) declare failure: string | null;
  /** What it waits for, where that is its state. */
  @Column(DataType.TEXT) declare waits: PostWaits | null;
  /** Somebody said that it goes out though its time is over. */
  @Default(false) @Column(DataType.BOOLEAN) declare lateOk: boolean;
  /** When it is looked at again; null: when its time comes. */
  @Column(DataType.DATE) declare tryAt: Date | null;
  /** How often the platform took it and turned it down. */
  @Default(0) @Column(DataType.INTEGER) declare turnedDown: number;
  /** Laying out may move it on its channel. */
  @Default(false) @Column(DataType.BOOLEAN) declare movable: boolean;
  @Column(DataType.TEXT) declare why: string;
  @Default(1) @Column(DataType.INTEGER) declare version: number;
}
