import {
  type ArgumentsHost,
  BadRequestException,
  Catch,
  ConflictException,
  type ExceptionFilter,
  HttpException,
  NotFoundException,
  ServiceUnavailableException,
  type ValidationError,
} from '@nestjs/common';
import type { Request, Response } from 'express';
import { ConnectionError } from 'sequelize';
import { log, spokenPath } from '../config/logger.js';
import { sqlState } from '../database/sql-state.js';
import { MissingFileError, StoreAwayError } from '../media/store-errors.js';
import type { FieldProblem, WithMore } from '../problems/refusals.js';

/** Flattens class-validator's tree of errors to one line a field. */
export function toFieldProblems(errors: readonly ValidationError[], path = ''): FieldProblem[] {
  return errors.flatMap((error) => {
    const field = path === '' ? error.property : `${path}.${error.property}`;
    const own = Object.entries(error.constraints ?? {}).map(([rule, text]) => ({
      field,
      detail: rule === 'whitelistValidation' ? 'is not a field of this form' : text,
    }));
    return [...own.slice(0, 1), ...toFieldProblems(error.children ?? [], field)];
  });
}

/** What the database itself refused, in words. States that begin with SR are raised by our own triggers. */
const REFUSED_BY_DATABASE: Readonly<Record<string, () => HttpException>> = {
  SR001: () => new ConflictException('The short is not approved, so it cannot have a post. Load the schedule again.'),
  SR002: () => new ConflictException('The short stands on the schedule. Take it off there first.'),
  SR003: () => new ConflictException('Nobody has read its words in the language of this channel yet. Read them on the short, then place it.'),
  SR004: () => new ConflictException('The short stands on the schedule in this language. Take it off there first.'),
  SR005: () => new ConflictException('Posts stand on this channel. Take them off the schedule, then change its language.'),
  '23503': () => new ConflictException('Something that this belongs to, or that belongs to it, is in the way. Load the screen again.'),
  '23505': () => new ConflictException('Somebody else has just made the same. Load the screen again.'),
  '22021': () => new BadRequestException('The text holds characters that cannot be kept.'),
  '22P05': () => new BadRequestException('The text holds characters that cannot be kept.'),
  '55P03': () => new ServiceUnavailableException('Somebody else is at it just now. Nothing was changed; try again.'),
  '57014': () => new ServiceUnavailableException('This took too long and was stopped. Nothing was changed; try again.'),
};

function toHttp(error: unknown): HttpException | null {
  if (error instanceof HttpException) return error;
  const refused = REFUSED_BY_DATABASE[sqlState(error) ?? ''];
  if (refused !== undefined) return refused();
  if (error instanceof MissingFileError) return new NotFoundException('The file is not in its place.');
  if (error instanceof StoreAwayError) return new ServiceUnavailableException(`${error.message} Nothing was changed; try again.`);
  if (error instanceof ConnectionError) return new ServiceUnavailableException('The database cannot be reached just now. Nothing was changed; try again.');
  return null;
}

/** RFC 9457 problem details for every error. What went wrong inside is logged, not told. */
@Catch()
export class ProblemFilter implements ExceptionFilter {
  catch(thrown: unknown, host: ArgumentsHost): void {
    const http = host.switchToHttp();
    const response = http.getResponse<Response>();
    const request = http.getRequest<Request>();
    const error = toHttp(thrown) ?? thrown;
    const status = error instanceof HttpException ? error.getStatus() : statusOf(error);
    if (status >= 500)
      log.error(
        {
          method: request.method,
          path: spokenPath(request.path),
          error: thrown instanceof Error ? thrown.message : String(thrown),
          stack: thrown instanceof Error ? thrown.stack : undefined,
        },
        'request failed',
      );
    if (response.headersSent) {
      response.end();
      return;
    }
    if (!request.complete) {
      // Whoever still sends is told and, a little later, cut off; reading on would take what was refused. No `Connection: close`:
      // Node would end the line at once, and what was not read makes the system reset it before the answer is there.
      response.on('finish', () => setTimeout(() => request.destroy(), LINGER_MS).unref());
    }
    response
      .status(status)
      .type('application/problem+json')
      .send(
        JSON.stringify({
          type: 'about:blank',
          title: TITLES[status] ?? 'Error',
          status,
          detail:
            status >= 500 && !(error instanceof ServiceUnavailableException)
              ? 'Something went wrong on our side. Nothing was changed; try again.'
              : error instanceof Error
                ? error.message
                : String(error),
          ...(hasMore(error) ? error.more : {}),
        }),
      );
  }
}

/** Time for an answer to arrive before the line is cut. */
const LINGER_MS = 1_000;

const TITLES: Readonly<Record<number, string>> = {
  400: 'Not a valid request',
  401: 'Not signed in',
  403: 'Not allowed',
  404: 'Not found',
  409: 'In conflict',
  410: 'Gone',
  413: 'Too large',
  415: 'Not a kind that is taken',
  422: 'Cannot be used',
  429: 'Too many attempts',
  500: 'Fault',
  503: 'Not available',
};

function hasMore(error: unknown): error is WithMore {
  return error instanceof HttpException && 'more' in error;
}

/** Errors of Express's own parts carry their status; everything else is ours. */
function statusOf(error: unknown): number {
  const status = (error as { status?: unknown } | null)?.status;
  return typeof status === 'number' && status >= 400 && status < 500 ? status : 500;
}
