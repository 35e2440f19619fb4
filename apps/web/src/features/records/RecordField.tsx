// One field of a record: its value, which is also the button that edits it, and what is to be said of it.
import { Box, HStack, Text } from '@chakra-ui/react';
import type { EntryView, FieldView, LinkOut, Me } from '@dellum/contract';
import { picksFrom, type ItemColour } from '@dellum/core';
import { ArrowUpRight } from 'lucide-react';
import { useEffect, useRef, type SetStateAction } from 'react';
import { Link } from 'react-router';
import type { Move } from '../../grid/index.js';
import { ItemMark } from '../../theme/index.js';
import { CellEditor, withReplaced } from '../entries/CellEditor.js';
import { refusalOf } from '../sheets/useSheetCells.js';
import type { RecordCells } from '../sheets/useRegisterPlace.js';

interface RecordFieldProps {
  readonly field: FieldView;
  readonly entry: EntryView;
  readonly cells: RecordCells;
  readonly me: Me;
  /** The initials of whoever else is in this field. */
  readonly who: string | undefined;
  /** The record that the value names. */
  readonly link: LinkOut | undefined;
  readonly mayEdit: boolean;
  readonly editing: boolean;
  begin(): void;
  leave(move: Move): void;
  say(words: SetStateAction<string>): void;
}

export function RecordField(props: RecordFieldProps) {
  const { field, entry, cells, link, editing, who } = props;
  const look = cells.look(entry, field);
  return (
    <Box role="group" aria-label={field.heading}>
      <HStack gap="2" mb="1">
        <Text fontSize="xs" fontWeight="bold" color="inkSoft">
          {field.heading}
        </Text>
        {who && (
          <Text fontSize="2xs" px="1" bg="growth.subtle" color="growth.fg" rounded="l1">
            {who} is here
          </Text>
        )}
        {link && (
          <Box
            asChild
            display="inline-flex"
            alignItems="center"
            gap="0.5"
            fontSize="xs"
            color="damson.fg"
            textDecoration="underline"
            textUnderlineOffset="3px"
          >
            <Link to={`/records/${link.registerId}/${link.entryId}`} aria-label={`Open ${look.text}`}>
              open <ArrowUpRight size={12} aria-hidden />
            </Link>
          </Box>
        )}
      </HStack>
      {editing ? <FieldEditor {...props} /> : <FieldValue {...props} />}
      {look.said && !editing && (
        <Text fontSize="xs" mt="0.5" color={look.tone === 'refused' ? 'brick.fg' : 'amber.fg'}>
          {look.said}
        </Text>
      )}
      {editing && field.rule?.hint && (
        <Text fontSize="xs" mt="0.5" color="inkSoft">
          {field.rule.hint}
        </Text>
      )}
    </Box>
  );
}

function FieldValue({ field, entry, cells, mayEdit, begin }: RecordFieldProps) {
  const look = cells.look(entry, field);
  const shown = (
    <>
      {look.mark && <ItemMark colour={look.mark as ItemColour} />} {look.tone === 'outside' && '○ '}
      {look.text === '' ? (
        <Text as="span" color="inkFaint">
          blank
        </Text>
      ) : (
        look.text
      )}
    </>
  );
  const tone = look.tone === 'refused' ? 'brick.fg' : look.tone === 'outside' ? 'amber.fg' : undefined;
  if (!mayEdit) {
    return (
      <Box minH="34px" px="2.5" py="1.5" whiteSpace="pre-wrap" overflowWrap="anywhere" color={tone}>
        {shown}
      </Box>
    );
  }
  return (
    <Box
      asChild
      display="block"
      w="100%"
      textAlign="start"
      minH="34px"
      px="2.5"
      py="1.5"
      whiteSpace="pre-wrap"
      overflowWrap="anywhere"
      cursor="text"
      bg="card"
      borderWidth="1px"
      borderColor="line"
      rounded="l2"
      color={tone}
      _hover={{ borderColor: 'slate.border' }}
    >
      <button type="button" onClick={begin} aria-label={`${field.heading}: ${look.text === '' ? 'blank' : look.text}. Change it`}>
        {shown}
      </button>
    </Box>
  );
}

function FieldEditor({ field, entry, cells, me, leave, say }: RecordFieldProps) {
  const list = cells.listFor(entry, field);
  const held = cells.typedOf(entry, field);
  const draft = cells.draftOf(entry, field);
  const box = useRef<HTMLDivElement>(null);
  useEffect(() => {
    void box.current?.scrollIntoView({ block: 'nearest' });
  }, []);
  return (
    <Box ref={box} position="relative" minH="34px" h="34px">
      <CellEditor
        label={field.heading}
        editing={{
          place: { row: 0, column: 0 },
          columnKey: field.key,
          text: draft?.text ?? held,
          replaces: false,
          openList: picksFrom(field.rule),
          leave,
        }}
        field={field}
        list={list}
        days={cells.daysFor(entry, field)}
        held={held}
        refusal={refusalOf(draft)}
        locale={me.house.locale}
        version={entry.version}
        commit={(given, confirmed, seen) => {
          const { refusal, said } = cells.commit(entry, field, given, confirmed, seen);
          say(said ?? '');
          return refusal;
        }}
        abandon={(text) => {
          if (text !== held) say(`Left as it was; “${text}” was not stored.`);
          cells.dropDraft(entry, field);
        }}
        replaced={(text) => say((said) => withReplaced(said, text))}
      />
    </Box>
  );
}
