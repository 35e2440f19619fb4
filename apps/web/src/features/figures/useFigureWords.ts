// How the values of a figure are called, ordered and coloured: by their catalogs where they have one.
import {
  alphabetical,
  catalogIdOf,
  format,
  hasCatalog,
  itemColours,
  layFigure,
  listOrder,
  measuredIn,
  stands,
  valuesOf,
  type FigureDefinition,
  type FigureGroup,
  type FigureTable,
  type ItemColour,
  type Tally,
} from '@dellum/core';
import type { BuildView, Me, RegisterView } from '@dellum/contract';
import { useMemo } from 'react';
import { useCatalogs } from '../../data/useCatalogs.js';
import { itemOf, shownValue } from '../entries/shownValue.js';
import { reachable, reachedBy, type Reachable } from './paths.js';

/** What a value of a figure is, for line and legend. */
export interface ValueLook {
  readonly label: string;
  readonly colour: ItemColour;
  /** Held by entries although its rule does not find it right. */
  readonly outside: boolean;
  readonly blank: boolean;
}

export function useFigureWords(build: BuildView, register: RegisterView, definition: FigureDefinition, me: Me) {
  const { locale, today } = me.house;
  const paths = useMemo(() => reachable(build, register), [build, register]);
  const by = useMemo(() => definition.by.map((path) => reachedBy(paths, path)), [paths, definition.by]);
  const catalogs = useCatalogs(by.flatMap((reached) => catalogIdOf(reached?.field.rule ?? null) ?? []));
  const orders = useMemo(() => {
    const natural = alphabetical(locale.language);
    return by.map((reached) => listOrder(valuesOf(reached?.field.rule ?? null, catalogs) ?? [], natural));
  }, [by, catalogs, locale.language]);

  const lookOf = (depth: number, value: string, place: number): ValueLook => {
    const field = by[depth]?.field;
    const colour = itemColours[place % itemColours.length]!;
    if (value === '') return { label: 'blank', colour: 'slate', outside: false, blank: true };
    if (!field) return { label: value, colour, outside: false, blank: false };
    const known = hasCatalog(field, catalogs);
    const outside = known && !stands(field, value, { locale, catalogs, today }).right;
    return {
      label: shownValue(field, value, catalogs, locale),
      colour: itemOf(field, value, catalogs, locale)?.colour ?? colour,
      outside,
      blank: false,
    };
  };
  const timeWords = (first: string): string => {
    if (first === '' || !definition.time) return 'blank';
    const { step } = definition.time;
    const inWords = (options: Intl.DateTimeFormatOptions) =>
      new Intl.DateTimeFormat(locale.language, { timeZone: 'UTC', ...options }).format(new Date(`${first}T00:00:00Z`));
    if (step === 'year') return first.slice(0, 4);
    if (step === 'month') return inWords({ month: 'short', year: 'numeric' });
    return step === 'week' ? `from ${format('date', first, locale)}` : format('date', first, locale);
  };
  const measured = definition.of ? reachedBy(paths, definition.of) : undefined;
  /** The measured number as it is, without the signs of the house: for files that programs read. */
  const plainNumber = (tally: Tally | undefined): string => (tally && measuredIn(tally, definition.measure)) ?? '';
  /** What a tally shows, in the notation of the house; blank where there is nothing. */
  const numberWords = (tally: Tally | undefined): string => {
    const number = tally && measuredIn(tally, definition.measure);
    if (number === undefined) return '';
    return format(definition.measure === 'count' || !measured ? 'number' : measured.field.kind, number, locale);
  };
  const table = (groups: readonly FigureGroup[]): FigureTable => layFigure(groups, orders, definition.time?.step ?? null);
  return { paths, by: by as readonly (Reachable | undefined)[], lookOf, timeWords, plainNumber, numberWords, table };
}
export type FigureWords = ReturnType<typeof useFigureWords>;
