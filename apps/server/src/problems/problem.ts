// Problem details (RFC 9457): what is thrown anywhere and answered to the caller.
import type { Problem, ProblemCode } from '@dellum/contract';

const titles: { readonly [Code in ProblemCode]: readonly [status: number, title: string] } = {
  'not-signed-in': [401, 'Not signed in'],
  'second-factor': [401, 'A second factor is needed'],
  'factor-needed': [403, 'A second factor must be set up'],
  'wrong-sign-in': [401, 'Sign-in name or password is wrong'],
  'too-many-tries': [429, 'Too many tries'],
  'too-many-requests': [429, 'Too many requests'],
  'no-token': [401, 'No good access token'],
  'not-acceptable': [406, 'In no such format'],
  'key-missing': [400, 'A key is missing'],
  'key-reused': [422, 'The key was used for something else'],
  'not-allowed': [403, 'Not allowed'],
  'entry-closed': [409, 'The entry is closed'],
  'other-origin': [403, 'From another origin'],
  'other-host': [421, 'Not a name of this server'],
  'json-only': [415, 'JSON only'],
  'malformed-body': [400, 'Malformed body'],
  'too-large': [413, 'Too large'],
  'not-valid': [422, 'Something is missing or unfit'],
  'not-found': [404, 'Not found'],
  'house-exists': [409, 'The house exists'],
  'name-taken': [409, 'The name is taken'],
  'name-unfit': [422, 'The name is unfit'],
  'no-cells': [422, 'No cells'],
  'in-use': [409, 'In use'],
  cycle: [409, 'It would feed itself'],
  'range-fixed': [409, 'The range ends at a fixed row'],
  'range-changed': [409, 'The range was changed meanwhile'],
  'catalog-changed': [409, 'The catalog was composed anew meanwhile'],
  'rule-changed': [409, 'The rule was set anew meanwhile'],
  'source-unreadable': [422, 'The source cannot be read'],
  'last-administrator': [409, 'The last administrator'],
  'value-refused': [422, 'The value is refused'],
  'cell-changed': [409, 'The cell was changed meanwhile'],
  'slip-open': [409, 'A slip is open'],
  'slip-changed': [409, 'The slip has changed'],
  'file-settled': [409, 'The file is settled, or being read'],
  'carry-under-way': [409, 'A correction is under way'],
  'kind-unfit': [422, 'The kind does not fit'],
  'form-faulty': [422, 'The form has faults'],
  'form-refused': [422, 'Answers are refused'],
  'form-changed': [409, 'The form was changed meanwhile'],
  'form-closed': [410, 'The form is closed'],
  'link-limit': [429, 'Too many entries in an hour'],
  'database-away': [503, 'The database is away'],
  busy: [503, 'Busy'],
  'disk-full': [503, 'The disk is full'],
  internal: [500, 'Something went wrong'],
};

type Extras = Pick<Problem, 'faults' | 'verdict' | 'suggestions' | 'mayConfirm' | 'current' | 'answers' | 'users'>;

/** Thrown by services; the filter answers it as problem+json. */
export class ProblemError extends Error {
  constructor(
    readonly code: ProblemCode,
    readonly detail: string,
    readonly extras: Extras = {},
  ) {
    super(detail);
  }

  get status(): number {
    return titles[this.code][0];
  }

  toProblem(): Problem {
    const [status, title] = titles[this.code];
    return { type: `urn:dellum:problem:${this.code}`, title, status, detail: this.detail, code: this.code, ...this.extras };
  }
}

/** A thing of another house does not exist for this one. */
export const notFound = (what: string): ProblemError =>
  new ProblemError('not-found', `${what} is not there. It may have been deleted; go back and choose again.`);
