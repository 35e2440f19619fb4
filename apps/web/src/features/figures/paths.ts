// The fields that a figure can look at: those of the register, and those of the entries that its fields name.
import { hasList, type FigureDefinition, type FigurePath } from '@dellum/core';
import type { BuildView, FieldView, RegisterView } from '@dellum/contract';

export interface Reachable {
  readonly path: FigurePath;
  readonly field: FieldView;
  /** "Broker of Vessel". */
  readonly name: string;
}

export const registersOf = (build: BuildView): readonly RegisterView[] => build.sheets.flatMap(({ registers }) => registers);

/** Everything that can be reached from a register, its own fields first. */
export function reachable(build: BuildView, register: RegisterView): readonly Reachable[] {
  const own = register.fields.map((field): Reachable => ({ path: { field: field.key, through: null }, field, name: field.heading }));
  const linked = register.fields.flatMap((link) =>
    build.links
      .filter(({ fieldId }) => fieldId === link.id)
      .flatMap(({ registerId }) => {
        const other = registersOf(build).find(({ id }) => id === registerId);
        return (other?.fields ?? []).map((field): Reachable => ({
          path: { field: field.key, through: { link: link.key, registerId } },
          field,
          name: `${field.heading} of ${link.heading}`,
        }));
      }),
  );
  return [...own, ...linked];
}

export const pathKey = ({ field, through }: FigurePath): string => (through ? `${through.link}>${through.registerId}>${field}` : field);

export const reachedBy = (paths: readonly Reachable[], path: FigurePath): Reachable | undefined =>
  paths.find((known) => pathKey(known.path) === pathKey(path));

/** A figure to begin with: the entries by the first field that has a list. */
export function newFigure(register: RegisterView): FigureDefinition {
  const first = register.fields.find(({ rule }) => hasList(rule)) ?? register.fields[0];
  return {
    registerId: register.id,
    by: first ? [{ field: first.key, through: null }] : [],
    time: null,
    measure: 'count',
    of: null,
    only: [],
    chart: 'bars',
  };
}
