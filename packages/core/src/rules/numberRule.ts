// A number or percentage within two bounds, both included; whole, or with so many decimals at most. Exact decimals.
import { Decimal } from 'decimal.js';
import { format, isOfKind } from '../values/index.js';
import { readGiven } from './given.js';
import { namesIn } from './headings.js';
import type { Judgment, JudgeContext, JudgedField, NumberBound, NumberRule, RuleKind, RuleNames } from './models.js';

function numberOf(bound: NumberBound | null, entry: JudgeContext['entry']): Decimal | undefined {
  const text = bound?.of === 'number' ? bound.number : bound ? entry?.[bound.field] : undefined;
  return text !== undefined && isOfKind('number', text) ? new Decimal(text) : undefined;
}

const boundWords = (bound: NumberBound, kind: JudgedField['kind'], names: Pick<RuleNames, 'locale' | 'field'>): string =>
  bound.of === 'number' ? format(kind, bound.number, names.locale) : names.field(bound.field);

function within(
  value: string,
  { least, most, decimals }: NumberRule,
  { heading, kind }: JudgedField,
  context: JudgeContext,
): Extract<Judgment, { right: false }> | undefined {
  const number = new Decimal(value);
  const [low, high] = [numberOf(least, context.entry), numberOf(most, context.entry)];
  const said = (bound: NumberBound, at: Decimal) =>
    bound.of === 'number'
      ? format(kind, at.toFixed(), context.locale)
      : `${boundWords(bound, kind, namesIn(context))} (${format(kind, at.toFixed(), context.locale)})`;
  if (low && number.lessThan(low)) return { right: false, code: 'too small', message: `${heading} must be at least ${said(least!, low)}.` };
  if (high && number.greaterThan(high))
    return { right: false, code: 'too large', message: `${heading} must be at most ${said(most!, high)}.` };
  // A percentage is stored as its hundredth: 12.5 % has one decimal as people count.
  const places = Math.max(0, number.decimalPlaces() - (kind === 'percent' ? 2 : 0));
  if (decimals !== null && places > decimals)
    return {
      right: false,
      code: 'condition',
      message:
        decimals === 0
          ? `${heading} must be a whole number.`
          : `${heading} has at most ${decimals} ${decimals === 1 ? 'decimal' : 'decimals'}.`,
    };
  return undefined;
}

export const numberRule: RuleKind<NumberRule> = {
  kind: 'number',
  title: 'a number within bounds',
  asNew: { least: null, most: null, decimals: null },
  fits: ['number', 'amount', 'percent'],

  judge(rule, given, field, context) {
    const parsed = readGiven(field.kind, given, context);
    if (!parsed.ok) return { right: false, code: 'wrong kind', message: parsed.reason };
    return within(parsed.value, rule, field, context) ?? { right: true, value: parsed.value };
  },

  stands(rule, value, field, context) {
    if (!isOfKind('number', value)) return { right: false, code: 'wrong kind', message: `“${value}” is not a number.` };
    const fault = within(value, rule, field, context);
    return fault ? { right: false, code: fault.code, message: fault.message } : { right: true };
  },

  takes({ least, most, decimals }, names) {
    const words = [least && `at least ${boundWords(least, 'number', names)}`, most && `at most ${boundWords(most, 'number', names)}`]
      .filter(Boolean)
      .join(' and ');
    const digits =
      decimals === null
        ? ''
        : decimals === 0
          ? ', without decimals'
          : `, with ${decimals} ${decimals === 1 ? 'decimal' : 'decimals'} at most`;
    return [
      { text: decimals === 0 ? 'a whole number' : 'a number', edits: 'kind' },
      { text: ' ' },
      { text: `${words || 'of any size'}${decimals === 0 ? '' : digits}`, edits: 'bounds' },
    ];
  },

  faults({ least, most }) {
    const [low, high] = [numberOf(least, {}), numberOf(most, {})];
    return low && high && low.greaterThan(high)
      ? [{ part: 'bounds', message: 'The least is more than the most, so no number can be entered.' }]
      : [];
  },

  checkable: ({ least, most, decimals }) => ({
    check: { of: 'numbers', least, most, whole: decimals === 0 },
    lost: decimals === null || decimals === 0 ? [] : ['takes any number of decimals there'],
  }),

  reads: ({ least, most }) => [least, most].flatMap((bound) => (bound?.of === 'field' ? [bound.field] : [])),

  bounds: ({ least, most }) => ({
    ...(least?.of === 'number' && { least: least.number }),
    ...(most?.of === 'number' && { most: most.number }),
  }),
};
