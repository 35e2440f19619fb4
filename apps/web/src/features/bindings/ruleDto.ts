// A rule as it is sent: the same members, free to change.
import type { DayBound, NumberBound, Rule } from '@dellum/core';
import type { DayBoundDto, NumberBoundDto, RuleDto } from '@dellum/contract';
import { filterDto } from '../filters/filterDto.js';

const dayDto = (bound: DayBound | null): DayBoundDto | null => bound && { ...bound };
const numberDto = (bound: NumberBound | null): NumberBoundDto | null => bound && { ...bound };

function membersOf(rule: Rule): Partial<RuleDto> {
  switch (rule.kind) {
    case 'catalog': {
      const { catalogId, level, parents, blankParent, misfit, fillsSingle, day, fitting, brings, picking } = rule;
      return {
        catalogId,
        level,
        parents: [...parents],
        blankParent,
        misfit,
        fillsSingle,
        day,
        fitting: fitting.map((one) => ({ ...one })),
        brings: brings.map((one) => ({ ...one })),
        picking: { ...picking },
      };
    }
    case 'typed':
      return { values: [...rule.values], picking: { ...rule.picking } };
    case 'date':
      return { from: dayDto(rule.from), until: dayDto(rule.until) };
    case 'number':
      return { least: numberDto(rule.least), most: numberDto(rule.most), decimals: rule.decimals };
    case 'length':
      return { shortest: rule.least, longest: rule.most };
    case 'pattern':
      return { pattern: rule.pattern, examples: [...rule.examples] };
    case 'expression':
      return { expression: rule.expression, message: rule.message };
    case 'plain':
      return {};
  }
}

export function ruleDto(rule: Rule): RuleDto {
  const { kind, mayBeBlank, others, hint, hintTitle, refusalText, begins, noRepeats, readOnly, where } = rule;
  return {
    kind,
    mayBeBlank,
    others,
    hint,
    ...(hintTitle && { hintTitle }),
    refusalText,
    begins: { ...begins },
    noRepeats,
    ...(readOnly && { readOnly }),
    where: filterDto(where),
    ...membersOf(rule),
  };
}
