// What an administrator does with a sheet as a whole: retitle and delete it.
import { Button, Input, Menu, Portal, Stack } from '@chakra-ui/react';
import type { SheetView } from '@dellum/contract';
import { Ellipsis } from 'lucide-react';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { Floating } from '../../picker/Floating.js';
import { useNotice, useTry } from '../../frame/useNotice.js';
import { useDeleteSheetMutation, useRetitleSheetMutation } from './buildApi.js';

export function SheetMenu({ sheet }: { sheet: SheetView }) {
  const [retitle] = useRetitleSheetMutation();
  const [remove] = useDeleteSheetMutation();
  const [title, setTitle] = useState<string>();
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const attempt = useTry();
  const notice = useNotice();
  const navigate = useNavigate();
  const save = async () => {
    if (await attempt(retitle({ id: sheet.id, title: title ?? '' }).unwrap())) setTitle(undefined);
  };
  const drop = async () => {
    if (!(await attempt(remove(sheet.id).unwrap()))) return;
    notice('done', `“${sheet.title}” is deleted.`);
    await navigate(sheet.kind === 'entry' ? '/sheets' : '/sources');
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
                Give it another title
              </Menu.Item>
              <Menu.Item value="delete" color="brick.fg" onClick={() => void drop()}>
                Delete the sheet
              </Menu.Item>
            </Menu.Content>
          </Menu.Positioner>
        </Portal>
      </Menu.Root>
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
                  Retitle
                </Button>
                <Button size="xs" variant="outline" onClick={() => setTitle(undefined)}>
                  Leave it
                </Button>
              </Stack>
            </Stack>
          </form>
        </Floating>
      )}
    </>
  );
}
