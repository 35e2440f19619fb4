// A named range: the sentence that says what it takes, how it ends, what it feeds.
import { Box, Button, Checkbox, Heading, HStack, IconButton, Stack, Text } from '@chakra-ui/react';
import { endingOf, grouped, rangeSentence, readsDirectly, type LeftOut, type Rail } from '@dellum/core';
import { rangeMark, type BuildView, type ChangeRangeDto, type RangeLook } from '@dellum/contract';
import { Pencil } from 'lucide-react';
import { useId, useState } from 'react';
import { Link } from 'react-router';
import { useTry } from '../../frame/useNotice.js';
import type { Block } from '../../grid/index.js';
import type { SourceRegister } from '../acts/useRegister.js';
import { useMakeCatalog } from './useMakeCatalog.js';
import { EndChoice } from './EndChoice.js';
import { placeOf } from './NameRange.js';
import { useChangeRangeMutation, useDeleteRangeMutation, useLookAtChangeMutation } from '../../data/rangesApi.js';
import { RedefineBox } from './RedefineBox.js';
import { number } from '../../frame/written.js';
import { RenameBox } from '../../frame/RenameBox.js';

interface RangeCardProps {
  readonly rail: Rail;
  readonly source: SourceRegister;
  readonly build: BuildView;
  readonly block: Block | undefined;
  /** The entry at which a fixed end may be put: the last one selected. */
  readonly selectedLast: string | undefined;
}

/** "left out: 1 blank, 2 past the end" */
export function leftOutWords(counts: readonly { readonly why: LeftOut['why']; readonly count: number }[]): string {
  if (counts.length === 0) return 'none left out';
  return `left out: ${counts.map(({ why, count }) => `${count} ${why === 'repeat' ? (count === 1 ? 'repeat' : 'repeats') : why}`).join(', ')}`;
}

/** The headings that a range reads, and where it starts. */
export function placeWords(rail: Rail, build: BuildView): { fields: string[]; from: string } {
  const { range, stretch, extent } = rail;
  const registers = build.sheets.flatMap((sheet) => sheet.registers);
  const titleOf = (id: string) => registers.find((register) => register.id === id)?.title ?? '';
  const own = registers.find(({ id }) => id === stretch.registerId);
  const fields =
    range.shape === 'headings'
      ? range.stretches.map(({ registerId }) => titleOf(registerId))
      : stretch.fields.map((key) => own?.fields.find((field) => field.key === key)?.heading ?? key);
  return { fields, from: stretch.start.at === 'top' ? 'the top' : `row ${extent.first + 1}` };
}

export function RangeCard({ rail, source, build, block, selectedLast }: RangeCardProps) {
  const { range, taking, stretch } = rail;
  const [renaming, setRenaming] = useState(false);
  const pencil = useId();
  const [looked, setLooked] = useState<{ change: ChangeRangeDto; look: RangeLook }>();
  const [change] = useChangeRangeMutation();
  const [lookAt] = useLookAtChangeMutation();
  const make = useMakeCatalog(build);
  const attempt = useTry();
  const [remove] = useDeleteRangeMutation();
  const catalogs = build.catalogs.filter(({ definition }) => readsDirectly(definition, 'ranges', range.id));
  const endsElsewhere = stretch.end.ends === 'fixed' && selectedLast !== undefined && selectedLast !== stretch.end.entry;
  const counts = [...grouped(taking.leftOut, ({ why }) => why)].map(([why, rows]) => ({ why, count: rows.length }));
  const { fields, from } = placeWords(rail, build);
  const alter = (wanted: ChangeRangeDto) => source.told(change({ id: range.id, change: wanted }).unwrap());
  const seen = { seen: rangeMark(range) };
  /** What only brings values in is done at once; where something goes or is respelled, one looks first. */
  const redefine = async (wanted: ChangeRangeDto) => {
    setLooked(undefined);
    const asked = { ...wanted, ...seen };
    const look = await attempt(lookAt({ id: range.id, change: asked }).unwrap());
    if (!look) return;
    if (look.counts.goesOut + look.counts.respelled === 0) await alter(asked);
    else setLooked({ change: asked, look });
  };
  const several = block !== undefined && block.bottom > block.top && range.shape !== 'headings';
  return (
    <Stack gap="2.5" role="region" aria-label={`Range ${range.name}`}>
      <Box>
        {!renaming ? (
          <HStack>
            <Heading as="h2" fontSize="lg">
              {range.name}
            </Heading>
            <IconButton id={pencil} aria-label={`Rename ${range.name}`} size="2xs" variant="ghost" onClick={() => setRenaming(true)}>
              <Pencil size={13} />
            </IconButton>
          </HStack>
        ) : (
          <RenameBox
            label="Name of the range"
            name={range.name}
            size="sm"
            backTo={pencil}
            rename={(name) => alter({ name, ...seen })}
            close={() => setRenaming(false)}
          />
        )}
        <Text color="inkSoft">
          named range, {number.format(taking.values.length)} {taking.values.length === 1 ? 'value' : 'values'} taken
          {range.shape === 'headings' && ' here'}, {leftOutWords(counts)}
        </Text>
      </Box>
      {taking.values.length === 0 && (
        <Text color="amber.fg">
          The range is empty. {taking.grows ? 'Type a value where it starts.' : 'Select the row at which it ends, and end it there.'}
        </Text>
      )}
      <Text fontSize="md" lineHeight="1.8">
        {rangeSentence(range, fields, from)}
      </Text>
      <EndChoice label={`How ${range.name} ends`} ends={endingOf(range)} onChoose={(ends) => void redefine({ ends })} />
      {range.shape === 'levels' && (
        <Checkbox.Root
          size="sm"
          checked={range.inherits}
          onCheckedChange={(details) => void redefine({ inherits: details.checked === true })}
        >
          <Checkbox.HiddenInput />
          <Checkbox.Control borderColor="slate.border" />
          <Checkbox.Label>A blank group means the same as above</Checkbox.Label>
        </Checkbox.Root>
      )}
      <HStack wrap="wrap" gap="1.5">
        {endsElsewhere && <Button onClick={() => void redefine({ endEntry: selectedLast })}>End it at the selected row</Button>}
        {several && (
          <Button onClick={() => void redefine({ place: placeOf(source, build, block, range.shape) })}>
            Lay it over the selected cells
          </Button>
        )}
      </HStack>
      {looked && (
        <RedefineBox
          name={range.name}
          look={looked.look}
          onChange={() => {
            setLooked(undefined);
            void alter(looked.change);
          }}
          onLeave={() => setLooked(undefined)}
        />
      )}
      <HStack justify="space-between" borderTopWidth="1px" borderColor="line" pt="2.5" align="start">
        <Text>
          {catalogs.length === 0 ? (
            <Button variant="solid" onClick={() => void make.ofRange(range.id, range.name)}>
              Make a catalog of it
            </Button>
          ) : (
            <>
              Feeds{' '}
              {catalogs.map((catalog, at) => (
                <span key={catalog.id}>
                  {at > 0 && ', '}
                  <Box asChild color="damson.fg" fontWeight="bold">
                    <Link to={`/catalogs/${catalog.id}`}>{catalog.title}</Link>
                  </Box>
                </span>
              ))}
              ;{' '}
              <Box asChild color="damson.fg" fontWeight="bold">
                <Link to={`/catalogs/${catalogs[0]!.id}?slip=use`}>use it for a field</Link>
              </Box>
            </>
          )}
        </Text>
        <Button size="2xs" variant="ghost" colorPalette="brick" onClick={() => void source.told(remove(range.id).unwrap())}>
          Delete the range
        </Button>
      </HStack>
    </Stack>
  );
}
