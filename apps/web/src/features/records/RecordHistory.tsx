// Who changed what in a record, when, from what to what; the last change of a field can be taken back.
import { Box, Button, Heading, HStack, Stack, Text } from '@chakra-ui/react';
import { type EntryChange, type EntryView, type RegisterView } from '@dellum/contract';
import { errorWords } from '../../data/problem.js';
import { ActButton } from '../../frame/ActButton.js';
import { useNotice, useTry } from '../../frame/useNotice.js';
import { store, useAppDispatch } from '../../data/store.js';
import { updateEntry } from '../../data/entriesApi.js';
import { asGiven } from '../../data/recentPatches.js';
import { useEntryHistoryQuery, useTakeBackChangeMutation } from '../../data/recordsApi.js';
import type { RecordCells } from '../sheets/useRegisterPlace.js';
import { moment } from '../../frame/written.js';

interface RecordHistoryProps {
  readonly register: RegisterView;
  readonly entry: EntryView;
  readonly cells: RecordCells;
  /** Only changes of this field. */
  readonly field: string | undefined;
  showAll(): void;
}

export function RecordHistory({ register, entry, cells, field, showAll }: RecordHistoryProps) {
  const { data: changes, error } = useEntryHistoryQuery({ registerId: register.id, entryId: entry.id, version: entry.version });
  const [takeBack, { isLoading }] = useTakeBackChangeMutation();
  const attempt = useTry();
  const notice = useNotice();
  const dispatch = useAppDispatch();
  const headingOf = (key: string | null) => register.fields.find((known) => known.key === key)?.heading ?? key ?? '';
  const shown = (key: string | null, value: string): string => {
    const own = register.fields.find((known) => known.key === key);
    return value === '' ? 'blank' : `“${own ? cells.shownValue(own, value) : value}”`;
  };
  const whatChanged = ({ act, field: key, from, to }: EntryChange): string => {
    const became = `${headingOf(key)}: ${shown(key, from)} → ${shown(key, to)}`;
    if (act === 'written') return became;
    return act === 'followed' ? `${became}, as it was corrected everywhere` : `The record was ${act}.`;
  };
  const back = async (change: EntryChange) => {
    const now = await attempt(takeBack({ registerId: register.id, entryId: entry.id, change }).unwrap());
    if (!now) return;
    updateEntry(dispatch, store.getState(), register.id, entry.id, asGiven(now));
    notice('done', `${headingOf(change.field)} is ${shown(change.field, change.from)} again.`);
  };
  const wanted = changes?.filter((change) => field === undefined || change.field === field) ?? [];
  return (
    <Stack gap="2" role="region" aria-label="History of the record">
      <HStack justify="space-between">
        <Heading as="h2" fontSize="md">
          {field === undefined ? 'History' : `History of ${headingOf(field)}`}
        </Heading>
        {field !== undefined && (
          <Button size="2xs" variant="ghost" onClick={showAll}>
            All fields
          </Button>
        )}
      </HStack>
      {error && <Text color="brick.fg">{errorWords(error)}</Text>}
      {changes && wanted.length === 0 && (
        <Text color="inkSoft">
          {field === undefined ? 'Nothing was changed since it was made.' : 'This field was not changed since the record was made.'}
        </Text>
      )}
      {wanted.map((change) => (
        <Box key={`${change.id} ${change.field ?? ''}`} borderTopWidth="1px" borderColor="line" pt="2">
          <Text color="inkSoft" fontSize="xs">
            {moment.format(new Date(change.at))}, {change.by}
          </Text>
          <Text overflowWrap="anywhere">{whatChanged(change)}</Text>
          {change.standing && register.enters && (
            <ActButton size="2xs" variant="ghost" px="0" loading={isLoading} onClick={() => void back(change)}>
              Take it back
            </ActButton>
          )}
        </Box>
      ))}
    </Stack>
  );
}
