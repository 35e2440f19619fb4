// The kinds of rule, each one object; told apart here and nowhere else.
import type { FieldKind } from '../values/index.js';
import { catalogRule } from './catalogRule.js';
import { dateRule } from './dateRule.js';
import { expressionRule } from './expressionRule.js';
import type { Language } from './languages.js';
import { lengthRule } from './lengthRule.js';
import type { Rule, RuleKind, RuleOf } from './models.js';
import { numberRule } from './numberRule.js';
import { patternRule } from './patternRule.js';
import { plainRule } from './plainRule.js';
import { typedRule } from './typedRule.js';

const kinds: { readonly [Kind in Rule['kind']]: RuleKind<RuleOf<Kind>> } = {
  catalog: catalogRule,
  typed: typedRule,
  date: dateRule,
  number: numberRule,
  length: lengthRule,
  pattern: patternRule,
  expression: expressionRule,
  plain: plainRule,
};

/** The kind of a rule, as one that takes any rule. */
export const kindOf = (kind: Rule['kind']): RuleKind<Rule> => kinds[kind] as RuleKind<Rule>;

/** The kinds of rule that a field of this kind can have. */
export const rulesFor = (kind: FieldKind): readonly Rule['kind'][] =>
  (Object.keys(kinds) as Rule['kind'][]).filter((rule) => kinds[rule].fits.includes(kind));
/** The languages in which rules are written. */
export const languagesOf = (rules: readonly (Rule | null | undefined)[]): Language[] =>
  rules.flatMap((rule) => (rule && kinds[rule.kind].language) ?? []);
export const ruleTitle = (kind: Rule['kind']): string => kinds[kind].title;

/** The rule where it is of a kind; for what only that kind has, such as its editor. */
export const ruleAs = <Kind extends Rule['kind']>(kind: Kind, rule: Rule | null | undefined): RuleOf<Kind> | undefined =>
  rule?.kind === kind ? (rule as RuleOf<Kind>) : undefined;
