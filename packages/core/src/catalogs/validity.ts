// Validity: on which days an item is offered. Both ends count; an end left out is open.
import type { Item } from './models.js';

/** `valid`, or on which side of its time the day lies. Without a day everything is valid. */
export function validityOn(
  { validFrom, validUntil }: Pick<Item, 'validFrom' | 'validUntil'>,
  day: string | undefined,
): 'valid' | 'not yet valid' | 'no longer valid' {
  if (day === undefined) return 'valid';
  if (validFrom !== undefined && day < validFrom) return 'not yet valid';
  return validUntil !== undefined && day > validUntil ? 'no longer valid' : 'valid';
}

/** True when the item can be chosen on this day. */
export const isOffered = (item: Item, day: string | undefined): boolean => item.state === 'offered' && validityOn(item, day) === 'valid';
