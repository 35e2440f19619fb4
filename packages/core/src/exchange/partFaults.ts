// What is wrong with the parts of a house as an archive says them: each thing that is named must be there, once.
import { cycleThrough, itemKey, partReads } from '../catalogs/index.js';
import { catalogIdOf } from '../rules/index.js';
import { matchKey } from '../text/index.js';
import { idsOf, namedParts, namesIn } from './bringParts.js';
import { registersOf, type HouseParts } from './houseParts.js';

/** Sentences; none where the parts hang together. */
export function partFaults(parts: HouseParts): string[] {
  const faults: string[] = [];
  const ids = idsOf(parts);
  if (new Set(ids).size < ids.length) faults.push('Two of its parts have the same id.');
  for (const what of namedParts) {
    const seen = new Set<string>();
    for (const { name } of namesIn(parts, what)) {
      if (matchKey(name) === '') faults.push('Something in it has a name that is blank.');
      if (seen.has(matchKey(name))) faults.push(`“${name}” stands there twice.`);
      seen.add(matchKey(name));
    }
  }
  const keys = parts.catalogs.map(({ key }) => key);
  if (new Set(keys).size < keys.length) faults.push('Two of its catalogs have the same key.');

  const all = new Set(ids);
  const fields = new Map(registersOf(parts).map(({ id, fields: own }) => [id, new Set(own.map(({ key }) => key))]));
  const missing = (who: string, what: string, found: boolean) => {
    if (!found) faults.push(`${who} names ${what} that is not in it.`);
  };
  for (const { kind, title, registers } of parts.sheets)
    if (kind === 'entry' && registers.length !== 1) faults.push(`The entry sheet “${title}” has ${registers.length} tables.`);
  for (const { title, fields: own } of registersOf(parts)) {
    if (new Set(own.map(({ key }) => key)).size < own.length) faults.push(`Two fields of “${title}” have the same key.`);
    for (const { key, heading, rule } of own) {
      // Names that objects have by nature are passed over wherever objects are read.
      if (key in Object.prototype || key === 'prototype') faults.push(`The field “${heading}” has a key that cannot be used.`);
      const catalog = catalogIdOf(rule);
      if (catalog !== undefined)
        missing(
          `The rule of “${heading}”`,
          'a catalog',
          parts.catalogs.some(({ id }) => id === catalog),
        );
    }
  }
  for (const { name, stretches } of parts.ranges) {
    if (stretches.length === 0 || stretches.some(({ fields: own }) => own.length === 0)) faults.push(`The range “${name}” lies nowhere.`);
    for (const { registerId, fields: own } of stretches) {
      missing(`The range “${name}”`, 'a list', fields.has(registerId));
      if (fields.has(registerId))
        missing(
          `The range “${name}”`,
          'a field',
          own.every((key) => fields.get(registerId)!.has(key)),
        );
    }
  }
  const idOfKey = new Map(parts.catalogs.map(({ id, key }) => [key, id]));
  /** The catalogs over which a source is computed. */
  const over = new Map(parts.linked.map(({ id, settings }) => [id, (settings.catalogs ?? []).flatMap((key) => idOfKey.get(key) ?? [])]));
  const behind = new Map(
    parts.catalogs.map(({ id, title, definition, kept }) => {
      if (new Set(kept.map(itemKey)).size < kept.length) faults.push(`The catalog “${title}” keeps something of a value twice.`);
      const reads = definition.parts.map(partReads);
      const linked = reads.flatMap((read) => read.linked ?? []);
      const catalogs = reads.flatMap((read) => read.catalogs ?? []);
      const named = [...reads.flatMap(({ ranges, registers }) => [...(ranges ?? []), ...(registers ?? [])]), ...linked, ...catalogs];
      missing(
        `The catalog “${title}”`,
        'a source',
        named.every((source) => all.has(source)),
      );
      return [id, [...catalogs, ...linked.flatMap((source) => over.get(source) ?? [])]];
    }),
  );
  for (const { id, title } of parts.catalogs)
    if (cycleThrough(id, (at) => behind.get(at) ?? [])) faults.push(`The catalog “${title}” is composed of itself.`);
  for (const { title, registerId } of parts.forms) missing(`The form “${title}”`, 'a sheet', fields.has(registerId));
  for (const { title, definition } of parts.figures) missing(`The figure “${title}”`, 'a sheet', fields.has(definition.registerId));
  const groups = new Set(parts.groups.map(({ id }) => id));
  const people = new Set(parts.people.map(({ id }) => id));
  for (const { title, groups: own } of parts.sheets)
    missing(
      `The sheet “${title}”`,
      'a group',
      own.every(({ groupId }) => groups.has(groupId)),
    );
  for (const { name, people: own } of parts.groups)
    missing(
      `The group “${name}”`,
      'somebody',
      own.every((id) => people.has(id)),
    );
  for (const { title, stewards } of parts.catalogs)
    missing(
      `The catalog “${title}”`,
      'somebody',
      stewards.every((id) => people.has(id)),
    );
  return faults;
}
