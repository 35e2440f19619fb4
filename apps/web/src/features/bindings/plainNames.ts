// How sentences call what a rule without a catalog names: its kind, other fields. Sheets need no more of it in their headings.
import type { FieldId, RuleNames } from '@dellum/core';
import type { BuildView, FieldView, Me, RegisterView } from '@dellum/contract';

export interface NamedIn {
  readonly field?: FieldView;
  readonly register: RegisterView;
  readonly build: BuildView;
  readonly me: Me;
}

export const plainNames = ({ field, register, build, me }: NamedIn): RuleNames => ({
  several: field?.kind === 'several values',
  ...(field && { kind: field.kind }),
  locale: me.house.locale,
  catalog: (id) => build.catalogs.find((catalog) => catalog.id === id)?.title ?? 'a catalog',
  field: (key: FieldId) => register.fields.find((known) => known.key === key)?.heading ?? key,
});
