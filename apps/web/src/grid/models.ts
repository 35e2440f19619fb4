// What the grid is told and what it tells. It knows nothing of catalogs or registers.
import type { ReactNode } from 'react';

export interface GridColumn {
  readonly key: string;
  readonly heading: string;
  /** Second line of the heading: which rule the field has. */
  readonly rule: string;
  /** True when the rule line stands for a catalog. */
  readonly fromCatalog?: boolean;
  /** Pixels. */
  readonly width: number;
  readonly align?: 'start' | 'end';
  /** What a cell opens: its mark is shown where the cell is active or pointed at. */
  readonly opens?: 'list' | 'calendar';
}

/** A place in the grid; rows and columns count from 0. */
export interface Place {
  readonly row: number;
  readonly column: number;
}

/** A rectangle of cells, both ends included. */
export interface Block {
  readonly top: number;
  readonly bottom: number;
  readonly left: number;
  readonly right: number;
}

export type CellTone = 'plain' | 'outside' | 'asked' | 'refused' | 'waiting' | 'pending' | 'missed' | 'faint' | 'struck';

/** How a cell looks; `said` is what a screen reader hears after the text and the pointer is told. */
export interface CellLook {
  readonly text: string;
  readonly tone: CellTone;
  readonly said?: string;
  /** Who else is at this cell. */
  readonly who?: string;
  /** A small coloured shape before the text, by its name; how it looks is the page's to say. */
  readonly mark?: string;
}

/** Where to go when the editor of a cell is left; Enter goes down, or on to the next cell where the row says so. */
export type Move = 'stay' | 'enter' | 'backEnter' | 'down' | 'up' | 'right' | 'left';

/** What a cell says on arrival. */
export interface Hint {
  readonly title?: string | undefined;
  readonly text: string;
  /** It says why the text of the cell is not taken. */
  readonly refused?: boolean;
}

/** One line of the menu of a cell. */
export interface MenuLine {
  readonly words: string;
  /** The key that does the same. */
  readonly key?: string;
  /** Dim while it makes no sense here. */
  readonly off?: boolean;
  /** Takes something away. */
  readonly harms?: boolean;
  /** A line before it. */
  readonly apart?: boolean;
  act(): void;
}

export interface EditorProps {
  readonly place: Place;
  /** What the row was when the editor opened: what is typed belongs to it, whatever stands at its place by then. */
  readonly rowKey?: string | undefined;
  /** The column in which it opened: columns may come, go and move meanwhile. */
  readonly columnKey: string;
  /** The text to begin with: the cell's own, or the key that was pressed. */
  readonly text: string;
  /** True when the text replaces what the cell holds. */
  readonly replaces: boolean;
  /** True when the list of values is to be open from the start. */
  readonly openList: boolean;
  leave(move: Move): void;
}

export interface GridProps {
  readonly label: string;
  readonly columns: readonly GridColumn[];
  readonly rowCount: number;
  readonly mayEdit: boolean;
  /** Undefined while the row is loading. */
  look(place: Place): CellLook | undefined;
  /** The text with which editing begins. */
  editText(place: Place): string;
  editor(props: EditorProps): ReactNode;
  /** The grid takes the focus when it appears: at once, or unless somebody types in a text beside it. */
  readonly takesFocus?: 'now' | 'idle' | undefined;
  /** True where Enter goes on to the next cell of the row: while a new one is typed. */
  entersAcross?(row: number): boolean;
  /** The acts that make sense at a cell: opened by the right button, or the menu key. */
  menu?(place: Place, block: Block): readonly MenuLine[];
  /** A new row above the active one, or below it. */
  onInsert?(where: 'above' | 'below', place: Place): void;
  onDeleteRows?(block: Block): void;
  /** Finds in what the grid shows. */
  onFind?(): void;
  /** What a cell says when one arrives there. */
  hint?(place: Place): Hint | undefined;
  onVisible?(first: number, last: number): void;
  /** The active cell and the block around it; undefined when the grid is left. */
  onSelect?(active: Place, block: Block): void;
  onClear?(block: Block): void;
  /** The space bar on a cell; true when the page has done something with it, else it begins typing. */
  onSpace?(place: Place): boolean;
  copy?(block: Block): string | Promise<string>;
  onPaste?(cells: string[][], at: Place): void;
  onHeading?(column: number): void;
  /** So many of the first columns stay in view when one scrolls sideways. */
  readonly inView?: number;
  /** A column is given another width by dragging the edge of its heading; pixels. */
  onWidth?(column: number, width: number): void;
  /** A column is dragged to another place. */
  onMoveColumn?(column: number, to: number): void;
  /** The name of the colour that a whole row takes; how it looks is the page's to say. */
  tint?(row: number): string | undefined;
  /** Carries the top of the block down (F8; with Shift as a series). */
  onFill?(block: Block, how: 'same' | 'series'): void;
  /** The column whose slip is open. */
  readonly chosenColumn?: string | undefined;
  /** Drawn in a narrow column before the rows; the growth rail, for instance. */
  gutter?(row: number): ReactNode;
  readonly gutterWidth?: number;
  /** Words for the row's own heading; the row number when absent. */
  rowHeading?(row: number): string;
  /** What there is to say of a whole row beside its heading; it is marked there. */
  rowNote?(row: number): string | undefined;
  /** Why a row cannot be changed; it shows a lock. */
  rowLocked?(row: number): string | undefined;
  /** What a row is, whatever its number: when rows come or go above it, the active cell and its editor stay with it. */
  rowKey?(row: number): string | undefined;
  /** Moves whole rows up or down (Alt and Shift with the arrows). */
  onMoveRows?(block: Block, by: -1 | 1): void;
  /** Takes back the last act, or does it again (Ctrl and Z, Ctrl and Y). */
  onAgain?(as: 'undo' | 'redo'): void;
  /** Draws the mark of a cell. */
  mark?(name: string): ReactNode;
  /** Asked for by Escape on a cell that is not being edited. */
  onEscape?(place: Place): void;
  /** Rows stand close together and the grid takes only the height it needs. */
  readonly fitsContent?: boolean;
  /** The row that is active and in view at first. */
  readonly startRow?: number;
  readonly hideHeadings?: boolean;
  readonly ref?: React.Ref<GridHandle>;
}

/** What the page may ask of the grid. */
export interface GridHandle {
  go(place: Place): void;
  /** Types a text over a cell and goes on typing there. */
  type(place: Place, text: string): void;
  /** Takes the focus, at the cell where one was last. */
  focus(): void;
  /** Opens the editor with the list or calendar of the cell. */
  open(place: Place): void;
}

export const blockOf = (a: Place, b: Place): Block => ({
  top: Math.min(a.row, b.row),
  bottom: Math.max(a.row, b.row),
  left: Math.min(a.column, b.column),
  right: Math.max(a.column, b.column),
});

export const inBlock = ({ row, column }: Place, block: Block): boolean =>
  row >= block.top && row <= block.bottom && column >= block.left && column <= block.right;

/** Where the columns that stay in view stand, in pixels from the left; undefined for those that scroll. */
export function lefts(columns: readonly GridColumn[], before: number, inView: number): readonly (number | undefined)[] {
  let left = before;
  return columns.map(({ width }, at) => {
    const own = left;
    left += width;
    return at < inView ? own : undefined;
  });
}

export const isSingle = (block: Block): boolean => block.top === block.bottom && block.left === block.right;
