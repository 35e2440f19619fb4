// A house as plain data: what a loader needs to lay it out.
import type { FieldKind, RangeEnding, Rule } from '@dellum/core';
import type { Role } from '@dellum/contract';

export interface PersonBlueprint {
  readonly name: string;
  readonly signIn: string;
  readonly role: Role;
  readonly password: string;
}
/** A list of a source sheet: texts in order, an empty one for a blank cell. */
export interface ListBlueprint {
  readonly heading: string;
  readonly texts: readonly string[];
  /** Ranges by row numbers counted from 0; a fixed one says its last row. */
  readonly ranges: readonly { readonly name: string; readonly from: number; readonly ends: RangeEnding; readonly last?: number }[];
}
export interface CatalogBlueprint {
  readonly title: string;
  readonly note: string;
  readonly ranges: readonly string[];
  readonly retired?: readonly string[];
  readonly otherNames?: Readonly<Record<string, string>>;
}
export interface FieldBlueprint {
  readonly key: string;
  readonly heading: string;
  readonly kind: FieldKind;
  readonly width: number;
  readonly rule?: Omit<Rule, 'catalogId' | 'kind'> & { readonly catalog: string };
}
export interface EntrySheetBlueprint {
  readonly title: string;
  readonly note: string;
  readonly fields: readonly FieldBlueprint[];
  readonly entries: readonly Readonly<Record<string, string>>[];
}
export interface HouseBlueprint {
  readonly key: string;
  readonly name: string;
  readonly demo: boolean;
  readonly people: readonly PersonBlueprint[];
  readonly sourceSheets: readonly { readonly title: string; readonly note: string; readonly lists: readonly ListBlueprint[] }[];
  readonly catalogs: readonly CatalogBlueprint[];
  readonly entrySheets: readonly EntrySheetBlueprint[];
}
