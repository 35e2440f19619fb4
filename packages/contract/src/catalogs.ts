// Catalogs as they are shown and as the judge needs them.
import type { Item } from '@dellum/core';

/** All items of a catalog, for the judge and the picker. */
export interface CatalogItems {
  readonly id: string;
  readonly title: string;
  readonly version: number;
  readonly items: readonly Item[];
}
/** Entries that hold each value, all bound fields together. */
export interface CatalogUse {
  readonly entries: Readonly<Record<string, number>>;
}
/** The lineage strip: source → catalog → fields → entries. */
export interface Lineage {
  readonly ranges: readonly { readonly id: string; readonly name: string; readonly sheetId: string; readonly sheetTitle: string; readonly ends: string; readonly taken: number }[];
  readonly catalogs: readonly { readonly id: string; readonly title: string; readonly offered: number; readonly retired: number }[];
  readonly fields: readonly { readonly id: string; readonly heading: string; readonly sheetId: string; readonly sheetTitle: string; readonly registerId: string; readonly key: string; readonly held: number; readonly outside: number }[];
  readonly carries: readonly CarryView[];
}
/** A correction that the rows are still following; readers see the new spelling already. */
export interface CarryView {
  readonly id: string;
  readonly fieldId: string;
  readonly from: string;
  readonly to: string;
  readonly done: number;
  readonly total: number;
}
