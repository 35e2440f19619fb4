// The editor of a cell in an entry sheet: a picker where the field has a list, room for a long text or a plain input otherwise.
import { picksFrom, wordsOf, type Given, type Locale } from '@dellum/core';
import type { FieldView } from '@dellum/contract';
import { useEffect, useRef, useState } from 'react';
import { useLeftBehind, type EditorProps, type Move } from '../../grid/index.js';
import { LongText } from '../../picker/LongText.js';
import { PickerInput, type Days, type Refusal, type TakenBy } from '../../picker/PickerInput.js';
import { SeveralInput } from '../../picker/SeveralInput.js';
import type { PickList } from '../../picker/pickList.js';

interface CellEditorProps {
  readonly editing: EditorProps;
  /** What the editor is called; in a sheet by its heading and its row. */
  readonly label?: string;
  readonly field: FieldView;
  /** What is picked from, as it stands in the entry. */
  readonly list: PickList | undefined;
  /** The calendar of a date. */
  readonly days: Days | undefined;
  /** What the cell shows when it is not edited. */
  readonly held: string;
  readonly refusal: Refusal | undefined;
  readonly locale: Locale;
  /** Hears what is typed, before it is left. */
  typing?(text: string): void;
  /** The version of the entry as it is shown; an edit goes by the one at which it was begun. */
  readonly version?: number | undefined;
  /** Judges and stores; what is not taken comes back as a refusal. `seen`: the version at which the edit was begun. */
  commit(given: Given, confirmed?: boolean, seen?: number): Refusal | undefined;
  /** Leaves without storing; `text` is what was typed. */
  abandon(text: string): void;
  /** Another text was stored in the place of one that was refused: whoever types without looking up is told which. */
  replaced?(refused: string): void;
}

const moves: { readonly [By in TakenBy]: Move } = {
  enter: 'enter',
  backEnter: 'backEnter',
  tab: 'right',
  backTab: 'left',
  pick: 'stay',
  up: 'up',
  down: 'down',
  right: 'right',
};

export function CellEditor({
  editing,
  label,
  field,
  list,
  days,
  held,
  refusal: before,
  locale,
  typing,
  version,
  commit,
  abandon,
  replaced,
}: CellEditorProps) {
  // Somebody else may change the cell while one types: what was seen when one began says so to the server.
  const [seen] = useState(version);
  const [text, setText] = useState(editing.text);
  const [refusal, setRefusal] = useState(editing.replaces ? undefined : before);
  const left = useRef(false);
  const lastRefused = useRef<string>(undefined);
  // What was refused may come right by itself, when the list or the rule changes: then it is stored, and nothing is left to edit.
  const wasKept = useRef(false);
  const { leave } = editing;
  useEffect(() => {
    if (before) wasKept.current = true;
    else if (wasKept.current && refusal && !left.current) {
      left.current = true;
      leave('stay');
    }
  }, [before, refusal, leave]);

  /** What is shown of values that were chosen, as one would type them. */
  const textOfChosen = (chosen: string): string =>
    field.kind !== 'several values' && list ? list.textOf({ value: chosen }) : wordsOf(field.kind, { chosen }, locale);
  const take = (given: Given, by: TakenBy, confirmed?: boolean) => {
    const typed = given.typed ?? textOfChosen(given.chosen);
    // The same once more: it stays refused, as by the pointer, and one goes on. Whoever is told to fill another field first gets there by
    // keys.
    const isAgain = refusal !== undefined && !refusal.conflict && typed === text && by !== 'pick';
    const refused = commit(given, confirmed, seen);
    setText(typed);
    setRefusal(refused);
    if (refused && !isAgain) {
      lastRefused.current = typed;
      return;
    }
    left.current = true;
    if (!refused && lastRefused.current !== undefined && lastRefused.current !== typed) replaced?.(lastRefused.current);
    editing.leave(moves[by]);
  };
  const escape = () => {
    left.current = true;
    abandon(text);
    editing.leave('stay');
  };
  /** Leaving by the pointer keeps what was typed: stored when it is taken, marked in the cell when not. */
  const blur = () => {
    if (left.current) return;
    left.current = true;
    if (text !== held || refusal) commit({ typed: text }, undefined, seen);
    editing.leave('stay');
  };
  useLeftBehind(blur);
  const shared = {
    typedOver: editing.replaces,
    label: label ?? `${field.heading}, row ${editing.place.row + 1}`,
    list,
    refusal: refusal && { ...refusal, mayLeave: !refusal.conflict },
    onText: (typed: string) => {
      setText(typed);
      setRefusal(undefined);
      typing?.(typed);
    },
    onTake: take,
    onEscape: escape,
    onBlur: blur,
  };
  if (field.kind === 'several values') {
    return (
      <SeveralInput
        {...shared}
        others={field.rule?.others ?? 'refuse'}
        text={editing.replaces ? held : editing.text}
        typed={editing.replaces ? editing.text : ''}
        locale={locale}
      />
    );
  }
  // While its list is coming a text is typed where it will be picked.
  if (field.kind === 'text' && !list && !picksFrom(field.rule))
    return <LongText {...shared} text={text} selectAll={!editing.replaces} style={inputStyle} />;
  return (
    <PickerInput
      {...shared}
      days={list ? undefined : days}
      others={field.rule?.others ?? 'refuse'}
      text={text}
      held={held}
      openAtOnce={editing.openList || editing.replaces}
      selectAll={!editing.replaces}
      style={inputStyle}
    />
  );
}

/** What was said of a text that was stored, and that it stands in the place of a refused one. */
export const withReplaced = (said: string, refused: string): string => [said, `“${refused}” was not stored.`].filter(Boolean).join(' ');

export const inputStyle = {
  width: '100%',
  height: '100%',
  padding: '0 8px',
  font: 'inherit',
  color: 'inherit',
  background: 'var(--chakra-colors-card)',
  outline: '2px solid var(--chakra-colors-damson-solid)',
  outlineOffset: '-2px',
} as const;
