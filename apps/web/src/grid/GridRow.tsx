// One row of the grid: its gutter, its heading and its cells.
import { Lock } from 'lucide-react';
import { memo, type CSSProperties, type MouseEvent, type ReactNode } from 'react';
import { inBlock, type Block, type CellLook, type GridColumn, type Place } from './models.js';

export interface GridRowProps {
  readonly row: number;
  readonly style: CSSProperties;
  readonly columns: readonly GridColumn[];
  readonly looks: readonly (CellLook | undefined)[];
  readonly active: number | undefined;
  readonly block: Block;
  readonly editing: { readonly column: number; readonly node: ReactNode } | undefined;
  readonly gutter: { readonly width: number; readonly node: ReactNode } | undefined;
  readonly heading: string;
  readonly headingWidth: number;
  readonly note: string | undefined;
  /** Why the row cannot be changed: a lock is shown; undefined where it can. */
  readonly locked: string | undefined;
  readonly lefts: readonly (number | undefined)[];
  readonly tint: string | undefined;
  readonly mark: ((name: string) => ReactNode) | undefined;
  onCell(event: MouseEvent, place: Place): void;
  /** Opens the editor of a cell with its list; undefined where nothing can be edited. */
  readonly onOpen: ((place: Place) => void) | undefined;
  readonly onMenu: ((event: MouseEvent, place: Place) => void) | undefined;
  onRow(event: MouseEvent, row: number): void;
}

function className(
  look: CellLook | undefined,
  column: GridColumn,
  chosen: boolean,
  active: boolean,
  editing: boolean,
  kept: boolean,
  lastKept: boolean,
): string {
  return [
    'dl-cell',
    !editing && `tone-${look?.tone ?? 'plain'}`,
    column.align === 'end' && 'end',
    chosen && 'in-block',
    active && 'active',
    editing && 'editing',
    kept && 'kept',
    lastKept && 'last-kept',
  ]
    .filter(Boolean)
    .join(' ');
}

/** Drawn again only when what it shows has changed; the looks are compared one by one. */
function same(before: GridRowProps, after: GridRowProps): boolean {
  const keys = ['row', 'columns', 'active', 'heading', 'headingWidth', 'lefts', 'note', 'locked', 'tint'] as const;
  if (keys.some((key) => before[key] !== after[key]) || before.editing || after.editing) return false;
  if (before.style.transform !== after.style.transform || before.gutter || after.gutter) return false;
  const touches = ({ top, bottom }: Block, row: number) => row >= top && row <= bottom;
  if (touches(before.block, after.row) || touches(after.block, after.row)) return false;
  return (
    before.looks.length === after.looks.length &&
    before.looks.every(
      (look, at) =>
        look?.text === after.looks[at]?.text &&
        look?.tone === after.looks[at]?.tone &&
        look?.said === after.looks[at]?.said &&
        look?.who === after.looks[at]?.who &&
        look?.mark === after.looks[at]?.mark,
    )
  );
}

export const GridRow = memo(function GridRow(props: GridRowProps) {
  const { row, style, columns, looks, active, block, editing, gutter, heading, headingWidth, lefts, note, locked, tint } = props;
  return (
    <div role="row" aria-rowindex={row + 2} className={tint ? `dl-row tint-${tint}` : 'dl-row'} style={style}>
      {gutter && (
        <div role="presentation" className="dl-cell dl-gutter" style={{ width: gutter.width }}>
          {gutter.node}
        </div>
      )}
      {headingWidth > 0 && (
        <div
          role="rowheader"
          className="dl-cell dl-rowhead"
          style={{ width: headingWidth }}
          data-row={row}
          title={[note, locked].filter(Boolean).join('; ') || undefined}
          onMouseDown={(event) => props.onRow(event, row)}
        >
          {note && <span className="dl-note" aria-hidden />}
          {locked && <Lock size={10} aria-hidden className="dl-lock" />}
          {heading}
          {(note || locked) && <span className="sr-only"> {[note, locked && 'closed'].filter(Boolean).join(', ')}</span>}
        </div>
      )}
      {columns.map((column, at) => {
        const place = { row, column: at };
        const look = looks[at];
        const isActive = active === at;
        const isEditing = editing?.column === at;
        const chosen = inBlock(place, block);
        return (
          <div
            key={column.key}
            role="gridcell"
            aria-colindex={at + 2}
            aria-selected={chosen}
            className={className(
              look,
              column,
              chosen && !isActive,
              isActive,
              isEditing,
              lefts[at] !== undefined,
              lefts[at] !== undefined && lefts[at + 1] === undefined,
            )}
            style={lefts[at] === undefined ? { width: column.width } : { width: column.width, left: lefts[at] }}
            tabIndex={isActive && !isEditing ? 0 : -1}
            data-row={row}
            data-column={at}
            title={isEditing ? undefined : look?.said}
            onMouseDown={isEditing ? undefined : (event) => props.onCell(event, place)}
            onDoubleClick={isEditing ? undefined : () => props.onOpen?.(place)}
            onContextMenu={isEditing ? undefined : (event) => props.onMenu?.(event, place)}
          >
            {isEditing ? editing.node : look ? <CellText look={look} mark={props.mark} /> : <span className="dl-loading">…</span>}
            {column.opens && props.onOpen && look && !isEditing && (
              <Opener what={column.opens} heading={column.heading} open={() => props.onOpen?.(place)} />
            )}
          </div>
        );
      })}
    </div>
  );
}, same);

/** The mark of a cell that has a list or a calendar: a drawer that one click pulls open. */
function Opener({ what, heading, open }: { what: NonNullable<GridColumn['opens']>; heading: string; open: () => void }) {
  return (
    <button
      type="button"
      className="dl-open"
      tabIndex={-1}
      aria-label={what === 'list' ? `Open the list of ${heading}` : `Open the calendar of ${heading}`}
      onMouseDown={(event) => {
        event.preventDefault();
        event.stopPropagation();
      }}
      onClick={open}
      onDoubleClick={(event) => event.stopPropagation()}
    >
      <svg width="14" height="12" viewBox="0 0 14 12" aria-hidden>
        {what === 'list' ? <path d="M1.5 1v9.5h11V1M4.5 6.5h5" /> : <path d="M1.5 2.5h11v8h-11zM1.5 5.5h11M4.5 1v2M9.5 1v2" />}
      </svg>
    </button>
  );
}

function CellText({ look, mark }: { look: CellLook; mark: GridRowProps['mark'] }) {
  return (
    <>
      {look.mark && mark && <span className="dl-mark">{mark(look.mark)}</span>}
      <span className="dl-text" dir="auto">
        {look.text}
      </span>
      {look.said && <span className="sr-only">, {look.said}</span>}
      {look.who && (
        <span className="dl-who">
          <span className="sr-only">, </span>
          {look.who}
          <span className="sr-only"> is here</span>
        </span>
      )}
    </>
  );
}
