// One list of a source sheet: its heading, its cells with the growth rail, what its ranges miss.
import { Box, Button, HStack, Input, Menu, Portal, Text } from '@chakra-ui/react';
import { endingInShort, sourceTextFault } from '@dellum/core';
import type { RegisterView } from '@dellum/contract';
import { Ellipsis } from 'lucide-react';
import { useRef, useState } from 'react';
import { useNotice, useTry } from '../../frame/useNotice.js';
import { fromClipboard, Grid, toClipboard, type Block, type CellLook, type EditorProps, type GridHandle } from '../../grid/index.js';
import { GrowthRail, lanesOf, railWidth } from '../ranges/GrowthRail.js';
import { RangeFindings } from '../ranges/RangeFindings.js';
import { useDeleteListMutation, useRetitleListMutation } from '../sheets/buildApi.js';
import { ListCellEditor } from './ListCellEditor.js';
import type { List } from './useList.js';

interface ListColumnProps {
  readonly list: List;
  readonly chosenRange: string | undefined;
  readonly chosen: boolean;
  onSelect(block: Block): void;
}

const width = 152;

function lookOf(list: List, row: number): CellLook {
  const entry = list.entries[row];
  if (!entry) return { text: 'type to add', tone: 'faint' };
  const text = entry.cells[list.fieldKey] ?? '';
  if (list.pending.has(entry.id)) {
    const becomes = list.pending.get(entry.id);
    return { text: becomes ?? text, tone: 'pending', said: becomes === undefined ? 'to be deleted; waits for an answer' : `was ${text}; waits for an answer` };
  }
  for (const { range, taking, marks } of list.rails) {
    if (marks.get(row) === 'missed') return { text, tone: 'missed', said: `${taking.leftOut.find((left) => left.entry === entry.id)?.why ?? 'past the end'} of ${range.name}, not offered` };
    if (marks.get(row) === 'skipped' && text !== '') return { text, tone: 'struck', said: 'a repeat, offered once' };
  }
  return { text, tone: 'plain' };
}

function RangeLine({ list }: { list: List }) {
  const [rail, ...more] = list.rails;
  if (!rail) return <Text color="inkSoft">no range over it</Text>;
  if (more.length > 0) return <Text color="inkSoft">{list.rails.length} ranges in one list</Text>;
  return (
    <Text color={rail.taking.grows ? 'growth.fg' : 'inkSoft'} truncate>
      {rail.range.name}, {endingInShort(rail.range.end.ends)}
    </Text>
  );
}

export function ListColumn({ list, chosenRange, chosen, onSelect }: ListColumnProps) {
  const grid = useRef<GridHandle>(null);
  const gutterWidth = railWidth + (lanesOf(list.rails) - 1) * 12;
  const textAt = (row: number) => list.entries[row]?.cells[list.fieldKey] ?? '';

  /** Says at once what is wrong with the text; else stores it, and opens the editor again where the server refuses it. */
  const commit = (row: number, text: string): string | undefined => {
    const entry = list.entries[row];
    if (entry ? text === textAt(row) : text.trim() === '') return undefined;
    const fault = sourceTextFault(text);
    if (fault) return fault.message;
    const stored = entry ? list.act({ act: 'write', cells: [{ entry: entry.id, field: list.fieldKey, text }] }) : list.act({ act: 'insert', field: list.fieldKey, texts: [text] });
    void stored.then((done) => done || grid.current?.edit({ row, column: 0 }, text));
    return undefined;
  };
  const paste = (text: string, row: number) => {
    const texts = fromClipboard(text).flatMap((cells) => cells.slice(0, 1));
    const over = list.entries.slice(row, row + texts.length);
    const cells = over.map(({ id }, at) => ({ entry: id, field: list.fieldKey, text: texts[at]! }));
    const below = texts.slice(over.length);
    const send = async () => {
      if (cells.length > 0 && !(await list.act({ act: 'write', cells }))) return;
      if (below.length > 0) await list.act({ act: 'insert', field: list.fieldKey, texts: below });
    };
    void send();
  };
  const clear = (block: Block) => {
    const cells = list.rowsOf(block).filter((entry) => list.fieldKey in entry.cells).map(({ id }) => ({ entry: id, field: list.fieldKey, text: '' }));
    if (cells.length > 0) void list.act({ act: 'write', cells });
  };
  const moveRows = (block: Block, by: -1 | 1) => {
    const entries = list.rowsOf(block).map(({ id }) => id);
    const target = by < 0 ? list.entries[block.top - 1] : list.entries[block.bottom + 2];
    const possible = by < 0 ? block.top > 0 : block.bottom < list.entries.length - 1;
    if (entries.length === 0 || !possible) return;
    void list.act({ act: 'move', entries, ...(target && { before: target.id }) });
  };
  const editor = (editing: EditorProps) => <ListCellEditor editing={editing} label={`${list.register.title}, row ${editing.place.row + 1}`} commit={(text) => commit(editing.place.row, text)} />;

  return (
    <Box as="section" aria-label={list.register.title} flexShrink={0} w={`${gutterWidth + width + 4}px`}>
      <ListHeading list={list} gutterWidth={gutterWidth} chosen={chosen} />
      <Grid
        ref={grid}
        label={list.register.title}
        columns={[{ key: list.fieldKey, heading: list.register.title, rule: '', width }]}
        rowCount={list.entries.length + 1}
        mayEdit
        fitsContent
        hideHeadings
        gutterWidth={gutterWidth}
        gutter={(row) => <GrowthRail rails={list.rails} row={row} chosen={chosenRange} />}
        rowHeading={() => ''}
        rowKey={(row) => (row === list.entries.length ? 'new' : list.entries[row]?.id)}
        look={({ row }) => lookOf(list, row)}
        editText={({ row }) => textAt(row)}
        editor={editor}
        onSelect={(_active, block) => onSelect(block)}
        onClear={clear}
        copy={(block) => toClipboard(list.rowsOf(block).map((entry) => [entry.cells[list.fieldKey] ?? '']))}
        onPaste={(text, { row }) => paste(text, row)}
        onMoveRows={moveRows}
      />
      <Box pl={`${gutterWidth}px`}>
        <RangeFindings list={list} />
      </Box>
    </Box>
  );
}

function ListHeading({ list, gutterWidth, chosen }: { list: List; gutterWidth: number; chosen: boolean }) {
  const [title, setTitle] = useState<string>();
  const [retitle] = useRetitleListMutation();
  const [remove] = useDeleteListMutation();
  const attempt = useTry();
  const notice = useNotice();
  const { register }: { register: RegisterView } = list;
  const save = async () => {
    if (await attempt(retitle({ id: register.id, title: title ?? '' }).unwrap())) setTitle(undefined);
  };
  const drop = async () => {
    if (await attempt(remove(register.id).unwrap())) notice('done', `The list ${register.title} is deleted.`);
  };
  const sort = (direction: 'up' | 'down') => void list.act({ act: 'sort', field: list.fieldKey, direction });
  return (
    <Box pl={`${gutterWidth + 10}px`} pb="1" w={`${gutterWidth + width}px`} borderBottomWidth="2px" borderColor={chosen ? 'damson.solid' : 'line'}>
      <HStack justify="space-between">
        {title === undefined ? (
          <Text fontWeight="bold" truncate dir="auto">
            {register.title}
          </Text>
        ) : (
          <form
            onSubmit={(event) => {
              event.preventDefault();
              void save();
            }}
          >
            <Input size="2xs" aria-label="Heading of the list" autoFocus value={title} onChange={(event) => setTitle(event.target.value)} onKeyDown={(event) => event.key === 'Escape' && setTitle(undefined)} />
          </form>
        )}
        <Menu.Root>
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
                <Menu.Item value="retitle" onClick={() => setTitle(register.title)}>
                  Give it another heading
                </Menu.Item>
                <Menu.Item value="delete" color="brick.fg" onClick={() => void drop()}>
                  Delete the list
                </Menu.Item>
              </Menu.Content>
            </Menu.Positioner>
          </Portal>
        </Menu.Root>
      </HStack>
      <RangeLine list={list} />
    </Box>
  );
}
