// Tells by its beginning whether a file holds concepts (SKOS, W3C 2009), without what reads them.
export const conceptsFormats = { turtle: 'Turtle', jsonld: 'JSON-LD' } as const;
export type ConceptsFormat = keyof typeof conceptsFormats;

/** So many bytes of its beginning tell what it is. */
export const looked = 4096;

/** Whether bytes may be of such a file, by how they begin; undefined for what is none. */
export function conceptsFormat(bytes: Buffer): ConceptsFormat | undefined {
  const head = bytes
    .subarray(0, looked)
    .toString('utf8')
    .replace(/^\uFEFF/u, '')
    .trimStart();
  if (/^(?:#[^\n]*\n\s*)*(?:@prefix\s|@base\s|prefix\s+[\w-]*:\s*<|base\s*<|<[a-z][^>\s]*>\s)/iu.test(head)) return 'turtle';
  return /^[[{]/u.test(head) && /"@(?:context|graph|id|type)"\s*:/u.test(head) ? 'jsonld' : undefined;
}

/** Whether they are concepts for sure, and no lines of objects that say what they are. */
export function areConcepts(beginning: Buffer): boolean {
  const format = conceptsFormat(beginning);
  return format === 'turtle' || (format === 'jsonld' && beginning.includes('/skos/core#'));
}
