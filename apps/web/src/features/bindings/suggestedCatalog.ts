// Which catalog a field most likely wants, by its heading.
import { matchKey } from '@dellum/core';
import type { CatalogView } from '@dellum/contract';

/** How many letters two words begin with in common. */
function shared(a: string, b: string): number {
  let at = 0;
  while (at < a.length && a[at] === b[at]) at++;
  return at;
}

/** The catalog whose title begins most like a word of the heading; the first one where none does. */
export function suggestedCatalog(catalogs: readonly CatalogView[], heading: string): CatalogView | undefined {
  const words = matchKey(heading).split(' ');
  const likeness = ({ title }: CatalogView) => Math.max(...matchKey(title).split(' ').flatMap((own) => words.map((word) => shared(own, word))));
  return catalogs.reduce<CatalogView | undefined>((best, catalog) => (best && likeness(best) >= likeness(catalog) ? best : catalog), undefined);
}
