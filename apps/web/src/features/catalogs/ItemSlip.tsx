// The slip of an item: what the catalog keeps of it by hand, and what can be done with it in its source.
import { Box, Button, Heading, HStack, IconButton, Input, NativeSelect, RadioGroup, Stack, Text, Textarea } from '@chakra-ui/react';
import { format, itemColours, type CompanionField, type Item } from '@dellum/core';
import { KeepItemDto, type CatalogItems, type CatalogView, type Me } from '@dellum/contract';
import { X } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import { problemWords } from '../../data/problem.js';
import { ActButton } from '../../frame/ActButton.js';
import { FormField } from '../../frame/FormField.js';
import { DayField } from '../../picker/DayField.js';
import { ItemMark } from '../../theme/index.js';
import { heldPlaces } from '../entries/heldPlaces.js';
import { useHeldInQuery } from '../../data/entriesApi.js';
import { useBuildQuery } from '../../data/buildApi.js';
import { useTold } from '../acts/useRegister.js';
import { useDtoForm } from '../../frame/useForm.js';
import { useNotice } from '../../frame/useNotice.js';
import { AddItem } from './AddItem.js';
import { useItemActMutation, useKeepItemMutation } from '../../data/catalogsApi.js';
import { number } from '../../frame/written.js';

interface ItemSlipProps {
  readonly item: Item;
  readonly catalog: CatalogView;
  readonly items: CatalogItems;
  readonly held: number;
  readonly levels: number;
  readonly me: Me;
  close(): void;
}

export function ItemSlip({ item, catalog, items, held, levels, me, close }: ItemSlipProps) {
  return (
    <Stack gap="4" role="region" aria-label={`Item ${item.label}`}>
      <Box>
        <HStack justify="space-between" align="start">
          <Heading as="h2" fontSize="lg" overflowWrap="anywhere">
            {item.colour && (
              <Box as="span" mr="2">
                <ItemMark colour={item.colour} />
              </Box>
            )}
            {item.label}
          </Heading>
          <IconButton aria-label="Close" size="2xs" variant="ghost" colorPalette="slate" onClick={close}>
            <X size={14} />
          </IconButton>
        </HStack>
        <Text color="inkSoft">
          {item.path.length > 0 && `${item.path.join(' › ')} · `}
          {item.state}, {held === 0 ? 'no entry holds it' : `${number.format(held)} ${held === 1 ? 'entry holds' : 'entries hold'} it`}
        </Text>
      </Box>
      <Companions item={item} fields={items.companions} me={me} />
      <ItemActs key={item.value} item={item} catalog={catalog} items={items} />
      {/* It comes a moment later than the rest: what one clicks above must not move away under the pointer. */}
      {held > 0 && <HeldLinks value={item.value} />}
      {item.path.length + 1 < levels && <AddItem catalog={catalog} path={[...item.path, item.value]} />}
      <KeptForm key={JSON.stringify(item)} item={item} catalog={catalog} />
    </Stack>
  );
}

/** Where entries hold the value, each a way to just these entries. */
function HeldLinks({ value }: { value: string }) {
  const { data: build } = useBuildQuery();
  const { currentData: held } = useHeldInQuery(value);
  if (!build || !held) return null;
  return (
    <Stack as="ul" gap="0" listStyleType="none" aria-label="Entries that hold it">
      {heldPlaces(held, build, value).map(({ to, words, entries }) => (
        <Box as="li" key={to}>
          <Box asChild color="damson.fg" textDecoration="underline" textUnderlineOffset="3px">
            <Link to={to}>{words}</Link>
          </Box>{' '}
          {number.format(entries)}
        </Box>
      ))}
    </Stack>
  );
}

function Companions({ item, fields, me }: { item: Item; fields: readonly CompanionField[]; me: Me }) {
  const held = fields.filter(({ key }) => item.companions?.[key] !== undefined);
  if (held.length === 0) return null;
  return (
    <Box as="dl" display="grid" gridTemplateColumns="auto 1fr" columnGap="3" bg="paper" rounded="l2" p="2.5">
      {held.map(({ key, heading, kind }) => (
        <Box key={key} display="contents">
          <Text as="dt" color="inkSoft">
            {heading}
          </Text>
          <Text as="dd">{format(kind, item.companions![key]!, me.house.locale)}</Text>
        </Box>
      ))}
    </Box>
  );
}

type Writing = 'correct' | 'replace' | 'merge';
const writingWords: { readonly [W in Writing]: { ask: string; label: string; does: string } } = {
  correct: {
    ask: 'Correct',
    label: 'Write it right',
    does: 'The same thing, spelled right: entries follow, the old spelling is understood from then on.',
  },
  replace: { ask: 'Replace', label: 'Another value from now on', does: 'The old value is retired; entries that hold it stay as they are.' },
  merge: {
    ask: 'Merge into',
    label: 'It is the same as',
    does: 'The two become one: entries follow, this spelling is understood from then on.',
  },
};

function ItemActs({ item, catalog, items }: { item: Item; catalog: CatalogView; items: CatalogItems }) {
  const [writing, setWriting] = useState<Writing>();
  const [to, setTo] = useState('');
  const [fault, setFault] = useState<string>();
  const [act, { isLoading }] = useItemActMutation();
  const told = useTold();
  const key = { path: [...item.path], value: item.value };
  const siblings = items.items.filter(({ path, value }) => path.join('\u001F') === item.path.join('\u001F') && value !== item.value);
  const place = items.items
    .filter(({ path, state }) => path.join('\u001F') === item.path.join('\u001F') && state === 'offered')
    .map(({ value }) => value);
  const at = place.indexOf(item.value);
  const write = async () => {
    if (!writing) return;
    const request = act({ id: catalog.id, act: { ...key, act: writing, to } }).unwrap();
    setFault(undefined);
    try {
      await request;
    } catch (error) {
      return setFault(problemWords(error));
    }
    await told(request);
    setWriting(undefined);
  };
  const begin = (what: Writing) => {
    setWriting(what);
    setFault(undefined);
    setTo(what === 'merge' ? (siblings[0]?.value ?? '') : item.value);
  };
  const simply = (what: 'retire' | 'restore' | 'remove') => void told(act({ id: catalog.id, act: { ...key, act: what } }).unwrap());
  const move = (before: string | undefined) =>
    void told(act({ id: catalog.id, act: { ...key, act: 'move', ...(before !== undefined && { before }) } }).unwrap());
  return (
    <Stack gap="2">
      <HStack wrap="wrap" gap="1.5">
        {(['correct', 'replace', 'merge'] as const).map((what) => (
          <Button key={what} variant={writing === what ? 'subtle' : 'outline'} aria-pressed={writing === what} onClick={() => begin(what)}>
            {writingWords[what].ask} …
          </Button>
        ))}
        {item.state === 'offered' ? (
          <Button onClick={() => simply('retire')}>Retire</Button>
        ) : (
          <Button onClick={() => simply('restore')}>Offer it again</Button>
        )}
        <Button colorPalette="brick" onClick={() => simply('remove')}>
          Remove
        </Button>
        {catalog.definition.order.by === 'kept' && at >= 0 && (
          <>
            <Button disabled={at === 0} onClick={() => move(place[at - 1])}>
              Move up
            </Button>
            <Button disabled={at === place.length - 1} onClick={() => move(place[at + 2])}>
              Move down
            </Button>
          </>
        )}
      </HStack>
      {writing && (
        <form
          onSubmit={(event) => {
            event.preventDefault();
            void write();
          }}
        >
          <Stack gap="1.5" bg="paper" p="2.5" rounded="l2">
            <Text asChild fontWeight="medium">
              <label htmlFor="item-to">{writingWords[writing].label}</label>
            </Text>
            {writing === 'merge' && siblings.length <= 500 ? (
              <NativeSelect.Root size="sm">
                <NativeSelect.Field id="item-to" value={to} onChange={(event) => setTo(event.target.value)}>
                  {siblings.map(({ value, label }) => (
                    <option key={value} value={value}>
                      {label}
                    </option>
                  ))}
                </NativeSelect.Field>
                <NativeSelect.Indicator />
              </NativeSelect.Root>
            ) : (
              <Input
                id="item-to"
                size="sm"
                bg="card"
                autoFocus
                value={to}
                aria-invalid={fault !== undefined}
                onChange={(event) => setTo(event.target.value)}
              />
            )}
            {fault ? (
              <Text role="alert" color="brick.fg">
                {fault}
              </Text>
            ) : (
              <Text fontSize="xs" color="inkSoft">
                {writingWords[writing].does}
              </Text>
            )}
            <HStack>
              <ActButton variant="solid" type="submit" loading={isLoading}>
                {writingWords[writing].ask}
              </ActButton>
              <Button onClick={() => setWriting(undefined)}>Cancel</Button>
            </HStack>
          </Stack>
        </form>
      )}
    </Stack>
  );
}

const noColour = 'none';

function KeptForm({ item, catalog }: { item: Item; catalog: CatalogView }) {
  const { register, fault, submit, problem, watch, setValue, formState } = useDtoForm(KeepItemDto, {
    path: [...item.path],
    value: item.value,
    label: item.label === item.value ? null : item.label,
    note: item.note ?? null,
    colour: item.colour ?? null,
    validFrom: item.validFrom ?? null,
    validUntil: item.validUntil ?? null,
    otherNames: [...item.otherNames],
  });
  const [keep] = useKeepItemMutation();
  const told = useTold();
  const notice = useNotice();
  const save = submit(async ({ otherNames, ...kept }) => {
    const request = keep({ id: catalog.id, item: { ...kept, otherNames: otherNames.filter((name) => name.trim() !== '') } }).unwrap();
    await request;
    if (await told(request)) notice('done', `${item.value} is saved.`);
  });
  const colour = watch('colour');
  const text = { setValueAs: (typed: string | null) => typed || null };
  const day = (name: 'validFrom' | 'validUntil') => {
    const set = (typed: string) => setValue(name, typed || null);
    return { day: watch(name) ?? '', fault: fault(name), onDay: set, onWrong: set };
  };
  return (
    <form noValidate onSubmit={(event) => void save(event)}>
      <Stack gap="3" borderTopWidth="1px" borderColor="line" pt="3">
        <FormField label="Shown as" placeholder={item.value} fault={fault('label') ?? problem} {...register('label', text)} />
        <FormField label="Note" fault={fault('note')} {...register('note', text)} />
        <RadioGroup.Root
          size="sm"
          value={colour ?? noColour}
          onValueChange={({ value }) => setValue('colour', itemColours.find((one) => one === value) ?? null)}
        >
          <RadioGroup.Label fontWeight="medium">Colour</RadioGroup.Label>
          <HStack gapX="3" gapY="1.5" wrap="wrap" pt="1">
            {itemColours.map((one) => (
              <RadioGroup.Item key={one} value={one} title={one} gap="1">
                <RadioGroup.ItemHiddenInput aria-label={one} />
                <RadioGroup.ItemIndicator borderColor="slate.border" />
                <ItemMark colour={one} size={13} />
              </RadioGroup.Item>
            ))}
            <RadioGroup.Item value={noColour} gap="1">
              <RadioGroup.ItemHiddenInput />
              <RadioGroup.ItemIndicator borderColor="slate.border" />
              <RadioGroup.ItemText>none</RadioGroup.ItemText>
            </RadioGroup.Item>
          </HStack>
        </RadioGroup.Root>
        <HStack align="start">
          <DayField label="Offered from" {...day('validFrom')} />
          <DayField label="until" {...day('validUntil')} />
        </HStack>
        <Stack gap="1">
          <Text asChild fontWeight="medium">
            <label htmlFor="other-names">Other names, one a line</label>
          </Text>
          <Textarea
            id="other-names"
            size="sm"
            rows={3}
            bg="card"
            borderColor="slate.border"
            value={watch('otherNames').join('\n')}
            onChange={(event) => setValue('otherNames', event.target.value.split('\n'))}
          />
          {fault('otherNames') && (
            <Text role="alert" color="brick.fg" fontSize="xs">
              {fault('otherNames')}
            </Text>
          )}
        </Stack>
        <ActButton variant="solid" type="submit" alignSelf="start" loading={formState.isSubmitting}>
          Save
        </ActButton>
      </Stack>
    </form>
  );
}
