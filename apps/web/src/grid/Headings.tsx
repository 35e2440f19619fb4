// The headings: name of the field, and which rule it has.
import { Mark } from '../frame/Mark.js';
import type { GridColumn } from './models.js';

interface HeadingsProps {
  readonly columns: readonly GridColumn[];
  readonly gutterWidth: number;
  readonly headWidth: number;
  readonly chosen: string | undefined;
  readonly onHeading: ((column: number) => void) | undefined;
}

export function Headings({ columns, gutterWidth, headWidth, chosen, onHeading }: HeadingsProps) {
  return (
    <div role="rowgroup" className="dl-headings">
      <div role="row" aria-rowindex={1} style={{ display: 'flex' }}>
        {gutterWidth > 0 && <div role="presentation" style={{ width: gutterWidth }} />}
        {headWidth > 0 && (
          <div role="columnheader" className="dl-heading" style={{ width: headWidth, position: 'sticky', left: 0, zIndex: 2 }}>
            <span className="sr-only">Row</span>
          </div>
        )}
        {columns.map((column, at) => (
          <div key={column.key} role="columnheader" aria-colindex={at + 2} className={column.key === chosen ? 'dl-heading chosen' : 'dl-heading'} style={{ width: column.width }}>
            <button type="button" onClick={() => onHeading?.(at)} title={`${column.heading}: ${column.rule}`}>
              <span className="name" dir="auto">
                {column.heading}
              </span>
              <span className="rule">
                {column.fromCatalog && <Mark size={11} />}
                {column.rule}
              </span>
            </button>
          </div>
        ))}
      </div>
    </div>
  );
}
