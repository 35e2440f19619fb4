// What an administrator does with a sheet as a whole: title, order, copy, showing it to clerks, deleting it.
import { Box, Button, Menu, Portal, Text } from '@chakra-ui/react';
import type { BuildView, SheetView } from '@dellum/contract';
import { Ellipsis } from 'lucide-react';
import { useId, useState } from 'react';
import { Floating } from '../../picker/Floating.js';
import { Question } from '../../frame/Confirm.js';
import { useArrive, useNotice, useTry } from '../../frame/useNotice.js';
import { RenameBox } from '../../frame/RenameBox.js';
import { useMeQuery } from '../../data/sessionApi.js';
import { SheetClosing } from './SheetClosing.js';
import { SheetLimits } from './SheetLimits.js';
import { useChangeSheetMutation, useCopySheetMutation, useDeleteSheetMutation, usePlaceSheetMutation } from '../../data/buildApi.js';

export function SheetMenu({ sheet, build }: { sheet: SheetView; build: BuildView }) {
  const [change] = useChangeSheetMutation();
  const [copy] = useCopySheetMutation();
  const [place] = usePlaceSheetMutation();
  const [remove] = useDeleteSheetMutation();
  const [limiting, setLimiting] = useState(false);
  const [closing, setClosing] = useState(false);
  const { data: me } = useMeQuery();
  const [renaming, setRenaming] = useState(false);
  const menuId = useId();
  const [asking, setAsking] = useState(false);
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const attempt = useTry();
  const notice = useNotice();
  const arrive = useArrive();
  const home = sheet.kind === 'entry' ? '/sheets' : '/sources';
  const siblings = build.sheets.filter(({ kind }) => kind === sheet.kind);
  const at = siblings.findIndex(({ id }) => id === sheet.id);

  const drop = async () => {
    if (!(await attempt(remove(sheet.id).unwrap()))) return;
    arrive(home, `“${sheet.title}” is deleted.`);
  };
  const duplicate = async () => {
    const made = await attempt(copy(sheet.id).unwrap());
    if (!made) return;
    arrive(`${home}/${made.id}`, `This is the copy of “${sheet.title}”; ranges stay with the first.`);
  };
  const show = async () => {
    if (!(await attempt(change({ id: sheet.id, change: { shown: !sheet.shown } }).unwrap()))) return;
    notice(
      'done',
      sheet.shown
        ? `“${sheet.title}” is the administrator’s alone again.`
        : `Clerks and readers may look at “${sheet.title}” now; only administrators change it.`,
    );
  };
  const moveTo = async (before: SheetView | undefined) => {
    if (await attempt(place({ id: sheet.id, ...(before && { before: before.id }) }).unwrap()))
      notice('done', `“${sheet.title}” has its new place among the sheets.`);
  };
  return (
    <>
      <Menu.Root ids={{ trigger: menuId }}>
        <Menu.Trigger asChild>
          <Button ref={setAnchor} aria-label={`More for ${sheet.title}`}>
            <Ellipsis size={14} />
          </Button>
        </Menu.Trigger>
        <Portal>
          <Menu.Positioner>
            <Menu.Content>
              <Menu.Item value="retitle" onClick={() => setRenaming(true)}>
                Rename
              </Menu.Item>
              {at > 0 && (
                <Menu.Item value="earlier" onClick={() => void moveTo(siblings[at - 1])}>
                  Move it before {siblings[at - 1]!.title}
                </Menu.Item>
              )}
              {at < siblings.length - 1 && (
                <Menu.Item value="later" onClick={() => void moveTo(siblings[at + 2])}>
                  Move it after {siblings[at + 1]!.title}
                </Menu.Item>
              )}
              {sheet.kind === 'source' && (
                <>
                  <Menu.Item value="copy" onClick={() => void duplicate()}>
                    Save as a copy
                  </Menu.Item>
                  <Menu.Item value="show" onClick={() => void show()}>
                    {sheet.shown ? 'Hide it from clerks' : 'Show it to clerks'}
                  </Menu.Item>
                </>
              )}
              {sheet.kind === 'entry' && (
                <Menu.Item value="closing" onClick={() => setClosing(true)}>
                  When entries are closed
                </Menu.Item>
              )}
              {(sheet.kind === 'entry' || sheet.shown) && (
                <Menu.Item value="limits" onClick={() => setLimiting(true)}>
                  Who sees it
                </Menu.Item>
              )}
              <Menu.Item value="delete" color="brick.fg" onClick={() => setAsking(true)}>
                Delete the sheet
              </Menu.Item>
            </Menu.Content>
          </Menu.Positioner>
        </Portal>
      </Menu.Root>
      <Question
        open={asking}
        close={() => setAsking(false)}
        ask={`Delete ${sheet.title}`}
        about={`It goes with ${sheet.kind === 'entry' ? 'its fields, their rules and all its entries' : 'its lists and all their values'}, for everybody, and cannot be brought back.`}
        act="Delete the sheet"
        onConfirm={() => void drop()}
      />
      {limiting && <SheetLimits sheet={sheet} build={build} close={() => setLimiting(false)} />}
      {closing && me && sheet.registers[0] && <SheetClosing register={sheet.registers[0]} me={me} close={() => setClosing(false)} />}
      {renaming && (
        <Floating anchor={anchor}>
          <Box p="3" onMouseDown={(event) => event.stopPropagation()}>
            <RenameBox
              label="Title"
              name={sheet.title}
              size="sm"
              backTo={menuId}
              rename={async (title) => (await attempt(change({ id: sheet.id, change: { title } }).unwrap())) !== undefined}
              close={() => setRenaming(false)}
            />
            <Text mt="1" fontSize="xs" color="inkSoft">
              Enter renames it, Escape leaves it.
            </Text>
          </Box>
        </Floating>
      )}
    </>
  );
}
