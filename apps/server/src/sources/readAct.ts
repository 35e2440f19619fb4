// From the act as it came over HTTP to the act as the core knows it.
import { randomUUID } from 'node:crypto';
import { clean, isBlank, parse, sourceTextFault, type Act, type Cells, type Locale } from '@dellum/core';
import type { ActDto } from '@dellum/contract';
import { fieldWithKey } from '../structure/structure.service.js';
import type { FieldBuild, RegisterBuild } from '../structure/structure.store.js';
import { todayOf } from '../structure/days.js';
import { ProblemError } from '../problems/index.js';

function needed<T>(value: T | undefined, name: string): T {
  if (value === undefined)
    throw new ProblemError('not-valid', `The act lacks “${name}”.`, { faults: { [name]: 'This is needed for the act.' } });
  return value;
}

/**
 * What a source cell stores of a text: the value of its field's kind where the text is one, else the text as typed, which
 * ranges then leave out as of the wrong kind. Texts that no cell can hold are refused.
 */
function stored(field: FieldBuild, text: string, locale: Locale): string {
  const fault = sourceTextFault(text);
  if (fault) throw new ProblemError('value-refused', fault.message, { verdict: fault.code, suggestions: [] });
  if (field.kind === 'text' || isBlank(text)) return text;
  const parsed = parse(field.kind, text, locale, todayOf(new Date(), locale));
  return parsed.ok ? parsed.value : clean(text);
}

/**
 * Checks that the act has the members it needs and that its texts can be stored; new entries get their ids here, unless they bring them.
 */
export function readAct(dto: ActDto, register: RegisterBuild, locale: Locale): Act {
  switch (dto.act) {
    case 'write':
      return {
        act: 'write',
        cells: needed(dto.cells, 'cells').map(({ entry, field, text }) => ({
          entry,
          field,
          text: stored(fieldWithKey(register, field), text, locale),
        })),
      };
    case 'insert': {
      const fields = (dto.fields ?? []).map((key) => fieldWithKey(register, key));
      const entries = needed(dto.rows, 'rows').map((texts, at) => {
        if (texts.length > fields.length)
          throw new ProblemError('not-valid', 'A row has more texts than the act names fields.', {
            faults: { fields: 'Name a field for each text of a row.' },
          });
        const filled = texts
          .map((text, column) => [fields[column]!.key, stored(fields[column]!, text, locale)] as const)
          .filter(([, text]) => !isBlank(text));
        return { id: dto.entries?.[at] ?? randomUUID(), cells: Object.fromEntries(filled) as Cells };
      });
      if (dto.entries && dto.entries.length !== entries.length)
        throw new ProblemError('not-valid', 'The act has not as many ids as rows.', { faults: { entries: 'Give one id for each row.' } });
      return { act: 'insert', before: dto.before ?? null, entries };
    }
    case 'delete':
      return { act: 'delete', entries: needed(dto.entries, 'entries') };
    case 'move':
      return { act: 'move', entries: needed(dto.entries, 'entries'), before: dto.before ?? null };
    case 'sort':
      return { act: 'sort', field: fieldWithKey(register, needed(dto.field, 'field')).key, direction: needed(dto.direction, 'direction') };
  }
}
