// What writes a file: piece by piece, each from the state in which the last one left off, so that any server goes on with it.
import type { Cells } from '@dellum/core';

export interface Piece<State> {
  readonly bytes: Buffer;
  readonly state: State;
}
export interface WrittenEntry {
  readonly id: string;
  readonly version: number;
  readonly cells: Cells;
}
export interface FileWriter<State = unknown> {
  begin(): Promise<Piece<State>>;
  /** `from`: how many entries stand before these. */
  rows(entries: readonly WrittenEntry[], from: number, state: State): Promise<Piece<State>>;
  /** After so many entries. */
  end(state: State, rows: number): Promise<Piece<State>>;
}

export interface FileKind {
  readonly type: string;
  readonly ending: string;
}
