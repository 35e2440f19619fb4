// What a register and the ranges over it are after a proposal.
import { applyAct, followAct, takeRange, type Entry, type SourceRange } from '@dellum/core';
import type { Proposal } from '@dellum/contract';

export interface SourceState {
  readonly entries: readonly Entry[];
  readonly ranges: readonly SourceRange[];
}

export function afterProposal(state: SourceState, proposal: Proposal, language: string): SourceState {
  const { entries, ranges } = state;
  switch (proposal.what) {
    case 'act':
      return { entries: applyAct(entries, proposal.act, language), ranges: ranges.map((range) => followAct(range, entries, ranges, proposal.act, language)) };
    case 'range made':
      return { entries, ranges: [...ranges, proposal.range] };
    case 'range changed':
      return { entries, ranges: ranges.map((range) => (range.id === proposal.range.id ? proposal.range : range)) };
    case 'range deleted':
      return { entries, ranges: ranges.filter(({ id }) => id !== proposal.range.id) };
  }
}

/** Entries of the register that a proposal names. */
export function entriesTouched(proposal: Proposal): string[] {
  if (proposal.what !== 'act') return [];
  const { act } = proposal;
  if (act.act === 'write') return [...new Set(act.cells.map(({ entry }) => entry))];
  return act.act === 'delete' || act.act === 'move' ? [...act.entries] : [];
}

/** What a sort did to the ranges that keep their place: which values came in and which went out. */
export function sortNotes(before: SourceState, after: SourceState, proposal: Proposal): string[] {
  if (proposal.what !== 'act' || proposal.act.act !== 'sort') return [];
  return after.ranges.flatMap((range, at) => {
    const was = valuesOf(before.ranges[at]!, before);
    const is = valuesOf(range, after);
    const cameIn = [...is].filter((value) => !was.has(value));
    const wentOut = [...was].filter((value) => !is.has(value));
    if (cameIn.length + wentOut.length === 0) return [];
    const parts = [cameIn.length > 0 && `${cameIn.join(', ')} came in`, wentOut.length > 0 && `${wentOut.join(', ')} went out`];
    return [`“${range.name}” kept its rows: ${parts.filter(Boolean).join('; ')}.`];
  });
}

const valuesOf = (range: SourceRange, { entries, ranges }: SourceState): Set<string> => new Set(takeRange(range, entries, ranges).values.map(({ value }) => value));
