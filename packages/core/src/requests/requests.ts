// Requests for values that a catalog does not have: like ones are put together, and the value that may be meant is proposed.
import { catalogUnder } from '../cascades/index.js';
import { nearest, type Catalog } from '../catalogs/index.js';
import { grouped } from '../group.js';
import { digitsOf } from '../text/index.js';
import { lookAlikes, type Spelling } from '../upkeep/index.js';

/** A value that is asked for under some parents, and the entries that wait for it. */
export interface ValueRequest {
  readonly path: readonly string[];
  readonly value: string;
  readonly entries: number;
}
/** Spellings of one request, the most frequent first. */
export interface ValueRequestGroup {
  readonly path: readonly string[];
  readonly spellings: readonly Spelling[];
  /** A value of the catalog that may be meant; null where nothing is near. */
  readonly proposed: string | null;
}

const byEntries = (a: Spelling, b: Spelling) => b.entries - a.entries || (a.value < b.value ? -1 : 1);

/** Puts like requests for one catalog together; the groups that most entries wait for come first. */
export function groupRequests(requests: readonly ValueRequest[], catalog: Catalog): ValueRequestGroup[] {
  const groups = [...grouped(requests, ({ path }) => path.join('\u001F'))].flatMap(([, own]) => {
    const { path } = own[0]!;
    const spellings = [...grouped(own, ({ value }) => value)]
      .map(([value, same]): Spelling => ({ value, entries: same.reduce((sum, { entries }) => sum + entries, 0) }))
      .sort(byEntries);
    const alike = lookAlikes(spellings);
    const together = new Set(alike.flat().map(({ value }) => value));
    const list = catalogUnder(catalog, path);
    return [
      ...alike.map((group) => [...group].sort(byEntries)),
      ...spellings.filter(({ value }) => !together.has(value)).map((spelling) => [spelling]),
    ].map((group): ValueRequestGroup => ({
      path,
      spellings: group,
      proposed: nearest(list, group[0]!.value).find((value) => digitsOf(value) === digitsOf(group[0]!.value)) ?? null,
    }));
  });
  const waiting = ({ spellings }: ValueRequestGroup) => spellings.reduce((sum, { entries }) => sum + entries, 0);
  return groups.sort((a, b) => waiting(b) - waiting(a));
}
