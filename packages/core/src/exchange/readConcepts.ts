// Catalogs out of concepts that somebody else wrote (SKOS, W3C 2009): the other direction of `concepts.ts`, for whatever the standard
// allows.
import { clean, longestName, longestValue, matchKey, storable } from '../text/index.js';
import { isOfKind } from '../values/index.js';
import { owl, rdf, schemaOrg, skos, type ConceptObject, type Statement } from './concepts.js';

/** A value of a catalog, as a concept says it. */
export interface ReadConcept {
  readonly value: string;
  readonly path: readonly string[];
  readonly label: string;
  readonly otherNames: readonly string[];
  readonly note?: string;
  readonly validFrom?: string;
  readonly validUntil?: string;
  readonly retired: boolean;
}
/** A concept scheme. */
export interface ReadScheme {
  readonly title: string;
  /** Each parent before its children. */
  readonly concepts: readonly ReadConcept[];
}
export interface ReadConcepts {
  readonly schemes: readonly ReadScheme[];
  /** What is not taken as it stands. */
  readonly left: LeftOfConcepts;
}
/** How many concepts each is said of. */
export interface LeftOfConcepts {
  /** They have several broader ones, of which one is taken. */
  several: number;
  /** They lie in a circle, or deeper than a catalog has levels: they are values without a parent. */
  loose: number;
  /** They are called as another one under the same parent, and are other names of it. */
  same: number;
}

/** A catalog has so many levels at most. */
const mostLevels = 8;
/** A value has so many other names at most. */
const mostNames = 200;
const longestNote = 1000;
const terms = 'http://purl.org/dc/terms/';
const oldSchemaOrg = 'http://schema.org/';
const untitled = 'Concepts';

interface Text {
  readonly text: string;
  readonly language: string;
}
/** What is said of a concept or a scheme. */
interface Said {
  readonly iri: string;
  isConcept: boolean;
  isScheme: boolean;
  retired: boolean;
  from: string | undefined;
  until: string | undefined;
  readonly notations: string[];
  readonly labels: Text[];
  readonly others: Text[];
  readonly notes: Text[];
  readonly broader: string[];
  readonly schemes: string[];
}

function textIn(object: ConceptObject): Text | undefined {
  const text = 'text' in object ? clean(storable(object.text)) : '';
  return 'text' in object && text !== '' ? { text, language: (object.language ?? '').toLowerCase() } : undefined;
}
const dayIn = (object: ConceptObject): string | undefined => {
  const written = 'day' in object ? object.day : 'text' in object ? object.text : '';
  const day = written.slice(0, 10);
  return isOfKind('date', day) ? day : undefined;
};

/** Takes statements as they are read, in any order. */
export class ConceptsReader {
  private readonly all = new Map<string, Said>();

  add({ subject, predicate, object }: Statement): void {
    if (predicate.startsWith(skos)) this.addSkos(subject, predicate.slice(skos.length), object);
    else if (predicate === `${rdf}type` && 'iri' in object) {
      if (object.iri === `${skos}Concept`) this.of(subject).isConcept = true;
      if (object.iri === `${skos}ConceptScheme`) this.of(subject).isScheme = true;
    } else if (predicate === `${owl}deprecated`) {
      if ('yes' in object || ('text' in object && object.text === 'true')) this.of(subject).retired = true;
    } else if (predicate === `${terms}title`) this.of(subject).others.push(...listed(textIn(object)));
    else if (isOf(predicate, 'validFrom')) this.of(subject).from ??= dayIn(object);
    else if (isOf(predicate, 'validThrough')) this.of(subject).until ??= dayIn(object);
  }

  private addSkos(subject: string, said: string, object: ConceptObject): void {
    const own = this.of(subject);
    switch (said) {
      case 'notation':
        own.notations.push(...listed(textIn(object)).map(({ text }) => text));
        break;
      case 'prefLabel':
        own.labels.push(...listed(textIn(object)));
        break;
      case 'altLabel':
      case 'hiddenLabel':
        own.others.push(...listed(textIn(object)));
        break;
      case 'note':
      case 'definition':
      case 'scopeNote':
        own.notes.push(...listed(textIn(object)));
        break;
      case 'broader':
        if ('iri' in object) this.tie(subject, object.iri);
        break;
      case 'narrower':
        if ('iri' in object) this.tie(object.iri, subject);
        break;
      case 'inScheme':
      case 'topConceptOf':
        if ('iri' in object) this.belong(subject, object.iri);
        break;
      case 'hasTopConcept':
        if ('iri' in object) this.belong(object.iri, subject);
        break;
    }
  }

  private of(iri: string): Said {
    const known = this.all.get(iri);
    if (known) return known;
    const added: Said = {
      ...{ iri, isConcept: false, isScheme: false, retired: false, from: undefined, until: undefined },
      ...{ notations: [], labels: [], others: [], notes: [], broader: [], schemes: [] },
    };
    this.all.set(iri, added);
    return added;
  }
  private tie(narrow: string, broad: string): void {
    this.of(broad).isConcept = true;
    const own = this.of(narrow);
    own.isConcept = true;
    if (!own.broader.includes(broad)) own.broader.push(broad);
  }
  private belong(concept: string, scheme: string): void {
    this.of(scheme).isScheme = true;
    const own = this.of(concept);
    own.isConcept = true;
    if (!own.schemes.includes(scheme)) own.schemes.push(scheme);
  }

  /** The catalogs that they are; `language`: of what is shown (BCP 47), so far as it is there. */
  found(language: string): ReadConcepts {
    const left: LeftOfConcepts = { several: 0, loose: 0, same: 0 };
    const concepts = [...this.all.values()].filter(({ isConcept }) => isConcept);
    const parents = this.parentsOf(concepts, left);
    const children = grouped(concepts, (own) => parents.get(own));
    const schemes = new Map<string, ReadConcept[]>();
    const lay = (siblings: readonly Said[], path: readonly string[], above: string | undefined): void => {
      const schemeOf = (own: Said) => above ?? own.schemes[0] ?? '';
      for (const same of grouped(siblings, (own) => `${schemeOf(own)}\u001F${matchKey(valueOf(own, language))}`).values()) {
        const [own] = same as [Said, ...Said[]];
        left.same += same.length - 1;
        const scheme = schemeOf(own);
        const concept = readConcept(
          own,
          path,
          same.flatMap((one) => namesOf(one)),
          language,
        );
        const among = schemes.get(scheme) ?? [];
        among.push(concept);
        schemes.set(scheme, among);
        lay(
          same.flatMap((one) => children.get(one) ?? []),
          [...path, concept.value],
          scheme,
        );
      }
    };
    lay(children.get(undefined) ?? [], [], undefined);
    return { schemes: [...schemes].map(([iri, own]) => ({ title: this.titleOf(iri, language), concepts: own })), left };
  }

  /** By concept, the one under which it is laid; none for those at the top, in a circle, or too deep. */
  private parentsOf(concepts: readonly Said[], left: LeftOfConcepts): ReadonlyMap<Said, Said | undefined> {
    const parents = new Map<Said, Said | undefined>(
      concepts.map((own) => {
        if (own.broader.length > 1) left.several++;
        return [own, own.broader[0] === undefined ? undefined : this.all.get(own.broader[0])];
      }),
    );
    for (const own of concepts) {
      let depth = 1;
      for (let above = parents.get(own); above; above = parents.get(above))
        if (above === own || ++depth > mostLevels) {
          parents.set(own, undefined);
          left.loose++;
          break;
        }
    }
    return parents;
  }

  private titleOf(iri: string, language: string): string {
    const own = this.all.get(iri);
    const title = own && (best(own.labels, language) ?? best(own.others, language) ?? lastPart(iri));
    return cut(title ?? untitled, longestName) || untitled;
  }
}

function grouped<T, K>(all: readonly T[], keyOf: (one: T) => K): Map<K, T[]> {
  const groups = new Map<K, T[]>();
  for (const one of all) {
    const key = keyOf(one);
    const group = groups.get(key);
    if (group) group.push(one);
    else groups.set(key, [one]);
  }
  return groups;
}

const listed = (text: Text | undefined): Text[] => (text ? [text] : []);
const isOf = (predicate: string, name: string): boolean => predicate === `${schemaOrg}${name}` || predicate === `${oldSchemaOrg}${name}`;

/** In the language, or one of its family; else in none, in English, or whatever is there. */
function best(texts: readonly Text[], language: string): string | undefined {
  const wanted = language.toLowerCase();
  const [family] = wanted.split('-');
  const ranked = [
    texts.find((one) => one.language === wanted),
    texts.find((one) => one.language.split('-')[0] === family),
    texts.find((one) => one.language === ''),
    texts.find((one) => one.language.split('-')[0] === 'en'),
    texts[0],
  ];
  return ranked.find((one) => one !== undefined)?.text;
}

/** What an IRI ends with, read. */
function lastPart(iri: string): string {
  const part = iri.split(/[/#:]/u).findLast((one) => one !== '') ?? iri;
  try {
    return storable(decodeURIComponent(part));
  } catch {
    return storable(part);
  }
}

/** No pair of code units is cut through. */
const cut = (text: string, most: number): string => clean(storable(text.slice(0, most)));
const short = (text: string): string => cut(text, longestValue);
const valueOf = (own: Said, language: string): string =>
  short(own.notations[0] ?? best(own.labels, language) ?? lastPart(own.iri)) || untitled;

/** All that a concept is called, in any language. */
const namesOf = (own: Said): string[] => [...own.notations, ...[...own.labels, ...own.others].map(({ text }) => text)].map(short);

function readConcept(own: Said, path: readonly string[], names: readonly string[], language: string): ReadConcept {
  const value = valueOf(own, language);
  const label = short(best(own.labels, language) ?? value) || value;
  const note = best(own.notes, language);
  return {
    ...{ value, path, label, retired: own.retired, otherNames: namedBeside(value, label, names) },
    ...(note !== undefined && { note: cut(note, longestNote) }),
    ...(own.from !== undefined && { validFrom: own.from }),
    ...(own.until !== undefined && { validUntil: own.until }),
  };
}

/** Other names, each once: what it is and what is shown for it are none. */
function namedBeside(value: string, label: string, names: readonly string[]): string[] {
  const others = new Map(names.map((name) => [matchKey(name), name] as const));
  for (const own of [value, label, '']) others.delete(matchKey(own));
  return [...others.values()].slice(0, mostNames);
}
