import { createParamDecorator, type ExecutionContext, ForbiddenException, NotFoundException } from '@nestjs/common';
import type { Role } from '@sift-reel/forms';
import type { Request } from 'express';

/** Who is asking, and which clients they may see. */
export interface Actor {
  readonly userId: string;
  readonly name: string;
  readonly email: string;
  readonly role: Role;
  readonly clientIds: readonly string[] | 'all';
  readonly csrfToken: string;
}

export interface RequestWithActor extends Request {
  actor?: Actor;
}

export const CurrentActor = createParamDecorator((_: unknown, context: ExecutionContext): Actor => {
  const { actor } = context.switchToHttp().getRequest<RequestWithActor>();
  if (actor === undefined) throw new Error('CurrentActor stands on a public route');
  return actor;
});

/**
 * The one place where queries are narrowed to what the actor may see: spread into every `where` of a table with
 * `client_id`.
 */
export function scoped(actor: Pick<Actor, 'clientIds'>): { clientId?: string[] } {
  return actor.clientIds === 'all' ? {} : { clientId: [...actor.clientIds] };
}

/** The same for a query in plain text: ids of the clients, or null for all. */
export const seenClients = ({ clientIds }: Pick<Actor, 'clientIds'>): readonly string[] | null => (clientIds === 'all' ? null : clientIds);

/** Whether somebody who sees `clientIds` may be told of a client. */
export function mayPass(clientIds: readonly string[] | 'all', clientId: string): boolean {
  return clientIds === 'all' || clientIds.includes(clientId);
}

/** Another client's anything does not exist for the actor. @throws NotFoundException */
export function requireClient(actor: Pick<Actor, 'clientIds'>, clientId: string): void {
  if (!mayPass(actor.clientIds, clientId)) throw new NotFoundException('There is no such client.');
}

/** @throws ForbiddenException when the actor is not the owner */
export function requireOwner(actor: Actor): void {
  if (actor.role !== 'owner') throw new ForbiddenException('Only the owner may do this.');
}

/** The row, or 404 with the same words whether it is missing or another client's. */
export function found<T>(row: T | null | undefined, what: string): T {
  if (row === null || row === undefined) throw new NotFoundException(`There is no such ${what}.`);
  return row;
}
