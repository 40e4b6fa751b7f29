import { Email, Flag, Id, OneOf, ROLES, type Role, Text, TextList } from '@sift-reel/forms';

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
  @TextList({ format: 'uuid', description: 'Assigned clients; an owner sees all without' }) clientIds: string[];
}
