// Which column of a file is which field of which sheet.
import { Box, Stack, Table, Text } from '@chakra-ui/react';
import type { BuildView, ReturnedFileView } from '@dellum/contract';
import { useState } from 'react';
import { useSetReturnedColumnsMutation } from '../../data/returnedApi.js';
import { ActButton } from '../../frame/ActButton.js';
import { Select } from '../../frame/Select.js';
import { useTry } from '../../frame/useNotice.js';

const none = '';

export function ReturnedColumns({ file, build }: { file: ReturnedFileView; build: BuildView }) {
  const registers = build.sheets.filter(({ kind }) => kind === 'entry').flatMap((sheet) => sheet.registers.filter(({ enters }) => enters));
  const [registerId, setRegisterId] = useState(file.registerId ?? none);
  const [chosen, setChosen] = useState<ReadonlyMap<number, string | null>>(new Map(file.columns.map(({ at, field }) => [at, field])));
  const [send, { isLoading }] = useSetReturnedColumnsMutation();
  const attempt = useTry();
  const register = registers.find(({ id }) => id === registerId);
  const taken = [...chosen.values()];

  const choose = (id: string) => {
    setRegisterId(id);
    const fields = registers.find((known) => known.id === id)?.fields ?? [];
    const named = (heading: string) => fields.find((field) => field.heading.toLowerCase() === heading.trim().toLowerCase())?.key ?? null;
    setChosen(new Map(file.columns.map(({ at, heading }) => [at, named(heading)])));
  };
  const compare = () =>
    attempt(send({ id: file.id, registerId, columns: file.columns.map(({ at }) => ({ at, field: chosen.get(at) ?? null })) }).unwrap());
  return (
    <Stack gap="3" maxW="620px" role="region" aria-label="Columns of the file">
      {/* A file with a mark says so itself. */}
      {!file.known && (
        <Box maxW="300px">
          <Text fontWeight="bold" mb="1">
            Of which sheet is it?
          </Text>
          <Select label="Sheet" value={registerId} options={registers.map(({ id, title }) => [id, title])} onChoose={choose} />
        </Box>
      )}
      {register && (
        <>
          <Text fontWeight="bold">Which column is which field?</Text>
          <Table.Root size="sm" aria-label="Columns">
            <Table.Header>
              <Table.Row>
                <Table.ColumnHeader w="50%">Column of the file</Table.ColumnHeader>
                <Table.ColumnHeader>Field of {register.title}</Table.ColumnHeader>
              </Table.Row>
            </Table.Header>
            <Table.Body>
              {file.columns.map(({ at, heading }) => (
                <Table.Row key={at}>
                  <Table.Cell overflowWrap="anywhere">{heading}</Table.Cell>
                  <Table.Cell>
                    <Select
                      label={`Field for ${heading}`}
                      value={chosen.get(at) ?? none}
                      options={[
                        [none, 'not read'],
                        ...register.fields
                          .filter(({ key }) => chosen.get(at) === key || !taken.includes(key))
                          .map(({ key, heading: words }) => [key, words] as const),
                      ]}
                      onChoose={(key) => setChosen(new Map(chosen).set(at, key === none ? null : key))}
                    />
                  </Table.Cell>
                </Table.Row>
              ))}
            </Table.Body>
          </Table.Root>
          <Text color="inkSoft" fontSize="sm">
            {file.intake
              ? 'Rows that fit are stored at once. The next file with these headings comes in by itself.'
              : 'It is remembered for the next file with these headings.'}
          </Text>
          <ActButton
            variant="solid"
            size="sm"
            alignSelf="start"
            loading={isLoading}
            disabled={taken.every((field) => field === null)}
            onClick={() => void compare()}
          >
            {file.intake ? 'Take it in' : 'Compare'}
          </ActButton>
        </>
      )}
    </Stack>
  );
}
