// JSON Schemas of what is sent, made of the rules by which it is checked.
import { getMetadataStorage, ValidationTypes } from 'class-validator';
import { validationMetadatasToSchemas } from 'class-validator-jsonschema';
import { defaultMetadataStorage } from 'class-transformer/cjs/storage.js';
import { ofKind, type ByKind } from '@dellum/contract';

export type DtoSchemas = ReturnType<typeof validationMetadatasToSchemas>;
type DtoSchema = DtoSchemas[string];
type Rule = ReturnType<ReturnType<typeof getMetadataStorage>['getTargetValidationMetadatas']>[number];

/** The rules of a class and of those that it is made of. */
const rulesOf = (dto: new () => object): readonly Rule[] => getMetadataStorage().getTargetValidationMetadatas(dto, '', false, false);

function dtos(): (new () => object)[] {
  const known = (getMetadataStorage() as unknown as { readonly validationMetadatas: ReadonlyMap<unknown, unknown> }).validationMetadatas;
  return [...known.keys()].filter((target) => typeof target === 'function') as (new () => object)[];
}

/** One of several shapes, of which the library knows nothing. */
function shapes(rules: readonly Rule[], property: string, at: string, known: DtoSchema | undefined): DtoSchema | undefined {
  const rule = rules.find((one) => one.propertyName === property && one.name === ofKind);
  if (!rule) return known;
  const [kinds] = rule.constraints as [() => ByKind<object>];
  const oneOf = Object.values(kinds()).map(({ name }) => ({ $ref: `${at}${name}` }));
  const { $ref: _ref, items: _items, ...rest } = (known ?? {}) as Record<string, unknown>;
  return (rule.each ? { ...rest, type: 'array', items: { oneOf } } : { oneOf }) as DtoSchema;
}

/** The narrowest bounds of a number: the library keeps the last. */
function bounds(rules: readonly Rule[], property: string): object {
  const all = (name: string) =>
    rules.filter((rule) => rule.propertyName === property && rule.name === name).map((rule) => (rule.constraints as [number])[0]);
  const [least, most] = [all('min'), all('max')];
  return { ...(least.length > 0 && { minimum: Math.max(...least) }), ...(most.length > 0 && { maximum: Math.min(...most) }) };
}

/** By the names of the classes; `at`: where references look for them. */
export function dtoSchemas(at: string): DtoSchemas {
  const schemas = validationMetadatasToSchemas({
    classTransformerMetadataStorage: defaultMetadataStorage,
    refPointerPrefix: at,
    additionalConverters: { isText: { type: 'string' }, areObjects: {} },
  });
  const whole = dtos().map((dto): [string, DtoSchema] => {
    const rules = rulesOf(dto);
    const schema = schemas[dto.name]!;
    const names = [...new Set(rules.map(({ propertyName }) => propertyName))];
    // What is checked only where it is there, or is not null, is said by a function: it is asked.
    const checks = (property: string, held: null | undefined) =>
      rules
        .filter((rule) => rule.propertyName === property && rule.type === ValidationTypes.CONDITIONAL_VALIDATION)
        .every((rule) => (rule.constraints[0] as (dto: object, held: unknown) => boolean)({}, held));
    const properties = names.map((name): [string, unknown] => {
      const own = { ...shapes(rules, name, at, schema.properties?.[name] as DtoSchema | undefined), ...bounds(rules, name) };
      return [name, checks(name, null) ? own : { anyOf: [own, { type: 'null' }] }];
    });
    const filled = new dto() as Record<string, unknown>;
    const required = names.filter((name) => checks(name, undefined) && filled[name] === undefined);
    return [dto.name, { ...schema, properties: Object.fromEntries(properties), required } as DtoSchema];
  });
  return { ...schemas, ...Object.fromEntries(whole) };
}
