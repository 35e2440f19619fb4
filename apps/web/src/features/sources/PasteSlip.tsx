// A look at what a pasted block will bring in, before it comes in.
import { Box, Button, Heading, HStack, Progress, Stack, Table, Text } from '@chakra-ui/react';
import { lookAtPaste } from '@dellum/core';
import { useMemo, useState } from 'react';
import { ActButton } from '../../frame/ActButton.js';
import { Check } from '../../frame/Check.js';
import { Scrolling } from '../../frame/Scrolling.js';
import { useApart } from '../ranges/TellApart.js';
import { useNotice } from '../../frame/useNotice.js';
import type { Pasted } from './RegisterColumn.js';
import { actsOfBlock, columnTexts, partsOf } from './sourceCells.js';
import type { SourceRegister } from '../acts/useRegister.js';
import { number } from '../../frame/written.js';

const rowsShown = 8;

/** A block that is being stored. */
interface Work {
  readonly parts: ReturnType<typeof partsOf>;
  readonly stored: number;
  /** The part that comes next. */
  readonly next: number;
  /** The act that the parts join. */
  readonly joins: number | undefined;
  readonly running: boolean;
}

export function PasteSlip({ pasted, source, done }: { pasted: Pasted; source: SourceRegister; done: () => void }) {
  const { at } = pasted;
  const [skipHeadings, setSkipHeadings] = useState(pasted.look.headings);
  const [skipBlanks, setSkipBlanks] = useState(pasted.look.blanks > 0);
  const [work, setWork] = useState<Work>();
  const notice = useNotice();
  const apart = useApart();
  const block = useMemo(
    () => pasted.block.slice(skipHeadings ? 1 : 0).filter((row) => !skipBlanks || row.some((text) => text.trim() !== '')),
    [pasted.block, skipHeadings, skipBlanks],
  );
  const fields = source.register.fields.slice(at.column);
  // What stands there already is that of the moment one pastes; the rows that come in are no repeats of themselves.
  const [there] = useState(() => columnTexts(source, at.column));
  const look = useMemo(() => lookAtPaste(block, [], there, apart), [block, there, apart]);
  const tooWide = pasted.look.columns - fields.length;
  const over = Math.min(block.length, Math.max(0, source.entries.length - at.row));
  /** Stores part by part; where one fails, what is in stays, and the rest can go on from there. */
  const bringIn = async () => {
    let now: Work = work ?? {
      parts: partsOf(actsOfBlock(source, block, at), Math.min(pasted.look.columns, fields.length)),
      stored: 0,
      next: 0,
      joins: undefined,
      running: true,
    };
    const notes: string[] = [];
    while (now.next < now.parts.length) {
      setWork({ ...now, running: true });
      const part = now.parts[now.next]!;
      const outcome = await source.bringIn(part.acts, now.joins);
      if (!outcome) return setWork({ ...now, running: false });
      notes.push(...outcome.notes);
      now = { ...now, next: now.next + 1, stored: now.stored + part.rows, joins: outcome.act ?? now.joins };
    }
    if (notes.length > 0) notice('done', notes.join(' '));
    done();
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
        {over > 0 && (
          <li>
            {number.format(over)} written over rows that are there, {number.format(block.length - over)} added below.
          </li>
        )}
        {look.repeats > 0 && (
          <li>
            {number.format(look.repeats)} {look.repeats === 1 ? 'repeats a value' : 'repeat values'}; each is offered once.
          </li>
        )}
        {look.alike.length > 0 && (
          <li>
            {look.alike.length === 1 ? 'Two look alike' : `${number.format(look.alike.length)} pairs look alike`}:{' '}
            {look.alike
              .slice(0, 3)
              .map((group) =>
                group
                  .slice(0, 2)
                  .map((value) => `“${value}”`)
                  .join(' and '),
              )
              .join('; ')}
            .
          </li>
        )}
        {tooWide > 0 && (
          <Text as="li" color="brick.fg">
            The block is {tooWide} {tooWide === 1 ? 'column' : 'columns'} wider than {source.register.title} from here; what has no field
            stays out.
          </Text>
        )}
        {look.repeats + look.alike.length === 0 && <li>No repeats and no look-alikes.</li>}
      </Stack>
      {pasted.look.headings && <Check label="The first row is headings; leave it out" checked={skipHeadings} set={setSkipHeadings} />}
      {pasted.look.blanks > 0 && (
        <Check
          label={`Leave out ${number.format(pasted.look.blanks)} blank ${pasted.look.blanks === 1 ? 'row' : 'rows'}`}
          checked={skipBlanks}
          set={setSkipBlanks}
        />
      )}
      <Scrolling label="What comes in" borderWidth="1px" borderColor="line" rounded="l2">
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
      </Scrolling>
      {block.length > rowsShown && <Text color="inkSoft">and {number.format(block.length - rowsShown)} more</Text>}
      {work && work.parts.length > 1 && (
        <Progress.Root size="sm" value={work.stored} max={block.length} colorPalette="growth">
          <Progress.Label fontWeight="normal">
            {number.format(work.stored)} of {number.format(block.length)} rows stored
          </Progress.Label>
          <Progress.Track>
            <Progress.Range />
          </Progress.Track>
        </Progress.Root>
      )}
      <HStack>
        <ActButton variant="solid" size="sm" loading={work?.running === true} disabled={block.length === 0} onClick={() => void bringIn()}>
          {work ? 'Go on' : `Add ${block.length === 1 ? '1 row' : `${number.format(block.length)} rows`}`}
        </ActButton>
        <Button size="sm" disabled={work?.running === true} onClick={done}>
          {work ? 'Cancel the rest' : 'Cancel'}
        </Button>
      </HStack>
    </Stack>
  );
}
