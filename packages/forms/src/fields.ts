import 'reflect-metadata';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsBoolean,
  IsEmail,
  IsIn,
  IsInt,
  IsNumber,
  IsOptional,
  IsString,
  IsUUID,
  Matches,
  Max,
  MaxLength,
  Min,
  MinLength,
  ValidateIf,
  ValidateNested,
} from 'class-validator';
import { IsCalendarDay, IsPlainObject, KeepableText, Trimmed } from './checks.js';

/** What is known of a field: enough to check it and to describe it in the API document. */
export interface FieldSpec {
  readonly kind: 'text' | 'number' | 'flag' | 'object';
  readonly list?: boolean;
  readonly optional?: boolean;
  readonly nullable?: boolean;
  readonly description?: string;
  readonly values?: readonly string[];
  readonly format?: string;
  readonly integer?: boolean;
  readonly min?: number;
  readonly max?: number;
  readonly minLength?: number;
  readonly maxLength?: number;
  readonly maxItems?: number;
  readonly of?: () => new () => object;
}

/** Every field declared, in order of declaration. The server reads it to write the API document. */
export const declaredFields: { readonly target: object; readonly key: string; readonly spec: FieldSpec }[] = [];

type Field = (target: object, key: string) => void;
type Common = Pick<FieldSpec, 'optional' | 'nullable' | 'description'>;

function declare(spec: FieldSpec, ...checks: PropertyDecorator[]): Field {
  return (target, key) => {
    declaredFields.push({ target, key, spec });
    if (spec.optional === true) IsOptional()(target, key);
    else if (spec.nullable === true) ValidateIf((_, value) => value !== null)(target, key);
    for (const check of checks) check(target, key);
  };
}

/** Text that is kept as it is sent: passwords, whole files. */
type Trimming = 'ends' | 'none';

/** White space at its ends falls away, unless `trim` is `none`; what PostgreSQL cannot keep as text is refused. */
export function Text(options: Common & { min?: number; max?: number; trim?: Trimming; pattern?: RegExp; says?: string } = {}): Field {
  const min = options.min ?? 0;
  const max = options.max ?? 200;
  const checks: PropertyDecorator[] = [
    ...(options.trim === 'none' ? [] : [Trimmed()]),
    IsString({ message: 'must be text' }),
    KeepableText(),
    MaxLength(max, { message: `must be at most ${max} characters` }),
    ...(min > 0 ? [MinLength(min, { message: min === 1 ? 'must not be empty' : `must be at least ${min} characters` })] : []),
    ...(options.pattern === undefined ? [] : [Matches(options.pattern, { message: options.says ?? `must match ${options.pattern.source}` })]),
  ];
  return declare({ kind: 'text', ...common(options), minLength: min, maxLength: max }, ...checks);
}

export function Email(options: Common = {}): Field {
  return declare(
    { kind: 'text', format: 'email', ...common(options) },
    IsEmail({}, { message: 'must be an e-mail address' }),
    MaxLength(254, { message: 'must be at most 254 characters' }),
  );
}

export function Id(options: Common = {}): Field {
  return declare({ kind: 'text', format: 'uuid', ...common(options) }, IsUUID(undefined, { message: 'must be an id' }));
}

/** A calendar day, YYYY-MM-DD. */
export function Day(options: Common = {}): Field {
  return declare({ kind: 'text', format: 'date', ...common(options) }, IsCalendarDay());
}

/** An instant in answers, ISO 8601 in UTC. */
export function Instant(options: Common = {}): Field {
  return declare({ kind: 'text', format: 'date-time', ...common(options) }, IsString({ message: 'must be an instant' }));
}

export function Whole(options: Common & { min?: number; max?: number } = {}): Field {
  const min = options.min ?? 0;
  const max = options.max ?? Number.MAX_SAFE_INTEGER;
  const range = options.max === undefined ? `must be ${min} or more` : `must be from ${min} to ${max}`;
  return declare(
    { kind: 'number', integer: true, ...common(options), min, ...(options.max === undefined ? {} : { max }) },
    IsInt({ message: 'must be a whole number' }),
    Min(min, { message: range }),
    Max(max, { message: range }),
  );
}

export function Decimal(options: Common & { min?: number; max?: number } = {}): Field {
  const { min, max } = options;
  const isNumber = IsNumber({}, { message: 'must be a number' });
  if (min === undefined || max === undefined) return declare({ kind: 'number', ...common(options) }, isNumber);
  const range = { message: `must be from ${min} to ${max}` };
  return declare({ kind: 'number', ...common(options), min, max }, isNumber, Min(min, range), Max(max, range));
}

export function Flag(options: Common = {}): Field {
  return declare({ kind: 'flag', ...common(options) }, IsBoolean({ message: 'must be yes or no' }));
}

export function OneOf(values: readonly string[], options: Common = {}): Field {
  return declare({ kind: 'text', values, ...common(options) }, IsIn([...values], { message: `must be one of ${values.join(', ')}` }));
}

export function TextList(options: Common & { maxItems?: number; max?: number; values?: readonly string[]; format?: 'uuid'; min?: number } = {}): Field {
  const maxItems = options.maxItems ?? 50;
  const max = options.max ?? 100;
  const each = { each: true } as const;
  return declare(
    {
      kind: 'text',
      list: true,
      ...common(options),
      maxItems,
      maxLength: max,
      ...(options.values === undefined ? {} : { values: options.values }),
      ...(options.format === undefined ? {} : { format: options.format }),
    },
    IsArray({ message: 'must be a list' }),
    ArrayMaxSize(maxItems, { message: `must hold at most ${maxItems}` }),
    Trimmed(),
    IsString({ ...each, message: 'must hold texts' }),
    KeepableText(each),
    MinLength(1, { ...each, message: 'must not hold an empty one' }),
    MaxLength(max, { ...each, message: `each must be at most ${max} characters` }),
    ...(options.values === undefined ? [] : [IsIn([...options.values], { ...each, message: `each must be one of ${options.values.join(', ')}` })]),
    ...(options.format === undefined ? [] : [IsUUID(undefined, { ...each, message: 'each must be an id' })]),
  );
}

export function WholeList(options: Common = {}): Field {
  return declare({ kind: 'number', integer: true, list: true, ...common(options) }, IsArray({ message: 'must be a list' }));
}

export function DecimalList(options: Common & { min?: number; max?: number; length?: number } = {}): Field {
  const { min, max, length } = options;
  const each = { each: true } as const;
  return declare(
    { kind: 'number', list: true, ...common(options) },
    IsArray({ message: 'must be a list' }),
    IsNumber({ allowInfinity: false, allowNaN: false }, { ...each, message: 'must hold numbers' }),
    ...(length === undefined ? [] : [ArrayMinSize(length, { message: `must hold ${length}` }), ArrayMaxSize(length, { message: `must hold ${length}` })]),
    ...(min === undefined ? [] : [Min(min, { ...each, message: `each must be ${min} or more` })]),
    ...(max === undefined ? [] : [Max(max, { ...each, message: `each must be at most ${max}` })]),
  );
}

export function Part(of: () => new () => object, options: Common = {}): Field {
  return declare({ kind: 'object', of, ...common(options) }, IsPlainObject(), ValidateNested({ message: 'must be filled in' }), Type(of) as PropertyDecorator);
}

/** An object whose inside is checked elsewhere. */
export function Tree(options: Common = {}): Field {
  return declare({ kind: 'object', ...common(options) }, IsPlainObject());
}

export function Parts(of: () => new () => object, options: Common & { minItems?: number; maxItems?: number } = {}): Field {
  const { minItems = 0, maxItems = 1_000 } = options;
  return declare(
    { kind: 'object', list: true, of, ...common(options), maxItems },
    IsArray({ message: 'must be a list' }),
    ...(minItems > 0 ? [ArrayMinSize(minItems, { message: `must hold at least ${minItems}` })] : []),
    ArrayMaxSize(maxItems, { message: `must hold at most ${maxItems}` }),
    IsPlainObject({ each: true }),
    ValidateNested({ each: true, message: 'must be filled in' }),
    Type(of) as PropertyDecorator,
  );
}

function common({ optional, nullable, description }: Common): Common {
  return {
    ...(optional === undefined ? {} : { optional }),
    ...(nullable === undefined ? {} : { nullable }),
    ...(description === undefined ? {} : { description }),
  };
}
