// The live stream: what happened in the house, in the order of its sequence numbers.
import { IsUUID, Length } from 'class-validator';
import type { Role } from './roles.js';
import { IsText, MayLack } from './decorators.js';

export type Change =
  /** Cells of one entry were written; null is a cell made blank. */
  | {
      readonly kind: 'cells';
      readonly registerId: string;
      readonly entryId: string;
      readonly version: number;
      readonly cells: Readonly<Record<string, string | null>>;
      readonly by: string;
    }
  /** Entries came, went, moved or changed in number: fetch what is on screen anew. */
  | { readonly kind: 'register'; readonly registerId: string }
  | { readonly kind: 'build'; readonly version: number }
  | { readonly kind: 'catalog'; readonly catalogId: string; readonly version: number }
  | { readonly kind: 'carry'; readonly fieldId: string; readonly registerId: string; readonly done: number; readonly total: number }
  /** Requests of clerks came or were answered. */
  | { readonly kind: 'requests'; readonly registerId: string }
  /** Figures were kept or deleted. */
  | { readonly kind: 'figures' }
  /** Files are read, or what is proposed for them was changed. */
  | { readonly kind: 'adoptions' }
  /** What takes long to find of the sources was found. */
  | { readonly kind: 'upkeep' }
  | { readonly kind: 'slips' }
  | { readonly kind: 'people' };

/** Who hears of a change. */
export type Audience = 'everyone' | 'keepers' | 'administrators';
export const hears = (role: Role, audience: Audience): boolean =>
  audience === 'everyone' || role === 'administrator' || (audience === 'keepers' && role === 'steward');

/** Where somebody is now; without an entry, nowhere on the sheet any more. */
export class AtCellDto {
  @IsUUID()
  registerId!: string;

  @MayLack()
  @IsUUID()
  entry?: string;

  @MayLack()
  @IsText()
  @Length(1, 60)
  field?: string;
}
/** Told to everybody of the house, kept nowhere; who is silent for long is not there any more. */
export interface Whereabouts extends AtCellDto {
  readonly personId: string;
  readonly name: string;
}
