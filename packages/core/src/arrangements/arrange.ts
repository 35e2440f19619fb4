// What an arrangement means for the fields of a register, and how it is changed step by step.
import type { FieldId, RegisterField } from '../registers/index.js';
import { format, type Locale } from '../values/index.js';
import type { Arrangement, FieldSort, Only, ShownField } from './models.js';

export const asKept: Arrangement = { sort: [], only: [], fields: [], inView: 0, colouredBy: null };

/** Whether the entries stand otherwise than the register keeps them, or only some are shown. */
export const arranges = ({ sort, only }: Arrangement): boolean => sort.length > 0 || only.length > 0;

/** All fields in the order of the arrangement, with how each is shown. Fields that came later stand last; those that went are left out. */
export function fieldsInOrder<F extends { readonly key: FieldId }>(
  fields: readonly F[],
  { fields: shown }: Arrangement,
): { readonly field: F; readonly hidden: boolean; readonly width: number | null }[] {
  const byKey = new Map(fields.map((field) => [field.key, field]));
  const named = shown.flatMap(({ field: key, hidden, width }) => {
    const field = byKey.get(key);
    return field ? [{ field, hidden, width }] : [];
  });
  const known = new Set(named.map(({ field }) => field.key));
  return [...named, ...fields.filter(({ key }) => !known.has(key)).map((field) => ({ field, hidden: false, width: null }))];
}

/** The arrangement without what names fields that are not there any more. */
export function fittingTo(arrangement: Arrangement, fields: readonly { readonly key: FieldId }[]): Arrangement {
  const keys = new Set(fields.map(({ key }) => key));
  const there = ({ field }: { readonly field: FieldId }) => keys.has(field);
  return {
    sort: arrangement.sort.filter(there),
    only: arrangement.only.filter(there),
    fields: arrangement.fields.filter(there),
    inView: arrangement.inView,
    colouredBy: arrangement.colouredBy !== null && keys.has(arrangement.colouredBy) ? arrangement.colouredBy : null,
  };
}

/** Sorts by a field first; what was sorted by before decides among equals. Three fields at most. */
export const sortedBy = (arrangement: Arrangement, first: FieldSort): Arrangement => ({
  ...arrangement,
  sort: [first, ...arrangement.sort.filter(({ field }) => field !== first.field)].slice(0, 3),
});

/** Shows only what passes; undefined takes the condition of the field away. */
export const showingOnly = (arrangement: Arrangement, field: FieldId, only: Only | undefined): Arrangement => ({
  ...arrangement,
  only: [...arrangement.only.filter((known) => known.field !== field), ...(only ? [only] : [])],
});

/** Changes how one field is shown. */
export function showing(
  arrangement: Arrangement,
  fields: readonly RegisterField[],
  key: FieldId,
  change: Partial<Omit<ShownField, 'field'>>,
): Arrangement {
  return {
    ...arrangement,
    fields: fieldsInOrder(fields, arrangement).map(({ field, hidden, width }) => ({
      field: field.key,
      hidden,
      width,
      ...(field.key === key && change),
    })),
  };
}

/** Puts a field before another one, or last (null). */
export function movedField(arrangement: Arrangement, fields: readonly RegisterField[], key: FieldId, before: FieldId | null): Arrangement {
  const all = fieldsInOrder(fields, arrangement).map(({ field, hidden, width }): ShownField => ({ field: field.key, hidden, width }));
  const moved = all.find(({ field }) => field === key);
  if (!moved || key === before) return arrangement;
  const rest = all.filter(({ field }) => field !== key);
  const place = before === null ? rest.length : rest.findIndex(({ field }) => field === before);
  return { ...arrangement, fields: [...rest.slice(0, place), moved, ...rest.slice(place)] };
}

/** How the words of an arrangement name fields and their values. */
export interface ArrangementNames {
  readonly locale: Locale;
  field(key: FieldId): string;
  /** A stored value as the field shows it. */
  value(key: FieldId, value: string): string;
}

const listed = (words: readonly string[]): string =>
  words.length > 3
    ? `${words.slice(0, 2).join(', ')} or ${words.length - 2} others`
    : words.length < 2
      ? words.join('')
      : `${words.slice(0, -1).join(', ')} or ${words.at(-1)!}`;

function onlyWords(only: Only, names: ArrangementNames): string {
  const heading = names.field(only.field);
  switch (only.only) {
    case 'values':
      return `${heading} is ${listed(only.values.map((value) => (value === '' ? 'blank' : names.value(only.field, value))))}`;
    case 'outside':
      return `${heading} is outside`;
    case 'text':
      return `${heading} contains “${only.text}”`;
    case 'within': {
      const [from, until] = [only.from, only.until].map((bound) => (bound === null ? undefined : names.value(only.field, bound)));
      return `${heading} is ${[from !== undefined && `from ${from}`, until !== undefined && `until ${until}`].filter(Boolean).join(' ')}`;
    }
  }
}

/** "only where Status is Alongside; by Arrival, the last first". Empty where the entries stand as they are kept. */
export function arrangementWords({ sort, only }: Pick<Arrangement, 'sort' | 'only'>, names: ArrangementNames): string {
  const parts = [
    only.length > 0 && `only where ${only.map((one) => onlyWords(one, names)).join(' and ')}`,
    sort.length > 0 &&
      `by ${sort.map(({ field, direction }) => `${names.field(field)}${direction === 'down' ? ', the last first' : ''}`).join(', then by ')}`,
  ];
  return parts.filter(Boolean).join('; ');
}

/** Bounds the wrong way round leave nothing to be shown. */
export const emptyWithin = ({ from, until }: { readonly from: string | null; readonly until: string | null }, byNumber: boolean): boolean =>
  from !== null && until !== null && (byNumber ? Number(from) > Number(until) : from > until);

/** A bound in the house's writing. */
export const boundWords = (kind: RegisterField['kind'], bound: string | null, locale: Locale): string =>
  bound === null ? '' : format(kind, bound, locale);
