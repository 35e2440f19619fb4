// A form: fields of a register laid out for whoever fills it. What a field takes is said by its rule and nowhere else.
import type { Filter } from '../catalogs/index.js';
import type { FieldId } from '../registers/index.js';

/** How a field is asked. It follows from the rule and the length of its list, and can be chosen; that never changes the rule. */
export const controls = [
  'radio buttons',
  'drop-down',
  'open list',
  'picker',
  'check boxes',
  'tokens',
  'calendar',
  'yes or no',
  'line',
  'several lines',
] as const;
export type Control = (typeof controls)[number];

export interface FormField {
  readonly field: FieldId;
  /** One short text under the heading; empty for none. */
  readonly help: string;
  /** Null: as it follows from the rule. */
  readonly control: Control | null;
  /** Takes the whole width of its section. */
  readonly wide: boolean;
  /** The stored value it begins with; null: as the rule says. */
  readonly begins: string | null;
  /** Asked only while this holds; null: always. */
  readonly where: Filter | null;
}
export const sectionColumns = [1, 2, 3] as const;
export interface FormSection {
  readonly id: string;
  /** Empty for none. */
  readonly heading: string;
  readonly help: string;
  readonly columns: (typeof sectionColumns)[number];
  /** Shown only while this holds; null: always. */
  readonly where: Filter | null;
  readonly fields: readonly FormField[];
}
export interface FormLayout {
  /** Said above the first section. */
  readonly intro: string;
  /** Said when an entry is stored; empty for Dellum's own words. */
  readonly thanks: string;
  readonly sections: readonly FormSection[];
}

/** The fields of a layout in the order in which they are asked. */
export const askedIn = ({ sections }: FormLayout): readonly FormField[] => sections.flatMap(({ fields }) => fields);
