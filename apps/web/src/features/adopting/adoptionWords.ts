// What is said of proposals, in words.
import {
  boundsRule,
  ruleTakes,
  takenFor,
  valuesInRule,
  type AdoptedKind,
  type FoundCheck,
  type HouseProposal,
  type ProposedColumn,
  type ProposedList,
} from '@dellum/core';
import { number, writing } from '../../frame/written.js';

const counted = (count: number, one: string, many: string): string => `${number.format(count)} ${count === 1 ? one : many}`;
export const rows = (count: number): string => counted(count, 'row', 'rows');
export const cells = (count: number): string => counted(count, 'cell', 'cells');

/** "3 values under 2 of Group". */
export function levelWords({ levels }: ProposedList): string {
  const deepest = counted(levels.at(-1)!.values.length, 'value', 'values');
  if (levels.length === 1) return deepest;
  const above = levels.slice(0, -1).map(({ heading, values }) => `${number.format(values.length)} of ${heading}`);
  return `${deepest} under ${above.reverse().join(' under ')}`;
}

/** The columns that take their values from a list. */
function columnsWords({ columns }: ProposedList, { tables }: HouseProposal): string {
  const names = columns.flatMap(({ table, at }) => {
    const own = tables.find(({ id }) => id === table);
    const column = own?.columns.find((one) => one.at === at);
    return own && column ? [`${column.heading} of ${own.title}`] : [];
  });
  return names.length > 3 ? `${names.slice(0, 2).join(', ')} and ${names.length - 2} more columns` : names.join(', ');
}

/** Where a list comes from, and which columns choose from it. */
export function whereWords(list: ProposedList, proposal: HouseProposal): string {
  const columns = columnsWords(list, proposal);
  if (list.catalog !== null) return columns === '' ? ', of the house' : `, of the house, for ${columns}`;
  const table = proposal.tables.find(({ id }) => id === list.home);
  if (!table) return `, found in ${columns}`;
  return columns === '' ? `, the table ${table.title}` : `, the table ${table.title}, for ${columns}`;
}

/**
 * Whether a column offers what the drop-down of its file offered without a list: in its rule, or since there is nothing else of its kind.
 */
function offersSo(check: FoundCheck, kind: AdoptedKind): boolean {
  if (valuesInRule(check, kind)) return true;
  const { taken } = check;
  return (
    kind === 'yes/no' &&
    taken !== null &&
    'values' in taken &&
    taken.values.every((value) => takenFor(kind, value, writing()) !== undefined)
  );
}

/** What the column is called that stands at a place. */
type HeadingAt = (place: string) => string;

/** What a column is checked against in its file, and what is wrong with that. */
export function checkWords(
  check: FoundCheck,
  { kind, list }: Pick<ProposedColumn, 'kind' | 'list'>,
  headingAt: HeadingAt,
): { readonly says: string; readonly wrong: readonly string[] } {
  const { taken, beyond } = check;
  const isOffered = list !== null || offersSo(check, kind);
  const missed = taken?.takes === 'column' ? taken.missed : 0;
  const [misnamed, missing] = taken?.takes === 'dependent' ? [taken.misnamed, taken.missing] : [[], []];
  return {
    says: taken ? takenWords(taken, headingAt) : 'a check that is not understood; only its words are taken over',
    wrong: [
      ...(!isOffered && (taken?.takes === 'typed' || taken?.takes === 'column' || taken?.takes === 'dependent')
        ? ['It is not taken over, since the column is in no list.']
        : []),
      ...(isOffered && missed > 0
        ? [`Its drop-down stopped short of ${counted(missed, 'value', 'values')} below it; all are offered from now on.`]
        : []),
      ...(isOffered && misnamed.length > 0
        ? [
            `It offered nothing under ${namesOf(misnamed)}: the name of its list is missing, or written otherwise. It is offered from now on.`,
          ]
        : []),
      ...(isOffered && missing.length > 0
        ? [`The file has no list for ${namesOf(missing)}; what stands beside it is offered, if anything does.`]
        : []),
      ...(beyond > 0 ? [`It did not reach ${rows(beyond)}; the rule holds for all.`] : []),
    ],
  };
}

/** The first of them, and how many more there are. */
function namesOf(values: readonly string[]): string {
  const shown = values.slice(0, 3).map((value) => `“${value}”`);
  return values.length > 3 ? `${shown.join(', ')} and ${number.format(values.length - 3)} more` : shown.join(', ');
}

function takenWords(taken: NonNullable<FoundCheck['taken']>, headingAt: HeadingAt): string {
  switch (taken.takes) {
    case 'typed':
      return 'a drop-down typed into the file';
    case 'column':
      return 'a drop-down of the file';
    case 'dependent':
      return 'a drop-down of the file that depends on another column';
    default: {
      const rule = boundsRule(taken);
      return rule ? ruleTakes(rule, { locale: writing(), field: headingAt, catalog: () => '' }) : '';
    }
  }
}

/** What will be stored, in numbers. */
export function outcomeWords({ tables, lists }: HouseProposal): string {
  const entered = tables.filter(({ wanted, use }) => wanted && use === 'entries');
  const made = lists.filter(({ wanted, catalog }) => wanted && catalog === null);
  const entriesIn = entered.reduce((sum, table) => sum + table.rows, 0);
  return [
    counted(entered.length, 'sheet', 'sheets'),
    `with ${counted(entriesIn, 'entry', 'entries')}`,
    `and ${counted(made.length, 'catalog', 'catalogs')}`,
    `of ${counted(
      made.reduce((sum, { levels }) => sum + levels.at(-1)!.values.length, 0),
      'value',
      'values',
    )}`,
  ].join(' ');
}

export const outsideIn = ({ tables }: HouseProposal): number =>
  tables
    .filter(({ wanted, use }) => wanted && use === 'entries')
    .flatMap(({ columns }) => columns)
    .reduce((sum, { wanted, outside }) => sum + (wanted ? outside : 0), 0);
export const unreadIn = ({ tables }: HouseProposal): number =>
  tables
    .filter(({ wanted }) => wanted)
    .flatMap(({ columns }) => columns)
    .reduce((sum, { wanted, unread }) => sum + (wanted ? (unread ?? 0) : 0), 0);
