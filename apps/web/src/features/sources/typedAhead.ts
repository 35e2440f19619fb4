// What one types after Enter while the list it is meant for is being made: it goes into the list as if the cursor had been there.
import { useEffectEvent, useLayoutEffect, type RefObject } from 'react';
import type { GridHandle } from '../../grid/index.js';
import type { SourceRegister } from '../acts/useRegister.js';

export interface TypedAhead {
  /** A list is being made. Where that fails, what was typed waits for the next try. */
  readonly making: boolean;
  /** The list, once it is made. */
  readonly into?: string;
  /** Each of them was ended by Enter. */
  readonly lines: readonly string[];
  /** What is being typed. */
  readonly text: string;
}

export const nothingTyped: TypedAhead = { making: false, lines: [], text: '' };

/** Enter behind what is typed. */
export const nextLine = (ahead: TypedAhead): TypedAhead => ({
  ...ahead,
  lines: ahead.text.trim() === '' ? ahead.lines : [...ahead.lines, ahead.text],
  text: '',
});

/** Puts what was typed ahead under the heading of a list that has just come, and goes on typing there. `changed`: what is left to put. */
export function useTypedAhead(
  source: SourceRegister,
  grid: RefObject<GridHandle | null>,
  ahead: TypedAhead | undefined,
  changed: (left: TypedAhead) => void,
): void {
  const take = useEffectEvent(({ lines, ...left }: TypedAhead) => {
    const [field] = source.register.fields;
    if (!field || !grid.current) return;
    if (lines.length > 0) {
      lines.forEach((line, at) => void source.begin(at === 0 ? source.blank : crypto.randomUUID(), [{ field: field.key, text: line }]));
      // The cell below them is there with the next picture.
      return changed({ ...left, lines: [] });
    }
    const below = { row: source.rows.length, column: 0 };
    if (left.text === '') grid.current.go(below);
    else grid.current.type(below, left.text);
    changed(nothingTyped);
  });
  useLayoutEffect(() => {
    if (ahead) take(ahead);
  }, [ahead]);
}
