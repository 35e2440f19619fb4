// A filter as it is sent: the same members, free to change.
import type { Filter } from '@dellum/core';
import type { FilterDto } from '@dellum/contract';

export const filterDto = (filter: Filter | null): FilterDto | null =>
  filter && { all: filter.all, conditions: filter.conditions.map((condition) => ({ ...condition })) };
