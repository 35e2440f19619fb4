// What is changed of a proposal by hand.
import type { AdoptedKind } from './columns.js';

/** What a table becomes: a sheet in which data are entered, or a list from which values are chosen. */
export const tableUses = ['entries', 'list'] as const;
export type TableUse = (typeof tableUses)[number];

/** What was changed by hand. Tables and lists go by their ids, columns by their places. */
export interface Mends {
  readonly tables: readonly { readonly table: string; readonly wanted?: boolean; readonly title?: string; readonly use?: TableUse }[];
  readonly columns: readonly {
    readonly table: string;
    readonly at: number;
    readonly wanted?: boolean;
    readonly heading?: string;
    readonly kind?: AdoptedKind;
    /** Whether it becomes, or joins, a list. */
    readonly list?: boolean;
  }[];
  /** `into`: it becomes one with another list. */
  readonly lists: readonly { readonly list: string; readonly wanted?: boolean; readonly title?: string; readonly into?: string }[];
  /** What a text of a list becomes; null for a text that stays as it is and is outside. */
  readonly spellings: readonly { readonly list: string; readonly from: string; readonly to: string | null }[];
}
export const noMends: Mends = { tables: [], columns: [], lists: [], spellings: [] };
