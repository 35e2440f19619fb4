// What a house is made of, without its entries: what a house archive says and what is laid into a house. All of it refers by ids.
import type { CatalogDefinition, KeptItem } from '../catalogs/index.js';
import type { Closing } from '../edits/index.js';
import type { FigureDefinition } from '../figures/index.js';
import type { FormLayout } from '../forms/index.js';
import type { SourceRange } from '../ranges/index.js';
import type { Rule } from '../rules/index.js';
import type { ValuePair } from '../upkeep/index.js';
import type { FieldKind } from '../values/index.js';

export interface PartsField {
  readonly key: string;
  readonly heading: string;
  readonly kind: FieldKind;
  readonly width: number;
  /** The heading under which it stands in a record; '' for none. */
  readonly group: string;
  readonly rule: Rule | null;
}
export interface PartsRegister {
  readonly id: string;
  readonly title: string;
  readonly closing: Closing | null;
  readonly fields: readonly PartsField[];
}
export interface PartsSheet {
  readonly id: string;
  readonly kind: 'entry' | 'source';
  readonly title: string;
  readonly note: string;
  readonly shown: boolean;
  readonly limited: boolean;
  readonly downloads: boolean;
  readonly groups: readonly { readonly groupId: string; readonly enters: boolean }[];
  readonly registers: readonly PartsRegister[];
}
export interface PartsCatalog {
  readonly id: string;
  /** Its name in addresses. */
  readonly key: string;
  readonly title: string;
  readonly note: string;
  readonly definition: CatalogDefinition;
  readonly kept: readonly KeptItem[];
  /** Who keeps it. */
  readonly stewards: readonly string[];
}
export interface PartsLinked {
  readonly id: string;
  readonly name: string;
  /** Where it reads; what is computed names catalogs by their keys. */
  readonly settings: { readonly kind: string; readonly catalogs?: readonly string[] };
  /** Minutes between refreshes. */
  readonly every: number;
}
export interface PartsForm {
  readonly id: string;
  readonly registerId: string;
  readonly title: string;
  readonly layout: FormLayout;
  readonly published: boolean;
}
export interface PartsFigure {
  readonly id: string;
  readonly title: string;
  readonly definition: FigureDefinition;
}
export interface PartsGroup {
  readonly id: string;
  readonly name: string;
  readonly people: readonly string[];
}
export interface PartsPerson {
  readonly id: string;
  readonly name: string;
  readonly signIn: string;
  readonly role: 'administrator' | 'steward' | 'clerk' | 'reader';
}
export interface HouseParts {
  readonly sheets: readonly PartsSheet[];
  readonly ranges: readonly SourceRange[];
  readonly catalogs: readonly PartsCatalog[];
  readonly linked: readonly PartsLinked[];
  readonly forms: readonly PartsForm[];
  readonly figures: readonly PartsFigure[];
  readonly groups: readonly PartsGroup[];
  readonly people: readonly PartsPerson[];
  readonly toldApart: readonly ValuePair[];
}

export const noParts: HouseParts = {
  sheets: [],
  ranges: [],
  catalogs: [],
  linked: [],
  forms: [],
  figures: [],
  groups: [],
  people: [],
  toldApart: [],
};

export const registersOf = ({ sheets }: Pick<HouseParts, 'sheets'>): readonly PartsRegister[] =>
  sheets.flatMap(({ registers }) => registers);
