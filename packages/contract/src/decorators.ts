// What members of requests must be, said once: what is let through here can be stored, and read as what it is called.
import 'reflect-metadata';
import { plainToInstance, Transform, Type } from 'class-transformer';
import { IsInt, IsObject, IsString, Max, Min, ValidateBy, ValidateIf, ValidateNested, type ValidationOptions } from 'class-validator';

const compose =
  (...decorators: readonly PropertyDecorator[]): PropertyDecorator =>
  (target, property) => {
    for (const decorate of decorators) decorate(target, property);
  };

// NUL and lone surrogates are in no text that the database takes.
const unstorable = /[\u0000\p{Surrogate}]/u;

export const isStorable = (text: unknown): text is string => typeof text === 'string' && !unstorable.test(text);

/** A text, or with `each` several, that can be stored. */
export const IsText = (options?: ValidationOptions): PropertyDecorator =>
  compose(
    IsString(options),
    ValidateBy(
      {
        name: 'isText',
        validator: {
          validate: isStorable,
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

/** The classes of a union, by what each has as its `kind`. */
export type ByKind<Dto extends object> = Readonly<Record<string, new () => Dto>>;

/** How the rule is called that says so; its constraint gives the classes. */
export const ofKind = 'isOfKind';

/** As an instance of its class; as it is where its `kind` names none, be that what it may. */
function madeOf(kinds: ByKind<object>, held: unknown): unknown {
  const kind = isPlain(held) ? (held as { kind?: unknown }).kind : undefined;
  return typeof kind === 'string' && Object.hasOwn(kinds, kind) ? plainToInstance(kinds[kind]!, held) : held;
}

/**
 * One of several shapes, told apart by its `kind`, or with `each` a list of them; each may have the members of its own shape only.
 * (The discriminator that class-transformer has fails on a null within a list, and takes the first shape for a kind it does not know.)
 */
export const NestedByKind = (kinds: () => ByKind<object>, options?: { readonly each: true }): PropertyDecorator =>
  compose(
    Transform(({ obj, key }: { obj: Record<string, unknown>; key: string }) => {
      const held = obj[key];
      return Array.isArray(held) ? held.map((one) => madeOf(kinds(), one)) : madeOf(kinds(), held);
    }),
    ValidateBy(
      {
        name: ofKind,
        constraints: [kinds],
        validator: {
          validate: (held) => Object.values(kinds()).some((kind) => held instanceof kind),
          defaultMessage: () => `Its kind must be one of ${Object.keys(kinds()).join(', ')}.`,
        },
      },
      options,
    ),
    ValidateNested(options),
  );
