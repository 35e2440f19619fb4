// An item of a catalog as programs read it.
import type { Item } from '@dellum/core';
import type { ProgramValue } from '@dellum/contract';

export const programValue = (item: Item): ProgramValue => ({
  value: item.value,
  label: item.label,
  under: item.path,
  otherNames: item.otherNames,
  ...(item.note !== undefined && { note: item.note }),
  ...(item.validFrom !== undefined && { validFrom: item.validFrom }),
  ...(item.validUntil !== undefined && { validUntil: item.validUntil }),
  retired: item.state === 'retired',
  companions: item.companions ?? {},
});
