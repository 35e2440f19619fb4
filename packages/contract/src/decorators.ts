// What members of requests must be, said once: what is let through here can be stored, and read as what it is called.
import { Type } from 'class-transformer';
import { IsInt, IsObject, IsString, Max, Min, ValidateBy, ValidateIf, ValidateNested, type ValidationOptions } from 'class-validator';

const compose =
  (...decorators: readonly PropertyDecorator[]): PropertyDecorator =>
  (target, property) => {
    for (const decorate of decorators) decorate(target, property);
  };

// NUL and lone surrogates are in no text that the database takes.
const unstorable = /[\u0000\p{Surrogate}]/u;

/** A text, or with `each` several, that can be stored. */
export const IsText = (options?: ValidationOptions): PropertyDecorator =>
  compose(
    IsString(options),
    ValidateBy(
      {
        name: 'isText',
        validator: {
          validate: (text) => typeof text === 'string' && !unstorable.test(text),
          defaultMessage: () => 'The text holds a character that cannot be stored. Type it again without it.',
        },
      },
      options,
    ),
  );

const mostWhole = 2 ** 31 - 1;
/** A whole number as the database keeps them. */
export const IsWhole = (): PropertyDecorator => compose(IsInt(), Min(-mostWhole), Max(mostWhole));

/** It may be left out; what is not left out, null too, is checked. */
export const MayLack = (): PropertyDecorator => ValidateIf((_dto, held) => held !== undefined);

/** It says so where there is none; only what there is is checked. */
export const MayBeNull = (): PropertyDecorator => ValidateIf((_dto, held) => held !== null);

const isPlain = (held: unknown): boolean => typeof held === 'object' && held !== null && !Array.isArray(held);

/** An object of another shape, or with `each` a list of them: neither null nor a list in its place. */
export const Nested = (type: () => new () => object, options?: { readonly each: true }): PropertyDecorator =>
  compose(
    options
      ? ValidateBy({ name: 'areObjects', validator: { validate: isPlain, defaultMessage: () => 'Each must be an object.' } }, options)
      : IsObject(),
    ValidateNested(options),
    Type(type),
  );
