import { Flag, Id, Text, Whole } from './fields.js';
import { SEEN } from './forms.js';

/** How late a post of a client may go out without a person's word. */
export class LatenessForm {
  @Whole({ min: 5, max: 10_080 }) minutes: number;
  @Whole(SEEN) version: number;
}

/** What a browser came back with from a platform (RFC 6749, 4.1.2; RFC 9207). */
export class ConnectedForm {
  @Text({ min: 1, max: 400, trim: 'none' }) state: string;
  @Text({ optional: true, max: 2_000, trim: 'none' }) code?: string;
  @Text({ optional: true, max: 400, trim: 'none' }) iss?: string;
  @Text({ optional: true, max: 100, trim: 'none' }) error?: string;
}

export class ChannelAccountForm {
  @Id({ nullable: true, description: 'An account of its client on its platform; null: its posts are posted by hand' }) accountId: string | null;
}

/** Posting is stopped, or goes on: on a channel, for a client, or at all where both are null. */
export class StopForm {
  @Id({ nullable: true }) clientId: string | null;
  @Id({ nullable: true }) channelId: string | null;
  @Flag() stopped: boolean;
}

export class PostSeenForm {
  @Whole(SEEN) version: number;
}

/** What a person found out of a post whose sending broke off. */
export class OutcomeForm {
  @Flag({ description: 'It is up there' }) isUp: boolean;
  @Whole(SEEN) version: number;
}

/** Other words for a post that is out. */
export class PostedWordsForm {
  @Text({ min: 1, max: 1_000 }) title: string;
  @Text({ max: 20_000 }) description: string;
  @Whole(SEEN) version: number;
}
