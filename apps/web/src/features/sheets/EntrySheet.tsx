// An entry sheet: the grid in which clerks enter data, with what stands above, beside and below it.
import { Box } from '@chakra-ui/react';
import { catalogIdOf, format, showing, type ItemColour } from '@dellum/core';
import { mayDesign, mayEnter, type BuildView, type EntryView, type FieldView, type Me, type RegisterView, type SheetView } from '@dellum/contract';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { EmptyState, Page, Waiting } from '../../frame/Page.js';
import { useTry } from '../../frame/useNotice.js';
import { Grid, isSingle, toClipboard, type Block, type GridHandle, type Place } from '../../grid/index.js';
import { useAppDispatch } from '../../store.js';
import { ItemMark } from '../../theme/index.js';
import { useArrangement } from '../arrangements/useArrangement.js';
import { useCatalogs } from '../catalogs/useCatalogs.js';
import { formWords } from '../forms/formWords.js';
import { CellEditor } from '../entries/CellEditor.js';
import { did } from '../entries/doneSlice.js';
import { useFieldCountsQuery, useInsertEntriesMutation } from '../entries/entriesApi.js';
import { underWay } from '../entries/inFlight.js';
import { useAgain } from '../entries/useAgain.js';
import { useEntryWindow } from '../entries/useEntryWindow.js';
import { columnsOf } from './columns.js';
import { useRefused } from './RefusedSlip.js';
import { SheetActions } from './SheetActions.js';
import { SheetFoot } from './SheetFoot.js';
import { SheetSlip, slipIsOpen, type Asked } from './SheetSlip.js';
import { SheetStrip } from './SheetStrip.js';
import { useHere } from './useHere.js';
import { useDeeds } from './useDeeds.js';
import { refusalOf, useSheetCells } from './useSheetCells.js';
import { useShown } from './useShown.js';

const number = new Intl.NumberFormat('en-GB');

interface EntrySheetProps {
  readonly sheet: SheetView;
  readonly register: RegisterView;
  readonly build: BuildView;
  readonly me: Me;
}

export function EntrySheet({ sheet, register, build, me }: EntrySheetProps) {
  const shown = useShown(register);
  const arranging = useArrangement(register);
  const some = shown.outside !== undefined || shown.alike !== undefined;
  const arranged = !some && arranging.version !== undefined;
  const { wanted } = shown;
  const { version } = arranging;
  const entries = useEntryWindow(register.id, useMemo(() => (some || version === undefined ? wanted : { arranged: String(version) }), [some, version, wanted]));
  const ready = useCatalogs(register.fields.flatMap(({ rule }) => catalogIdOf(rule) ?? []), me.house.today);
  const cells = useSheetCells(register, ready, me);
  const { fields, arrangement } = arranging;
  const columns = useMemo(() => columnsOf(fields, register, build, me), [fields, register, build, me]);
  const deeds = useDeeds({ register, fields, window: entries, me, arranged, some });
  const { data: counts = [] } = useFieldCountsQuery(register.id);
  const refused = useRefused(register.id);
  const here = useHere(register.id);
  const [insert] = useInsertEntriesMutation();
  const attempt = useTry();
  const dispatch = useAppDispatch();
  const again = useAgain(register.id);
  const [at, setAt] = useState<{ active: Place; block: Block }>();
  const [start, setStart] = useState<{ view: string; row: number }>();
  const [said, setSaid] = useState('');
  const [why, setWhy] = useState<Asked>();
  const grid = useRef<GridHandle>(null);
  const enters = mayEnter(me.role);
  const designs = mayDesign(me.role);

  const show = (change: Record<string, string | undefined>) => {
    setWhy(undefined);
    if ('outside' in change || 'holds' in change) setAt(undefined);
    shown.change(change);
  };
  const onSelect = useCallback((place: Place, block: Block) => {
    setAt({ active: place, block });
  }, []);
  const { total, entryAt } = entries;
  const { iAmAt } = here;
  const [myEntry, myField] = at ? [entryAt(at.active.row)?.id, fields[at.active.column]?.key] : [undefined, undefined];
  useEffect(() => iAmAt(myEntry, myField));
  if (total === undefined || !arranging.ready) return <Waiting error={entries.error} />;
  // Where one begins is settled when the grid appears: entries that come meanwhile move it no more than the grid's own cell.
  const view = shown.outside ?? (shown.alike ? `${shown.alike.key} ${shown.value}` : arranged ? 'arranged' : 'all');
  const startRow = start?.view === view ? start.row : some || arranged ? 0 : Math.max(0, total - 1);
  if (start?.view !== view) {
    setStart({ view, row: startRow });
    setAt(undefined);
  }
  const { active, block: chosenBlock } = at ?? { active: { row: startRow, column: 0 }, block: { top: startRow, bottom: startRow, left: 0, right: 0 } };

  const addsBelow = enters && !some && arrangement.only.length === 0 && fields.length > 0;
  const rowCount = total + (addsBelow ? 1 : 0);
  const field = fields[active.column];
  const activeEntry = entryAt(active.row);
  const activeDraft = field && activeEntry && cells.draftOf(activeEntry, field);

  const commitAt = (place: Place, text: string, confirmed?: boolean) => {
    const entry = entryAt(place.row);
    const column = fields[place.column]!;
    if (entry) {
      const { refusal, said: words } = cells.commit(entry, column, text, confirmed);
      setSaid(words ?? '');
      return refusal;
    }
    if (text.trim() !== '') void underWay(addEntry(column, text));
    return undefined;
  };
  /** The space bar answers yes or no, and the other one when pressed again. */
  const toggle = (place: Place): boolean => {
    const column = fields[place.column];
    const entry = entryAt(place.row);
    if (column?.kind !== 'yes/no' || !entry) return false;
    commitAt(place, entry.cells[column.key] === 'yes' ? 'no' : 'yes');
    return true;
  };
  const addEntry = async (column: FieldView, text: string) => {
    const made = await attempt(insert({ registerId: register.id, count: 1 }).unwrap());
    if (made) dispatch(did({ registerId: register.id, act: { act: 'made', entries: made.entries, before: undefined } }));
    const { refusal, said: words } = made ? cells.commit({ id: made.entries[0]!, version: 1, cells: {} }, column, text) : {};
    setSaid(refusal?.message ?? words ?? '');
  };
  const copy = ({ top, bottom, left, right }: Block): string | Promise<string> => {
    const own = fields.slice(left, right + 1);
    const lines = (rows: readonly (EntryView | undefined)[]) => toClipboard(rows.map((entry) => own.map((column) => (entry ? cells.shown(entry, column) : ''))));
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
  const rowsChosen = Math.max(0, Math.min(chosenBlock.bottom, total - 1) - chosenBlock.top + 1);
  const columnOf = (key: string) => fields.findIndex((known) => known.key === key);
  const colouring = arrangement.colouredBy === null ? undefined : register.fields.find(({ key }) => key === arrangement.colouredBy);
  const blockEnds = { first: entryAt(chosenBlock.top)?.id, last: entryAt(Math.min(chosenBlock.bottom, total - 1))?.id };
  const summed = !isSingle(chosenBlock) && rowsChosen > 0 && !some && (chosenBlock.top === 0 || blockEnds.first) && (chosenBlock.bottom >= total - 1 || blockEnds.last);
  const blockFields = fields.slice(chosenBlock.left, chosenBlock.right + 1);
  const shownEntries = `${number.format(total)} ${total === 1 ? 'entry' : 'entries'}`;

  return (
    <Page
      title={sheet.title}
      about={`${sheet.note} ${some ? `${shownEntries} ${shown.outside ? 'outside ' : ''}shown.` : arrangement.only.length > 0 ? `${shownEntries} shown.` : `${shownEntries}.`}`}
      strip={
        <SheetStrip
          register={register}
          counts={counts}
          outside={shown.outside}
          alike={shown.alike && `${shown.alike.heading} ${shown.value === '' ? 'is blank' : `is ${cells.shownValue(shown.alike, shown.value)}`}`}
          refused={refused.length}
          here={here.names}
          arranging={arranging}
          names={{
            locale: me.house.locale,
            field: (key) => register.fields.find((known) => known.key === key)?.heading ?? key,
            value: (key, value) => {
              const own = register.fields.find((known) => known.key === key);
              return own ? cells.shownValue(own, value) : format('text', value, me.house.locale);
            },
          }}
          showOutside={(next) => show({ outside: next, holds: undefined, value: undefined })}
          showAll={() => show({ holds: undefined, value: undefined })}
          showRefused={() => show({ slip: 'refused', field: undefined, 'new-field': undefined })}
          arrange={() => show({ slip: 'arrange', field: undefined, 'new-field': undefined })}
          find={() => show({ slip: 'find', field: undefined, 'new-field': undefined })}
        />
      }
      actions={
        <SheetActions
          sheet={sheet}
          build={build}
          me={me}
          again={again}
          newAbove={some || arranged ? undefined : Math.min(active.row, total) + 1}
          rows={rowsChosen > 0 ? { first: chosenBlock.top + 1, count: rowsChosen } : undefined}
          alike={field && activeEntry && !some ? () => show({ holds: field.key, value: activeEntry.cells[field.key] ?? '', outside: undefined }) : undefined}
          why={field && (() => setWhy({ fieldKey: field.key, entry: activeEntry && { id: activeEntry.id, row: active.row + 1 }, text: activeDraft?.text ?? (activeEntry ? (activeEntry.cells[field.key] ?? '') : '') }))}
          insertAbove={() => void underWay(insertAbove())}
          deleteRows={() => void underWay(deeds.deleteRows(chosenBlock))}
          newField={() => show({ 'new-field': '', field: undefined, slip: undefined })}
        />
      }
      slip={
        slipIsOpen(shown, why, designs) && (
        <SheetSlip
          register={register}
          build={build}
          me={me}
          shown={shown}
          show={show}
          why={why}
          closeWhy={() => setWhy(undefined)}
          counts={counts}
          arranging={arranging}
          arranged={arranged}
          refused={refused}
          deeds={deeds}
          value={cells.shownValue}
          goTo={(row, key) => grid.current?.go({ row, column: Math.max(0, columnOf(key)) })}
          shownAt={(row, key) => {
            const entry = entryAt(row);
            const own = fields[columnOf(key)];
            return entry && own ? cells.shown(entry, own) : undefined;
          }}
          typeAt={(row, key, text) => commitAt({ row, column: columnOf(key) }, text)}
        />
        )
      }
    >
      <Box h="100%" display="flex" flexDirection="column">
        {fields.length === 0 ? (
          <EmptyState title="This sheet has no fields yet">{designs ? 'Add the first one with “New field”.' : 'An administrator adds them.'}</EmptyState>
        ) : (
          <Box flex="1" minH="0">
            <Grid
              ref={grid}
              label={sheet.title}
              // One goes on where the last entry stands.
              key={view}
              startRow={startRow}
              chosenColumn={shown.chosen}
              rowKey={(row) => (row === total ? 'new' : entryAt(row)?.id)}
              columns={columns}
              inView={arrangement.inView}
              onWidth={(column, width) => arranging.set(showing(arrangement, register.fields, fields[column]!.key, { width }))}
              rowCount={Math.max(1, rowCount)}
              mayEdit={enters && rowCount > 0}
              rowNote={(row) => formWords(build, entryAt(row))}
              tint={(row) => {
                const entry = colouring && entryAt(row);
                return entry && cells.colourOf(entry, colouring);
              }}
              look={({ row, column }) => {
                const entry = entryAt(row);
                if (entry) {
                  const who = here.at(entry.id, fields[column]!.key);
                  const look = cells.look(entry, fields[column]!);
                  return who ? { ...look, who } : look;
                }
                if (row < total) return undefined;
                return { text: column === 0 && addsBelow ? 'type to add' : '', tone: 'faint' };
              }}
              editText={({ row, column }) => {
                const entry = entryAt(row);
                const edited = fields[column]!;
                return entry ? (cells.draftOf(entry, edited)?.text ?? cells.shown(entry, edited)) : '';
              }}
              editor={(editing) => {
                const entry = entryAt(editing.place.row);
                const edited = fields[editing.place.column]!;
                return (
                  <CellEditor
                    editing={editing}
                    field={edited}
                    list={cells.listFor(entry, edited)}
                    days={cells.daysFor(entry, edited)}
                    held={entry ? cells.shown(entry, edited) : ''}
                    refusal={entry && refusalOf(cells.draftOf(entry, edited))}
                    locale={me.house.locale}
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
              onClear={(block) => void underWay(deeds.clear(block))}
              onCarry={(block, how) => void underWay(deeds.carry(block, how))}
              onSpace={(place) => toggle(place)}
              onAgain={(as) => void again.again(as)}
              copy={copy}
              onPaste={(texts, place) => void underWay(deeds.paste(texts, place, addsBelow))}
              onHeading={(column) => show({ field: fields[column]!.key, 'new-field': undefined, slip: undefined })}
              onEscape={({ row, column }) => {
                const entry = entryAt(row);
                if (entry) cells.dropDraft(entry, fields[column]!);
              }}
            />
          </Box>
        )}
        <SheetFoot
          hint={activeDraft ? activeDraft.message : field?.rule?.hint ? `${field.heading}: ${field.rule.hint}` : ''}
          refused={activeDraft !== undefined}
          said={said}
          legend={cells.legendOf(colouring ?? field)}
          where={isSingle(chosenBlock) ? `row ${number.format(active.row + 1)}` : `${number.format(chosenBlock.bottom - chosenBlock.top + 1)} × ${chosenBlock.right - chosenBlock.left + 1} cells`}
          block={summed ? { registerId: register.id, block: { fields: blockFields.map(({ key }) => key), ...(chosenBlock.top > 0 && { first: blockEnds.first! }), ...(chosenBlock.bottom < total - 1 && { last: blockEnds.last! }), arranged } } : undefined}
          fields={blockFields}
          locale={me.house.locale}
        />
      </Box>
    </Page>
  );
}
