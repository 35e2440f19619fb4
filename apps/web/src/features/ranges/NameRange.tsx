// Naming a range over the selected cells.
import { Box, Button, Heading, Stack, Text } from '@chakra-ui/react';
import type { RangeEnding } from '@dellum/core';
import { useState } from 'react';
import { isProblem, problemWords } from '../../api/problem.js';
import { FormField } from '../../frame/FormField.js';
import type { Block } from '../../grid/index.js';
import type { List } from '../sources/useList.js';
import { useMakeRangeMutation } from '../sources/sourcesApi.js';
import { EndChoice } from './EndChoice.js';

interface NameRangeProps {
  readonly list: List;
  readonly block: Block;
  done(): void;
}

export function NameRange({ list, block, done }: NameRangeProps) {
  const [name, setName] = useState('');
  const [ends, setEnds] = useState<RangeEnding>('last');
  const [fault, setFault] = useState<string>();
  const [make, { isLoading }] = useMakeRangeMutation();
  const entries = list.rowsOf(block).map(({ id }) => id);
  const save = async () => {
    setFault(undefined);
    const request = make({ name, registerId: list.register.id, field: list.fieldKey, entries, ends }).unwrap();
    try {
      await request;
    } catch (error) {
      return setFault(isProblem(error) ? (error.faults?.['name'] ?? error.detail) : problemWords(error));
    }
    await list.told(request);
    done();
  };
  const last = Math.min(block.bottom, list.entries.length - 1);
  return (
    <form
      noValidate
      onSubmit={(event) => {
        event.preventDefault();
        void save();
      }}
    >
      <Stack gap="2.5">
        <Box>
          <Heading as="h2" fontSize="md">
            Name these cells as a range
          </Heading>
          <Text color="inkSoft">
            {entries.length === 0 ? 'Select the cells it takes.' : `${list.register.title}, ${block.top === last ? `row ${block.top + 1}` : `rows ${block.top + 1} to ${last + 1}`}`}
          </Text>
        </Box>
        <FormField label="Name" value={name} fault={fault} onChange={(event) => setName(event.target.value)} />
        <EndChoice label="How the new range ends" ends={ends} onChoose={setEnds} />
        <Button type="submit" size="sm" alignSelf="start" loading={isLoading}>
          Name the range
        </Button>
      </Stack>
    </form>
  );
}
