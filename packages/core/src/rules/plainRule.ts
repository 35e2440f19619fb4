// Whatever the kind of the field takes, with all that a rule can say besides: a hint, a beginning, no blanks, no repeats.
import { isOfKind, kindLabel } from '../values/index.js';
import { readGiven } from './given.js';
import type { PlainRule, RuleKind } from './models.js';

export const plainRule: RuleKind<PlainRule> = {
  kind: 'plain',
  title: 'anything of its kind',
  asNew: {},
  fits: ['text', 'number', 'amount', 'percent', 'date', 'yes/no', 'several values'],
  judge(_rule, given, field, context) {
    const parsed = readGiven(field.kind, given, context);
    return parsed.ok ? { right: true, value: parsed.value } : { right: false, code: 'wrong kind', message: parsed.reason };
  },
  stands: (_rule, value, field) =>
    isOfKind(field.kind, value)
      ? { right: true }
      : { right: false, code: 'wrong kind', message: `“${value}” is not ${kindLabel(field.kind)}, as ${field.heading} asks for.` },
  takes: () => [{ text: 'anything of its kind', edits: 'kind' }],
  faults: () => [],
  checkable: () => ({ check: null, lost: [] }),
  reads: () => [],
};
