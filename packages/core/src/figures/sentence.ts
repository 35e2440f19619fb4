// A figure in one plain sentence.
import type { FigureDefinition, FigurePath, Measure } from './models.js';

const measureWords: { readonly [M in Exclude<Measure, 'count'>]: string } = {
  sum: 'The sum of',
  mean: 'The mean of',
  least: 'The least',
  most: 'The most',
};

/** "The sum of Volume, m³ by Kind of waste and Broker of Vessel, by month of Day." `nameOf` calls a path by its headings. */
export function figureSentence(
  { by, time, measure, of }: FigureDefinition,
  registerTitle: string,
  nameOf: (path: FigurePath) => string,
): string {
  const what =
    measure === 'count' || of === null
      ? `Entries of ${registerTitle}`
      : `${measureWords[measure as Exclude<Measure, 'count'>] ?? ''} ${nameOf(of)}`;
  const fields = by.length === 0 ? '' : ` by ${by.map(nameOf).join(' and ')}`;
  const when = time === null ? '' : `${fields === '' ? '' : ','} by ${time.step} of ${nameOf(time.path)}`;
  return `${what}${fields}${when}`;
}
