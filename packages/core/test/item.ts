// An item of a catalog as tests write it down.
import type { Item } from '@dellum/core';

export const item = (value: string, path: readonly string[] = [], over: Partial<Item> = {}): Item => ({
  value,
  path,
  label: value,
  otherNames: [],
  state: 'offered',
  from: [],
  ...over,
});
