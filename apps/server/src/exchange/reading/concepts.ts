// Reads concepts (SKOS, W3C 2009) in the two ways in which files hold them: Turtle, and JSON-LD. Nothing that such a file points at is
// followed.
import { Readable } from 'node:stream';
import { ConceptsReader, xsd, type ConceptObject, type ReadConcepts } from '@dellum/core';
import jsonld from 'jsonld';
import { StreamParser } from 'n3';
import { shapeFault } from '../../api/bodyShape.js';
import { conceptsFormats, type ConceptsFormat } from './conceptsFormat.js';
import { UnreadableFile } from './models.js';

/** More statements are not read. */
const mostStatements = 2_000_000;
const chunkSize = 64 * 1024;

/** Terms of RDF/JS, so far as they are looked at. */
interface Term {
  readonly termType: string;
  readonly value: string;
  readonly language?: string;
  readonly datatype?: { readonly value: string };
}
interface Quad {
  readonly subject: Term;
  readonly predicate: Term;
  readonly object: Term;
}

/** Throws `UnreadableFile` with what is wrong. `language`: of what is to be shown. Takes long: ask it in a thread. */
export async function conceptsIn(bytes: Buffer, format: ConceptsFormat, language: string): Promise<ReadConcepts> {
  const reader = new ConceptsReader();
  let statements = 0;
  try {
    for await (const { subject, predicate, object } of format === 'turtle' ? turtleIn(bytes) : await jsonLdIn(bytes)) {
      if (++statements > mostStatements)
        throw new UnreadableFile(
          `The file makes more than ${mostStatements.toLocaleString('en-GB')} statements, which is more than is read. Bring a part of it.`,
        );
      reader.add({ subject: subject.value, predicate: predicate.value, object: objectOf(object) });
    }
  } catch (error) {
    throw error instanceof UnreadableFile
      ? error
      : new UnreadableFile(`The file cannot be read as ${conceptsFormats[format]}: ${wordsOf(error)}`);
  }
  return reader.found(language);
}

function turtleIn(bytes: Buffer): AsyncIterable<Quad> {
  const parser = new StreamParser({ format: 'text/turtle' });
  return Readable.from(chunksOf(bytes), { objectMode: false }).pipe(parser) as AsyncIterable<Quad>;
}

function* chunksOf(bytes: Buffer): Iterable<Buffer> {
  for (let at = 0; at < bytes.length; at += chunkSize) yield bytes.subarray(at, at + chunkSize);
}

async function jsonLdIn(bytes: Buffer): Promise<Iterable<Quad>> {
  const text = bytes.toString('utf8').replace(/^\uFEFF/u, '');
  if (shapeFault(text, { members: mostStatements, objects: mostStatements }))
    throw new UnreadableFile('The file is nested too deep, or has too many members, to be read. Bring a part of it.');
  let elsewhere: string | undefined;
  const documentLoader = (url: string): Promise<never> => {
    elsewhere = url;
    return Promise.reject(new Error('It is not asked.'));
  };
  try {
    const expanded = await jsonld.expand(JSON.parse(text) as jsonld.JsonLdDocument, { documentLoader });
    const quads = (await jsonld.toRDF(expanded, { documentLoader })) as Quad[];
    const order = new Map([...idsIn(expanded)].map((id, at) => [id, at] as const));
    const placeOf = ({ subject }: Quad) => order.get(subject.value) ?? order.size;
    // Statements have no order of their own; a list is kept as the file has it.
    return quads.sort((one, other) => placeOf(one) - placeOf(other));
  } catch (error) {
    if (elsewhere === undefined) throw error;
    throw new UnreadableFile(
      `The file says elsewhere (${elsewhere.slice(0, 200)}) what its words mean, and that is not asked. Write it with its context in it.`,
    );
  }
}

/** What is named in it, each where it comes up first. */
function idsIn(expanded: unknown, found = new Set<string>()): ReadonlySet<string> {
  if (Array.isArray(expanded)) for (const one of expanded) idsIn(one, found);
  else if (typeof expanded === 'object' && expanded !== null)
    for (const [member, held] of Object.entries(expanded)) {
      if (member === '@id' && typeof held === 'string') found.add(held);
      else idsIn(held, found);
    }
  return found;
}

const longestReason = 200;
const wordsOf = (error: unknown): string => (error instanceof Error ? error.message : String(error)).slice(0, longestReason);

function objectOf({ termType, value, language, datatype }: Term): ConceptObject {
  if (termType !== 'Literal') return { iri: value };
  const kind = datatype?.value;
  if (kind === `${xsd}date` || kind === `${xsd}dateTime`) return { day: value };
  if (kind === `${xsd}boolean` && (value === 'true' || value === '1')) return { yes: true };
  return { text: value, ...(language !== undefined && language !== '' && { language }) };
}
