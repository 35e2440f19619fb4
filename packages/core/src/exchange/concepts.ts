// A catalog as concepts (SKOS, W3C 2009): statements that each serialization of RDF writes in its way.
import type { Item } from '../catalogs/index.js';

export const skos = 'http://www.w3.org/2004/02/skos/core#';
export const rdf = 'http://www.w3.org/1999/02/22-rdf-syntax-ns#';
export const schemaOrg = 'https://schema.org/';
export const owl = 'http://www.w3.org/2002/07/owl#';
export const xsd = 'http://www.w3.org/2001/XMLSchema#';

export type ConceptObject =
  { readonly iri: string } | { readonly text: string; readonly language?: string } | { readonly day: string } | { readonly yes: true };
export interface Statement {
  readonly subject: string;
  /** A full IRI. */
  readonly predicate: string;
  readonly object: ConceptObject;
}
export interface Concepts {
  /** The IRI of the catalog; those of its concepts begin with it. */
  readonly scheme: string;
  readonly title: string;
  /** BCP 47 tag of what is shown. */
  readonly language: string;
}

const iriOf = (scheme: string, path: readonly string[]): string => `${scheme}/${path.map(encodeURIComponent).join('/')}`;

/**
 * What is said of a catalog and its items: notation is the value, prefLabel what is shown, broader the parent. Retired ones are deprecated.
 */
export function statementsOf(items: readonly Item[], { scheme, title, language }: Concepts): Statement[] {
  const of = (subject: string) => (predicate: string, object: ConceptObject) => ({ subject, predicate, object });
  const catalog = of(scheme);
  return [
    catalog(`${rdf}type`, { iri: `${skos}ConceptScheme` }),
    catalog(`${skos}prefLabel`, { text: title, language }),
    ...items.flatMap((item) => {
      const own = [...item.path, item.value];
      const say = of(iriOf(scheme, own));
      const top = item.path.length === 0;
      return [
        say(`${rdf}type`, { iri: `${skos}Concept` }),
        say(`${skos}inScheme`, { iri: scheme }),
        say(`${skos}notation`, { text: item.value }),
        say(`${skos}prefLabel`, { text: item.label, language }),
        ...item.otherNames.map((name) => say(`${skos}altLabel`, { text: name, language })),
        ...(top ? [say(`${skos}topConceptOf`, { iri: scheme })] : [say(`${skos}broader`, { iri: iriOf(scheme, item.path) })]),
        ...(item.note === undefined ? [] : [say(`${skos}note`, { text: item.note, language })]),
        ...(item.validFrom === undefined ? [] : [say(`${schemaOrg}validFrom`, { day: item.validFrom })]),
        ...(item.validUntil === undefined ? [] : [say(`${schemaOrg}validThrough`, { day: item.validUntil })]),
        ...(item.state === 'retired' ? [say(`${owl}deprecated`, { yes: true as const })] : []),
      ];
    }),
  ];
}
