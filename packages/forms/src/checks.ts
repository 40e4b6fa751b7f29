import { contrast, isZone, LEAST_CONTRAST } from '@sift-reel/core';
import { Transform } from 'class-transformer';
import { registerDecorator, type ValidationArguments, type ValidationOptions } from 'class-validator';

/** White space at the ends of a text, or of each text of a list, falls away before it is checked. */
export function Trimmed(): PropertyDecorator {
  const trim = (value: unknown): unknown => (typeof value === 'string' ? value.trim() : value);
  return Transform(({ value }: { value: unknown }) => (Array.isArray(value) ? (value as unknown[]).map(trim) : trim(value)));
}

/** No zero characters and no halves of characters: neither can be kept as text. */
export function KeepableText(options: ValidationOptions = {}): PropertyDecorator {
  return check(
    'keepableText',
    'must not hold characters that cannot be kept (zero, or half of a pair)',
    options,
    (value) => typeof value !== 'string' || !/[\0\p{Surrogate}]/u.test(value),
  );
}

export function IsPlainObject(options: ValidationOptions = {}): PropertyDecorator {
  return check('isPlainObject', 'must be filled in', options, (value) => typeof value === 'object' && value !== null && !Array.isArray(value));
}

/** A day that the calendar has, of this century: a post in the year 9999 is a slip of the hand. */
export function IsCalendarDay(options: ValidationOptions = {}): PropertyDecorator {
  return check('isCalendarDay', 'must be a day, YYYY-MM-DD, from 2000 to 2099', options, (value) => {
    if (typeof value !== 'string' || !/^20\d\d-\d\d-\d\d$/.test(value)) return false;
    const day = new Date(`${value}T00:00:00Z`);
    return !Number.isNaN(day.getTime()) && day.toISOString().startsWith(value);
  });
}

/** From `start` to this field there is room for the length in `needed`, where all are given. */
export function RoomFor(start: string, needed: string, message: string): PropertyDecorator {
  return (target, key) => {
    registerDecorator({
      name: 'roomFor',
      target: target.constructor,
      propertyName: String(key),
      options: { message },
      validator: {
        validate: (value: unknown, args?: ValidationArguments) => {
          const { [start]: from, [needed]: length } = args!.object as Record<string, unknown>;
          if (typeof value !== 'number' || typeof from !== 'number' || typeof length !== 'number') return true;
          return value <= from || value - from >= length; // an end before its start is refused in other words
        },
      },
    });
  };
}

/** The colour can be read on another colour of the same form, where both are colours. */
export function ReadableOn(other: string): PropertyDecorator {
  return (target, key) => {
    registerDecorator({
      name: 'readableOn',
      target: target.constructor,
      propertyName: String(key),
      options: { message: `must stand out from the ground more: a contrast of ${LEAST_CONTRAST} at least` },
      validator: {
        validate: (value: unknown, args?: ValidationArguments) => {
          const ground = (args!.object as Record<string, unknown>)[other];
          const isColour = (one: unknown): one is string => typeof one === 'string' && /^#[\da-f]{6}$/i.test(one);
          return !isColour(value) || !isColour(ground) || contrast(value, ground) >= LEAST_CONTRAST;
        },
      },
    });
  };
}

function check(name: string, message: string, options: ValidationOptions, validate: (value: unknown) => boolean): PropertyDecorator {
  return (target, key) => {
    registerDecorator({ name, target: target.constructor, propertyName: String(key), options: { message, ...options }, validator: { validate } });
  };
}

/** The field must be greater than another field of the same form, where both are given. */
export function GreaterThan(other: string, message: string): PropertyDecorator {
  return (target, key) => {
    registerDecorator({
      name: 'greaterThan',
      target: target.constructor,
      propertyName: String(key),
      constraints: [other],
      options: { message },
      validator: {
        validate: (value: unknown, args?: ValidationArguments) => {
          const against = (args!.object as Record<string, unknown>)[other];
          if (value === null || value === undefined || against === null || against === undefined) return true;
          return (value as number | string) > (against as number | string);
        },
      },
    });
  };
}

/** As GreaterThan, but equal is fine. */
export function NotBefore(other: string, message: string): PropertyDecorator {
  return (target, key) => {
    registerDecorator({
      name: 'notBefore',
      target: target.constructor,
      propertyName: String(key),
      constraints: [other],
      options: { message },
      validator: { validate: (value: unknown, args?: ValidationArguments) => String(value) >= String((args!.object as Record<string, unknown>)[other]) },
    });
  };
}

/** The name of a time zone in the IANA database. */
export function IsZone(): PropertyDecorator {
  return (target, key) => {
    registerDecorator({
      name: 'isZone',
      target: target.constructor,
      propertyName: String(key),
      options: { message: 'must be a time zone such as Europe/Dublin' },
      validator: { validate: (value: unknown) => typeof value === 'string' && isZone(value) },
    });
  };
}
