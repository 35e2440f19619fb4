// Where a rule stands: what its editors need to know beside the rule itself.
import { partReads, type Rule, type RuleNames } from '@dellum/core';
import { levelNames } from './levels.js';
import { plainNames, type NamedIn } from './plainNames.js';
import type { BuildView, FieldView, Me, RegisterView } from '@dellum/contract';

export interface RulePlace {
  readonly field: FieldView;
  readonly register: RegisterView;
  readonly build: BuildView;
  readonly me: Me;
}

/** An editor of one part of a rule. */
export interface RulePartProps<R extends Rule = Rule> {
  readonly rule: R;
  readonly place: RulePlace;
  choose(rule: Rule): void;
}

/** The heading of what comes along with the items of a catalog; its key where no list or table gives it. */
function companionHeading(build: BuildView, catalogId: string, key: string): string {
  const registers = build.sheets.flatMap((sheet) => sheet.registers);
  const parts = build.catalogs.find(({ id }) => id === catalogId)?.definition.parts ?? [];
  const ids = parts.flatMap((part) => {
    if (!('companions' in part) || !part.companions.includes(key)) return [];
    const { ranges = [], registers: read = [] } = partReads(part);
    const laid = build.ranges.filter(({ id }) => ranges.includes(id)).flatMap(({ stretches }) => stretches);
    return [...read, ...laid.map(({ registerId }) => registerId)];
  });
  return registers.find(({ id }) => ids.includes(id))?.fields.find((field) => field.key === key)?.heading ?? key;
}

/** How sentences call what a rule names. */
export const ruleNames = (place: NamedIn): RuleNames => ({
  ...plainNames(place),
  level: (catalogId, level) => {
    const names = levelNames(place.build, catalogId);
    return names[level ?? names.length - 1]?.toLowerCase();
  },
  companion: (catalogId, key) => companionHeading(place.build, catalogId, key),
});
