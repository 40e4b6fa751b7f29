import { Flag, Id, Instant, OneOf, Parts, Text, TextList, Whole } from '@sift-reel/forms';
import { ACCOUNT_STATES, type AccountState, SENDING_EVENTS, type SendingEventName } from './publishing.models.js';

/** A platform that posts can go to by themselves. */
export class ServiceView {
  @Text({ description: 'As platform profiles name it' }) name: string;
  @Text() title: string;
  @Flag({ description: 'Words can be changed there once a post is out' }) corrects: boolean;
}

export class AccountView {
  @Id() id: string;
  @Id() clientId: string;
  @Text() service: string;
  @Text({ description: 'As the platform calls it' }) name: string;
  @OneOf(ACCOUNT_STATES) state: AccountState;
  @Text({ nullable: true, description: 'Why nothing can be posted with it' }) trouble: string | null;
  @Instant() stateSince: string;
  @Text() connectedBy: string;
  @Instant() connectedAt: string;
}

export class StopView {
  @Id() id: string;
  @Id({ nullable: true, description: 'Null: everything' }) clientId: string | null;
  @Id({ nullable: true, description: 'Null: all channels of the client' }) channelId: string | null;
  @Text() stoppedBy: string;
  @Instant() stoppedAt: string;
}

export class ChannelAccountView {
  @Id() channelId: string;
  @Id() accountId: string;
}

/** What posts go out with, and what keeps them from it. */
export class PostingView {
  @Flag({ description: 'Accounts can be connected: a key is configured to seal their tokens with' }) isReady: boolean;
  @Parts(() => ServiceView) services: ServiceView[];
  @Parts(() => AccountView) accounts: AccountView[];
  @Parts(() => ChannelAccountView) channels: ChannelAccountView[];
  @Parts(() => StopView) stops: StopView[];
}

/** Where the browser is to go, to be asked whether Sift Reel may post. */
export class ConnectingView {
  @Text() address: string;
}

export class ConnectedView {
  @Id() clientId: string;
  @Id() channelId: string;
  @Text() accountName: string;
}

export class SendingEventView {
  @Instant() at: string;
  @OneOf(SENDING_EVENTS) event: SendingEventName;
  @Text() detail: string;
  @Text({ nullable: true, description: 'Who did it; null: the program' }) by: string | null;
}

/** A post on its way: what went out of it, and what happened. */
export class SendingView {
  @Text({ nullable: true, description: 'Null while nothing is fixed' }) service: string | null;
  @Text({ nullable: true }) account: string | null;
  @Text() title: string;
  @Text() description: string;
  @TextList() hashtags: string[];
  @Instant({ nullable: true }) fixedAt: string | null;
  @Flag({ description: 'A call that publishes broke off, and its end is not known yet' }) inDoubt: boolean;
  @Flag({ description: 'Nothing can find that out any more but a person' }) askPerson: boolean;
  @Whole() tries: number;
  @Text({ nullable: true, description: 'Where it is seen' }) address: string | null;
  @Instant({ nullable: true }) postedAt: string | null;
  @Instant({ nullable: true }) takenDownAt: string | null;
  @Flag() corrects: boolean;
  @Parts(() => SendingEventView) events: SendingEventView[];
}
