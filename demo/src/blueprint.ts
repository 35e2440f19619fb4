// A house as plain data: what a loader needs to lay it out. Things refer to each other by their names.
import type {
  CatalogDefinition,
  CatalogPart,
  FieldKind,
  FigureDefinition,
  FormLayout,
  ItemColour,
  RangeEnding,
  RangeShape,
  CatalogRule,
  Rule,
} from '@dellum/core';
import type { LinkedSettings, Role } from '@dellum/contract';

export interface PersonBlueprint {
  readonly name: string;
  readonly signIn: string;
  readonly role: Role;
  readonly password: string;
}
/** Ranges by row numbers counted from 0; a fixed one says its last row. `fields` are the keys of the levels. */
export interface RangeBlueprint {
  readonly name: string;
  readonly from: number;
  readonly ends: RangeEnding;
  readonly last?: number;
  readonly fields?: readonly string[];
  readonly shape?: RangeShape;
}
/** A list of a source sheet: texts in order, an empty one for a blank cell. */
export interface ListBlueprint {
  readonly heading: string;
  readonly texts: readonly string[];
  readonly ranges: readonly RangeBlueprint[];
}
/** A table of a source sheet: a register of several fields. */
export interface TableBlueprint {
  readonly heading: string;
  readonly fields: readonly { readonly key: string; readonly heading: string; readonly kind: FieldKind; readonly width: number }[];
  readonly rows: readonly Readonly<Record<string, string>>[];
  readonly ranges: readonly RangeBlueprint[];
}
export interface SourceSheetBlueprint {
  readonly title: string;
  readonly note: string;
  readonly lists: readonly ListBlueprint[];
  readonly tables?: readonly TableBlueprint[];
  /** A range over all lists of the sheet: headings and what stands under them. */
  readonly headings?: { readonly name: string; readonly ends: Exclude<RangeEnding, 'fixed'> };
}
/** A part as the core knows it, with names in the place of ids. */
export type PartBlueprint = CatalogPart;

export interface CatalogBlueprint {
  readonly title: string;
  readonly note: string;
  /** Ranges that feed it, in order; or `parts` where it is composed of more. */
  readonly ranges?: readonly string[];
  readonly parts?: readonly PartBlueprint[];
  readonly filter?: CatalogDefinition['filter'];
  readonly order?: CatalogDefinition['order'];
  /** Who keeps its values, by sign-in name. */
  readonly stewards?: readonly string[];
  readonly retired?: readonly string[];
  readonly otherNames?: Readonly<Record<string, string>>;
  readonly kept?: Readonly<
    Record<string, { readonly colour?: ItemColour; readonly note?: string; readonly validFrom?: string; readonly validUntil?: string }>
  >;
}
export interface FieldBlueprint {
  readonly key: string;
  readonly heading: string;
  readonly kind: FieldKind;
  readonly width: number;
  /** The heading under which it stands in a record. */
  readonly group?: string;
  /** What the rule says otherwise than a new one of its kind; a catalog by its title. */
  readonly rule?:
    | (Partial<Omit<CatalogRule, 'catalogId' | 'kind'>> & { readonly catalog: string })
    | (Partial<Exclude<Rule, CatalogRule>> & { readonly kind: Rule['kind'] });
}
export interface EntrySheetBlueprint {
  readonly title: string;
  readonly note: string;
  readonly fields: readonly FieldBlueprint[];
  readonly entries: readonly Readonly<Record<string, string>>[];
}
/** A published form; its last so many entries came through it. */
export interface FormBlueprint {
  readonly title: string;
  /** The entry sheet whose entries it asks for. */
  readonly sheet: string;
  readonly layout: FormLayout;
  readonly filled: number;
}
/** A figure that is kept, with the title of its sheet in the place of ids. */
export interface FigureBlueprint {
  readonly title: string;
  readonly sheet: string;
  readonly definition: Omit<FigureDefinition, 'registerId'>;
}
export interface LinkedBlueprint {
  readonly name: string;
  readonly settings: LinkedSettings;
  readonly every: number;
}
export interface HouseBlueprint {
  readonly key: string;
  readonly name: string;
  readonly demo: boolean;
  readonly people: readonly PersonBlueprint[];
  readonly sourceSheets: readonly SourceSheetBlueprint[];
  readonly linked?: readonly LinkedBlueprint[];
  readonly catalogs: readonly CatalogBlueprint[];
  readonly entrySheets: readonly EntrySheetBlueprint[];
  readonly forms?: readonly FormBlueprint[];
  readonly figures?: readonly FigureBlueprint[];
  /** Values that entries of a sheet hold and that somebody, by sign-in name, has asked for. */
  readonly requests?: readonly {
    readonly sheet: string;
    readonly field: string;
    readonly values: readonly string[];
    readonly by: string;
  }[];
}
