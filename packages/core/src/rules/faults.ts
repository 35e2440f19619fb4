// What makes a rule impossible or pointless, said while it is written.
import { judge } from './judge.js';
import { kindOf } from './kinds.js';
import type { FaultContext, JudgedField, Rule, RuleFault } from './models.js';

/** True for a fault that leaves a rule which cannot even be read; the others are said, and the rule may be set. */
export const forbidsRule = ({ part }: RuleFault): boolean =>
  part === 'kind' || part === 'pattern' || part === 'expression' || part === 'others';

/** The faults of a rule on its field: bounds the wrong way round, an empty list, a beginning that it refuses itself. */
export function ruleFaults(rule: Rule, field: JudgedField, context: FaultContext): readonly RuleFault[] {
  const kind = kindOf(rule.kind);
  if (!kind.fits.includes(field.kind)) return [{ part: 'kind', message: `A field of this kind cannot take ${kind.title}.` }];
  if (rule.kind !== 'catalog' && (rule.others === 'request' || rule.others === 'add'))
    return [{ part: 'others', message: 'Only a rule that takes its values from a catalog can ask for new ones, or add them.' }];
  const own = kind.faults(rule, field, context);
  if (own.length > 0) return own;
  if (rule.noRepeats && (rule.begins.with === 'value' || rule.begins.with === 'above'))
    return [
      {
        part: 'begins',
        message: 'New entries would all begin with the same value, and no value may stand twice here. Let them begin empty.',
      },
    ];
  if (rule.begins.with !== 'value') return own;
  const begun = judge(
    { ...field, rule: { ...rule, where: null, noRepeats: false } },
    { chosen: rule.begins.value },
    { locale: context.locale, catalogs: context.catalogs, designs: true, ...(context.today && { today: context.today }) },
  );
  return begun.verdict === 'refused'
    ? [{ part: 'begins', message: `A new entry would begin with “${rule.begins.value}”, which the rule itself does not take.` }]
    : [];
}
