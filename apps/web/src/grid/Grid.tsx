// The grid: windowed rows under ARIA roles, one active cell, one selected block, an editor in the cell.
import { Box } from '@chakra-ui/react';
import { defaultRangeExtractor, useVirtualizer, type Range } from '@tanstack/react-virtual';
import {
  Fragment,
  useCallback,
  useEffect,
  useEffectEvent,
  useImperativeHandle,
  useLayoutEffect,
  useMemo,
  useRef,
  useState,
  type ClipboardEvent,
  type KeyboardEvent,
  type MouseEvent,
  type ReactNode,
} from 'react';
import { fromBoth, fromClipboard, toHtml } from './clipboard.js';
import { Headings } from './Headings.js';
import { GridRow } from './GridRow.js';
import { actOf, step, type GridAct } from './keys.js';
import { later } from '../frame/later.js';
import { CellHint } from './CellHint.js';
import { isIn, leaveGrid } from './leaveGrid.js';
import {
  inBlock,
  isSingle,
  lefts,
  type CellLook,
  type EditorProps,
  type GridColumn,
  type GridProps,
  type Move,
  type Place,
} from './models.js';
import { gridStyles, rowHeight } from './styles.js';
import { mostPixels, TallScroll } from './tallScroll.js';
import { useFollowedRow } from './useFollowedRow.js';
import { usePointer } from './usePointer.js';
import { useSelection } from './useSelection.js';

const CellMenu = later(async () => (await import('./CellMenu.js')).CellMenu);

const overscan = 10;
const rowHeadWidth = 56;

interface Editing extends Omit<EditorProps, 'leave'> {
  /** Each opening is an editor of its own. */
  readonly opening: number;
}

export function Grid(props: GridProps) {
  const { label, columns, rowCount, mayEdit, onVisible, gutterWidth = 0, inView = 0, fitsContent, hideHeadings, startRow = 0, ref } = props;
  const scroller = useRef<HTMLDivElement>(null);
  const headingHeight = hideHeadings ? 0 : 46;
  const selection = useSelection(rowCount, columns.length, startRow, props.onSelect);
  const pointer = usePointer(scroller, selection, columns.length);
  const [begun, setEditing] = useState<Editing>();
  const editing = followed(begun, columns);
  const openings = useRef(0);
  const [focused, setFocused] = useState(false);
  const [menuAt, setMenuAt] = useState<{ readonly x: number; readonly y: number }>();
  const wantsFocus = useRef<boolean>(null);
  wantsFocus.current ??=
    props.takesFocus === 'now' || (props.takesFocus === 'idle' && !(document.activeElement?.matches('input, textarea, select') ?? false));
  const activeRow = selection.active.row;
  // The menu is about the active cell, which rows that come or go meanwhile take along.
  const menuLines = menuAt && props.menu ? props.menu(selection.active, selection.block) : [];
  const menuIsOpen = menuLines.length > 0;

  const height = rowCount * rowHeight;
  const [tall] = useState(() => new TallScroll(() => scroller.current, rowHeight));
  useLayoutEffect(() => {
    tall.total = height;
  }, [tall, height]);
  const [shift, setShift] = useState(0);
  const virtual = useVirtualizer<HTMLDivElement, HTMLDivElement>({
    count: rowCount,
    getScrollElement: () => scroller.current,
    estimateSize: () => rowHeight,
    overscan,
    initialOffset: startRow * rowHeight,
    scrollToFn: tall.to,
    observeElementOffset: (_instance, tell) =>
      tall.observe((offset, isScrolling) => {
        setShift(tall.shift);
        tell(offset, isScrolling);
      }),
    // The active row stays drawn wherever one scrolls, so that the focus is not lost.
    rangeExtractor: useCallback(
      (range: Range) => [...new Set([...defaultRangeExtractor(range), activeRow])].filter((row) => row < range.count).sort((a, b) => a - b),
      [activeRow],
    ),
  });
  const rows = virtual.getVirtualItems();
  const first = virtual.range?.startIndex ?? 0;
  const last = virtual.range?.endIndex ?? 0;
  useEffect(() => onVisible?.(first, last), [onVisible, first, last]);

  const { chosenColumn } = props;
  useEffect(() => {
    if (chosenColumn) scroller.current?.querySelector('.dl-heading.chosen')?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
  }, [chosenColumn]);

  const cellAt = (place: Place) =>
    scroller.current?.querySelector<HTMLElement>(`.dl-cell[data-row="${place.row}"][data-column="${place.column}"]`);
  const { row: activeAtRow, column: activeAtColumn } = selection.active;
  useLayoutEffect(() => {
    // An open menu has the focus.
    if (!wantsFocus.current || editing || menuIsOpen) return;
    cellAt({ row: activeAtRow, column: activeAtColumn })?.focus({ preventScroll: true });
  }, [activeAtRow, activeAtColumn, editing, menuIsOpen, rows.length]);
  const isWantedNow = props.takesFocus === 'now';
  const takeFocus = useEffectEvent(() => {
    wantsFocus.current = true;
    cellAt(selection.active)?.focus({ preventScroll: true });
  });
  // That it is to take the focus may be known only after it is there: news of it can come before the answer of whoever made it.
  useLayoutEffect(() => {
    if (isWantedNow) takeFocus();
  }, [isWantedNow]);

  const reveal = (place: Place) => {
    if (!fitsContent) tall.reveal(place.row, headingHeight);
    cellAt(place)?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
  };
  // A row that comes into being with the move is revealed once it is there.
  const toReveal = useRef<Place>(undefined);
  useLayoutEffect(() => {
    const place = toReveal.current;
    if (place?.row !== activeAtRow || place.row >= rowCount) return;
    toReveal.current = undefined;
    reveal(place);
  });
  const go = (place: Place, extend = false) => {
    wantsFocus.current = true;
    if (extend) selection.extendTo(place);
    else selection.moveTo(place);
    if (place.row >= rowCount) toReveal.current = place;
    else reveal(place);
  };
  const edit = (place: Place, text: string | undefined, openList: boolean) => {
    if (!mayEdit) return;
    wantsFocus.current = true;
    if (place.row !== selection.active.row || place.column !== selection.active.column) selection.moveTo(place);
    setEditing({
      opening: ++openings.current,
      place,
      rowKey: props.rowKey?.(place.row),
      columnKey: columns[place.column]!.key,
      text: text ?? props.editText(place),
      replaces: text !== undefined,
      openList,
    });
  };
  useImperativeHandle(ref, () => ({
    go: (place) => {
      forgetRow();
      go(place);
    },
    focus: () => {
      wantsFocus.current = true;
      cellAt(selection.active)?.focus({ preventScroll: true });
    },
    open: (place) => edit(place, undefined, true),
    type: (place, text) => {
      forgetRow();
      edit(place, text, false);
    },
  }));

  const forgetRow = useFollowedRow(activeRow, props.rowKey, (by) => {
    selection.shift({ rows: by });
    setEditing((before) => before && { ...before, place: { ...before.place, row: before.place.row + by } });
  });
  const columnKey = useCallback((at: number) => columns[at]?.key, [columns]);
  useFollowedRow(activeAtColumn, columnKey, (by) => selection.shift({ columns: by }));
  // An editor whose column is gone closes; what was typed there is its own to keep.
  const isGone = begun !== undefined && editing === undefined;
  useEffect(() => {
    if (isGone) setEditing(undefined);
  }, [isGone]);

  /** What is left after another was opened, as by a click on the mark of another cell, closes nothing and goes nowhere. */
  const leave = (opening: number, move: Move) => {
    if (opening !== openings.current) return;
    setEditing(undefined);
    if (move === 'stay') wantsFocus.current = scroller.current?.contains(document.activeElement) ?? false;
    else
      go(
        afterMove(selection.active, move, { rows: rowCount, columns: columns.length }, props.entersAcross?.(selection.active.row) ?? false),
      );
  };

  const perform = (act: GridAct) => {
    switch (act.act) {
      case 'move':
        return go(act.to, act.extend);
      case 'edit':
        return edit(selection.active, act.text, act.openList);
      case 'clear':
        return mayEdit ? props.onClear?.(selection.block) : undefined;
      case 'all':
        return selection.set({ row: 0, column: 0 }, { row: rowCount - 1, column: columns.length - 1 });
      case 'rows':
        return selection.set({ row: selection.active.row, column: 0 }, { row: selection.focus.row, column: columns.length - 1 });
      case 'menu': {
        const box = cellAt(selection.active)?.getBoundingClientRect();
        return box && props.menu ? setMenuAt({ x: box.left + 12, y: box.bottom - 4 }) : undefined;
      }
      case 'insert':
        return mayEdit ? props.onInsert?.(act.where, selection.active) : undefined;
      case 'deleteRows':
        return mayEdit ? props.onDeleteRows?.(selection.block) : undefined;
      case 'find':
        return props.onFind?.();
      case 'moveRows':
        return mayEdit ? props.onMoveRows?.(selection.block, act.by) : undefined;
      case 'fill':
        return mayEdit ? props.onFill?.(selection.block, act.how) : undefined;
      case 'again':
        return mayEdit ? props.onAgain?.(act.as) : undefined;
      case 'escape':
        if (!isSingle(selection.block)) selection.moveTo(selection.active);
        return props.onEscape?.(selection.active);
      case 'leave':
      case 'leaveBack':
        wantsFocus.current = false;
        return leaveGrid(scroller.current!, act.act === 'leaveBack');
    }
  };
  const keys = (event: KeyboardEvent) => {
    if (editing || event.nativeEvent.isComposing || !(event.target as HTMLElement).matches('.dl-cell')) return;
    if (event.key === ' ' && !event.shiftKey && mayEdit && props.onSpace?.(selection.active)) return event.preventDefault();
    const pageRows = Math.max(1, last - first - 1);
    const act = actOf(event, selection.active, selection.focus, { rows: rowCount, columns: columns.length, pageRows });
    // What the page has no act for stays the browser's.
    if (!act || (act.act === 'find' && !props.onFind)) return;
    event.preventDefault();
    perform(act);
  };

  const copy = (event: ClipboardEvent, andClear: boolean) => {
    if (editing || !props.copy) return;
    event.preventDefault();
    const text = props.copy(selection.block);
    if (typeof text === 'string') {
      event.clipboardData.setData('text/plain', text);
      event.clipboardData.setData('text/html', toHtml(fromClipboard(text)));
    } else void text.then((loaded) => navigator.clipboard.writeText(loaded));
    if (andClear && mayEdit) props.onClear?.(selection.block);
  };
  const paste = (event: ClipboardEvent) => {
    if (editing || !mayEdit || !props.onPaste) return;
    event.preventDefault();
    props.onPaste(fromBoth(event.clipboardData.getData('text/plain'), event.clipboardData.getData('text/html')), {
      row: selection.block.top,
      column: selection.block.left,
    });
  };

  // Rows are drawn again only when what they show has changed; what they do is always of now.
  const now = useRef({ edit, pointer, leave, selection });
  useEffect(() => {
    now.current = { edit, pointer, leave, selection };
  });
  const opening = begun?.opening ?? 0;
  const leaveNow = useCallback((move: Move) => now.current.leave(opening, move), [opening]);
  const onCell = useCallback((event: MouseEvent, place: Place) => {
    wantsFocus.current = true;
    now.current.pointer.onCell(event, place);
    (event.currentTarget as HTMLElement).focus({ preventScroll: true });
  }, []);
  /** Opens the editor with its list or calendar: a double click, or one on the mark of the cell. */
  const onOpen = useCallback((place: Place) => now.current.edit(place, undefined, true), []);
  const onMenu = useCallback((event: MouseEvent, place: Place) => {
    event.preventDefault();
    const { selection: chosen } = now.current;
    if (!inBlock(place, chosen.block)) chosen.moveTo(place);
    setMenuAt({ x: event.clientX, y: event.clientY });
  }, []);
  const onRow = useCallback((event: MouseEvent, row: number) => now.current.pointer.onRow(event, row), []);

  // Only who works in the grid is told.
  const [hintAt, setHintAt] = useState<HTMLElement | null>(null);
  const hint = props.hint?.(selection.active);
  useLayoutEffect(() => {
    setHintAt(focused ? (cellAt({ row: activeAtRow, column: activeAtColumn }) ?? null) : null);
  }, [activeAtRow, activeAtColumn, editing, rows.length, focused]);

  const headWidth = props.rowHeading ? 0 : rowHeadWidth;
  const width = gutterWidth + headWidth + columns.reduce((sum, column) => sum + column.width, 0);
  const stand = useMemo(() => lefts(columns, gutterWidth + headWidth, inView), [columns, gutterWidth, headWidth, inView]);
  return (
    <Box
      ref={scroller}
      role="grid"
      aria-label={label}
      aria-rowcount={rowCount + 1}
      aria-colcount={columns.length + 1}
      aria-multiselectable
      aria-readonly={!mayEdit}
      css={gridStyles}
      h={fitsContent ? `${Math.min(height + headingHeight + 2, 560)}px` : '100%'}
      w={fitsContent ? `${width + 2}px` : '100%'}
      onKeyDown={keys}
      onCopy={(event) => copy(event, false)}
      onCut={(event) => copy(event, true)}
      onPaste={paste}
      onFocus={(event) => {
        wantsFocus.current = true;
        setFocused(true);
        isIn(event.currentTarget);
      }}
      onBlur={(event) => {
        if (event.currentTarget.contains(event.relatedTarget)) return;
        wantsFocus.current = false;
        setFocused(false);
      }}
    >
      {!hideHeadings && (
        <Headings
          columns={columns}
          gutterWidth={gutterWidth}
          headWidth={headWidth}
          chosen={props.chosenColumn}
          lefts={stand}
          onHeading={props.onHeading}
          onWidth={props.onWidth}
          onMoveColumn={props.onMoveColumn}
        />
      )}
      <div role="rowgroup" style={{ height: Math.min(height, mostPixels), width, position: 'relative' }}>
        {rows.map(({ index, start }) => (
          <GridRow
            // The row being edited keeps its element when others come or go above it, and with it what is typed.
            key={editing?.place.row === index ? 'edited' : index}
            row={index}
            style={{
              transform: `translateY(${height > mostPixels ? Math.min(start - shift, mostPixels - rowHeight) : start}px)`,
              height: rowHeight,
              ...(editing?.place.row === index && { zIndex: 5 }),
            }}
            columns={columns}
            looks={looksOf(props.look, index, columns.length)}
            active={index === activeRow ? selection.active.column : undefined}
            block={selection.block}
            editing={
              editing?.place.row === index ? { column: editing.place.column, node: editorNode(props, editing, leaveNow) } : undefined
            }
            gutter={props.gutter ? { width: gutterWidth, node: props.gutter(index) } : undefined}
            heading={props.rowHeading ? props.rowHeading(index) : String(index + 1)}
            headingWidth={headWidth}
            note={props.rowNote?.(index)}
            locked={props.rowLocked?.(index)}
            lefts={stand}
            tint={props.tint?.(index)}
            mark={props.mark}
            onCell={onCell}
            onOpen={mayEdit ? onOpen : undefined}
            onMenu={props.menu ? onMenu : undefined}
            onRow={onRow}
          />
        ))}
      </div>
      {hint && hintAt && !menuIsOpen && !(editing && (hint.refused || columns[activeAtColumn]?.opens)) && (
        <CellHint hint={hint} anchor={hintAt} />
      )}
      {menuAt && menuIsOpen && (
        <CellMenu
          at={menuAt}
          lines={menuLines}
          label={label}
          close={() => {
            setMenuAt(undefined);
            cellAt(selection.active)?.focus({ preventScroll: true });
          }}
        />
      )}
    </Box>
  );
}

/** An editor where its column stands now; undefined once that is gone. */
function followed(editing: Editing | undefined, columns: readonly GridColumn[]): Editing | undefined {
  const column = columns.findIndex(({ key }) => key === editing?.columnKey);
  if (!editing || column < 0) return undefined;
  return column === editing.place.column ? editing : { ...editing, place: { ...editing.place, column } };
}

/** Where one goes from an edited cell. The row after the last may come into being with what was stored. */
function afterMove(at: Place, move: Exclude<Move, 'stay'>, { rows, columns }: { rows: number; columns: number }, across: boolean): Place {
  const grown = { rows: rows + 1, columns };
  const aside = (by: 1 | -1) => step(at, by, grown) ?? at;
  switch (move) {
    case 'right':
      return aside(1);
    case 'left':
      return aside(-1);
    case 'enter':
      return across ? aside(1) : { ...at, row: at.row + 1 };
    case 'backEnter':
      return across ? aside(-1) : { ...at, row: Math.max(0, at.row - 1) };
    case 'down':
      return { ...at, row: at.row + 1 };
    case 'up':
      return { ...at, row: Math.max(0, at.row - 1) };
  }
}

/** What the rows show, while the page has not said otherwise: the grid alone is drawn anew when an editor opens. */
const known = new WeakMap<GridProps['look'], Map<number, readonly (CellLook | undefined)[]>>();

function looksOf(look: GridProps['look'], row: number, columns: number): readonly (CellLook | undefined)[] {
  const rows = known.get(look) ?? new Map<number, readonly (CellLook | undefined)[]>();
  known.set(look, rows);
  const made = rows.get(row);
  if (made?.length === columns) return made;
  const looks = Array.from({ length: columns }, (_, column) => look({ row, column }));
  rows.set(row, looks);
  return looks;
}

function editorNode(props: GridProps, { opening, ...editing }: Editing, leave: (move: Move) => void): ReactNode {
  return <Fragment key={opening}>{props.editor({ ...editing, leave })}</Fragment>;
}
