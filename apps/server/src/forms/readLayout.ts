// From a layout as it came over HTTP to the one that is kept: texts cleaned, values as the kinds of their fields store them.
import { clean, parse, sourceTextFault, type Condition, type Filter, type FormLayout } from '@dellum/core';
import type { FilterDto, FormLayoutDto } from '@dellum/contract';
import type { HouseBuild, RegisterBuild } from '../build/build.store.js';
import { ProblemError } from '../problems/index.js';

function fit(text: string, input: string): string {
  const fault = text === '' ? undefined : sourceTextFault(text);
  if (fault) throw new ProblemError('not-valid', fault.message, { faults: { [input]: fault.message } });
  return clean(text);
}

/** The value as the field stores it; what its kind does not read stays as it was typed, and is found. */
function stored(build: HouseBuild, register: RegisterBuild, key: string, text: string): string {
  const field = register.fields.find((known) => known.key === key);
  const parsed = field && field.kind !== 'several values' ? parse(field.kind, text, build.locale) : undefined;
  return parsed?.ok ? parsed.value : clean(text);
}

const exactly: ReadonlySet<Condition['is']> = new Set(['is', 'is not', 'at least', 'at most']);

/** A layout that names fields which are not there any more is kept, so that it can be mended. */
export function readLayout(build: HouseBuild, register: RegisterBuild, dto: FormLayoutDto): FormLayout {
  const filterOf = (filter: FilterDto | null | undefined): Filter | null =>
    filter && filter.conditions.length > 0 ? { all: filter.all, conditions: filter.conditions.map(({ field, is, value }) => ({ field, is, value: exactly.has(is) ? stored(build, register, field, value) : clean(value) })) } : null;
  return {
    intro: fit(dto.intro, 'intro'),
    thanks: fit(dto.thanks, 'thanks'),
    sections: dto.sections.map(({ id, heading, help, columns, where, fields }) => ({
      id,
      heading: fit(heading, 'heading'),
      help: fit(help, 'help'),
      columns,
      where: filterOf(where),
      fields: fields.map((one) => ({ field: one.field, help: fit(one.help, 'help'), control: one.control ?? null, wide: one.wide, begins: one.begins === null || one.begins === undefined ? null : stored(build, register, one.field, one.begins), where: filterOf(one.where) })),
    })),
  };
}
