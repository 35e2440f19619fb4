// The heading of a list or table: its name, the ranges over it, and what one can do with it as a whole.
import { Box, Button, HStack, Menu, Portal, Text } from '@chakra-ui/react';
import { endingInShort, endingOf } from '@dellum/core';
import type { BuildView } from '@dellum/contract';
import { Ellipsis } from 'lucide-react';
import { useId, useState } from 'react';
import { Question } from '../../frame/Confirm.js';
import { useNotice, useTry } from '../../frame/useNotice.js';
import { useDeleteListMutation, useMakeFieldMutation, usePlaceRegisterMutation, useRetitleListMutation } from '../../data/buildApi.js';
import { number } from '../../frame/written.js';
import { RenameBox } from '../../frame/RenameBox.js';
import type { SourceRegister } from '../acts/useRegister.js';

function RangeLine({ source }: { source: SourceRegister }) {
  const [rail, ...more] = source.rails;
  if (!rail) return <Text color="inkSoft">no range over it</Text>;
  if (more.length > 0) return <Text color="inkSoft">{source.rails.length} ranges over it</Text>;
  return (
    <Text color={rail.taking.grows ? 'growth.fg' : 'inkSoft'} truncate>
      {rail.range.name}, {endingInShort(endingOf(rail.range))}
    </Text>
  );
}

interface RegisterHeadingProps {
  readonly source: SourceRegister;
  readonly build: BuildView;
  readonly gutterWidth: number;
  readonly chosen: boolean;
  readonly mayChange: boolean;
  onField(key: string): void;
}

export function RegisterHeading({ source, build, gutterWidth, chosen, mayChange, onField }: RegisterHeadingProps) {
  const [renaming, setRenaming] = useState(false);
  const menuId = useId();
  // A list with ranges over it is in use: the server says by whom.
  const [asking, setAsking] = useState(false);
  const [retitle] = useRetitleListMutation();
  const [remove] = useDeleteListMutation();
  const [place] = usePlaceRegisterMutation();
  const [makeField] = useMakeFieldMutation();
  const attempt = useTry();
  const notice = useNotice();
  const { register, isList } = source;
  const siblings = build.sheets.find(({ id }) => id === register.sheetId)?.registers ?? [];
  const at = siblings.findIndex(({ id }) => id === register.id);
  const what = isList ? 'list' : 'table';
  const drop = async () => {
    if (await attempt(remove(register.id).unwrap())) notice('done', `The ${what} ${register.title} is deleted.`);
  };
  const addField = async () => {
    const taken = new Set(register.fields.map(({ heading }) => heading));
    const heading = Array.from({ length: taken.size + 1 }, (_, number) => `Field ${register.fields.length + 1 + number}`).find(
      (free) => !taken.has(free),
    )!;
    if (await attempt(makeField({ registerId: register.id, field: { heading, kind: 'text' } }).unwrap()))
      notice('done', `${register.title} has a new field. Click its heading to name it.`);
  };
  const sort = (direction: 'up' | 'down') => void source.act({ act: 'sort', field: register.fields[0]!.key, direction });
  const moveBefore = (before: string | undefined) => void attempt(place({ id: register.id, ...(before && { before }) }).unwrap());
  return (
    <Box pl={`${gutterWidth + 10}px`} pb="1" borderBottomWidth="2px" borderColor={chosen ? 'damson.solid' : 'line'}>
      <HStack justify="space-between">
        {!renaming ? (
          <Text fontWeight="bold" truncate dir="auto">
            {register.title}
          </Text>
        ) : (
          <RenameBox
            label={`Heading of the ${what}`}
            name={register.title}
            size="2xs"
            backTo={menuId}
            rename={(title) => source.told(retitle({ id: register.id, title }).unwrap())}
            close={() => setRenaming(false)}
          />
        )}
        {mayChange && (
          <Menu.Root ids={{ trigger: menuId }}>
            <Menu.Trigger asChild>
              <Button size="2xs" variant="ghost" colorPalette="slate" aria-label={`More for ${register.title}`}>
                <Ellipsis size={14} />
              </Button>
            </Menu.Trigger>
            <Portal>
              <Menu.Positioner>
                <Menu.Content>
                  <Menu.Item value="up" onClick={() => sort('up')}>
                    Sort A to Z
                  </Menu.Item>
                  <Menu.Item value="down" onClick={() => sort('down')}>
                    Sort Z to A
                  </Menu.Item>
                  <Menu.Separator />
                  <Menu.Item value="retitle" onClick={() => setRenaming(true)}>
                    Rename
                  </Menu.Item>
                  <Menu.Item value="field" onClick={() => void addField()}>
                    Add a field
                  </Menu.Item>
                  {isList && (
                    <Menu.Item value="look" onClick={() => onField(register.fields[0]!.key)}>
                      Its field
                    </Menu.Item>
                  )}
                  {at > 0 && (
                    <Menu.Item value="left" onClick={() => moveBefore(siblings[at - 1]!.id)}>
                      Move it to the left
                    </Menu.Item>
                  )}
                  {at < siblings.length - 1 && (
                    <Menu.Item value="right" onClick={() => moveBefore(siblings[at + 2]?.id)}>
                      Move it to the right
                    </Menu.Item>
                  )}
                  <Menu.Item
                    value="delete"
                    color="brick.fg"
                    onClick={() => (source.entries.length === 0 || source.rails.length > 0 ? void drop() : setAsking(true))}
                  >
                    Delete the {what}
                  </Menu.Item>
                </Menu.Content>
              </Menu.Positioner>
            </Portal>
          </Menu.Root>
        )}
      </HStack>
      <RangeLine source={source} />
      <Question
        open={asking}
        close={() => setAsking(false)}
        ask={`Delete ${register.title}`}
        about={`The ${what} goes with ${source.entries.length === 1 ? 'its row' : `its ${number.format(source.entries.length)} rows`}, and cannot be brought back.`}
        act={`Delete the ${what}`}
        onConfirm={() => void drop()}
      />
    </Box>
  );
}
