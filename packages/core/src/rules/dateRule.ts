// A date within two bounds, both included: days, today, or the date in another field, with so many days between.
import { daysAfter, format } from '../values/index.js';
import { readGiven } from './given.js';
import { namesIn } from './headings.js';
import type { DateRule, DayBound, Judgment, JudgeContext, JudgedField, RuleKind, RuleNames } from './models.js';

/** The day that a bound means in the entry; undefined where it cannot be told. */
function dayOfBound(bound: DayBound | null, { entry, today }: JudgeContext): string | undefined {
  if (!bound) return undefined;
  if (bound.of === 'day') return bound.day;
  const from = bound.of === 'today' ? today : entry?.[bound.field];
  return from !== undefined && /^\d{4}-\d{2}-\d{2}$/u.test(from) ? daysAfter(from, bound.plus) : undefined;
}

/** "today", "3 days after Arrival" */
export function boundWords(bound: DayBound, names: Pick<RuleNames, 'locale' | 'field'>): string {
  if (bound.of === 'day') return format('date', bound.day, names.locale);
  const from = bound.of === 'today' ? 'today' : names.field(bound.field);
  if (bound.plus === 0) return from;
  const days = Math.abs(bound.plus);
  return `${days} ${days === 1 ? 'day' : 'days'} ${bound.plus > 0 ? 'after' : 'before'} ${from}`;
}

/** Where the bound is the day after something else, or the day before it: what else that is. */
const beyond = (bound: DayBound, by: 1 | -1, names: Pick<RuleNames, 'locale' | 'field'>): string | undefined =>
  bound.of !== 'day' && bound.plus === by ? boundWords({ ...bound, plus: 0 }, names) : undefined;

/** "from Arrival", "after Arrival" */
function startWords(from: DayBound, names: Pick<RuleNames, 'locale' | 'field'>): string {
  const after = beyond(from, 1, names);
  return after === undefined ? `from ${boundWords(from, names)}` : `after ${after}`;
}

function endWords(until: DayBound, names: Pick<RuleNames, 'locale' | 'field'>): string {
  const before = beyond(until, -1, names);
  return before === undefined ? `until ${boundWords(until, names)}` : `before ${before}`;
}

/** "from Arrival on", but "from Seen on": nobody says it twice. */
const andOn = (words: string): string => (words.startsWith('from') && !/\bon$/iu.test(words) ? `${words} on` : words);

function within(
  day: string,
  { from, until }: Pick<DateRule, 'from' | 'until'>,
  { heading }: JudgedField,
  context: JudgeContext,
): Extract<Judgment, { right: false }> | undefined {
  const [first, last] = [dayOfBound(from, context), dayOfBound(until, context)];
  const said = (bound: DayBound, at: string) =>
    bound.of === 'day'
      ? format('date', at, context.locale)
      : `${boundWords(bound, namesIn(context))} (${format('date', at, context.locale)})`;
  if (first !== undefined && day < first)
    return { right: false, code: 'too early', message: `${heading} must not be before ${said(from!, first)}.` };
  if (last !== undefined && day > last)
    return { right: false, code: 'too late', message: `${heading} must not be after ${said(until!, last)}.` };
  return undefined;
}

/** What stands is not measured by today: a date that was right on its day stays right. */
const standing = (bound: DayBound | null) => (bound?.of === 'today' ? null : bound);

export const dateRule: RuleKind<DateRule> = {
  kind: 'date',
  title: 'a date within bounds',
  asNew: { from: null, until: null },
  fits: ['date'],

  judge(rule, given, field, context) {
    const parsed = readGiven('date', given, context);
    if (!parsed.ok) return { right: false, code: 'wrong kind', message: parsed.reason };
    return within(parsed.value, rule, field, context) ?? { right: true, value: parsed.value };
  },

  stands(rule, value, field, context) {
    const fault = within(value, { from: standing(rule.from), until: standing(rule.until) }, field, context);
    return fault ? { right: false, code: fault.code, message: fault.message } : { right: true };
  },

  takes({ from, until }, names) {
    const end = until && endWords(until, names);
    const words =
      from && end
        ? `${startWords(from, names)} ${end.startsWith('before') ? 'and ' : ''}${end}`
        : from
          ? andOn(startWords(from, names))
          : (end ?? 'of any day');
    return [{ text: 'a date', edits: 'kind' }, { text: ' ' }, { text: words, edits: 'bounds' }];
  },

  faults({ from, until }, _field, context) {
    const [first, last] = [dayOfBound(from, { ...context, entry: {} }), dayOfBound(until, { ...context, entry: {} })];
    if (first !== undefined && last !== undefined && first > last)
      return [{ part: 'bounds', message: 'The first day lies after the last one, so no date can be entered.' }];
    if (from?.of === 'field' && until?.of === 'field' && from.field === until.field && from.plus > until.plus)
      return [{ part: 'bounds', message: 'The bounds are the wrong way round, so no date can be entered.' }];
    return [];
  },

  checkable: ({ from, until }) => ({ check: { of: 'days', from, until }, lost: [] }),
  reads: ({ from, until }) => [from, until].flatMap((bound) => (bound?.of === 'field' ? [bound.field] : [])),
};
