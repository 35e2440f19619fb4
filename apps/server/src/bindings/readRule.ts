// From the rule as it came over HTTP to the one that the core knows; everything it names must be there.
import {
  clean,
  isNumeric,
  isOfKind,
  kindLabel,
  newRule,
  sourceTextFault,
  type Begins,
  type DayBound,
  type Filter,
  type JudgedField,
  type NumberBound,
  type Rule,
  type RuleBase,
} from '@dellum/core';
import type { DayBoundDto, NumberBoundDto, RuleDto } from '@dellum/contract';
import { fieldWithKey } from '../structure/structure.service.js';
import type { FieldBuild, HouseBuild, RegisterBuild } from '../structure/structure.store.js';
import { notFound, ProblemError } from '../problems/index.js';

function needed<T>(value: T | undefined, part: string, words: string): T {
  if (value === undefined) throw new ProblemError('not-valid', words, { faults: { [part]: words } });
  return value;
}

/** Another field of the same register, by its key. */
function otherField(
  register: RegisterBuild,
  field: JudgedField & { readonly key: string },
  key: string | undefined,
  part: string,
): FieldBuild {
  const other = fieldWithKey(register, needed(key, part, 'Choose the field that is compared with.'));
  if (other.key === field.key)
    throw new ProblemError('not-valid', `${field.heading} cannot depend on itself. Choose another field.`, {
      faults: { [part]: 'Choose another field.' },
    });
  return other;
}

function dayBound(dto: DayBoundDto | null, register: RegisterBuild, field: FieldBuild, part: string): DayBound | null {
  if (!dto) return null;
  if (dto.of === 'day') return { of: 'day', day: needed(dto.day, part, 'Choose the day.') };
  if (dto.of === 'today') return { of: 'today', plus: dto.plus ?? 0 };
  const other = otherField(register, field, dto.field, part);
  if (other.kind !== 'date') throw new ProblemError('kind-unfit', `${other.heading} holds no dates. Choose a date field.`);
  return { of: 'field', field: other.key, plus: dto.plus ?? 0 };
}

function numberBound(dto: NumberBoundDto | null, register: RegisterBuild, field: FieldBuild, part: string): NumberBound | null {
  if (!dto) return null;
  if (dto.of === 'number') return { of: 'number', number: needed(dto.number, part, 'Type the number.') };
  const other = otherField(register, field, dto.field, part);
  if (!isNumeric(other.kind)) throw new ProblemError('kind-unfit', `${other.heading} holds no numbers. Choose a field of numbers.`);
  return { of: 'field', field: other.key };
}

function filterOf(dto: RuleDto['where'], register: RegisterBuild): Filter | null {
  if (!dto || dto.conditions.length === 0) return null;
  return {
    all: dto.all,
    conditions: dto.conditions.map(({ field, is, value }) => ({ field: fieldWithKey(register, field).key, is, value })),
  };
}

/** What a new entry begins with; a value is stored as the kind of the field stores it. */
function beginsOf(dto: RuleDto, field: FieldBuild): Begins {
  const { begins } = dto;
  if (begins.with !== 'value') return { with: begins.with, value: '' };
  return { with: 'value', value: storedValue(clean(begins.value), field, 'begins') };
}

/**
 * A rule holds values as they are stored, never texts as they are typed: read as a text again, 0.1 of a percentage would
 * become 0.001 each time the rule is set.
 */
function storedValue(value: string, { kind, heading }: Pick<FieldBuild, 'kind' | 'heading'>, part: string): string {
  if (isOfKind(kind, value)) return value;
  const reason = `“${value}” is not how ${heading} stores ${kindLabel(kind)}.`;
  throw new ProblemError('not-valid', reason, { faults: { [part]: reason } });
}

/** The values of a list, clean, each once, as the kind of the field stores them. */
export function listValues(values: readonly string[], field: Pick<FieldBuild, 'kind' | 'heading'>): string[] {
  const read = values
    .map(clean)
    .filter((value) => value !== '')
    .map((value) => {
      const fault = sourceTextFault(value);
      if (fault) throw new ProblemError('value-refused', fault.message, { verdict: fault.code, suggestions: [] });
      return storedValue(value, field, 'values');
    });
  return [...new Set(read)];
}

type RuleOf<Kind extends Rule['kind']> = Extract<Rule, { kind: Kind }>;
type DtoOf<Kind extends Rule['kind']> = Extract<RuleDto, { kind: Kind }>;

interface RulePlace {
  readonly build: HouseBuild;
  readonly register: RegisterBuild;
  readonly field: FieldBuild;
}

/** What a rule of each kind says beyond what every rule says. */
const reads: { readonly [Kind in Rule['kind']]: (dto: DtoOf<Kind>, place: RulePlace) => Omit<RuleOf<Kind>, keyof RuleBase | 'kind'> } = {
  catalog(dto, { build, register, field }) {
    const { catalogId, blankParent, misfit, fillsSingle, picking } = dto;
    if (!build.catalogs.has(catalogId)) throw notFound('This catalog');
    const keyOf = (key: string, part: string) => otherField(register, field, key, part).key;
    const parents = [...new Set(dto.parents.map((key) => keyOf(key, 'parents')))];
    return {
      catalogId,
      level: dto.level ?? (parents.length > 0 ? parents.length : null),
      parents,
      blankParent,
      misfit,
      fillsSingle,
      day: dto.day ? keyOf(dto.day, 'day') : null,
      fitting: dto.fitting.map(({ companion, is, field: key }) => ({ companion, is, field: keyOf(key, 'fitting') })),
      brings: dto.brings.map(({ companion, field: key }) => ({ companion, field: keyOf(key, 'brings') })),
      picking: { ...picking },
    };
  },
  typed: ({ values, picking }, { field }) => ({ values: listValues(values, field), picking: { ...picking } }),
  date: ({ from, until }, { register, field }) => ({
    from: dayBound(from, register, field, 'from'),
    until: dayBound(until, register, field, 'until'),
  }),
  number: ({ least, most, decimals }, { register, field }) => ({
    least: numberBound(least, register, field, 'least'),
    most: numberBound(most, register, field, 'most'),
    decimals,
  }),
  length: ({ least, most }) => ({ least, most }),
  pattern: ({ pattern, examples }) => ({ pattern, examples: examples.map(clean).filter((text) => text !== '') }),
  expression: ({ expression, message }) => ({ expression: clean(expression), message: clean(message) }),
  plain: () => ({}),
};

/** The rule as it is stored. Throws where what it names is not there. */
export function readRule(build: HouseBuild, field: FieldBuild, dto: RuleDto): Rule {
  const register = build.registers.get(field.registerId)!;
  const base: RuleBase = {
    mayBeBlank: dto.mayBeBlank,
    others: dto.others,
    hint: dto.hint,
    ...(dto.hintTitle && { hintTitle: dto.hintTitle }),
    refusalText: dto.refusalText,
    begins: beginsOf(dto, field),
    noRepeats: dto.noRepeats,
    ...(dto.readOnly && { readOnly: true }),
    where: filterOf(dto.where, register),
  };
  const read = reads[dto.kind] as (dto: RuleDto, place: RulePlace) => object;
  return { ...newRule(dto.kind, base), ...read(dto, { build, register, field }) } as Rule;
}
