// Bringing the parts of one house into another: what bears a name that is there already is asked about; the rest follows.
import { freeAmong, freeKeyAmong, matchKey } from '../text/index.js';
import type { HouseParts } from './houseParts.js';

/** What bears a name, in the order in which it is asked about. */
export const namedParts = ['sheets', 'ranges', 'catalogs', 'linked', 'forms', 'figures', 'groups', 'people'] as const;
export type NamedParts = (typeof namedParts)[number];

/** `here`: the one that is here is used instead. `beside`: it comes in under another name. `left out`: neither. */
export const waysIn = ['here', 'beside', 'left out'] as const;
export type WayIn = (typeof waysIn)[number];

/** Something of the archive whose name is taken. */
export interface Collision {
  readonly what: NamedParts;
  /** Its id in the archive. */
  readonly id: string;
  readonly name: string;
  /** The name under which it would come in beside. */
  readonly instead: string;
  /** The ways in which it can come in; the first one is proposed. */
  readonly ways: readonly WayIn[];
}
/** What is there already: its ids and names, and the keys of its catalogs. */
export type PartsHere = { readonly [What in NamedParts]: readonly { readonly id: string; readonly name: string }[] } & {
  readonly keys: readonly { readonly id: string; readonly key: string }[];
};

const nameIn: { readonly [What in NamedParts]: (part: HouseParts[What][number]) => string } = {
  sheets: ({ title }) => title,
  ranges: ({ name }) => name,
  catalogs: ({ title }) => title,
  linked: ({ name }) => name,
  forms: ({ title }) => title,
  figures: ({ title }) => title,
  groups: ({ name }) => name,
  people: ({ signIn }) => signIn,
};
const waysOf: { readonly [What in NamedParts]: readonly WayIn[] } = {
  sheets: ['beside'],
  ranges: ['here', 'beside'],
  catalogs: ['here', 'beside'],
  linked: ['here', 'beside'],
  forms: ['beside', 'left out'],
  figures: ['beside', 'left out'],
  groups: ['here', 'beside'],
  people: ['here'],
};

export const namesIn = (parts: HouseParts, what: NamedParts): readonly { readonly id: string; readonly name: string }[] => {
  const nameOf = nameIn[what] as (part: HouseParts[NamedParts][number]) => string;
  return parts[what].map((part) => ({ id: part.id, name: nameOf(part) }));
};

/** What stands in a house, by name. */
export const partsHere = (parts: HouseParts): PartsHere => ({
  ...(Object.fromEntries(namedParts.map((what) => [what, namesIn(parts, what)])) as Omit<PartsHere, 'keys'>),
  keys: parts.catalogs.map(({ id, key }) => ({ id, key })),
});

/** What of the archive bears a name that is taken here. */
export function collisionsOf(parts: HouseParts, here: PartsHere): Collision[] {
  return namedParts.flatMap((what) => {
    const known = new Set(here[what].map(({ name }) => matchKey(name)));
    const own = namesIn(parts, what);
    const taken = [...here[what], ...own].map(({ name }) => name);
    return own
      .filter(({ name }) => known.has(matchKey(name)))
      .map(({ id, name }): Collision => {
        const instead = freeAmong(name, taken);
        taken.push(instead);
        return { what, id, name, instead, ways: waysOf[what] };
      });
  });
}

/** By the id in the archive; what is not chosen comes in as it is proposed. */
export type Chosen = ReadonlyMap<string, WayIn>;

/** Every text that is one of the ids becomes another, wherever it stands. */
export function withIds<T>(part: T, ids: ReadonlyMap<string, string>): T {
  const walk = (at: unknown): unknown => {
    if (typeof at === 'string') return ids.get(at) ?? at;
    if (Array.isArray(at)) return at.map(walk);
    if (typeof at !== 'object' || at === null) return at;
    return Object.fromEntries(Object.entries(at).map(([key, member]) => [key, walk(member)]));
  };
  return walk(part) as T;
}

const renamed: { readonly [What in NamedParts]: (part: HouseParts[What][number], name: string) => HouseParts[What][number] } = {
  sheets: (sheet, title) => ({
    ...sheet,
    title,
    // The register of an entry sheet is called as the sheet is.
    registers: sheet.registers.map((register) => (sheet.kind === 'entry' ? { ...register, title } : register)),
  }),
  ranges: (range, name) => ({ ...range, name }),
  catalogs: (catalog, title) => ({ ...catalog, title }),
  linked: (source, name) => ({ ...source, name }),
  forms: (form, title) => ({ ...form, title }),
  figures: (figure, title) => ({ ...figure, title }),
  groups: (group, name) => ({ ...group, name }),
  people: (person) => person,
};

/** What is laid into the house, and the names under which catalogs that come in beside are known from now on. */
export function brought(parts: HouseParts, here: PartsHere, chosen: Chosen): HouseParts {
  const collisions = new Map(collisionsOf(parts, here).map((collision) => [collision.id, collision]));
  const wayOf = ({ id, ways }: Collision): WayIn => ways.find((way) => way === chosen.get(id)) ?? ways[0]!;
  const inside = [...collisions.values()].filter((collision) => wayOf(collision) === 'here');
  const hereBy = (what: NamedParts, name: string) => here[what].find((known) => matchKey(known.name) === matchKey(name))!.id;
  const ids = new Map(inside.map(({ what, id, name }) => [id, hereBy(what, name)]));
  const staying = <What extends NamedParts>(what: What): HouseParts[What][number][] =>
    (parts[what] as readonly HouseParts[What][number][]).flatMap((part) => {
      const collision = collisions.get(part.id);
      if (!collision) return [part];
      return wayOf(collision) === 'beside' ? [renamed[what](part, collision.instead)] : [];
    });
  const keys = new Map(
    parts.catalogs.flatMap(({ id, key }) =>
      here.keys.filter((known) => known.id === ids.get(id)).map((known) => [key, known.key] as const),
    ),
  );
  const takenKeys = new Set(here.keys.map(({ key }) => key));
  const catalogs = staying('catalogs').map((catalog) => {
    const key = freeKeyAmong(catalog.key, takenKeys);
    takenKeys.add(key);
    keys.set(catalog.key, key);
    return { ...catalog, key };
  });
  const linked = staying('linked').map((source) => ({
    ...source,
    settings: {
      ...source.settings,
      ...(source.settings.catalogs && { catalogs: source.settings.catalogs.map((key) => keys.get(key) ?? key) }),
    },
  }));
  const laid: HouseParts = {
    sheets: staying('sheets'),
    ranges: staying('ranges'),
    catalogs,
    linked,
    forms: staying('forms'),
    figures: staying('figures'),
    groups: staying('groups'),
    people: staying('people'),
    toldApart: parts.toldApart,
  };
  return withIds(laid, ids);
}

/** The ids that the parts are known by, but for entries. */
export const idsOf = (parts: HouseParts): string[] => [
  ...namedParts.flatMap((what) => parts[what].map(({ id }) => id)),
  ...parts.sheets.flatMap(({ registers }) => registers.map(({ id }) => id)),
];
