// Every error of the API is problem+json (RFC 9457) with one of these stable codes.
import type { VerdictCode } from '@dellum/core';
import type { AnswerFault } from './forms.js';

export const problemCodes = [
  'not-signed-in',
  'wrong-sign-in',
  'second-factor',
  'factor-needed',
  'too-many-tries',
  'too-many-requests',
  'no-token',
  'key-missing',
  'not-acceptable',
  'key-reused',
  'not-allowed',
  'entry-closed',
  'other-origin',
  'other-host',
  'json-only',
  'malformed-body',
  'too-large',
  'not-valid',
  'not-found',
  'house-exists',
  'name-taken',
  'name-unfit',
  'no-cells',
  'in-use',
  'cycle',
  'range-fixed',
  'range-changed',
  'catalog-changed',
  'rule-changed',
  'source-unreadable',
  'last-administrator',
  'value-refused',
  'cell-changed',
  'slip-open',
  'slip-changed',
  'file-settled',
  'carry-under-way',
  'kind-unfit',
  'form-faulty',
  'form-refused',
  'form-changed',
  'form-closed',
  'link-limit',
  'database-away',
  'busy',
  'disk-full',
  'internal',
] as const;
export type ProblemCode = (typeof problemCodes)[number];

/** RFC 9457 problem details with Dellum's extension members. */
export interface Problem {
  readonly type: string;
  readonly title: string;
  readonly status: number;
  /** What happened and what to do, to be shown as it is. */
  readonly detail: string;
  readonly code: ProblemCode;
  /** Per input field, what is wrong with it (`not-valid`). */
  readonly faults?: Readonly<Record<string, string>>;
  /** The judge's code and suggestions (`value-refused`). */
  readonly verdict?: VerdictCode;
  readonly suggestions?: readonly string[];
  /** The value is stored, marked, once the person says that it is meant. */
  readonly mayConfirm?: boolean;
  /** What the cell holds now and who put it there (`cell-changed`). */
  readonly current?: { readonly value: string; readonly version: number; readonly by: string };
  /** What is wrong with answers (`form-refused`). */
  readonly answers?: readonly AnswerFault[];
  /** What stands in the way (`in-use`). */
  readonly users?: readonly string[];
}
