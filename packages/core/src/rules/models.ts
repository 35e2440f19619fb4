// A rule: all that a field accepts. A discriminated union lists the kinds; each kind is one file and one object.
import type { Catalog, Comparison, Filter } from '../catalogs/index.js';
import type { Cells, FieldId, RegisterField } from '../registers/index.js';
import type { FieldKind, Locale } from '../values/index.js';
import type { Given } from './given.js';
import type { Language } from './languages.js';

/** What happens to a value that the rule does not take. */
export const otherValues = ['refuse', 'confirm', 'request', 'add', 'accept'] as const;
export type OtherValues = (typeof otherValues)[number];

/** What the cell of a new entry holds at first. */
export const beginnings = ['empty', 'value', 'today', 'above'] as const;
export interface Begins {
  readonly with: (typeof beginnings)[number];
  /** For `value`: the stored value. */
  readonly value: string;
}

/** What every rule says, whatever it takes. */
export interface RuleBase {
  readonly mayBeBlank: boolean;
  readonly others: OtherValues;
  /** Shown when the field gets the focus; empty for none. */
  readonly hint: string;
  /** What stands over the hint; absent for none. */
  readonly hintTitle?: string;
  /** Said when a value breaks the rule; empty for Dellum's own words. `{value}` and `{field}` stand for what was typed and the heading. */
  readonly refusalText: string;
  readonly begins: Begins;
  /** No two entries of the register hold the same value. */
  readonly noRepeats: boolean;
  /** Only administrators change the field; whoever enters data sees it. */
  readonly readOnly?: boolean;
  /** The rule holds only for entries that pass this; others take whatever their kind takes. */
  readonly where: Filter | null;
}

export const searches = ['anywhere', 'starts'] as const;
/** How a list is picked from. */
export interface Picking {
  /** False: typed without a list. */
  readonly list: boolean;
  readonly search: (typeof searches)[number];
  /** How many lines the list opens. */
  readonly lines: number;
  /** Of several values: so many at most; null for any number. */
  readonly most: number | null;
}

/** What happens in a field whose parent is blank: nothing is offered, or everything, and the parents are filled. */
export const blankParents = ['nothing', 'all'] as const;
/** What becomes of a value that does not fit the changed choice above it. */
export const misfits = ['clear', 'keep'] as const;

/** Only items whose companion compares so with another field of the entry are offered. */
export interface Fitting {
  readonly companion: string;
  readonly is: Comparison;
  readonly field: FieldId;
}
/** A companion of the chosen item that is brought along into another field. */
export interface Brings {
  readonly companion: string;
  readonly field: FieldId;
}

export interface CatalogRule extends RuleBase {
  readonly kind: 'catalog';
  readonly catalogId: string;
  /** The level, counted from 0; null for the deepest. */
  readonly level: number | null;
  /** The fields that hold the parents, outermost first; none where all of the level is offered. */
  readonly parents: readonly FieldId[];
  readonly blankParent: (typeof blankParents)[number];
  readonly misfit: (typeof misfits)[number];
  /** A single choice is filled in by itself. */
  readonly fillsSingle: boolean;
  /** The date field whose day decides what is offered; null for today. */
  readonly day: FieldId | null;
  readonly fitting: readonly Fitting[];
  readonly brings: readonly Brings[];
  readonly picking: Picking;
}
export interface TypedRule extends RuleBase {
  readonly kind: 'typed';
  readonly values: readonly string[];
  readonly picking: Picking;
}

/** A day, or one that is so many days after (before, when negative) today or the date in another field. */
export type DayBound =
  | { readonly of: 'day'; readonly day: string }
  | { readonly of: 'today'; readonly plus: number }
  | { readonly of: 'field'; readonly field: FieldId; readonly plus: number };
/** A date within two bounds, both included; an end left out is open. */
export interface DateRule extends RuleBase {
  readonly kind: 'date';
  readonly from: DayBound | null;
  readonly until: DayBound | null;
}

export type NumberBound = { readonly of: 'number'; readonly number: string } | { readonly of: 'field'; readonly field: FieldId };
/** A number or percentage within two bounds, both included. */
export interface NumberRule extends RuleBase {
  readonly kind: 'number';
  readonly least: NumberBound | null;
  readonly most: NumberBound | null;
  /** Digits after the decimal mark at most; 0 for whole numbers, null for any. */
  readonly decimals: number | null;
}
/** A text of so many characters (grapheme clusters: what people count as characters). */
export interface LengthRule extends RuleBase {
  readonly kind: 'length';
  readonly least: number | null;
  readonly most: number | null;
}
/** A text that matches a regular expression (RE2 syntax, which cannot run away) as a whole. */
export interface PatternRule extends RuleBase {
  readonly kind: 'pattern';
  readonly pattern: string;
  /** Texts of which the pattern was made, shown in the sentence. */
  readonly examples: readonly string[];
}
/** A value for which an expression of the Common Expression Language is true. */
export interface ExpressionRule extends RuleBase {
  readonly kind: 'expression';
  readonly expression: string;
  /** Said where it is not true; empty for Dellum's own words. */
  readonly message: string;
}
/** Whatever the kind of the field takes, with all that a rule can say besides. */
export interface PlainRule extends RuleBase {
  readonly kind: 'plain';
}

export type Rule = CatalogRule | TypedRule | DateRule | NumberRule | LengthRule | PatternRule | ExpressionRule | PlainRule;
export type RuleOf<Kind extends Rule['kind']> = Extract<Rule, { kind: Kind }>;

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
  /** The entry as it is otherwise; what depends on other fields is not looked at without it. */
  readonly entry?: Cells;
  /** The fields of the register, for their headings. */
  readonly fields?: readonly RegisterField[];
  /** Whether another entry of the register holds this value. */
  readonly repeats?: (value: string) => boolean;
  /** True in a form, where a field that is left blank was answered so. */
  readonly answering?: boolean;
  /** True for an administrator, who may change what others only see. */
  readonly designs?: boolean;
  /** True when whoever types has confirmed that the value is meant. */
  readonly confirmed?: boolean;
  /** Suggestions cost time and are computed only when asked for. */
  readonly suggest?: boolean;
}

export const verdictCodes = [
  'blank',
  'outside',
  'ambiguous',
  'retired',
  'not yet valid',
  'no longer valid',
  'parent blank',
  'parent outside',
  'not under parent',
  'condition',
  'wrong kind',
  'too small',
  'too large',
  'too early',
  'too late',
  'length',
  'pattern',
  'too many',
  'repeat',
  'forbidden character',
  'read only',
  'closed',
] as const;
export type VerdictCode = (typeof verdictCodes)[number];

export type Verdict =
  | {
      readonly verdict: 'taken';
      /** What to store; an empty text makes the cell blank. */
      readonly value: string;
      /** Set when the value was found under another spelling: what to tell. */
      readonly corrected?: string;
      /** The parents that go with it, where they were blank and only one way leads to the value. */
      readonly fills?: Readonly<Record<FieldId, string>>;
    }
  /** Stored as it was typed and outside, while the steward of the catalog is asked for the value. `near`: what may have been meant. */
  | {
      readonly verdict: 'requested';
      readonly value: string;
      readonly newValues: readonly string[];
      readonly code: VerdictCode;
      readonly message: string;
      readonly near?: readonly string[];
    }
  /** Taken, once its new values are written into the source of the catalog. */
  | {
      readonly verdict: 'added';
      readonly value: string;
      readonly newValues: readonly string[];
      readonly message: string;
      readonly near?: readonly string[];
    }
  /** Stored as it was typed, and outside. */
  | { readonly verdict: 'marked'; readonly value: string; readonly code: VerdictCode; readonly message: string }
  | {
      readonly verdict: 'refused';
      readonly code: VerdictCode;
      readonly message: string;
      readonly suggestions: readonly string[];
      /** True when it is stored once whoever types says that it is meant. */
      readonly mayConfirm?: boolean;
    };

/** What a kind of rule finds in a text: the value to store, or what is wrong with it. */
export type Judgment =
  | {
      readonly right: true;
      readonly value: string;
      readonly corrected?: string;
      readonly fills?: Readonly<Record<FieldId, string>>;
      /** Of several values: what is said of the first one that is outside and stays because the cell holds it. */
      readonly marked?: Extract<Judgment, { right: false }>;
    }
  | { readonly right: false; readonly code: VerdictCode; readonly message: string; readonly suggestions?: readonly string[] };

/** Whether a stored value is right as it stands. */
export type Standing = { readonly right: true } | { readonly right: false; readonly code: VerdictCode; readonly message: string };

/** A part of the rule sentence; `edits` names what a click on it changes. */
export interface SentencePart {
  readonly text: string;
  readonly edits?: RulePart;
}
export const ruleParts = [
  'kind',
  'level',
  'catalog',
  'parents',
  'values',
  'bounds',
  'pattern',
  'expression',
  'mayBeBlank',
  'noRepeats',
  'readOnly',
  'others',
  'hint',
  'refusalText',
  'begins',
  'where',
  'day',
  'fitting',
  'brings',
  'picking',
] as const;
export type RulePart = (typeof ruleParts)[number];

/** How the sentence calls what the rule names. */
export interface RuleNames {
  readonly locale: Locale;
  /** True where the field holds several values. */
  readonly several?: boolean;
  /** The kind of the field: its values are shown in the way of the house. */
  readonly kind?: FieldKind;
  /** What the values of a level are called: "region"; undefined where they have no name of their own. */
  level?(catalogId: string, level: number | null): string | undefined;
  /** The heading of what comes along with the items of a catalog; its key where that is not known. */
  companion?(catalogId: string, key: string): string;
  catalog(id: string): string;
  field(key: FieldId): string;
}

/** What makes a rule impossible or pointless, said while it is written. */
export interface RuleFault {
  readonly part: RulePart;
  readonly message: string;
}

/** What a rule is examined against. */
export interface FaultContext extends JudgeContext {
  /** The rules of the register's fields, by key. */
  readonly rules: ReadonlyMap<FieldId, Rule | null>;
}

/** A check that programs of the open standards for workbooks make by themselves. */
export type PlainCheck =
  | {
      readonly of: 'list';
      readonly catalogId: string;
      readonly level: number | null;
      readonly parents: readonly FieldId[];
      /** The date field whose day decides what is offered; null for today. */
      readonly day: FieldId | null;
    }
  | { readonly of: 'values'; readonly values: readonly string[] }
  | { readonly of: 'days'; readonly from: DayBound | null; readonly until: DayBound | null }
  | { readonly of: 'numbers'; readonly least: NumberBound | null; readonly most: NumberBound | null; readonly whole: boolean }
  | { readonly of: 'length'; readonly least: number | null; readonly most: number | null }
  /** A regular expression (RE2 syntax) that a text matches as a whole. */
  | { readonly of: 'pattern'; readonly pattern: string };

/** What of a rule can be checked elsewhere, and what cannot: each said after the heading of the field. */
export interface Checkable {
  readonly check: PlainCheck | null;
  readonly lost: readonly string[];
}

export interface RuleKind<R extends Rule> {
  readonly kind: R['kind'];
  /** What it is called where one chooses it. */
  readonly title: string;
  /** What it says of its own while nothing is set yet. */
  readonly asNew: Omit<R, keyof RuleBase | 'kind'>;
  /** The kinds of field it can be set on. */
  readonly fits: readonly FieldKind[];
  /** The language in which it is written. */
  readonly language?: Language;
  /** Judges what someone types or chooses; it is not blank and free of forbidden characters. */
  judge(rule: R, given: Given, field: JudgedField, context: JudgeContext): Judgment;
  /** Judges what is stored; never rewrites it. Blank cells hold nothing and are right. */
  stands(rule: R, value: string, field: JudgedField, context: JudgeContext): Standing;
  /** What it takes, after "Takes". */
  takes(rule: R, names: RuleNames): readonly SentencePart[];
  faults(rule: R, field: JudgedField, context: FaultContext): readonly RuleFault[];
  /** What other programs can check of it. */
  checkable(rule: R): Checkable;
  /** The other fields of the entry that its verdict depends on. */
  reads(rule: R): readonly FieldId[];
  /** The catalog that its values come from. */
  catalogId?(rule: R): string;
  /** Its list, whatever the parents; undefined while its catalog is not there. */
  list?(rule: R, kind: FieldKind, context: Pick<JudgeContext, 'catalogs' | 'locale'>): Catalog | undefined;
  /** The values of its list, in its order. */
  values?(rule: R, catalogs: JudgeContext['catalogs']): readonly string[] | undefined;
  /** How its list is picked from. */
  picking?(rule: R): Picking;
  /** The fields that hold the parents, outermost first. */
  parents?(rule: R): readonly FieldId[];
  /** What a chosen value brings into other fields. */
  brings?(rule: R): readonly Brings[];
  /** Whether a choice fills blank parents. */
  fillsUp?(rule: R): boolean;
  /** Whether a single choice is filled in by itself. */
  fillsItself?(rule: R): boolean;
  /** Bounds that are numbers, not other fields. */
  bounds?(rule: R): { readonly least?: string; readonly most?: string };
  /** What its sentence can say besides what every rule can. */
  readonly parts?: readonly RulePart[];
}
