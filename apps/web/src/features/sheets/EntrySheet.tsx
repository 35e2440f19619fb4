// An entry sheet: the grid in which clerks enter data, with what stands above, beside and below it.
import { Box } from '@chakra-ui/react';
import { catalogIdOf, cellsOfNew, format, isNothing, movedField, showing, wordsOf, type Given, type ItemColour } from '@dellum/core';
import { mayDesign, registersOf, type BuildView, type EntryView, type Me, type RegisterView, type SheetView } from '@dellum/contract';
import { useCallback, useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react';
import { EmptyState, Page, Waiting } from '../../frame/Page.js';
import { later } from '../../frame/later.js';
import { useNotice, useTry } from '../../frame/useNotice.js';
import {
  Grid,
  isSingle,
  toClipboard,
  type Block,
  type CellLook,
  type EditorProps,
  type GridHandle,
  type MenuLine,
  type Place,
} from '../../grid/index.js';
import { useAppDispatch } from '../../data/store.js';
import { ItemMark } from '../../theme/index.js';
import { useArrangement } from '../arrangements/useArrangement.js';
import { useCatalogs } from '../../data/useCatalogs.js';
import { closedNote } from '../entries/closedEntry.js';
import { formWords } from '../entries/formWords.js';
import { CellEditor, withReplaced } from '../entries/CellEditor.js';
import { did } from '../entries/doneSlice.js';
import { Way } from '../../frame/Way.js';
import { useSlipsQuery } from '../../data/sourcesApi.js';
import { insertShown, useFieldCountsQuery } from '../../data/entriesApi.js';
import { underWay } from '../entries/inFlight.js';
import { typingIn } from '../../data/newEntriesSlice.js';
import { useAgain } from '../entries/useAgain.js';
import { useEntryWindow } from '../entries/useEntryWindow.js';
import { useNewEntries } from '../entries/useNewEntries.js';
import { cellMenu } from './cellMenu.js';
import { columnsOf } from './columns.js';
import { useRefused } from './useRefused.js';
import { SheetActions } from './SheetActions.js';
import { aboutSheet, mayDownload } from './limitWords.js';
import { SheetFoot } from './SheetFoot.js';
import { SheetStrip } from './SheetStrip.js';
import { useHere } from './useHere.js';
import { useBlockActs } from './useBlockActs.js';
import { refusalOf, useSheetCells } from './useSheetCells.js';
import { slipIsOpen, useShown, type Asked } from './useShown.js';
import { number } from '../../frame/written.js';

const noEntry: EntryView = { id: '', version: 0, cells: {} };

const SheetSlip = later(async () => (await import('./SheetSlip.js')).SheetSlip);

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
  const entries = useEntryWindow(
    register.id,
    useMemo(() => (some || version === undefined ? wanted : { arranged: String(version) }), [some, version, wanted]),
  );
  const catalogs = useCatalogs(register.fields.flatMap(({ rule }) => catalogIdOf(rule) ?? []));
  const cells = useSheetCells(register, catalogs, me);
  const { fields, arrangement } = arranging;
  const columns = useMemo(() => columnsOf(fields, register, build, me), [fields, register, build, me]);
  const acts = useBlockActs({ register, fields, window: entries, me, arranged, some });
  const { data: counts = [] } = useFieldCountsQuery(register.id);
  const refused = useRefused(register.id);
  const here = useHere(register.id);
  const attempt = useTry();
  const notice = useNotice();
  const dispatch = useAppDispatch();
  const again = useAgain(register.id);
  const [at, setAt] = useState<{ active: Place; block: Block }>();
  const [start, setStart] = useState<{ view: string; row: number }>();
  const [said, setSaid] = useState('');
  const [why, setWhy] = useState<Asked>();
  const grid = useRef<GridHandle>(null);
  /** The fields as of now: an editor whose column has gone knows an older sheet. */
  const standing = useRef(register.fields);
  useLayoutEffect(() => {
    standing.current = register.fields;
  });
  const { enters } = register;
  const designs = mayDesign(me.role);
  const { judgedAgain } = cells;
  // A change of these entries that other entries depend on asks its question here, where it was begun.
  const { data: slips } = useSlipsQuery(undefined, { skip: !designs });
  const waiting = slips?.find(({ proposal }) => registersOf(proposal).includes(register.id));

  const show = (change: Record<string, string | undefined>) => {
    setWhy(undefined);
    if ('outside' in change || 'holds' in change) setAt(undefined);
    shown.change(change);
  };
  const onSelect = useCallback((place: Place, block: Block) => {
    setAt({ active: place, block });
  }, []);
  const addsBelow = enters && !some && arranging.arrangement.only.length === 0 && fields.length > 0;
  const rows = useNewEntries(register.id, register.fields, entries, me.house.today, addsBelow);
  const { total, entryAt } = rows;
  const { iAmAt } = here;
  const [myEntry, myField] = at ? [entryAt(at.active.row)?.id, fields[at.active.column]?.key] : [undefined, undefined];
  useEffect(() => iAmAt(myEntry, myField));
  const { find } = rows;
  useEffect(() => judgedAgain(refused, find));
  if (entries.total === undefined || !arranging.ready) return <Waiting error={entries.error} />;
  // Where one begins is settled when the grid appears: entries that come meanwhile move it no more than the grid's own cell.
  const view = shown.outside ?? (shown.alike ? `${shown.alike.key} ${shown.value}` : arranged ? 'arranged' : 'all');
  const startRow = start?.view === view ? start.row : some || arranged ? 0 : addsBelow ? total : Math.max(0, total - 1);
  if (start?.view !== view) {
    setStart({ view, row: startRow });
    setAt(undefined);
  }
  const { active, block: chosenBlock } = at ?? {
    active: { row: startRow, column: 0 },
    block: { top: startRow, bottom: startRow, left: 0, right: 0 },
  };

  const rowCount = rows.count;
  const field = fields[active.column];

  const commitAt = (place: Place, given: Given, confirmed?: boolean, seen?: number) => {
    const entry = entryAt(place.row);
    const column = fields[place.column]!;
    // Nothing typed into the blank row begins no entry.
    if (!entry || (place.row === total && isNothing(given) && !cells.draftOf(entry, column))) return undefined;
    const { refusal, said: words } = cells.commit(entry, column, given, confirmed, seen);
    setSaid(words ?? '');
    return refusal;
  };
  /** What is typed belongs to the entry in which the editor opened: where it is gone, no other one gets the text. */
  const commitEdited = ({ place, rowKey, columnKey }: EditorProps, given: Given, confirmed?: boolean, seen?: number) => {
    const row = rowKey === undefined || entryAt(place.row)?.id === rowKey ? place.row : rows.rowOf(rowKey);
    const column = fields.findIndex(({ key }) => key === columnKey);
    const text = wordsOf(fields[column]?.kind ?? 'text', given, me.house.locale);
    if (column < 0 || !standing.current.some(({ key }) => key === columnKey)) {
      notice('refused', `${fields[column]?.heading ?? 'The field'} is not there any more; “${text}” was not stored.`);
      return undefined;
    }
    if (row !== undefined && entryAt(row)) return commitAt({ row, column }, given, confirmed, seen);
    if (entries.fetching) return { message: 'The rows are just coming anew. Press Enter once more.', suggestions: [] };
    setSaid(text.trim() === '' ? '' : `The entry was deleted meanwhile; “${text}” was not stored.`);
    return undefined;
  };
  /** The space bar answers yes or no, and the other one when pressed again. */
  const toggle = (place: Place): boolean => {
    const column = fields[place.column];
    const entry = entryAt(place.row);
    if (column?.kind !== 'yes/no' || !entry) return false;
    commitAt(place, { chosen: entry.cells[column.key] === 'yes' ? 'no' : 'yes' });
    return true;
  };
  const copy = ({ top, bottom, left, right }: Block): string | Promise<string> => {
    const own = fields.slice(left, right + 1);
    const lines = (copied: readonly (EntryView | undefined)[]) =>
      toClipboard(copied.map((entry) => own.map((column) => (entry ? cells.typedOf(entry, column) : ''))));
    const last = Math.min(bottom, total - 1);
    const copied = Array.from({ length: Math.max(0, last - top + 1) }, (_, row) => entryAt(top + row));
    return copied.every(Boolean) ? lines(copied) : entries.rows(top, last).then(lines);
  };
  /** A new entry above a row or below it, into which one types at once; below the last one stands the blank row. */
  const insertAt = async (where: 'above' | 'below', row: number) => {
    const at = where === 'above' ? row : row + 1;
    const before = entryAt(at);
    if (at >= total || !before) return grid.current?.go({ row: total, column: 0 });
    const shown: EntryView = {
      id: crypto.randomUUID(),
      version: 1,
      cells: cellsOfNew(register.fields, entryAt(at - 1)?.cells, me.house.today),
    };
    const request = dispatch(insertShown(register.id, before.id, [shown]));
    // It is shown by now: the cursor and the entry come together.
    grid.current?.go({ row: at, column: 0 });
    dispatch(typingIn({ registerId: register.id, entryId: shown.id }));
    const made = await attempt(request);
    if (made) dispatch(did({ registerId: register.id, act: { act: 'made', entries: made.entries, before: before.id } }));
  };
  const insertsHere = enters && !some && !arranged;
  const deleteRows = (block: Block) => {
    if (block.top < total) void underWay(acts.deleteRows({ ...block, bottom: Math.min(block.bottom, total - 1) }));
  };
  /** New entries are cleared cell by cell: the server may not know them yet. */
  const clear = (block: Block) => {
    if (block.top !== block.bottom || !rows.isNew(block.top)) return void underWay(acts.clear(block));
    for (let column = block.left; column <= block.right; column++) {
      const entry = entryAt(block.top);
      if (entry && (entry.cells[fields[column]!.key] !== undefined || cells.draftOf(entry, fields[column]!)))
        commitAt({ row: block.top, column }, { typed: '' });
    }
  };
  const aboutCell = ({ row, column }: Place) => {
    const own = fields[column];
    const entry = row < total ? entryAt(row) : undefined;
    if (!own) return undefined;
    return {
      why: () =>
        setWhy({
          fieldKey: own.key,
          entry: entry && { id: entry.id, row: row + 1 },
          text: (entry && cells.draftOf(entry, own)?.text) ?? entry?.cells[own.key] ?? '',
        }),
      alike: entry && !some ? () => show({ holds: own.key, value: entry.cells[own.key] ?? '', outside: undefined }) : undefined,
    };
  };
  const rowsChosen = Math.max(0, Math.min(chosenBlock.bottom, total - 1) - chosenBlock.top + 1);
  const columnOf = (key: string) => fields.findIndex((known) => known.key === key);
  const colouring = arrangement.colouredBy === null ? undefined : register.fields.find(({ key }) => key === arrangement.colouredBy);
  const blockEnds = { first: entryAt(chosenBlock.top)?.id, last: entryAt(Math.min(chosenBlock.bottom, total - 1))?.id };
  const summed =
    !isSingle(chosenBlock) &&
    rowsChosen > 0 &&
    !some &&
    (chosenBlock.top === 0 || blockEnds.first) &&
    (chosenBlock.bottom >= total - 1 || blockEnds.last);
  const blockFields = fields.slice(chosenBlock.left, chosenBlock.right + 1);
  const shownEntries = `${number.format(total)} ${total === 1 ? 'entry' : 'entries'}`;

  const blankLook = (entry: EntryView | undefined, column: number): CellLook => {
    if (!entry || !addsBelow) return { text: '', tone: 'faint' };
    if (cells.draftOf(entry, fields[column]!)) return cells.look(entry, fields[column]!);
    const begins = cells.shown(entry, fields[column]!);
    return { text: begins || (column === 0 ? 'type to add' : ''), tone: 'faint' };
  };
  const menu = (place: Place, block: Block): MenuLine[] =>
    cellMenu({
      place,
      block,
      total,
      field: fields[place.column],
      enters,
      inserts: insertsHere,
      about: aboutCell(place),
      grid,
      again,
      insertAt: (where, row) => void underWay(insertAt(where, row)),
      clear,
      deleteRows,
      fill: (chosen, how) => void underWay(acts.fill(chosen, how)),
      copy,
      paste: (texts, at) => void underWay(acts.paste(texts, at, addsBelow)),
      openRule: designs ? () => show({ field: fields[place.column]!.key, 'new-field': undefined, slip: undefined }) : undefined,
    });

  return (
    <Page
      title={sheet.title}
      about={`${aboutSheet(sheet, build, me)} ${some ? `${shownEntries} ${shown.outside ? 'outside ' : ''}shown.` : arrangement.only.length > 0 ? `${shownEntries} shown.` : `${shownEntries}.`}`}
      strip={
        <SheetStrip
          register={register}
          counts={counts}
          outside={shown.outside}
          alike={
            shown.alike && `${shown.alike.heading} ${shown.value === '' ? 'is blank' : `is ${cells.shownValue(shown.alike, shown.value)}`}`
          }
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
          bring={register.enters ? () => show({ slip: 'bring', field: undefined, 'new-field': undefined }) : undefined}
          download={mayDownload(sheet, me) ? () => show({ slip: 'download', field: undefined, 'new-field': undefined }) : undefined}
        />
      }
      actions={
        <SheetActions
          sheet={sheet}
          build={build}
          me={me}
          again={again}
          newAbove={some || arranged || active.row >= total ? undefined : active.row + 1}
          rows={rowsChosen > 0 ? { first: chosenBlock.top + 1, count: rowsChosen } : undefined}
          alike={aboutCell(active)?.alike}
          why={aboutCell(active)?.why}
          insertAbove={() => void underWay(insertAt('above', active.row))}
          deleteRows={() => deleteRows(chosenBlock)}
          newField={() => show({ 'new-field': '', field: undefined, slip: undefined })}
        />
      }
      slip={
        (waiting !== undefined || slipIsOpen(shown, why, designs)) && (
          <SheetSlip
            waiting={waiting}
            register={register}
            build={build}
            me={me}
            shown={shown}
            show={(change) => {
              show(change);
              // Whoever closes it goes on in the sheet.
              if (Object.values(change).every((value) => value === undefined)) grid.current?.focus();
            }}
            why={why}
            closeWhy={() => {
              setWhy(undefined);
              grid.current?.focus();
            }}
            counts={counts}
            arranging={arranging}
            arranged={arranged}
            refused={refused}
            acts={acts}
            rowOf={rows.rowOf}
            retry={(draft, text) => {
              const entry = rows.find(draft.entryId);
              const own = register.fields.find(({ key }) => key === draft.field);
              return entry && own ? cells.commit(entry, own, { typed: text }).refusal === undefined : false;
            }}
            value={cells.shownValue}
            goTo={(row, key) => grid.current?.go({ row, column: Math.max(0, columnOf(key)) })}
            shownAt={(row, key) => {
              const entry = entryAt(row);
              const own = fields[columnOf(key)];
              return entry && own ? cells.shown(entry, own) : undefined;
            }}
            typeAt={(row, key, text) => commitAt({ row, column: columnOf(key) }, { typed: text })}
          />
        )
      }
    >
      <Box h="100%" display="flex" flexDirection="column">
        {fields.length === 0 ? (
          <EmptyState title="This sheet has no fields yet">
            {designs ? <Way to="?new-field=">Add the first one</Way> : 'An administrator adds them.'}
          </EmptyState>
        ) : (
          <Box flex="1" minH="0">
            <Grid
              ref={grid}
              label={sheet.title}
              // One goes on where the last entry stands.
              key={view}
              startRow={startRow}
              chosenColumn={shown.chosen}
              takesFocus="idle"
              rowKey={(row) => entryAt(row)?.id}
              entersAcross={(row) => fields.length > 1 && rows.isNew(row)}
              columns={columns}
              inView={arrangement.inView}
              onMoveColumn={(column, to) =>
                arranging.set(movedField(arrangement, register.fields, fields[column]!.key, fields[column < to ? to + 1 : to]?.key ?? null))
              }
              onWidth={(column, width) => arranging.set(showing(arrangement, register.fields, fields[column]!.key, { width }))}
              rowCount={Math.max(1, rowCount)}
              mayEdit={enters && rowCount > 0}
              rowNote={(row) => formWords(build, entryAt(row))}
              rowLocked={(row) => closedNote(register, entryAt(row), me)}
              tint={(row) => {
                const entry = colouring && entryAt(row);
                return entry && cells.colourOf(entry, colouring);
              }}
              look={({ row, column }) => {
                const entry = entryAt(row);
                if (row === total) return blankLook(entry, column);
                if (entry) {
                  const who = here.at(entry.id, fields[column]!.key);
                  const look = cells.look(entry, fields[column]!);
                  return who ? { ...look, who } : look;
                }
                return undefined;
              }}
              editText={({ row, column }) => {
                const entry = entryAt(row);
                const edited = fields[column]!;
                return entry ? (cells.draftOf(entry, edited)?.text ?? cells.typedOf(entry, edited)) : '';
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
                    held={entry ? cells.typedOf(entry, edited) : ''}
                    refusal={entry && refusalOf(cells.draftOf(entry, edited))}
                    locale={me.house.locale}
                    version={entry?.version}
                    commit={(text, confirmed, seen) => commitEdited(editing, text, confirmed, seen)}
                    abandon={(text) => {
                      if (entry && text !== cells.typedOf(entry, edited)) setSaid(`Left as it was; “${text}” was not stored.`);
                      if (entry) cells.dropDraft(entry, edited);
                    }}
                    replaced={(text) => setSaid((said) => withReplaced(said, text))}
                  />
                );
              }}
              hint={({ row, column }) => {
                const own = fields[column];
                const draft = own && cells.draftOf(entryAt(row) ?? noEntry, own);
                if (draft) return { text: draft.message, refused: true };
                return own?.rule?.hint ? { title: own.rule.hintTitle, text: own.rule.hint } : undefined;
              }}
              mark={(name) => <ItemMark colour={name as ItemColour} />}
              onVisible={entries.onVisible}
              onSelect={(place, block) => {
                rows.iAmIn(place.row);
                onSelect(place, block);
              }}
              onClear={clear}
              onInsert={(where, place) => insertsHere && void underWay(insertAt(where, place.row))}
              onDeleteRows={deleteRows}
              onFind={() => show({ slip: 'find', field: undefined, 'new-field': undefined })}
              menu={menu}
              onFill={(block, how) => void underWay(acts.fill(block, how))}
              onSpace={(place) => toggle(place)}
              onAgain={(as) => void again.again(as)}
              copy={copy}
              onPaste={(texts, place) => void underWay(acts.paste(texts, place, addsBelow))}
              onHeading={(column) => show({ field: fields[column]!.key, 'new-field': undefined, slip: undefined })}
              onEscape={({ row, column }) => {
                const entry = entryAt(row);
                if (entry) cells.dropDraft(entry, fields[column]!);
              }}
            />
          </Box>
        )}
        <SheetFoot
          said={said}
          legend={cells.legendOf(colouring ?? field)}
          where={
            isSingle(chosenBlock)
              ? `row ${number.format(active.row + 1)}`
              : `${number.format(chosenBlock.bottom - chosenBlock.top + 1)} × ${chosenBlock.right - chosenBlock.left + 1} cells`
          }
          block={
            summed
              ? {
                  registerId: register.id,
                  block: {
                    fields: blockFields.map(({ key }) => key),
                    ...(chosenBlock.top > 0 && { first: blockEnds.first! }),
                    ...(chosenBlock.bottom < total - 1 && { last: blockEnds.last! }),
                    arranged,
                  },
                }
              : undefined
          }
          fields={blockFields}
          locale={me.house.locale}
        />
      </Box>
    </Page>
  );
}
