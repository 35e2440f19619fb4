// An entry sheet: the grid in which clerks enter data.
import { Box, Button, HStack, IconButton, Text } from '@chakra-ui/react';
import { catalogIdOf, type ItemColour } from '@dellum/core';
import { mayDesign, mayEnter, type BuildView, type Me, type RegisterView, type SheetView } from '@dellum/contract';
import { Redo2, Undo2 } from 'lucide-react';
import { useCallback, useMemo, useRef, useState } from 'react';
import { useParams, useSearchParams } from 'react-router';
import { Confirm } from '../../frame/Confirm.js';
import { EmptyState, Page, Waiting } from '../../frame/Page.js';
import { useTry } from '../../frame/useNotice.js';
import { Grid, isSingle, toClipboard, type Block, type GridHandle, type Place } from '../../grid/index.js';
import { FieldSlip } from '../bindings/FieldSlip.js';
import { WhySlip } from '../bindings/WhySlip.js';
import { useCatalogs } from '../catalogs/useCatalogs.js';
import { useAppDispatch } from '../../store.js';
import { CellEditor } from '../entries/CellEditor.js';
import { did } from '../entries/doneSlice.js';
import { useDeleteEntriesMutation, useFieldCountsQuery, useInsertEntriesMutation } from '../entries/entriesApi.js';
import { useAgain } from '../entries/useAgain.js';
import { underWay } from '../entries/inFlight.js';
import { useEntryWindow, type Wanted } from '../entries/useEntryWindow.js';
import { useMeQuery } from '../houses/sessionApi.js';
import { GatherSlip } from '../upkeep/GatherSlip.js';
import { ItemMark } from '../../theme/index.js';
import { useBuildQuery } from './buildApi.js';
import { columnsOf } from './columns.js';
import { NewField } from './NewField.js';
import { AlikeChip, OutsideChips } from './OutsideChips.js';
import { SheetMenu } from './SheetMenu.js';
import { refusalOf, useSheetCells } from './useSheetCells.js';
import { usePaste } from './usePaste.js';
import { errorWords } from '../../api/problem.js';

const number = new Intl.NumberFormat('en-GB');

export function SheetPage() {
  const { sheetId } = useParams();
  const { data: build, error } = useBuildQuery();
  const { data: me } = useMeQuery();
  if (!build || !me) return <Waiting error={errorWords(error)} />;
  const sheet = build.sheets.find(({ id, kind }) => id === sheetId && kind === 'entry');
  const register = sheet?.registers[0];
  if (!sheet || !register) return <EmptyState title="This sheet is not there">It may have been deleted. Choose another one under Sheets.</EmptyState>;
  return <EntrySheet key={sheet.id} sheet={sheet} register={register} build={build} me={me} />;
}

interface EntrySheetProps {
  readonly sheet: SheetView;
  readonly register: RegisterView;
  readonly build: BuildView;
  readonly me: Me;
}

function EntrySheet({ sheet, register, build, me }: EntrySheetProps) {
  const [search, setSearch] = useSearchParams();
  const outside = search.get('outside') ?? undefined;
  const chosen = search.get('field') ?? undefined;
  const adding = search.has('new-field');
  const gathered = search.get('slip') === 'gather' ? register.fields.find(({ key, rule }) => key === chosen && rule?.kind !== 'catalog') : undefined;
  const enters = mayEnter(me.role);
  const designs = mayDesign(me.role);
  const ready = useCatalogs(register.fields.flatMap(({ rule }) => catalogIdOf(rule) ?? []), me.house.today);
  const alike = register.fields.find(({ key }) => key === search.get('holds'));
  const value = search.get('value') ?? '';
  const some = outside !== undefined || alike !== undefined;
  const wanted = useMemo((): Wanted => (outside ? { outside } : alike ? { field: alike.key, value } : {}), [outside, alike, value]);
  const entries = useEntryWindow(register.id, wanted);
  const cells = useSheetCells(register, ready, me);
  const { paste, clear } = usePaste(register, entries);
  const { data: counts } = useFieldCountsQuery(register.id);
  const [insert] = useInsertEntriesMutation();
  const [remove] = useDeleteEntriesMutation();
  const attempt = useTry();
  const dispatch = useAppDispatch();
  const { again, canUndo, canRedo } = useAgain(register.id);
  const [at, setAt] = useState<{ active: Place; block: Block }>();
  const [said, setSaid] = useState('');
  const [why, setWhy] = useState<{ fieldKey: string; entry: { id: string; row: number } | undefined; text: string }>();
  const asked = register.fields.find(({ key }) => key === why?.fieldKey);
  const grid = useRef<GridHandle>(null);

  const show = (change: Record<string, string | undefined>) => {
    setWhy(undefined);
    if ('outside' in change || 'holds' in change) setAt(undefined);
    const next = new URLSearchParams(search);
    for (const [name, value] of Object.entries(change)) {
      if (value === undefined) next.delete(name);
      else next.set(name, value);
    }
    setSearch(next, { replace: true });
  };
  const onSelect = useCallback((place: Place, block: Block) => {
    setAt({ active: place, block });
  }, []);
  const { total, entryAt } = entries;
  if (total === undefined) return <Waiting error={entries.error} />;
  const startRow = some ? 0 : Math.max(0, total - 1);
  const { active, block: chosenBlock } = at ?? { active: { row: startRow, column: 0 }, block: { top: startRow, bottom: startRow, left: 0, right: 0 } };

  const addsBelow = enters && !some && register.fields.length > 0;
  const rowCount = total + (addsBelow ? 1 : 0);
  const field = register.fields[active.column];
  const activeEntry = entryAt(active.row);
  const activeDraft = field && activeEntry && cells.draftOf(activeEntry, field);

  const commitAt = (place: Place, text: string, confirmed?: boolean) => {
    const entry = entryAt(place.row);
    const column = register.fields[place.column]!;
    if (entry) {
      const { refusal, said: words } = cells.commit(entry, column, text, confirmed);
      setSaid(words ?? '');
      return refusal;
    }
    if (text.trim() !== '') void underWay(addEntry(column.key, text));
    return undefined;
  };
  /** The space bar answers yes or no, and the other one when pressed again. */
  const toggle = (place: Place): boolean => {
    const column = register.fields[place.column];
    const entry = entryAt(place.row);
    if (column?.kind !== 'yes/no' || !entry) return false;
    commitAt(place, entry.cells[column.key] === 'yes' ? 'no' : 'yes');
    return true;
  };
  const addEntry = async (fieldKey: string, text: string) => {
    const made = await attempt(insert({ registerId: register.id, count: 1 }).unwrap());
    const column = register.fields.find(({ key }) => key === fieldKey)!;
    if (made) dispatch(did({ registerId: register.id, act: { act: 'made', entries: made.entries, before: undefined } }));
    const { refusal, said: words } = made ? cells.commit({ id: made.entries[0]!, version: 1, cells: {} }, column, text) : {};
    setSaid(refusal?.message ?? words ?? '');
  };
  const copy = ({ top, bottom, left, right }: Block): string | Promise<string> => {
    const fields = register.fields.slice(left, right + 1);
    const lines = (rows: readonly (ReturnType<typeof entryAt>)[]) => toClipboard(rows.map((entry) => fields.map((column) => (entry ? cells.shown(entry, column) : ''))));
    const last = Math.min(bottom, total - 1);
    const rows = Array.from({ length: Math.max(0, last - top + 1) }, (_, row) => entryAt(top + row));
    return rows.every(Boolean) ? lines(rows) : entries.rows(top, last).then(lines);
  };
  const insertAbove = async () => {
    const made = await attempt(insert({ registerId: register.id, count: 1, ...(activeEntry && { before: activeEntry.id }) }).unwrap());
    if (!made) return;
    dispatch(did({ registerId: register.id, act: { act: 'made', entries: made.entries, before: activeEntry?.id } }));
    grid.current?.go({ row: activeEntry ? active.row : total, column: 0 });
  };
  const deleteRows = async () => {
    const rows = await entries.rows(chosenBlock.top, Math.min(chosenBlock.bottom, total - 1));
    const below = some ? undefined : entryAt(chosenBlock.bottom + 1)?.id;
    const gone = rows.map(({ id }) => id);
    if (await attempt(remove({ registerId: register.id, entries: gone }).unwrap())) dispatch(did({ registerId: register.id, act: { act: 'deleted', entries: gone, before: below } }));
  };
  const rowsChosen = Math.max(0, Math.min(chosenBlock.bottom, total - 1) - chosenBlock.top + 1);

  return (
    <Page
      title={sheet.title}
      about={`${sheet.note} ${some ? `${number.format(total)} ${total === 1 ? 'entry' : 'entries'} ${outside ? 'outside ' : ''}shown.` : `${number.format(total)} ${total === 1 ? 'entry' : 'entries'}.`}`}
      strip={
        <HStack gap="2" wrap="wrap">
          {alike && !outside && <AlikeChip words={`${alike.heading} ${value === '' ? 'is blank' : `is ${cells.shownValue(alike, value)}`}`} onClose={() => show({ holds: undefined, value: undefined })} />}
          <OutsideChips register={register} counts={counts ?? []} outside={outside} onShow={(next) => show({ outside: next, holds: undefined, value: undefined })} />
        </HStack>
      }
      actions={
        <>
          {enters && (canUndo || canRedo) && (
            <HStack gap="1">
              <IconButton aria-label="Take back" title="Take back, Ctrl Z" size="xs" variant="outline" disabled={!canUndo} onClick={() => void again('undo')}>
                <Undo2 size={13} />
              </IconButton>
              <IconButton aria-label="Do again" title="Do again, Ctrl Y" size="xs" variant="outline" disabled={!canRedo} onClick={() => void again('redo')}>
                <Redo2 size={13} />
              </IconButton>
            </HStack>
          )}
          {enters && !some && (
            <Button size="xs" variant="outline" onClick={() => void underWay(insertAbove())}>
              New entry above row {Math.min(active.row, total) + 1}
            </Button>
          )}
          {enters && rowsChosen > 0 && (
            <Confirm
              ask={`Delete ${rowsChosen === 1 ? `row ${chosenBlock.top + 1}` : `rows ${chosenBlock.top + 1} to ${chosenBlock.top + rowsChosen}`}`}
              about="They leave the sheet for everybody. You can take it back."
              act={rowsChosen === 1 ? 'Delete the entry' : `Delete ${rowsChosen} entries`}
              onConfirm={() => void underWay(deleteRows())}
            />
          )}
          {field && activeEntry && !some && (
            <Button size="xs" variant="outline" onClick={() => show({ holds: field.key, value: activeEntry.cells[field.key] ?? '', outside: undefined })}>
              Same value only
            </Button>
          )}
          {field && (
            <Button size="xs" variant="outline" onClick={() => setWhy({ fieldKey: field.key, entry: activeEntry && { id: activeEntry.id, row: active.row + 1 }, text: activeDraft?.text ?? (activeEntry ? (activeEntry.cells[field.key] ?? '') : '') })}>
              Why?
            </Button>
          )}
          {designs && (
            <Button size="xs" variant="outline" onClick={() => show({ 'new-field': '', field: undefined })}>
              New field
            </Button>
          )}
          {designs && <SheetMenu sheet={sheet} build={build} />}
        </>
      }
      slip={
        asked ? (
          <WhySlip key={JSON.stringify(why)} field={asked} entry={why?.entry} text={why?.text ?? ''} build={build} close={() => setWhy(undefined)} />
        ) : adding && designs ? (
          <NewField registerId={register.id} done={(key) => show({ 'new-field': undefined, field: key })} />
        ) : chosen ? (
          gathered && designs ? (
            <GatherSlip key={gathered.id} field={gathered} close={() => show({ slip: undefined })} />
          ) : (
            <FieldSlip key={chosen} register={register} fieldKey={chosen} build={build} me={me} counts={counts ?? []} close={() => show({ field: undefined })} gather={() => show({ slip: 'gather' })} />
          )
        ) : undefined
      }
    >
      <Box h="100%" display="flex" flexDirection="column">
        {register.fields.length === 0 ? (
          <EmptyState title="This sheet has no fields yet">{designs ? 'Add the first one with “New field”.' : 'An administrator adds them.'}</EmptyState>
        ) : (
          <Box flex="1" minH="0">
            <Grid
              ref={grid}
              label={sheet.title}
              // One goes on where the last entry stands.
              key={outside ?? (alike ? `${alike.key} ${value}` : 'all')}
              startRow={startRow}
              chosenColumn={chosen}
              rowKey={(row) => (row === total ? 'new' : entryAt(row)?.id)}
              columns={columnsOf(register, build, me)}
              rowCount={Math.max(1, rowCount)}
              mayEdit={enters && rowCount > 0}
              look={({ row, column }) => {
                const entry = entryAt(row);
                if (entry) return cells.look(entry, register.fields[column]!);
                if (row < total) return undefined;
                return { text: column === 0 && addsBelow ? 'type to add' : '', tone: 'faint' };
              }}
              editText={({ row, column }) => {
                const entry = entryAt(row);
                const edited = register.fields[column]!;
                return entry ? (cells.draftOf(entry, edited)?.text ?? cells.shown(entry, edited)) : '';
              }}
              editor={(editing) => {
                const entry = entryAt(editing.place.row);
                const edited = register.fields[editing.place.column]!;
                return (
                  <CellEditor
                    editing={editing}
                    field={edited}
                    list={cells.listFor(entry, edited)}
                    days={cells.daysFor(entry, edited)}
                    held={entry ? cells.shown(entry, edited) : ''}
                    refusal={entry && refusalOf(cells.draftOf(entry, edited))}
                    commit={(text, confirmed) => commitAt(editing.place, text, confirmed)}
                    abandon={(text) => {
                      if (entry && text !== cells.shown(entry, edited)) setSaid(`Left as it was; “${text}” was not stored.`);
                      if (entry) cells.dropDraft(entry, edited);
                    }}
                  />
                );
              }}
              mark={(name) => <ItemMark colour={name as ItemColour} />}
              onVisible={entries.onVisible}
              onSelect={onSelect}
              onClear={(block) => void underWay(clear(block))}
              onSpace={(place) => toggle(place)}
              onAgain={(as) => void again(as)}
              copy={copy}
              onPaste={(text, place) => void underWay(paste(text, place, addsBelow))}
              onHeading={(column) => show({ field: register.fields[column]!.key, 'new-field': undefined, slip: undefined })}
              onEscape={({ row, column }) => {
                const entry = entryAt(row);
                if (entry) cells.dropDraft(entry, register.fields[column]!);
              }}
            />
          </Box>
        )}
        <HStack role="status" aria-live="polite" justify="space-between" px="4" h="30px" flexShrink={0} borderTopWidth="1px" borderColor="line" bg="paper" color="inkSoft" gap="6">
          <Text truncate color={activeDraft ? 'brick.fg' : undefined}>
            {activeDraft ? activeDraft.message : field?.rule?.hint ? `${field.heading}: ${field.rule.hint}` : ''}
          </Text>
          <Text truncate color="growth.fg" flex="1" textAlign="end">
            {said}
          </Text>
          <Text flexShrink={0}>
            {isSingle(chosenBlock) ? `row ${number.format(active.row + 1)}` : `${number.format(chosenBlock.bottom - chosenBlock.top + 1)} × ${chosenBlock.right - chosenBlock.left + 1} cells`}
          </Text>
        </HStack>
      </Box>
    </Page>
  );
}
