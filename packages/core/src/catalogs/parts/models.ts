// The parts of which a catalog is composed. Each kind is one file and one object.
import type { RangeTaking, SourceRange, SourceRow } from '../../ranges/index.js';
import type { FieldId, RegisterId, RegisterState } from '../../registers/index.js';
import type { Locale } from '../../values/index.js';
import type { Filter } from '../filter.js';
import type { CompanionField, Item, ItemOrigin } from '../models.js';

/** How a part is joined to what stands before it. */
export const joins = ['or', 'and', 'without'] as const;
export type Join = (typeof joins)[number];

interface Joined {
  readonly join: Join;
}
/** Values typed right into the catalog. */
export interface TypedPart extends Joined {
  readonly kind: 'typed';
  readonly values: readonly string[];
}
/** What a named range takes; where it lies over a table, further fields of the row come along. */
export interface RangePart extends Joined {
  readonly kind: 'range';
  readonly rangeId: string;
  readonly label: FieldId | null;
  readonly companions: readonly FieldId[];
}
/** Entries of any register that pass a filter. */
export interface QueryPart extends Joined {
  readonly kind: 'query';
  readonly registerId: RegisterId;
  readonly value: FieldId;
  readonly label: FieldId | null;
  readonly companions: readonly FieldId[];
  readonly filter: Filter | null;
}
/** The last good values of a linked source. */
export interface LinkedPart extends Joined {
  readonly kind: 'linked';
  readonly sourceId: string;
}
/** What another catalog offers. */
export interface CatalogRefPart extends Joined {
  readonly kind: 'catalog';
  readonly catalogId: string;
}
/** The items of a catalog as parents, and under each the entries in which a field names it. */
export interface KeyedPart extends Joined {
  readonly kind: 'keyed';
  readonly catalogId: string;
  /** The companion by which the parents are named; null: by their value, in any spelling that is understood. */
  readonly by: string | null;
  readonly registerId: RegisterId;
  /** The field that names the parent. */
  readonly key: FieldId;
  readonly value: FieldId;
  readonly label: FieldId | null;
  readonly companions: readonly FieldId[];
}
/** The items of a catalog as parents, and under each the list of its name. */
export interface NamedPart extends Joined {
  readonly kind: 'named';
  readonly catalogId: string;
}
export type CatalogPart = TypedPart | RangePart | QueryPart | LinkedPart | CatalogRefPart | KeyedPart | NamedPart;

/** A value as a part gives it. */
export interface PartItem {
  readonly value: string;
  readonly path: readonly string[];
  readonly label?: string;
  readonly companions?: Readonly<Record<string, string>>;
  readonly rows: readonly SourceRow[];
  /** Set where it comes from another catalog: everything its item brings along. */
  readonly item?: Item;
  /** Where it comes from, where that is not what the part reads as a whole. */
  readonly origin?: Pick<ItemOrigin, 'by' | 'id'>;
}

/** One row of a linked source. */
export interface LinkedRow {
  readonly value: string;
  readonly label?: string;
  readonly companions?: Readonly<Record<string, string>>;
}

/** What parts read; each thing is read once, whoever asks. */
export interface PartSources {
  readonly locale: Locale;
  register(id: RegisterId): RegisterState | undefined;
  range(id: string): SourceRange | undefined;
  /** The range of this name, differently written as well. */
  rangeNamed(name: string): SourceRange | undefined;
  taking(rangeId: string): RangeTaking;
  linked(sourceId: string): readonly LinkedRow[];
  items(catalogId: string): readonly Item[];
}

/** What a part depends on. */
export interface PartReads {
  readonly ranges?: readonly string[];
  readonly registers?: readonly RegisterId[];
  readonly linked?: readonly string[];
  readonly catalogs?: readonly string[];
  /** The catalog under whose items it puts its own. */
  readonly parents?: string;
  /** Set where a value may name any range. */
  readonly anyRange?: boolean;
  /** The field that gives the values, and the others that are read with it. */
  readonly fields?: { readonly registerId: RegisterId; readonly value: FieldId; readonly others: readonly FieldId[] };
}

/** The names that a sentence about a part needs. */
export interface PartNames {
  range(id: string): string;
  register(id: string): string;
  field(registerId: string, key: string): string;
  /** A stored value of a field as people write it. */
  value?(registerId: string, key: string, value: string): string;
  linked(id: string): string;
  catalog(id: string): string;
}

/** What comes along with the items of a catalog, by its id. */
export type CompanionsOf = (catalogId: string) => readonly CompanionField[];

export interface PartKind<P extends CatalogPart> {
  readonly kind: P['kind'];
  /** The id of what it reads, for the origin of its items. */
  origin(part: P): string;
  reads(part: P): PartReads;
  items(part: P, sources: PartSources): readonly PartItem[];
  /** What comes along with its items; `ofCatalog` gives that of another catalog. */
  companions(part: P, sources: PartSources, ofCatalog: CompanionsOf): readonly CompanionField[];
  /** The part inside the catalog's sentence. */
  phrase(part: P, names: PartNames): string;
}
