// From the act as it came over HTTP to the act as the core knows it.
import { randomUUID } from 'node:crypto';
import type { Act } from '@dellum/core';
import type { ActDto } from '@dellum/contract';
import { ProblemError } from '../problems/index.js';

function needed<T>(value: T | undefined, name: string): T {
  if (value === undefined) throw new ProblemError('not-valid', `The act lacks “${name}”.`, { faults: { [name]: 'This is needed for the act.' } });
  return value;
}

/** Checks that the act has the members it needs; new entries get their ids here. */
export function readAct(dto: ActDto): Act {
  switch (dto.act) {
    case 'write':
      return { act: 'write', cells: needed(dto.cells, 'cells').map(({ entry, field, text }) => ({ entry, field, text })) };
    case 'insert': {
      const field = needed(dto.field, 'field');
      const entries = needed(dto.texts, 'texts').map((text) => ({ id: randomUUID(), cells: text.trim() === '' ? {} : { [field]: text } }));
      return { act: 'insert', before: dto.before ?? null, entries };
    }
    case 'delete':
      return { act: 'delete', entries: needed(dto.entries, 'entries') };
    case 'move':
      return { act: 'move', entries: needed(dto.entries, 'entries'), before: dto.before ?? null };
    case 'sort':
      return { act: 'sort', field: needed(dto.field, 'field'), direction: needed(dto.direction, 'direction') };
  }
}
