// The marks by which one notices that somebody else has changed meanwhile what one is about to change.
import { markOf, type CatalogDefinition, type Rule } from '@dellum/core';

export const markLength = 16;

/** The mark of how a catalog is composed. What is used most is counted anew by the house itself, and is no change of anybody's. */
export const definitionMark = ({ parts, filter, distinct, order }: CatalogDefinition): string =>
  markOf([parts, filter, distinct, order.by === 'used' ? { by: order.by } : order]);

export const ruleMark = (rule: Rule | null): string => markOf(rule);
