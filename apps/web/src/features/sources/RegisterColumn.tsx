// One list or table of a source sheet: its heading, its cells with the growth rails, what its ranges miss.
import { Box } from '@chakra-ui/react';
import { isNumeric, lookAtPaste, type PasteLook, sourceTextFault } from '@dellum/core';
import { useRef } from 'react';
import { Grid, toClipboard, type Block, type EditorProps, type GridHandle, type MenuLine, type Place } from '../../grid/index.js';
import { useNotice } from '../../frame/useNotice.js';
import { useMeQuery } from '../../data/sessionApi.js';
import { GrowthRail, lanesOf, railWidth } from '../ranges/GrowthRail.js';
import { useApart } from '../ranges/TellApart.js';
import { RangeFindings } from '../ranges/RangeFindings.js';
import { ruleInShort } from '../sheets/columns.js';
import { RegisterHeading } from './RegisterHeading.js';
import { actsOfBlock, actsOfClearing, columnTexts, lookOf, shownText } from './sourceCells.js';
import { SourceCellEditor } from './SourceCellEditor.js';
import { isInList, type SourceRegister } from '../acts/useRegister.js';
import type { BuildView } from '@dellum/contract';
import { useTypedAhead, type TypedAhead } from './typedAhead.js';

/** A pasted block that waits for a look. */
export interface Pasted {
  readonly registerId: string;
  readonly block: readonly (readonly string[])[];
  readonly at: Place;
  readonly look: PasteLook;
}

interface RegisterColumnProps {
  readonly source: SourceRegister;
  readonly build: BuildView;
  readonly mayChange: boolean;
  readonly chosenRange: string | undefined;
  /** It was just made: one types into its first cell. */
  readonly takesFocus: boolean;
  /** What was typed for it while it was being made. */
  readonly typedAhead: TypedAhead | undefined;
  readonly chosen: boolean;
  readonly chosenField: string | undefined;
  onTypedAhead(left: TypedAhead): void;
  onSelect(block: Block): void;
  onField(key: string): void;
  onPasted(pasted: Pasted): void;
  onAgain(as: 'undo' | 'redo'): void;
}

const listWidth = 152;
/** Blocks up to this many rows go in without a look, as long as nothing about them is odd. */
const smallBlock = 3;

const isOdd = ({ rows, blanks, repeats, alike, headings }: PasteLook) =>
  rows > smallBlock || blanks + repeats + alike.length > 0 || headings;

export function RegisterColumn(props: RegisterColumnProps) {
  const { source, build, mayChange, chosenRange, chosen, chosenField } = props;
  const { data: me } = useMeQuery();
  const grid = useRef<GridHandle>(null);
  const notice = useNotice();
  const apart = useApart();
  useTypedAhead(source, grid, props.typedAhead, props.onTypedAhead);
  if (!me) return null;
  const { locale } = me.house;
  const { register, isList } = source;
  const gutterWidth = railWidth + (lanesOf(source.rails) - 1) * 12;
  const columns = register.fields.map((field) => ({
    key: field.key,
    heading: field.heading,
    rule: ruleInShort(field, register, build, me),
    width: isList ? listWidth : field.width,
    align: isNumeric(field.kind) ? ('end' as const) : ('start' as const),
  }));
  const width = gutterWidth + columns.reduce((sum, column) => sum + column.width, 0);

  const keyOf = (row: number) => (row === source.rows.length ? source.blank : source.rows[row]?.id);
  const draftAt = ({ row, column }: Place) => {
    const [entry, field] = [source.rows[row], register.fields[column]];
    return entry && field && source.draftOf(entry.id, field.key);
  };
  const dropDrafts = ({ top, bottom, left, right }: Block) => {
    for (let row = top; row <= Math.min(bottom, source.rows.length - 1); row++)
      for (let column = left; column <= right; column++) dropDraft({ row, column });
  };
  const dropDraft = (place: Place) => {
    const draft = draftAt(place);
    if (draft) source.dropDraft(draft.entryId, draft.field);
  };
  /** Says at once what is wrong with the text; else stores it, and keeps it in its cell where the server does not take it. */
  const commit = ({ place: { row, column }, rowKey, columnKey: field }: EditorProps, text: string): string | undefined => {
    const entry = source.rows[row];
    if (rowKey !== undefined && rowKey !== keyOf(row)) {
      if (text.trim() !== '') notice('refused', `The row was deleted meanwhile; “${text}” was not stored.`);
      return undefined;
    }
    if (entry ? text === shownText(source, { row, column }, locale) : text.trim() === '') {
      dropDraft({ row, column });
      return undefined;
    }
    const fault = sourceTextFault(text);
    if (fault) return fault.message;
    void (entry ? source.write(entry.id, field, text) : source.begin(source.blank, [{ field, text }]));
    return undefined;
  };
  const paste = (block: string[][], at: Place) => {
    if (block.length === 0) return;
    const look = lookAtPaste(
      block,
      register.fields.slice(at.column).map(({ heading }) => heading),
      columnTexts(source, at.column),
      apart,
    );
    if (isOdd(look)) props.onPasted({ registerId: register.id, block, at, look });
    else void source.act(...actsOfBlock(source, block, at));
  };
  const clear = (block: Block) => {
    dropDrafts(block);
    const acts = actsOfClearing(source.rowsOf(block), source.fieldsOf(block));
    if (acts.length > 0) void source.act(...acts);
  };
  const moveRows = (block: Block, by: -1 | 1) => {
    const entries = source.rowsOf(block).map(({ id }) => id);
    const target = by < 0 ? source.rows[block.top - 1] : source.rows[block.bottom + 2];
    const over = source.rows[by < 0 ? block.top - 1 : block.bottom + 1];
    if (entries.length === 0 || !isInList(over)) return;
    void source.move(entries, isInList(target) ? target.id : undefined);
  };
  /** A new row above another or below it, into which one types at once. */
  const insertAt = (where: 'above' | 'below', { row }: Place) => {
    const at = where === 'above' ? row : row + 1;
    const before = source.rows[at];
    if (isInList(before)) void source.begin(crypto.randomUUID(), [], before.id);
    grid.current?.go({ row: isInList(before) ? at : source.rows.length, column: 0 });
  };
  const deleteRows = (block: Block) => {
    const entries = source.rowsOf(block).map(({ id }) => id);
    if (entries.length > 0) void source.act({ act: 'delete', entries });
    source.rows.slice(block.top, block.bottom + 1).forEach((row, at) => {
      if (!isInList(row)) dropDrafts({ ...block, top: block.top + at, bottom: block.top + at });
    });
  };
  const menu = (place: Place, block: Block): MenuLine[] => {
    const rows = source.rowsOf(block).length;
    const isBlank = !isInList(source.rows[place.row]);
    const isEmpty = place.row >= source.rows.length;
    return [
      { words: 'Edit', key: 'Enter', act: () => grid.current?.open(place) },
      { words: 'Clear', key: 'Delete', off: isEmpty, act: () => clear(block) },
      { words: 'Undo', key: 'Ctrl Z', act: () => props.onAgain('undo') },
      { words: 'New row above', key: 'Insert', apart: true, off: isBlank, act: () => insertAt('above', place) },
      { words: 'New row below', key: 'Alt Insert', off: isBlank, act: () => insertAt('below', place) },
      { words: 'Move up', key: 'Alt Shift ↑', off: isBlank || !isInList(source.rows[block.top - 1]), act: () => moveRows(block, -1) },
      { words: 'Move down', key: 'Alt Shift ↓', off: isBlank || !isInList(source.rows[block.bottom + 1]), act: () => moveRows(block, 1) },
      {
        words: rows > 1 ? `Delete ${rows} rows` : 'Delete the row',
        key: 'Ctrl Delete',
        off: isEmpty,
        harms: true,
        act: () => deleteRows(block),
      },
    ];
  };
  const editor = (editing: EditorProps) => (
    <SourceCellEditor
      editing={editing}
      label={`${isList ? register.title : columns[editing.place.column]!.heading}, row ${editing.place.row + 1}`}
      commit={(text) => commit(editing, text)}
    />
  );

  return (
    <Box as="section" aria-label={register.title} flexShrink={0} w={`${width + 4}px`}>
      <RegisterHeading
        source={source}
        build={build}
        gutterWidth={gutterWidth}
        chosen={chosen}
        mayChange={mayChange}
        onField={props.onField}
      />
      <Grid
        ref={grid}
        label={register.title}
        columns={columns}
        rowCount={source.rows.length + (mayChange ? 1 : 0)}
        mayEdit={mayChange}
        fitsContent
        takesFocus={props.takesFocus ? 'now' : undefined}
        hideHeadings={isList}
        chosenColumn={chosenField}
        gutterWidth={gutterWidth}
        gutter={(row) => <GrowthRail rails={source.rails} row={row} chosen={chosenRange} />}
        rowHeading={() => ''}
        rowKey={keyOf}
        entersAcross={(row) => !isList && source.isNew(row)}
        look={(place) => lookOf(source, place, locale)}
        editText={(place) => draftAt(place)?.text ?? shownText(source, place, locale)}
        hint={(place) => {
          const draft = draftAt(place);
          return draft && { text: draft.message, refused: draft.state === 'refused' };
        }}
        onEscape={dropDraft}
        editor={editor}
        onSelect={(active, block) => {
          source.iAmIn(active.row);
          props.onSelect(block);
        }}
        onHeading={(column) => props.onField(register.fields[column]!.key)}
        onClear={clear}
        copy={(block) =>
          toClipboard(
            source
              .rowsOf(block)
              .map((_entry, row) =>
                source
                  .fieldsOf(block)
                  .map((_field, column) => shownText(source, { row: block.top + row, column: block.left + column }, locale)),
              ),
          )
        }
        onPaste={paste}
        onMoveRows={moveRows}
        onInsert={insertAt}
        onDeleteRows={deleteRows}
        menu={mayChange ? menu : undefined}
        onAgain={props.onAgain}
      />
      {mayChange && (
        <Box pl={`${gutterWidth}px`} maxW={`${gutterWidth + 340}px`}>
          <RangeFindings source={source} build={build} />
        </Box>
      )}
    </Box>
  );
}
