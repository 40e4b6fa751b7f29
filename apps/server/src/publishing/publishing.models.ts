import { Column, DataType, Default, Model, PrimaryKey, Table } from 'sequelize-typescript';
import type { Kept } from './platforms/platform.js';

export const ACCOUNT_STATES = ['connected', 'revoked', 'lacking'] as const;
export type AccountState = (typeof ACCOUNT_STATES)[number];

/** A right to post at a platform, given by whoever owns the account there. Its tokens are sealed. */
@Table({ tableName: 'accounts', underscored: true, timestamps: false })
export class Account extends Model {
  @PrimaryKey @Default(DataType.UUIDV4) @Column(DataType.UUID) declare id: string;
  @Column(DataType.UUID) declare clientId: string;
  /** Name of the platform's adapter. */
  @Column(DataType.TEXT) declare service: string;
  /** What the platform calls it. */
  @Column(DataType.TEXT) declare remoteId: string;
  @Column(DataType.TEXT) declare name: string;
  @Column(DataType.ARRAY(DataType.TEXT)) declare scopes: string[];
  @Column(DataType.BLOB) declare accessToken: Buffer;
  @Column(DataType.BLOB) declare refreshToken: Buffer | null;
  @Column(DataType.DATE) declare accessEndsAt: Date;
  @Default('connected') @Column(DataType.TEXT) declare state: AccountState;
  /** Why nothing can be posted with it, in the platform's words. */
  @Column(DataType.TEXT) declare trouble: string | null;
  @Default(DataType.NOW) @Column(DataType.DATE) declare stateSince: Date;
  @Column(DataType.DATE) declare renewingUntil: Date | null;
  @Default(1) @Column(DataType.INTEGER) declare version: number;
  @Column(DataType.UUID) declare connectedBy: string | null;
  @Default(DataType.NOW) @Column(DataType.DATE) declare connectedAt: Date;
}

/** Nothing goes out there: on one channel, for one client, or at all. */
@Table({ tableName: 'posting_stops', underscored: true, timestamps: false })
export class PostingStop extends Model {
  @PrimaryKey @Default(DataType.UUIDV4) @Column(DataType.UUID) declare id: string;
  /** Null for everything. */
  @Column(DataType.UUID) declare clientId: string | null;
  /** Null for all channels of the client. */
  @Column(DataType.UUID) declare channelId: string | null;
  @Column(DataType.UUID) declare stoppedBy: string | null;
  @Default(DataType.NOW) @Column(DataType.DATE) declare stoppedAt: Date;
}

/** The words that go out. */
export interface SentCopy {
  readonly title: string;
  readonly description: string;
  readonly hashtags: readonly string[];
  readonly coverLine: string;
}

/** A post on its way: what goes out, fixed when its time came, and how far it is. */
@Table({ tableName: 'sendings', underscored: true, timestamps: false })
export class Sending extends Model {
  @PrimaryKey @Column(DataType.UUID) declare postId: string;
  @Column(DataType.UUID) declare clientId: string;
  @Column(DataType.UUID) declare accountId: string | null;
  @Column(DataType.TEXT) declare service: string;
  /** By which it is found again at its platform. */
  @Column(DataType.TEXT) declare mark: string;
  @Column(DataType.INTEGER) declare shortVersion: number;
  @Column(DataType.JSONB) declare copy: SentCopy;
  @Column(DataType.TEXT) declare captions: string;
  @Column(DataType.UUID) declare renderId: string | null;
  @Column(DataType.TEXT) declare file: string;
  @Column(DataType.BIGINT) declare bytes: string;
  @Column(DataType.INTEGER) declare lengthMs: number;
  @Column(DataType.TEXT) declare shape: string;
  @Column(DataType.DATE) declare at: Date;
  @Column(DataType.DATE) declare fixedAt: Date;
  /** What its adapter has to remember between calls. */
  @Default({}) @Column(DataType.JSONB) declare kept: Kept;
  /** A call that publishes was begun then, and its end is not known. */
  @Column(DataType.DATE) declare doubtSince: Date | null;
  @Default(0) @Column(DataType.INTEGER) declare tries: number;
  @Column(DataType.TEXT) declare remoteId: string | null;
  @Column(DataType.TEXT) declare address: string | null;
  @Column(DataType.DATE) declare postedAt: Date | null;
  @Column(DataType.DATE) declare takenDownAt: Date | null;
}

/** What may happen to a post on its way, as it stands on record. Screens say each in their language. */
export const SENDING_EVENTS = [
  'fixed',
  'waits',
  'begun',
  'no-answer',
  'found',
  'not-found',
  'put-off',
  'taken',
  'posted',
  'refused',
  'missed',
  'recalled',
  'corrected',
  'taken-down',
  'send-again',
  'told-up',
  'told-not-up',
] as const;
export type SendingEventName = (typeof SENDING_EVENTS)[number];

@Table({ tableName: 'sending_events', underscored: true, timestamps: false })
export class SendingEvent extends Model {
  @PrimaryKey @Column({ type: DataType.BIGINT, autoIncrement: true }) declare id: string;
  @Column(DataType.UUID) declare postId: string;
  @Column(DataType.UUID) declare clientId: string;
  @Column(DataType.DATE) declare at: Date;
  @Column(DataType.TEXT) declare event: SendingEventName;
  @Default('') @Column(DataType.TEXT) declare detail: string;
  @Column(DataType.UUID) declare userId: string | null;
}
