// Make this column a list: its spellings gathered, proposed, mended by hand, then cleaned and bound in one act.
import { Box, Button, Checkbox, HStack, Input, Stack, Text } from '@chakra-ui/react';
import { freeAmong, type ProposedValue, type StandingMatch } from '@dellum/core';
import type { BuildView, FieldView, GatherDto } from '@dellum/contract';
import { useState } from 'react';
import { errorWords, faultWords } from '../../data/problem.js';
import { ActButton } from '../../frame/ActButton.js';
import { FormField } from '../../frame/FormField.js';
import { Select } from '../../frame/Select.js';
import { SlipHead } from '../../frame/SlipHead.js';
import { useNotice } from '../../frame/useNotice.js';
import { useGatherMutation, useProfileQuery } from '../../data/upkeepApi.js';
import { number } from '../../frame/written.js';

const plainShown = 12;

/** What one has changed of the proposal: another right spelling, spellings that are values of their own, values left out. */
interface Mending {
  readonly renamed: Readonly<Record<string, string>>;
  readonly apart: ReadonlySet<string>;
}

const spellingKey = (value: string, spelling: string) => `${value}\u001F${spelling}`;

/**
 * The list as it is sent. A spelling that is a value of its own stands for itself; the empty heading of a group stands when entries hold
 * it.
 */
function listOf(values: readonly ProposedValue[], { renamed, apart }: Mending): GatherDto['values'] {
  return values.flatMap(({ value, entries, spellings }) => {
    const same = spellings.filter((spelling) => !apart.has(spellingKey(value, spelling.value)));
    const others = spellings.filter((spelling) => apart.has(spellingKey(value, spelling.value)));
    const right = (renamed[value] ?? value).trim();
    const isHeld = entries > spellings.reduce((sum, spelling) => sum + spelling.entries, 0);
    const held = [...same.map((spelling) => spelling.value), ...(isHeld && right !== value ? [value] : [])];
    return [
      { value: right, spellings: held.filter((spelling) => spelling !== right) },
      ...others.map((spelling) => ({
        value: spelling.value.trim(),
        spellings: spelling.value === spelling.value.trim() ? [] : [spelling.value],
      })),
    ];
  });
}

interface GatherSlipProps {
  readonly field: FieldView;
  readonly build: BuildView;
  close(): void;
}

export function GatherSlip({ field, build, close }: GatherSlipProps) {
  const { data: profile, error } = useProfileQuery(field.id);
  const [standingId, setStandingId] = useState<string>();
  const [title, setTitle] = useState(() =>
    freeAmong(field.heading, [...build.catalogs.map((known) => known.title), ...build.ranges.map(({ name }) => name)]),
  );
  const [mending, setMending] = useState<Mending>({ renamed: {}, apart: new Set() });
  const [fault, setFault] = useState<string>();
  const [gather, { isLoading }] = useGatherMutation();
  const notice = useNotice();
  if (!profile) return <Text color={error ? 'brick.fg' : 'inkSoft'}>{errorWords(error) ?? 'Gathering the spellings …'}</Text>;
  const { values, entries, distinct } = profile;
  const standing = profile.standing.find(({ catalogId }) => catalogId === standingId);
  const titleOf = (id: string) => build.catalogs.find((catalog) => catalog.id === id)?.title ?? '';
  const list = standing
    ? standing.values.map(({ value, spellings }) => ({ value, spellings: spellings.map((spelling) => spelling.value) }))
    : listOf(values, mending);
  const following = list.reduce((sum, { spellings }) => sum + spellings.length, 0);
  const save = async () => {
    setFault(undefined);
    try {
      await gather({ fieldId: field.id, list: { title, values: list, ...(standing && { catalogId: standing.catalogId }) } }).unwrap();
      notice(
        'done',
        `${field.heading} takes its values from ${standing ? titleOf(standing.catalogId) : title} now; ${number.format(following)} ${following === 1 ? 'spelling follows' : 'spellings follow'}, and each is understood from now on.`,
      );
      close();
    } catch (thrown) {
      setFault(faultWords(thrown, 'title'));
    }
  };
  return (
    <Stack gap="3" role="region" aria-label="Make this column a list">
      <SlipHead
        title={`Make ${field.heading} a list`}
        about={`${number.format(distinct)} spellings in ${number.format(entries)} entries`}
        close={close}
      />
      {profile.standing.length > 0 && (
        <Select
          label="Where the values come from"
          value={standingId ?? ''}
          options={[
            ['', 'a new list of these values'],
            ...profile.standing.map(
              ({ catalogId, values: known }) =>
                [catalogId, `the catalog ${titleOf(catalogId)}, which has ${number.format(known.length)} of them`] as const,
            ),
          ]}
          onChoose={(id) => setStandingId(id === '' ? undefined : id)}
        />
      )}
      {standing ? <StandingLook standing={standing} /> : <ProposedList values={values} mending={mending} onMend={setMending} />}
      {!standing && (
        <FormField
          label="Title of the list and its catalog"
          value={title}
          fault={fault}
          onChange={(event) => setTitle(event.target.value)}
        />
      )}
      {standing && fault && (
        <Text color="brick.fg" role="alert">
          {fault}
        </Text>
      )}
      <Text fontSize="xs" color="inkSoft">
        {standing ? '' : `${number.format(list.length)} values go into a growing list on “Gathered lists”, `}
        {following === 0
          ? 'no spelling changes'
          : `${number.format(following)} ${following === 1 ? 'spelling follows' : 'spellings follow'}`}
        , and {field.heading} is bound to {standing ? titleOf(standing.catalogId) : 'the catalog'}. It can be taken back in the history of
        the field.
      </Text>
      <HStack>
        <ActButton variant="solid" size="sm" loading={isLoading} disabled={list.length === 0} onClick={() => void save()}>
          {standing ? 'Use this catalog' : 'Make the list'}
        </ActButton>
        <Button size="sm" onClick={close}>
          Cancel
        </Button>
      </HStack>
    </Stack>
  );
}

interface ProposedListProps {
  readonly values: readonly ProposedValue[];
  readonly mending: Mending;
  onMend(mending: Mending): void;
}

/** The proposed values, each with its spellings to be kept together or apart. */
function ProposedList({ values, mending, onMend }: ProposedListProps) {
  const groups = values.filter(({ spellings }) => spellings.length > 0);
  const plain = values.filter(({ spellings }) => spellings.length === 0);
  const setApart = (key: string, apart: boolean) =>
    onMend({ ...mending, apart: new Set(apart ? [...mending.apart, key] : [...mending.apart].filter((known) => known !== key)) });
  return (
    <>
      {groups.length > 0 && (
        <Text>
          {groups.length === 1 ? 'One value is' : `${number.format(groups.length)} values are`} spelled in several ways. What is ticked
          becomes the right spelling above it.
        </Text>
      )}
      {groups.map((group) => (
        <Box
          key={group.value}
          role="group"
          aria-label={`Spellings of ${group.value}`}
          p="3"
          bg="paper"
          borderWidth="1px"
          borderColor="line"
          rounded="l3"
        >
          <HStack>
            <Input
              size="xs"
              flex="1"
              borderColor="slate.border"
              aria-label={`Right spelling of ${group.value}`}
              value={mending.renamed[group.value] ?? group.value}
              onChange={(event) => onMend({ ...mending, renamed: { ...mending.renamed, [group.value]: event.target.value } })}
            />
            <Text color="inkSoft">{number.format(group.entries)}</Text>
          </HStack>
          <Stack gap="1" mt="1.5">
            {group.spellings.map(({ value, entries: count }) => {
              const key = spellingKey(group.value, value);
              return (
                <Checkbox.Root
                  key={value}
                  size="sm"
                  checked={!mending.apart.has(key)}
                  onCheckedChange={(details) => setApart(key, details.checked !== true)}
                >
                  <Checkbox.HiddenInput />
                  <Checkbox.Control borderColor="slate.border" />
                  <Checkbox.Label whiteSpace="pre-wrap">
                    {shownBlanks(value)}{' '}
                    <Text as="span" color="inkSoft">
                      {number.format(count)}
                    </Text>
                  </Checkbox.Label>
                </Checkbox.Root>
              );
            })}
          </Stack>
        </Box>
      ))}
      {plain.length > 0 && (
        <Text color="inkSoft">
          {groups.length > 0 ? 'and as they are: ' : ''}
          {plain
            .slice(0, plainShown)
            .map(({ value }) => value)
            .join(', ')}
          {plain.length > plainShown && ` and ${number.format(plain.length - plainShown)} more`}
        </Text>
      )}
    </>
  );
}

/** What becomes what in a catalog that is there, and what it does not have. */
function StandingLook({ standing: { values, missing } }: { standing: StandingMatch }) {
  const changed = values.filter(({ spellings }) => spellings.length > 0);
  return (
    <Stack gap="1.5" role="group" aria-label="What becomes what">
      {changed.slice(0, plainShown).map(({ value, spellings }) => (
        <Text key={value} overflowWrap="anywhere">
          {spellings.map((spelling) => `“${shownBlanks(spelling.value)}”`).join(', ')} {spellings.length === 1 ? 'becomes' : 'become'}{' '}
          <b>{value}</b>
        </Text>
      ))}
      {changed.length > plainShown && <Text color="inkSoft">and {number.format(changed.length - plainShown)} more</Text>}
      {changed.length === 0 && <Text>All its values are written as in the catalog.</Text>}
      {missing.length > 0 && (
        <Text color="amber.fg">
          Not in the catalog, and outside until they are:{' '}
          {missing
            .slice(0, plainShown)
            .map(({ value, entries }) => `“${value}” (${number.format(entries)})`)
            .join(', ')}
          {missing.length > plainShown && ` and ${number.format(missing.length - plainShown)} more`}
        </Text>
      )}
    </Stack>
  );
}

/** Blanks at the ends, which nobody would see, as dots. */
const shownBlanks = (text: string): string => text.replace(/^\s+|\s+$/gu, (blanks) => '·'.repeat(blanks.length));
