// What an administrator does with a sheet as a whole: title, order, copy, showing it to clerks, deleting it.
import { Button, Input, Menu, Portal, Stack } from '@chakra-ui/react';
import type { BuildView, SheetView } from '@dellum/contract';
import { Ellipsis } from 'lucide-react';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { Floating } from '../../picker/Floating.js';
import { Question } from '../../frame/Confirm.js';
import { useNotice, useTry } from '../../frame/useNotice.js';
import { useChangeSheetMutation, useCopySheetMutation, useDeleteSheetMutation, usePlaceSheetMutation } from './buildApi.js';

export function SheetMenu({ sheet, build }: { sheet: SheetView; build: BuildView }) {
  const [change] = useChangeSheetMutation();
  const [copy] = useCopySheetMutation();
  const [place] = usePlaceSheetMutation();
  const [remove] = useDeleteSheetMutation();
  const [title, setTitle] = useState<string>();
  const [asking, setAsking] = useState(false);
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const attempt = useTry();
  const notice = useNotice();
  const navigate = useNavigate();
  const home = sheet.kind === 'entry' ? '/sheets' : '/sources';
  const siblings = build.sheets.filter(({ kind }) => kind === sheet.kind);
  const at = siblings.findIndex(({ id }) => id === sheet.id);

  const save = async () => {
    if (await attempt(change({ id: sheet.id, change: { title: title ?? '' } }).unwrap())) setTitle(undefined);
  };
  const drop = async () => {
    if (!(await attempt(remove(sheet.id).unwrap()))) return;
    notice('done', `“${sheet.title}” is deleted.`);
    await navigate(home);
  };
  const duplicate = async () => {
    const made = await attempt(copy(sheet.id).unwrap());
    if (!made) return;
    notice('done', `This is the copy of “${sheet.title}”; ranges stay with the first.`);
    await navigate(`${home}/${made.id}`);
  };
  const show = async () => {
    if (!(await attempt(change({ id: sheet.id, change: { shown: !sheet.shown } }).unwrap()))) return;
    notice('done', sheet.shown ? `“${sheet.title}” is the administrator’s alone again.` : `Clerks and readers may look at “${sheet.title}” now; only administrators change it.`);
  };
  const moveTo = async (before: SheetView | undefined) => {
    if (await attempt(place({ id: sheet.id, ...(before && { before: before.id }) }).unwrap())) notice('done', `“${sheet.title}” has its new place among the sheets.`);
  };
  return (
    <>
      <Menu.Root>
        <Menu.Trigger asChild>
          <Button ref={setAnchor} size="xs" variant="outline" aria-label={`More for ${sheet.title}`}>
            <Ellipsis size={14} />
          </Button>
        </Menu.Trigger>
        <Portal>
          <Menu.Positioner>
            <Menu.Content>
              <Menu.Item value="retitle" onClick={() => setTitle(sheet.title)}>
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
      {title !== undefined && (
        <Floating anchor={anchor}>
          <form
            onSubmit={(event) => {
              event.preventDefault();
              void save();
            }}
          >
            <Stack p="3" gap="2" onMouseDown={(event) => event.stopPropagation()}>
              <Input size="sm" aria-label="Title" autoFocus value={title} onChange={(event) => setTitle(event.target.value)} onKeyDown={(event) => event.key === 'Escape' && setTitle(undefined)} />
              <Stack direction="row">
                <Button type="submit" size="xs">
                  Rename
                </Button>
                <Button size="xs" variant="outline" onClick={() => setTitle(undefined)}>
                  Cancel
                </Button>
              </Stack>
            </Stack>
          </form>
        </Floating>
      )}
    </>
  );
}
