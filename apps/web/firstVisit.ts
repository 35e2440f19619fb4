// What a first visit fetches: in few parts, since many small ones compress badly and each is a request of its own, and never more than so
// much.
import { brotliCompressSync } from 'node:zlib';
import type { Plugin, Rolldown } from 'vite';

/** By the page that is visited first, all that it needs and the most bytes of scripts, compressed with brotli, that it may fetch. */
const visits = [
  { page: 'a sheet', modules: ['/shell/SignedIn.tsx', '/features/sheets/SheetPage.tsx'], most: 250_000 },
  { page: 'a form', modules: ['/features/forms/FillPage.tsx'], most: 245_000 },
] as const;

/** Shared by so many pages, a module comes with the first part. */
const ofMany = 20;
/** What data are entered with, in sheets and in forms; what other pages alone need of these folders comes with them. */
const entering =
  /apps\/web\/src\/(grid\/(?!CellMenu|MovingHeadings|clipboard)|picker\/(?!Calendar|DayField)|data\/(?!(?:adoptions|archives|bindings|downloads|forms|intakes|ledger|linked|programs|ranges|records|returned)Api)|live\/|features\/entries\/)|tanstack|floating-ui|packages\/core\/dist\/(catalogs\/(?!parts|compose|order|sentence|dependencies|readable)|rules\/(?!re2|exactCel|sentence|faults|make)|values|registers|cascades|edits|text)/;

export const parts = [
  { name: 'base', minShareCount: ofMany, priority: 2 },
  { name: 'entering', test: entering, priority: 1 },
];

/** A part with all that it imports at once. */
function reach(bundle: ReadonlyMap<string, Rolldown.OutputChunk>, name: string, found = new Set<string>()): Set<string> {
  const chunk = bundle.get(name);
  if (!chunk || found.has(name)) return found;
  found.add(name);
  for (const imported of chunk.imports) reach(bundle, imported, found);
  return found;
}

/** Fails the build where a first visit grows past what it may be. */
export function firstVisit(): Plugin {
  return {
    name: 'first-visit',
    generateBundle(_options, bundle) {
      const chunks = new Map(Object.values(bundle).flatMap((part) => (part.type === 'chunk' ? [[part.fileName, part] as const] : [])));
      const sizes = new Map<string, number>();
      const sizeOf = (name: string) => {
        const known = sizes.get(name) ?? brotliCompressSync(chunks.get(name)!.code).length;
        sizes.set(name, known);
        return known;
      };
      for (const { page, modules, most } of visits) {
        const found = new Set<string>();
        for (const { fileName, isEntry, facadeModuleId } of chunks.values())
          if (isEntry || modules.some((module) => facadeModuleId?.endsWith(`/src${module}`))) reach(chunks, fileName, found);
        const bytes = [...found].reduce((sum, name) => sum + sizeOf(name), 0);
        const words = `The first visit of ${page} fetches ${bytes} bytes of scripts in ${found.size} parts`;
        if (bytes > most) this.error(`${words}; it may fetch ${most}. Fetch later what it does not need at once (frame/later.tsx).`);
        this.info(`${words}.`);
      }
    },
  };
}
