// A value for which an expression over the entry is true: the Common Expression Language (cel.dev, an open standard), which
// always ends. `value` is what is judged, `entry.key` what another field holds (null when blank), `today` the house's day.
import { isBlank } from '../text/index.js';
import { Exact, isNumeric, isOfKind, valuesIn, type FieldKind } from '../values/index.js';
import type { Cells, FieldId } from '../registers/index.js';
import { readGiven } from './given.js';
import { headingOf } from './headings.js';
import { readerOf, type Expression } from './languages.js';
import type { ExpressionRule, Judgment, JudgeContext, JudgedField, RuleKind } from './models.js';

const compiled = new Map<string, Expression | string>();
const mostCompiled = 500;

/** The compiled expression, or in words why it is none; undefined while its language is not known. */
function compile(text: string): Expression | string | undefined {
  const known = compiled.get(text);
  if (known !== undefined) return known;
  const reader = readerOf('expression');
  if (!reader) return undefined;
  if (compiled.size >= mostCompiled) compiled.clear();
  let made: Expression | string;
  try {
    const read = reader(text);
    made =
      read.type === 'bool' || read.type === 'dyn'
        ? read
        : `it gives ${read.type === 'exact' ? 'a number' : read.type}, and must be true or false`;
  } catch (error) {
    made = firstLine((error as Error).message);
  }
  compiled.set(text, made);
  return made;
}

const firstLine = (text: string): string => text.split('\n')[0]!;

/** What is wrong with an expression, in words, or undefined. */
export function expressionFault(text: string): string | undefined {
  if (isBlank(text)) return 'The expression is empty. Write one that is true for the values that are right.';
  // The language's own matching runs on backtracking, which can run away; a pattern rule cannot.
  if (/\bmatches\s*\(/u.test(text)) return 'Patterns have a rule of their own; an expression cannot match them.';
  const made = compile(text);
  return typeof made === 'string' ? `The expression cannot be read: ${made}.` : undefined;
}

const named = /\bentry\.([a-z][a-z0-9_]*)/gu;
const fieldsIn = ({ expression }: ExpressionRule): FieldId[] => [...new Set([...expression.matchAll(named)].map(([, key]) => key!))];

function valueFor(kind: FieldKind, value: string | undefined): unknown {
  if (value === undefined || value === '') return null;
  if (isNumeric(kind) && isOfKind(kind, value)) return new Exact(value);
  if (kind === 'several values') return valuesIn(value);
  return kind === 'yes/no' && isOfKind(kind, value) ? value === 'yes' : value;
}

function cellsFor(rule: ExpressionRule, entry: Cells, { fields }: JudgeContext): Record<string, unknown> {
  return Object.fromEntries(
    fieldsIn(rule).map((key) => [key, valueFor(fields?.find((field) => field.key === key)?.kind ?? 'text', entry[key])]),
  );
}

function holds(
  rule: ExpressionRule,
  value: string,
  { kind, heading }: JudgedField,
  context: JudgeContext,
): Extract<Judgment, { right: false }> | undefined {
  const expression = compile(rule.expression);
  const reads = fieldsIn(rule);
  if (!expression || typeof expression === 'string' || (reads.length > 0 && !context.entry)) return undefined;
  const wrong = {
    right: false,
    code: 'condition',
    message: rule.message || `“${value}” is not right for ${heading}: ${rule.expression} is not true.`,
  } as const;
  try {
    return expression.run({
      value: valueFor(kind, value),
      entry: cellsFor(rule, context.entry ?? {}, context),
      today: context.today ?? '',
    }) === true
      ? undefined
      : wrong;
  } catch {
    // With a field blank there is nothing to compare with; what cannot be computed otherwise is not right.
    return reads.some((key) => !context.entry?.[key]) ? undefined : wrong;
  }
}

export const expressionRule: RuleKind<ExpressionRule> = {
  kind: 'expression',
  language: 'expression',
  title: 'what an expression says',
  asNew: { expression: '', message: '' },
  fits: ['text', 'number', 'amount', 'percent', 'date', 'yes/no', 'several values'],

  judge(rule, given, field, context) {
    const parsed = readGiven(field.kind, given, context);
    if (!parsed.ok) return { right: false, code: 'wrong kind', message: parsed.reason };
    return holds(rule, parsed.value, field, context) ?? { right: true, value: parsed.value };
  },
  stands(rule, value, field, context) {
    const fault = holds(rule, value, field, context);
    return fault ? { right: false, code: fault.code, message: fault.message } : { right: true };
  },
  takes: ({ expression }) => [
    { text: 'a value', edits: 'kind' },
    { text: ' for which ' },
    { text: expression || 'an expression', edits: 'expression' },
    { text: ' is true' },
  ],
  faults(rule, field, context) {
    const fault = expressionFault(rule.expression);
    if (fault) return [{ part: 'expression', message: fault }];
    const missing = fieldsIn(rule).find((key) => context.fields && !context.fields.some((known) => known.key === key));
    return missing
      ? [
          {
            part: 'expression',
            message: `There is no field with the key “${missing}” here. ${field.heading} can use ${(context.fields ?? [])
              .map(({ key }) => `entry.${key}`)
              .slice(0, 6)
              .join(', ')}.`,
          },
        ]
      : [];
  },
  checkable: () => ({ check: null, lost: ['is not judged by its expression there'] }),
  reads: fieldsIn,
};

/** How an expression calls the fields of a register: key and heading. */
export const expressionNames = (context: Pick<JudgeContext, 'fields'>): { readonly name: string; readonly heading: string }[] =>
  (context.fields ?? []).map(({ key }) => ({ name: `entry.${key}`, heading: headingOf(key, context) }));
