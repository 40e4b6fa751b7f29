import { BadRequestException, ConflictException, UnprocessableEntityException } from '@nestjs/common';

export interface FieldProblem {
  /** Path of the field, such as `windows.3.minute`. */
  readonly field: string;
  readonly detail: string;
}

/** An exception with more to say in its problem document than `detail`. */
export interface WithMore {
  readonly more: Readonly<Record<string, unknown>>;
}

/** What was filled in does not hold; says each field. */
export class InvalidFormException extends BadRequestException implements WithMore {
  readonly more: WithMore['more'];
  constructor(readonly errors: readonly FieldProblem[]) {
    super(errors.map(({ field, detail }) => `${field} ${detail}`).join('; '));
    this.more = { errors };
  }
}

export class BriefRefusedException extends UnprocessableEntityException implements WithMore {
  readonly more: WithMore['more'];
  constructor(field: string, detail: string) {
    super(detail);
    this.more = { errors: [{ field, detail }] };
  }
}

/** Somebody else changed it since the writer saw it. The document holds what it is now, so that the screen can offer both. */
export class StaleWriteException extends ConflictException implements WithMore {
  readonly more: WithMore['more'];
  constructor(what: string, current: object) {
    super(`Somebody changed this ${what} while you did. Nothing of yours was saved yet; look at both and choose.`);
    this.more = { code: 'stale', current };
  }
}

/** A transcript was refused; the problem document says file, line and field. */
export class TranscriptRefusedException extends UnprocessableEntityException implements WithMore {
  readonly more: WithMore['more'];
  constructor(file: string, line: number, field: string | null, code: string, detail: string) {
    super(`${file}:${line}: ${field === null ? '' : `${field}: `}${detail}`);
    this.more = { file, line, field, code };
  }
}

/** Words that were not said in the passage need a person's tick. The document lists them. */
export class UnsaidException extends UnprocessableEntityException implements WithMore {
  readonly more: WithMore['more'];
  constructor(unsaid: readonly object[]) {
    super(
      unsaid.length === 1
        ? 'One thing in its words was not said in the passage. Tick it if it is right.'
        : `${unsaid.length} things in its words were not said in the passage. Tick those that are right.`,
    );
    this.more = { code: 'unsaid', unsaid };
  }
}
