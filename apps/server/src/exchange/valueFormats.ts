// The values of a catalog in the formats that programs ask for: JSON, CSV (RFC 4180), and SKOS as Turtle and JSON-LD.
import { owl, rdf, schemaOrg, skos, statementsOf, xsd, type ConceptObject, type Item, type Statement } from '@dellum/core';
import type { CatalogView, ProgramCatalog, ProgramValues, ValueFormatName } from '@dellum/contract';
import Papa from 'papaparse';
import { programValue } from './programValue.js';

export interface ValuesAbout {
  readonly catalog: ProgramCatalog;
  /** The IRI of the catalog. */
  readonly scheme: string;
  readonly language: string;
  /** csv: a text that a calculating program would take for a formula stays a text. */
  readonly guarded?: boolean;
}
interface Format {
  readonly type: string;
  readonly ending: string;
  write(items: readonly Item[], about: ValuesAbout): string | Promise<string>;
}

const prefixes = { skos, rdf, schema: schemaOrg, owl, xsd };
const statements = (items: readonly Item[], { catalog, scheme, language }: ValuesAbout) =>
  statementsOf(items, { scheme, title: catalog.title, language });

export const valueFormats = {
  json: {
    type: 'application/json',
    ending: 'json',
    write: (items, { catalog }) => JSON.stringify({ catalog, values: items.map(programValue) } satisfies ProgramValues),
  },
  csv: { type: 'text/csv', ending: 'csv', write: asCsv },
  turtle: { type: 'text/turtle', ending: 'ttl', write: (items, about) => asTurtle(statements(items, about)) },
  jsonld: { type: 'application/ld+json', ending: 'jsonld', write: (items, about) => asJsonLd(statements(items, about)) },
} as const satisfies Record<ValueFormatName, Format>;

function asCsv(items: readonly Item[], { catalog, guarded = false }: ValuesAbout): string {
  const parents = Array.from({ length: Math.max(0, catalog.levels - 1) }, (_, at) => `under ${at + 1}`);
  const companions = [...new Set(items.flatMap((item) => Object.keys(item.companions ?? {})))];
  const head = ['value', 'label', ...parents, 'other names', 'note', 'valid from', 'valid until', 'retired', ...companions];
  const rows = items.map((item) => [
    item.value,
    item.label,
    ...parents.map((_, at) => item.path[at] ?? ''),
    item.otherNames.join('\n'),
    item.note ?? '',
    item.validFrom ?? '',
    item.validUntil ?? '',
    item.state === 'retired' ? 'yes' : 'no',
    ...companions.map((key) => item.companions?.[key] ?? ''),
  ]);
  return `${Papa.unparse([head, ...rows], { newline: '\r\n', escapeFormulae: guarded })}\r\n`;
}

/** What the values of a catalog are written with: how deep it is, and by which IRI it is called. */
export const aboutValues = (
  { key, title, version }: Pick<CatalogView, 'key' | 'title' | 'version'>,
  items: readonly Item[],
  { houseKey, language }: { readonly houseKey: string; readonly language: string },
): ValuesAbout => ({
  catalog: { key, title, version, levels: levelsOf(items) },
  scheme: `urn:dellum:catalog:${houseKey}:${encodeURIComponent(key)}`,
  language,
});
export const levelsOf = (items: readonly Item[]): number => items.reduce((most, { path }) => Math.max(most, path.length + 1), 0);

async function asTurtle(all: readonly Statement[]): Promise<string> {
  const {
    DataFactory: { namedNode, literal },
    Writer,
  } = await import('n3');
  const objectOf = (object: ConceptObject) => {
    if ('iri' in object) return namedNode(object.iri);
    if ('text' in object) return literal(object.text, object.language);
    return 'day' in object ? literal(object.day, namedNode(`${xsd}date`)) : literal('true', namedNode(`${xsd}boolean`));
  };
  const writer = new Writer({ prefixes });
  for (const { subject, predicate, object } of all) writer.addQuad(namedNode(subject), namedNode(predicate), objectOf(object));
  return new Promise((done, failed) => {
    writer.end((error: Error | null, text: string) => (error ? failed(error) : done(text)));
  });
}

function asJsonLd(all: readonly Statement[]): string {
  const nodes = new Map<string, Record<string, unknown>>();
  const short = (iri: string) => {
    const [prefix, base] = Object.entries(prefixes).find(([, start]) => iri.startsWith(start))!;
    return `${prefix}:${iri.slice(base.length)}`;
  };
  for (const { subject, predicate, object } of all) {
    const node = nodes.get(subject) ?? { '@id': subject };
    nodes.set(subject, node);
    if (predicate === `${rdf}type` && 'iri' in object) {
      node['@type'] = short(object.iri);
      continue;
    }
    const held = (node[short(predicate)] as unknown[] | undefined) ?? [];
    node[short(predicate)] = [...held, asNode(object)];
  }
  return JSON.stringify({ '@context': prefixes, '@graph': [...nodes.values()] });
}

function asNode(object: ConceptObject): Record<string, unknown> {
  if ('iri' in object) return { '@id': object.iri };
  if ('text' in object) return { '@value': object.text, ...(object.language !== undefined && { '@language': object.language }) };
  return 'day' in object ? { '@value': object.day, '@type': 'xsd:date' } : { '@value': true };
}
