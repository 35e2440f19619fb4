// The headings of a table of the application.
import { Table } from '@chakra-ui/react';

/** A heading's words, and where they stand when that is not the start. */
export type ColumnHeading = readonly [words: string, align?: 'end'];

export function ColumnHeadings({ headings }: { headings: readonly ColumnHeading[] }) {
  return (
    <Table.Header>
      <Table.Row bg="transparent">
        {headings.map(([words, align]) => (
          <Table.ColumnHeader key={words} color="inkSoft" textAlign={align}>
            {words}
          </Table.ColumnHeader>
        ))}
      </Table.Row>
    </Table.Header>
  );
}
