// The state of a picker: what is typed, what matches, which one is chosen.
import { search, type Given, type Match, type OtherValues } from '@dellum/core';
import { useCallback, useState, type KeyboardEvent } from 'react';
import type { PickList } from './pickList.js';

/** So many matches are made ready at first; more when one goes on towards them. */
const firstReady = 60;

export interface Picker {
  readonly matches: readonly Match[];
  readonly total: number;
  /** Nothing is typed that narrows the list. */
  readonly untouched: boolean;
  readonly open: boolean;
  readonly at: number | undefined;
  /** True when the list ends with what is typed, to be asked for or added. */
  readonly offersNew: boolean;
  /**
   * What Enter would take: a value that was chosen, the first match of a text that means none by itself, or what mends a text that is
   * only called so.
   */
  readonly choice: Given | undefined;
  setOpen(open: boolean): void;
  /** The value of the match of a line. */
  chosenAt(line: number): Given | undefined;
  /** Forgets the choice; called when the text changes. */
  retype(): void;
  /** Makes the matches up to a line ready to be shown. */
  reach(line: number): void;
  /** Handles the keys of the list; true when it was one. */
  onKey(event: KeyboardEvent): boolean;
}

export function usePicker(
  list: PickList | undefined,
  others: OtherValues,
  text: string,
  initial: { readonly held: string; readonly open: boolean },
): Picker {
  const [open, setOpen] = useState(initial.open);
  const [chosen, setChosen] = useState<number>();
  const [ready, setReady] = useState(firstReady);
  // Until something is typed, the list shows everything that is offered.
  const untouched = text === initial.held;
  const query = untouched ? '' : text;
  const { matches, total } = list ? search(list.search, query, ready, list.picking.search) : { matches: [], total: 0 };
  const means = list && text.trim() !== '' && list.means(text).found !== 'nothing';
  const offersNew = list !== undefined && (others === 'request' || others === 'add') && query.trim() !== '' && !means;
  const options = total + (offersNew ? 1 : 0);
  const firstByItself = query.trim() !== '' && !means && (others === 'refuse' || offersNew) && options > 0 ? 0 : undefined;
  const held = untouched
    ? matches.findIndex(({ item }) => list!.textOf(item) === initial.held || list!.shownOf(item) === initial.held)
    : -1;
  const at = chosen !== undefined && chosen < options ? chosen : (firstByItself ?? (held >= 0 ? held : undefined));
  const chosenAt = (place: number): Given | undefined => {
    const match = matches[place];
    return match && { chosen: match.item.value };
  };
  const givenAt = (place: number): Given | undefined => (place < total ? chosenAt(place) : { typed: text });
  // What stands outside and is called as an item of the open list is mended by that item, which is the line that is marked.
  const mends = open && held >= 0 && list!.textOf(matches[held]!.item) !== initial.held ? held : undefined;
  const line = chosen !== undefined ? at : (firstByItself ?? mends);
  const choice = line === undefined ? undefined : givenAt(line);

  const reach = useCallback(
    (line: number) => setReady((before) => (line + 8 < before ? before : Math.max(line + firstReady, before * 4))),
    [],
  );
  const onKey = (event: KeyboardEvent): boolean => {
    const by = { ArrowDown: 1, ArrowUp: -1, PageDown: 8, PageUp: -8 }[event.key];
    if (event.altKey && event.key === 'ArrowDown') setOpen(true);
    else if (event.altKey && event.key === 'ArrowUp') setOpen(false);
    else if (by !== undefined && list) {
      setOpen(true);
      const from = at ?? (by > 0 ? -1 : options);
      const to = Math.max(0, Math.min(options - 1, from + by));
      if (options > 0) setChosen(to);
      reach(to);
    } else return false;
    event.preventDefault();
    return true;
  };
  return {
    matches,
    total,
    chosenAt,
    untouched,
    offersNew,
    reach,
    open: open && list !== undefined,
    at,
    choice,
    setOpen,
    retype: () => {
      setChosen(undefined);
      setReady(firstReady);
    },
    onKey,
  };
}
