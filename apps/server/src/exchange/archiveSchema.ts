// The JSON Schema (2020-12) of `house.json`, made of the rules by which it is checked when it comes in.
import { HouseArchiveDto } from '@dellum/contract';
import { dtoSchemas, type DtoSchemas } from '../api/dtoSchemas.js';

const at = '#/$defs/';

/** The names that a schema refers to. */
const namedIn = (schema: unknown): string[] => [...JSON.stringify(schema).matchAll(/"#\/\$defs\/(\w+)"/gu)].map(([, name]) => name!);

export function archiveSchema(): object {
  const schemas = dtoSchemas(at);
  const used: DtoSchemas = {};
  const take = (name: string): void => {
    if (name in used) return;
    used[name] = { ...schemas[name], additionalProperties: false };
    namedIn(used[name]).forEach(take);
  };
  take(HouseArchiveDto.name);
  const { [HouseArchiveDto.name]: house, ...others } = used;
  return {
    $schema: 'https://json-schema.org/draft/2020-12/schema',
    title: 'house.json of a house archive',
    description: 'What a house is made of. The entries of each sheet, list and table stand beside it, as JSON Lines of {"id", "cells"}.',
    ...house,
    $defs: Object.fromEntries(Object.entries(others).sort(([one], [other]) => (one < other ? -1 : 1))),
  };
}
