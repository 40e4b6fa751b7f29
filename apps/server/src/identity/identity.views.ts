import { Email, Flag, Id, OneOf, Part, ROLES, type Role, Text, TextList, Whole } from '@sift-reel/forms';

export class SessionView {
  @Id() userId: string;
  @Text() name: string;
  @Email() email: string;
  @OneOf(ROLES) role: Role;
  @Text({ description: 'Goes into the X-CSRF-Token header of every request that changes something' }) csrfToken: string;
}

export class UserView {
  @Id() id: string;
  @Text() name: string;
  @Email() email: string;
  @OneOf(ROLES) role: Role;
  @Flag() active: boolean;
  @Flag({ description: 'Has not chosen a password yet' }) invited: boolean;
  @TextList({ format: 'uuid', description: 'Assigned clients; an owner sees all without' }) clientIds: string[];
  @Whole() version: number;
}

/** A user with how they come in. */
export class InvitedUserView {
  @Part(() => UserView) user: UserView;
  @Flag({ description: 'The link went out by mail' }) mailed: boolean;
  @Text({ nullable: true, description: 'The link, to be handed over, where no mail went out' }) link: string | null;
}

/** Whose link it is. */
export class InvitationView {
  @Text() name: string;
  @Email() email: string;
}
