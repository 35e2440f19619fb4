// What is given for a field: typed or chosen, told apart in every request. Browsers need this, and not its checks.
import type { Given } from '@dellum/core';

/** One of both, not both. */
export interface GivenMembers {
  readonly text?: string;
  readonly chosen?: string;
}

export const givenOf = ({ text, chosen }: GivenMembers): Given => (chosen === undefined ? { typed: text ?? '' } : { chosen });

/** As it travels. */
export const givenMembers = ({ typed, chosen }: Given): GivenMembers => (typed === undefined ? { chosen } : { text: typed });
