// What messages call another field of the entry.
import type { FieldId } from '../registers/index.js';
import type { JudgeContext, RuleNames } from './models.js';

/** The heading of a field; its key where the context does not know it. */
export const headingOf = (key: FieldId, { fields }: Pick<JudgeContext, 'fields'>): string =>
  fields?.find((field) => field.key === key)?.heading ?? key;

export const namesIn = (context: JudgeContext): Pick<RuleNames, 'locale' | 'field'> => ({
  locale: context.locale,
  field: (key) => headingOf(key, context),
});
