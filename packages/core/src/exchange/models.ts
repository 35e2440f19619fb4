// The table model of what goes out and comes in: sheets of columns with what they check, and the lists that they check against. It knows
// neither bytes nor any one standard; writers and readers of each stand on it.
import type { ItemColour } from '../catalogs/index.js';
import type { FieldId } from '../registers/index.js';
import type { FieldKind } from '../values/index.js';

/** A bound of a date or number: a stored value, today, or what another column of the row holds; `plus` in days. */
export type Edge =
  | { readonly of: 'value'; readonly value: string }
  | { readonly of: 'today'; readonly plus: number }
  | { readonly of: 'column'; readonly key: FieldId; readonly plus: number };

/** What a cell is checked against. */
export type Check =
  | { readonly check: 'list'; readonly list: string }
  /** A list that depends on what the columns of the parents hold, outermost first. */
  | { readonly check: 'list under'; readonly list: string; readonly parents: readonly FieldId[] }
  /** Texts that stand in the rule itself. */
  | { readonly check: 'values'; readonly values: readonly string[] }
  | { readonly check: 'day' | 'number' | 'whole number'; readonly from: Edge | null; readonly until: Edge | null }
  | { readonly check: 'length'; readonly least: number | null; readonly most: number | null };

/** What happens to a cell that its check does not take. */
export const strictnesses = ['refuse', 'confirm', 'accept'] as const;
export type Strictness = (typeof strictnesses)[number];

export interface Column {
  readonly key: FieldId;
  readonly heading: string;
  readonly kind: FieldKind;
  /** In characters. */
  readonly width: number;
  readonly check: Check | null;
  readonly mayBeBlank: boolean;
  readonly strictness: Strictness;
  readonly hint: string;
  readonly hintTitle: string;
  readonly refusalText: string;
  /**
   * The texts that are shown for stored values, by the values of the parents and the value, joined by U+001F; null where values are shown.
   */
  readonly labels: ReadonlyMap<string, string> | null;
  /** The texts that are shown for values which have a colour; of a text that stands for values of several colours none. */
  readonly colours: readonly (readonly [shown: string, colour: ItemColour])[];
  /** The columns of the parents by which a label is found. */
  readonly under: readonly FieldId[];
}

export interface BookSheet {
  readonly title: string;
  /** Where its rows are to be known when they come back: what stands above the hidden column that says which entry each is. */
  readonly mark: string | undefined;
  readonly columns: readonly Column[];
}

/** A list of values, named so that checks can point at it. */
export interface BookList {
  /** Its name, and what the names of its parts begin with. */
  readonly name: string;
  readonly title: string;
  readonly kind: FieldKind;
  /**
   * `under`: what the columns of the parents show, outermost first; none in a list without parents. Rows under the same parents stand
   * together.
   */
  readonly rows: readonly { readonly under: readonly string[]; readonly value: string }[];
  readonly levels: number;
}

/** What is not said there as it is here: after the heading of the field. */
export interface Lost {
  readonly heading: string;
  readonly what: string;
}

export interface Book {
  readonly sheets: readonly BookSheet[];
  readonly lists: readonly BookList[];
  readonly lost: readonly Lost[];
}
