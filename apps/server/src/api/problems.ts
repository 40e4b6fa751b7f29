import {
  type ArgumentsHost,
  BadRequestException,
  Catch,
  type ExceptionFilter,
  HttpException,
  UnprocessableEntityException,
  type ValidationError,
} from '@nestjs/common';
import type { Request, Response } from 'express';
import { log } from '../config/logger.js';
import { TranscriptRefusedException } from '../recordings/recordings.service.js';

export interface FieldProblem {
  /** Path of the field, such as `windows.3.minute`. */
  readonly field: string;
  readonly detail: string;
}

/** What was filled in does not hold; says each field. */
export class InvalidFormException extends BadRequestException {
  constructor(readonly errors: readonly FieldProblem[]) {
    super(errors.map(({ field, detail }) => `${field} ${detail}`).join('; '));
  }
}

export class BriefRefusedException extends UnprocessableEntityException {
  readonly errors: readonly FieldProblem[];
  constructor(field: string, detail: string) {
    super(detail);
    this.errors = [{ field, detail }];
  }
}

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

/** RFC 9457 problem details for every error. What went wrong inside is logged, not told. */
@Catch()
export class ProblemFilter implements ExceptionFilter {
  catch(error: unknown, host: ArgumentsHost): void {
    const http = host.switchToHttp();
    const response = http.getResponse<Response>();
    const request = http.getRequest<Request>();
    const status = error instanceof HttpException ? error.getStatus() : statusOf(error);
    if (status >= 500)
      log.error(
        {
          method: request.method,
          path: request.path,
          error: error instanceof Error ? error.message : String(error),
          stack: error instanceof Error ? error.stack : undefined,
        },
        'request failed',
      );
    if (response.headersSent) {
      response.end();
      return;
    }
    response
      .status(status)
      .type('application/problem+json')
      .send(
        JSON.stringify({
          type: 'about:blank',
          title: TITLES[status] ?? 'Error',
          status,
          detail: status >= 500 ? 'Something went wrong on our side. Nothing was changed; try again.' : error instanceof Error ? error.message : String(error),
          ...(hasErrors(error) ? { errors: error.errors } : {}),
          ...(error instanceof TranscriptRefusedException ? { file: error.file, line: error.line, field: error.field, code: error.code } : {}),
        }),
      );
  }
}

const TITLES: Readonly<Record<number, string>> = {
  400: 'Not a valid request',
  401: 'Not signed in',
  403: 'Not allowed',
  404: 'Not found',
  409: 'In conflict',
  413: 'Too large',
  422: 'Cannot be used',
  429: 'Too many attempts',
  500: 'Fault',
  503: 'Not available',
};

function hasErrors(error: unknown): error is { errors: readonly FieldProblem[] } {
  return error instanceof InvalidFormException || error instanceof BriefRefusedException;
}

/** Errors of Express's own parts carry their status; everything else is ours. */
function statusOf(error: unknown): number {
  const status = (error as { status?: unknown } | null)?.status;
  return typeof status === 'number' && status >= 400 && status < 500 ? status : 500;
}
