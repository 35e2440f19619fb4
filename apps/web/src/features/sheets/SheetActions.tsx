// What can be done with a sheet, its rows and its active cell: the buttons at the head of the page.
import { Button } from '@chakra-ui/react';
import { mayDesign, type BuildView, type Me, type SheetView } from '@dellum/contract';
import { Confirm } from '../../frame/Confirm.js';
import { later } from '../../frame/later.js';
import type { Again } from '../entries/useAgain.js';
import { number } from '../../frame/written.js';
import { TakeBackButtons } from './TakeBackButtons.js';

const SheetMenu = later(async () => (await import('./SheetMenu.js')).SheetMenu);

interface SheetActionsProps {
  readonly sheet: SheetView;
  readonly build: BuildView;
  readonly me: Me;
  readonly again: Again;
  /** The row above which a new entry is put; undefined where none can be put now. */
  readonly newAbove: number | undefined;
  /** The chosen rows, from 1; undefined for none. */
  readonly rows: { readonly first: number; readonly count: number } | undefined;
  /** What the active cell allows; undefined where it does not. */
  readonly alike: (() => void) | undefined;
  readonly why: (() => void) | undefined;
  insertAbove(): void;
  deleteRows(): void;
  newField(): void;
}

export function SheetActions(props: SheetActionsProps) {
  const { sheet, build, me, again, newAbove, rows, alike, why } = props;
  const enters = sheet.registers.some((register) => register.enters);
  const designs = mayDesign(me.role);
  return (
    <>
      {enters && <TakeBackButtons again={again} />}
      {enters && newAbove !== undefined && (
        <Button
          aria-label={`New entry above row ${newAbove}`}
          title={`Above row ${number.format(newAbove)}, Insert`}
          onClick={props.insertAbove}
        >
          New entry
        </Button>
      )}
      {enters && rows && (
        <Confirm
          short="Delete"
          ask={`Delete ${rows.count === 1 ? `row ${rows.first}` : `rows ${rows.first} to ${rows.first + rows.count - 1}`}`}
          about="They leave the sheet for everybody. You can undo it."
          act={rows.count === 1 ? 'Delete the entry' : `Delete ${rows.count} entries`}
          onConfirm={props.deleteRows}
        />
      )}
      {alike && <Button onClick={alike}>Same value only</Button>}
      {why && <Button onClick={why}>Why?</Button>}
      {designs && <Button onClick={props.newField}>New field</Button>}
      {designs && <SheetMenu sheet={sheet} build={build} />}
    </>
  );
}
