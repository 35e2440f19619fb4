// The live stream: what happened in the house, in the order of its sequence numbers.
import type { Role } from './roles.js';

export type Change =
  /** Cells of one entry were written; null is a cell made blank. */
  | { readonly kind: 'cells'; readonly registerId: string; readonly entryId: string; readonly version: number; readonly cells: Readonly<Record<string, string | null>>; readonly by: string }
  /** Entries came, went, moved or changed in number: fetch what is on screen anew. */
  | { readonly kind: 'register'; readonly registerId: string }
  | { readonly kind: 'build'; readonly version: number }
  | { readonly kind: 'catalog'; readonly catalogId: string; readonly version: number }
  | { readonly kind: 'carry'; readonly fieldId: string; readonly registerId: string; readonly done: number; readonly total: number }
  /** Wishes of clerks came or were answered. */
  | { readonly kind: 'requests'; readonly registerId: string }
  | { readonly kind: 'slips' }
  | { readonly kind: 'people' };

/** Who hears of a change. */
export type Audience = 'everyone' | 'keepers' | 'administrators';
export const hears = (role: Role, audience: Audience): boolean => audience === 'everyone' || role === 'administrator' || (audience === 'keepers' && role === 'steward');

/** Names of the events on the stream. `anew`: too much was missed, fetch everything. */
export const liveEvents = { change: 'change', anew: 'anew', ready: 'ready' } as const;
