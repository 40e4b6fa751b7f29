import { isZone } from '@sift-reel/core';
import { registerDecorator, type ValidationArguments } from 'class-validator';

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
