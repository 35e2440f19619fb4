// A look at what a pasted block will bring in, before it comes in.
import { Box, Button, Checkbox, Heading, HStack, Stack, Table, Text } from '@chakra-ui/react';
import { lookAtPaste } from '@dellum/core';
import { useState } from 'react';
import type { Pasted } from './RegisterColumn.js';
import { actsOfBlock, columnTexts } from './sourceCells.js';
import type { SourceRegister } from './useRegister.js';

const number = new Intl.NumberFormat('en-GB');
const rowsShown = 8;

export function PasteSlip({ pasted, source, done }: { pasted: Pasted; source: SourceRegister; done: () => void }) {
  const { at } = pasted;
  const [skipHeadings, setSkipHeadings] = useState(pasted.look.headings);
  const [skipBlanks, setSkipBlanks] = useState(pasted.look.blanks > 0);
  const [busy, setBusy] = useState(false);
  const block = pasted.block.slice(skipHeadings ? 1 : 0).filter((row) => !skipBlanks || row.some((text) => text.trim() !== ''));
  const fields = source.register.fields.slice(at.column);
  const look = lookAtPaste(block, [], columnTexts(source, at.column));
  const tooWide = pasted.look.columns - fields.length;
  const over = Math.min(block.length, Math.max(0, source.entries.length - at.row));
  const bringIn = async () => {
    setBusy(true);
    const good = await source.act(...actsOfBlock(source, block, at));
    setBusy(false);
    if (good) done();
  };
  return (
    <Stack gap="3" role="region" aria-label="Pasted block">
      <Box>
        <Heading as="h2" fontSize="lg">
          {number.format(block.length)} {block.length === 1 ? 'row' : 'rows'} for {source.register.title}
        </Heading>
        <Text color="inkSoft">pasted, and not in yet</Text>
      </Box>
      <Stack as="ul" gap="1" listStyleType="none">
        {over > 0 && <li>{number.format(over)} written over rows that are there, {number.format(block.length - over)} added below.</li>}
        {look.repeats > 0 && <li>{number.format(look.repeats)} {look.repeats === 1 ? 'repeats a value' : 'repeat values'}; each is offered once.</li>}
        {look.alike.length > 0 && <li>{look.alike.length === 1 ? 'Two look alike' : `${number.format(look.alike.length)} pairs look alike`}: {look.alike.slice(0, 3).map((group) => group.slice(0, 2).map((value) => `“${value}”`).join(' and ')).join('; ')}.</li>}
        {tooWide > 0 && <Text as="li" color="brick.fg">The block is {tooWide} {tooWide === 1 ? 'column' : 'columns'} wider than {source.register.title} from here; what has no field stays out.</Text>}
        {look.repeats + look.alike.length === 0 && <li>No repeats and no look-alikes.</li>}
      </Stack>
      {pasted.look.headings && <Choice label="The first row is headings; leave it out" checked={skipHeadings} set={setSkipHeadings} />}
      {pasted.look.blanks > 0 && <Choice label={`Leave out ${number.format(pasted.look.blanks)} blank ${pasted.look.blanks === 1 ? 'row' : 'rows'}`} checked={skipBlanks} set={setSkipBlanks} />}
      <Box overflowX="auto" borderWidth="1px" borderColor="line" rounded="l2">
        <Table.Root size="sm" aria-label="What comes in">
          <Table.Header>
            <Table.Row bg="paper">
              {fields.slice(0, pasted.look.columns).map(({ key, heading }) => (
                <Table.ColumnHeader key={key}>{heading}</Table.ColumnHeader>
              ))}
            </Table.Row>
          </Table.Header>
          <Table.Body>
            {block.slice(0, rowsShown).map((row, place) => (
              <Table.Row key={place} bg="transparent">
                {fields.slice(0, pasted.look.columns).map(({ key }, column) => (
                  <Table.Cell key={key}>{row[column]}</Table.Cell>
                ))}
              </Table.Row>
            ))}
          </Table.Body>
        </Table.Root>
      </Box>
      {block.length > rowsShown && <Text color="inkSoft">and {number.format(block.length - rowsShown)} more</Text>}
      <HStack>
        <Button size="sm" loading={busy} disabled={block.length === 0} onClick={() => void bringIn()}>
          Bring it in
        </Button>
        <Button size="sm" variant="outline" onClick={done}>
          Leave it
        </Button>
      </HStack>
    </Stack>
  );
}

function Choice({ label, checked, set }: { label: string; checked: boolean; set: (checked: boolean) => void }) {
  return (
    <Checkbox.Root size="sm" checked={checked} onCheckedChange={(details) => set(details.checked === true)}>
      <Checkbox.HiddenInput />
      <Checkbox.Control borderColor="slate.border" />
      <Checkbox.Label>{label}</Checkbox.Label>
    </Checkbox.Root>
  );
}
