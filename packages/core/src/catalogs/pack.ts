// Items in columns: a catalog of 100,000 travels and is kept as a handful of long arrays instead of 100,000 objects.
import { itemKey, type CompanionField, type Item, type ItemOrigin } from './models.js';

/** Where items come from, by part and register; most rows of a catalog share one. */
type Home = Pick<ItemOrigin, 'by' | 'id'> & { readonly register: string };

export interface PackedItems {
  readonly values: readonly string[];
  /** The place of the parent among the items; −1 for none. */
  readonly parents: readonly number[];
  /** Null where every label is its value; a blank stands for the value. */
  readonly labels: readonly string[] | null;
  /** A column a companion; a blank stands for none. */
  readonly companions: Readonly<Record<string, readonly string[]>>;
  readonly homes: readonly Home[];
  /** The home of each item and the ordinal of its row there; −1 where `others` says it. */
  readonly home: readonly number[];
  readonly ordinal: readonly number[];
  /** Members that few items have, by the place of the item. */
  readonly others: Readonly<Record<number, Partial<Item>>>;
}

/** Packs items of which every parent comes before its children. */
export function packItems(items: readonly Item[], fields: readonly CompanionField[]): PackedItems {
  const places = new Map<string, number>();
  const deep = items.some(({ path }) => path.length > 0);
  const homes: Home[] = [];
  const homeAt = new Map<string, number>();
  const home: number[] = [];
  const ordinal: number[] = [];
  const others: Record<number, Partial<Item>> = {};
  const parents: number[] = [];
  items.forEach((item, place) => {
    const parent = item.path.length === 0 ? -1 : places.get(item.path.join('\u001F'));
    const more = membersOf(item);
    if (parent === undefined) more.path = item.path;
    parents.push(parent ?? -1);
    if (deep) places.set(itemKey(item), place);
    const [first, second] = item.from;
    const row = first?.rows.length === 1 && second === undefined ? first.rows[0] : undefined;
    if (first && row) {
      const key = `${first.by} ${first.id} ${row.register}`;
      if (!homeAt.has(key)) {
        homeAt.set(key, homes.length);
        homes.push({ by: first.by, id: first.id, register: row.register });
      }
      home.push(homeAt.get(key)!);
      ordinal.push(row.ordinal);
    } else {
      home.push(-1);
      ordinal.push(-1);
      if (item.from.length > 0)
        more.from = item.from.map((origin) => ({ ...origin, rows: origin.rows.map((own) => ({ ...own, entry: '' })) }));
    }
    if (Object.keys(more).length > 0) others[place] = more;
  });
  return {
    values: items.map(({ value }) => value),
    parents,
    labels: items.every(({ label, value }) => label === value) ? null : items.map(({ label, value }) => (label === value ? '' : label)),
    companions: Object.fromEntries(fields.map(({ key }) => [key, items.map(({ companions }) => companions?.[key] ?? '')])),
    homes,
    home,
    ordinal,
    others,
  };
}

function membersOf({ otherNames, note, colour, validFrom, validUntil, state }: Item): { -readonly [M in keyof Item]?: Item[M] } {
  return {
    ...(otherNames.length > 0 && { otherNames }),
    ...(note !== undefined && { note }),
    ...(colour !== undefined && { colour }),
    ...(validFrom !== undefined && { validFrom }),
    ...(validUntil !== undefined && { validUntil }),
    ...(state !== 'offered' && { state }),
  };
}

const noPath: readonly string[] = [];
const noNames: readonly string[] = [];
const noOrigins: readonly ItemOrigin[] = [];

/** The items as they were packed; the entries of their rows stay behind. */
export function unpackItems({ values, parents, labels, companions, homes, home, ordinal, others }: PackedItems): Item[] {
  const columns = Object.entries(companions);
  const items: Item[] = [];
  const below: (readonly string[])[] = [];
  for (let place = 0; place < values.length; place++) {
    const value = values[place]!;
    const parent = parents[place]!;
    const at = home[place]!;
    const from: readonly ItemOrigin[] =
      at < 0
        ? noOrigins
        : [{ by: homes[at]!.by, id: homes[at]!.id, rows: [{ register: homes[at]!.register, entry: '', ordinal: ordinal[place]! }] }];
    const held = columns.map(([key, column]) => [key, column[place] ?? ''] as const).filter(([, text]) => text !== '');
    const path = parent < 0 ? noPath : (below[parent] ??= [...items[parent]!.path, items[parent]!.value]);
    const plain: Item = { value, path, label: labels?.[place] || value, otherNames: noNames, state: 'offered', from };
    const along: Item = held.length === 0 ? plain : { ...plain, companions: Object.fromEntries(held) };
    items.push(others[place] ? { ...along, ...others[place] } : along);
  }
  return items;
}
