// The definition of a catalog as it is sent: the same members, free to change.
import type { CatalogDefinition } from '@dellum/core';
import type { DefinitionDto, PartDto } from '@dellum/contract';
import { filterDto } from '../filters/filterDto.js';

export function definitionDto({ parts, filter, distinct, order }: CatalogDefinition): DefinitionDto {
  return {
    parts: parts.map((part): PartDto => {
      switch (part.kind) {
        case 'typed':
          return { ...part, values: [...part.values] };
        case 'range':
        case 'keyed':
          return { ...part, companions: [...part.companions] };
        case 'query':
          return { ...part, companions: [...part.companions], filter: filterDto(part.filter) };
        default:
          return { ...part };
      }
    }),
    filter: filterDto(filter),
    distinct,
    order: order.by === 'used' ? { by: 'used' } : { ...order },
  };
}
