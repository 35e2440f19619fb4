// Naming a range over the selected cells: its name, how the cells are read, how it ends.
import { Box, Checkbox, Heading, NativeSelect, Stack, Text } from '@chakra-ui/react';
import { freeAmong, shapeInShort, type RangeEnding, type RangeShape } from '@dellum/core';
import type { BuildView, RangePlaceDto } from '@dellum/contract';
import { useState } from 'react';
import { faultWords } from '../../data/problem.js';
import { ActButton } from '../../frame/ActButton.js';
import { FormField } from '../../frame/FormField.js';
import type { Block } from '../../grid/index.js';
import type { SourceRegister } from '../acts/useRegister.js';
import { EndChoice } from './EndChoice.js';
import { useMakeRangeMutation } from '../../data/rangesApi.js';

interface NameRangeProps {
  readonly source: SourceRegister;
  readonly build: BuildView;
  readonly block: Block;
  done(): void;
}

/** Where a range of this shape lies when these cells are selected. */
export function placeOf(source: SourceRegister, build: BuildView, block: Block, shape: RangeShape): RangePlaceDto {
  const { register } = source;
  if (shape === 'headings') {
    const lists = build.sheets.find(({ id }) => id === register.sheetId)!.registers.filter(({ fields }) => fields.length === 1);
    return { registerIds: lists.map(({ id }) => id), fields: [], entries: [] };
  }
  const fields = source.fieldsOf(block).map(({ key }) => key);
  return {
    registerIds: [register.id],
    fields: shape === 'list' ? fields.slice(0, 1) : fields,
    entries: source.rowsOf(block).map(({ id }) => id),
  };
}

function where(source: SourceRegister, block: Block): string {
  const last = Math.min(block.bottom, source.entries.length - 1);
  if (last < block.top) return 'Select the cells it takes.';
  const fields = source.isList
    ? source.register.title
    : source
        .fieldsOf(block)
        .map(({ heading }) => heading)
        .join(' › ');
  return `${fields}, ${block.top === last ? `row ${block.top + 1}` : `rows ${block.top + 1} to ${last + 1}`}`;
}

export function NameRange({ source, build, block, done }: NameRangeProps) {
  const [name, setName] = useState(() =>
    freeAmong(
      source.register.title,
      build.ranges.map((range) => range.name),
    ),
  );
  const [ends, setEnds] = useState<RangeEnding>('last');
  const [inherits, setInherits] = useState(false);
  const [chosen, setShape] = useState<RangeShape>();
  const [refused, setRefused] = useState<{ readonly at: string; readonly words: string }>();
  const [make, { isLoading }] = useMakeRangeMutation();
  const shapes: readonly RangeShape[] = source.isList ? ['list', 'headings'] : ['list', 'levels'];
  const wide = block.right > block.left && !source.isList;
  const shape = chosen && shapes.includes(chosen) ? chosen : wide ? 'levels' : 'list';
  // What was refused of other cells, or under another name, is not refused of these.
  const at = JSON.stringify([block, name, shape]);
  const fault = refused?.at === at ? refused.words : undefined;
  const save = async () => {
    setRefused(undefined);
    const request = make({ name, shape, inherits, place: placeOf(source, build, block, shape), ends }).unwrap();
    try {
      await request;
    } catch (error) {
      return setRefused({ at, words: faultWords(error, 'name') });
    }
    await source.told(request);
    done();
  };
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
            {shape === 'headings' ? 'All lists of this sheet: headings and what stands under them' : where(source, block)}
          </Text>
        </Box>
        <FormField label="Name" value={name} fault={fault} onChange={(event) => setName(event.target.value)} />
        <Stack gap="1">
          <Text asChild fontWeight="medium">
            <label htmlFor="range-shape">How it is read</label>
          </Text>
          <NativeSelect.Root size="sm">
            <NativeSelect.Field id="range-shape" value={shape} onChange={(event) => setShape(event.target.value as RangeShape)}>
              {shapes.map((one) => (
                <option key={one} value={one}>
                  {shapeInShort(one)}
                </option>
              ))}
            </NativeSelect.Field>
            <NativeSelect.Indicator />
          </NativeSelect.Root>
        </Stack>
        {shape === 'levels' && (
          <Checkbox.Root size="sm" checked={inherits} onCheckedChange={(details) => setInherits(details.checked === true)}>
            <Checkbox.HiddenInput />
            <Checkbox.Control borderColor="slate.border" />
            <Checkbox.Label>A blank group means the same as above</Checkbox.Label>
          </Checkbox.Root>
        )}
        <EndChoice label="How the new range ends" ends={ends} onChoose={setEnds} />
        <ActButton variant="solid" type="submit" size="sm" alignSelf="start" loading={isLoading}>
          Name the range
        </ActButton>
      </Stack>
    </form>
  );
}
