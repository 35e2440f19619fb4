// The definition of a catalog as it is sent: what is used most is counted by the server.
import type { CatalogDefinition } from '@dellum/core';
import type { DefinitionDto } from '@dellum/contract';

export const definitionDto = ({ order, ...definition }: CatalogDefinition): DefinitionDto => ({
  ...definition,
  order: order.by === 'used' ? { by: 'used' } : order,
});
