// What a workbook has besides its entries, whatever the standard: the sheet of lists, and the sheet that says what it is about.
import { freeSheetIn, type Book } from '@dellum/core';

export const listsSheet = 'Lists';
export const aboutSheet = 'About';

/** The title of the sheet of entries. */
export const entriesSheet = ({ sheets }: Book): string => freeSheetIn(sheets[0]!.title, [listsSheet, aboutSheet]);

/** Each list has two columns: what its values stand under, and the values; counted from 0. */
export const placeOf = (list: number) => ({ key: list * 2, value: list * 2 + 1 });

export interface About {
  readonly house: string;
  readonly title: string;
  /** When, as it is said. */
  readonly at: string;
  readonly by: string;
}

/** What the sheet About says, line by line. */
export function aboutLines({ sheets, lists, lost }: Book, { house, title, at, by }: About): readonly string[] {
  const [mark] = sheets.map((sheet) => sheet.mark);
  return [
    `${title} of ${house}, ${at}, by ${by}.`,
    ...(mark === undefined
      ? []
      : [
          'Change what is wrong, write new rows below the others, and bring the file back on the page “In and out”. Rows may be sorted, columns moved.',
        ]),
    ...(lists.length > 0
      ? ['A value that is added below a list on the sheet Lists is offered, too; one that stands under others, beside those of the same.']
      : []),
    ...(lost.length > 0 ? ['What is not done here as in Dellum:'] : []),
    ...lost.map(({ heading, what }) => `${heading} ${what}.`),
    ...(mark === undefined ? [] : [mark]),
  ];
}

/** The last row of a sheet in programs of both standards. */
export const lastRow = 1_048_576;
/** So many entries fit under the headings of one sheet. */
export const mostRows = lastRow - 1;
