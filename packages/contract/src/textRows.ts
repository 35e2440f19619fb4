// Rows of texts: a block as it is pasted, light enough for tens of thousands of rows.
import { ValidateBy } from 'class-validator';

const isRow = (row: unknown, columns: number): boolean =>
  Array.isArray(row) && row.length <= columns && row.every((text) => typeof text === 'string');

/** An array of rows, each an array of texts of at most `columns`. */
export const IsTextRows = (rows: number, columns: number): PropertyDecorator =>
  ValidateBy({
    name: 'isTextRows',
    validator: {
      validate: (value: unknown) => Array.isArray(value) && value.length <= rows && value.every((row) => isRow(row, columns)),
      defaultMessage: () => `Send rows of texts: at most ${rows.toLocaleString('en-GB')} rows of ${columns} texts.`,
    },
  });
