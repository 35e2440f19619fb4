// A rule: all that a field accepts. A discriminated union lists the kinds; each kind is one file and one object.
import type { Catalog } from '../catalogs/index.js';
import type { FieldKind, Locale } from '../values/index.js';

/** What happens to a value that is not in the catalog. */
export const otherValues = ['refuse', 'accept'] as const;
export type OtherValues = (typeof otherValues)[number];

export interface CatalogRule {
  readonly kind: 'catalog';
  readonly catalogId: string;
  readonly mayBeBlank: boolean;
  readonly others: OtherValues;
  /** Shown when the field gets the focus; empty for none. */
  readonly hint: string;
  /** Said when a value is refused; empty for Dellum's own words. */
  readonly refusalText: string;
}
export type Rule = CatalogRule;

/** What a judgement needs to know of the field. */
export interface JudgedField {
  readonly heading: string;
  readonly kind: FieldKind;
  readonly rule: Rule | null;
}

export interface JudgeContext {
  readonly locale: Locale;
  /** Compiled catalogs by id; the rule's own must be there. */
  readonly catalogs: ReadonlyMap<string, Catalog>;
  /** The house's day (ISO 8601), given by the server; without it validity is not looked at. */
  readonly today?: string;
  /** What the cell holds now; it may always be taken back. */
  readonly held?: string;
  /** Suggestions cost time and are computed only when asked for. */
  readonly suggest?: boolean;
}

export const verdictCodes = ['blank', 'outside', 'ambiguous', 'retired', 'not yet valid', 'no longer valid', 'wrong kind', 'length', 'forbidden character'] as const;
export type VerdictCode = (typeof verdictCodes)[number];

export type Verdict =
  | {
      readonly verdict: 'taken';
      /** What to store; an empty text makes the cell blank. */
      readonly value: string;
      /** Set when the value was found under another spelling: what to tell. */
      readonly corrected?: string;
    }
  | { readonly verdict: 'refused'; readonly code: VerdictCode; readonly message: string; readonly suggestions: readonly string[] };

/** Whether a stored value is right as it stands. */
export type Standing = { readonly right: true } | { readonly right: false; readonly code: VerdictCode; readonly message: string };

/** A part of the rule sentence; `edits` names what a click on it changes. */
export interface SentencePart {
  readonly text: string;
  readonly edits?: RulePart;
}
export const ruleParts = ['catalogId', 'mayBeBlank', 'others', 'hint', 'refusalText'] as const;
export type RulePart = (typeof ruleParts)[number];

export interface RuleKind<R extends Rule> {
  readonly kind: R['kind'];
  /** Judges what someone types; the text is already free of forbidden characters. */
  judge(rule: R, text: string, field: JudgedField, context: JudgeContext): Verdict;
  /** Judges what is stored; never rewrites it. Blank cells hold nothing and are right. */
  stands(rule: R, value: string, field: JudgedField, context: JudgeContext): Standing;
  sentence(rule: R, titles: ReadonlyMap<string, string>): readonly SentencePart[];
}
