// A list of a source sheet: its entries, the rails over it, what is pending on it, and the acts one can do.
import { railsOf, type Rail } from '@dellum/core';
import type { ActDto, BuildView, EntryView, Outcome, RegisterView, Slip } from '@dellum/contract';
import { useMemo, useRef } from 'react';
import { useNotice, useTry } from '../../frame/useNotice.js';
import type { Block } from '../../grid/index.js';
import { useListEntriesQuery } from '../entries/entriesApi.js';
import { useActMutation } from './sourcesApi.js';

/** What waits on a slip for one entry: its new text, or undefined where it is to be deleted. */
export type Pending = ReadonlyMap<string, string | undefined>;

export interface List {
  readonly register: RegisterView;
  readonly fieldKey: string;
  readonly entries: readonly EntryView[];
  readonly rails: readonly Rail[];
  readonly pending: Pending;
  rowsOf(block: Block): readonly EntryView[];
  /** Does an act and says what came of it; false when it was refused. */
  act(act: ActDto): Promise<boolean>;
  /** Says what came of a change; false when it failed. */
  told(request: Promise<Outcome>): Promise<boolean>;
}

function pendingOf(slips: readonly Slip[], registerId: string): Pending {
  const pending = new Map<string, string | undefined>();
  for (const { proposal } of slips) {
    if (proposal.registerId !== registerId || proposal.what !== 'act') continue;
    if (proposal.act.act === 'write') proposal.act.cells.forEach(({ entry, text }) => pending.set(entry, text));
    if (proposal.act.act === 'delete') proposal.act.entries.forEach((entry) => pending.set(entry, undefined));
  }
  return pending;
}

/** Runs a change of the sources and says what came of it. */
export function useTold(): (request: Promise<Outcome>) => Promise<boolean> {
  const attempt = useTry();
  const notice = useNotice();
  return async (request) => {
    const outcome = await attempt(request);
    if (!outcome) return false;
    // A change that waits shows its slip beside the list; there is nothing else to say.
    if (outcome.notes.length > 0) notice('done', outcome.notes.join(' '));
    return true;
  };
}

export function useList(register: RegisterView, build: BuildView, slips: readonly Slip[]): List | undefined {
  const { data: entries } = useListEntriesQuery(register.id);
  const [sendAct] = useActMutation();
  const told = useTold();
  // Acts on one list go one after the other, in the order in which they were done.
  const queue = useRef<Promise<unknown>>(Promise.resolve());
  const act = (done: ActDto): Promise<boolean> => {
    const outcome = queue.current.then(() => told(sendAct({ registerId: register.id, act: done }).unwrap()));
    queue.current = outcome;
    return outcome;
  };
  const ranges = useMemo(() => build.ranges.filter(({ registerId }) => registerId === register.id), [build, register.id]);
  const rails = useMemo(() => (entries ? railsOf(ranges, entries) : []), [ranges, entries]);
  const pending = useMemo(() => pendingOf(slips, register.id), [slips, register.id]);
  if (!entries) return undefined;
  return {
    register,
    fieldKey: register.fields[0]!.key,
    entries,
    rails,
    pending,
    rowsOf: ({ top, bottom }) => entries.slice(top, bottom + 1),
    act,
    told,
  };
}
