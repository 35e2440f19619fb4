// What else is worth knowing of a change that was done, in sentences.
import { readSourceState, type Proposal, type SourceState } from '@dellum/core';
import { boundFields } from '../structure/structure.service.js';
import type { HouseBuild } from '../structure/structure.store.js';
import type { Plan } from './planning.service.js';

/** Entries that a proposal names: another act on them has to wait while its slip is open. */
export function entriesTouched({ steps }: Proposal): string[] {
  const touched = steps.flatMap((step) => {
    if (step.what !== 'act') return [];
    const { act } = step;
    if (act.act === 'write') return act.cells.map(({ entry }) => entry);
    return act.act === 'delete' || act.act === 'move' ? act.entries : [];
  });
  return [...new Set(touched)];
}

/** What a sort did to the ranges that keep their place: which values came in and which went out. */
function sortNotes(before: SourceState, after: SourceState, { steps }: Proposal): string[] {
  const sorted = new Set(steps.flatMap((step) => (step.what === 'act' && step.act.act === 'sort' ? [step.registerId] : [])));
  if (sorted.size === 0) return [];
  const [was, is] = [readSourceState(before), readSourceState(after)];
  const valuesOf = (reader: typeof was, id: string) => new Set(reader.taking(id).values.map(({ value }) => value));
  return after.ranges
    .filter((range) => range.stretches.some(({ registerId }) => sorted.has(registerId)))
    .flatMap(({ id, name }) => {
      const [old, now] = [valuesOf(was, id), valuesOf(is, id)];
      const cameIn = [...now].filter((value) => !old.has(value));
      const wentOut = [...old].filter((value) => !now.has(value));
      if (cameIn.length + wentOut.length === 0) return [];
      const parts = [cameIn.length > 0 && `${cameIn.join(', ')} came in`, wentOut.length > 0 && `${wentOut.join(', ')} went out`];
      return [`“${name}” kept its rows: ${parts.filter(Boolean).join('; ')}.`];
    });
}

export function notesOf(build: HouseBuild, plan: Plan): string[] {
  const offered = plan.catalogs.flatMap(({ catalogId, diff }) => {
    const fields = boundFields(build, catalogId).length;
    const values = [...diff.added, ...diff.restored];
    if (values.length === 0) return [];
    const what = values.length === 1 ? `“${values[0]!}” is` : `${values.length} values are`;
    return [
      fields === 0
        ? `${what} offered now by ${build.catalogs.get(catalogId)!.title}.`
        : `${what} offered now in ${fields === 1 ? '1 field' : `${fields} fields`}.`,
    ];
  });
  const retired = plan.proposal.steps.flatMap((step) =>
    step.what === 'items kept'
      ? step.items.filter(
          ({ value, retired: goes }) =>
            goes && plan.catalogs.some(({ catalogId, diff }) => catalogId === step.catalogId && diff.removed.includes(value)),
        )
      : [],
  );
  const left = retired.map(({ value }) => `“${value}” is retired: entries that hold it stay right, and nobody can choose it any more.`);
  const emptied = plan.catalogs
    .filter(({ before, after }) => before.some(({ state }) => state === 'offered') && !after.some(({ state }) => state === 'offered'))
    .map(({ catalogId }) => `${build.catalogs.get(catalogId)!.title} offers nothing now.`);
  return [...sortNotes(plan.before, plan.after, plan.proposal), ...offered, ...left, ...emptied];
}
