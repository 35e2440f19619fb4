// What a named range takes.
import type { Entry, FieldId } from '../../registers/index.js';
import { alongWith, companionFields } from './along.js';
import type { PartItem, PartKind, RangePart } from './models.js';

export const rangePart: PartKind<RangePart> = {
  kind: 'range',
  origin: ({ rangeId }) => rangeId,
  reads: ({ rangeId }) => ({ ranges: [rangeId] }),

  items({ rangeId, label, companions }, sources) {
    const range = sources.range(rangeId);
    if (!range) return [];
    const entries = new Map<string, Map<string, Entry>>();
    for (const { registerId } of range.stretches) entries.set(registerId, new Map((sources.register(registerId)?.entries ?? []).map((entry) => [entry.id, entry])));
    const fields = range.stretches[0]?.fields ?? [];
    const fieldAt = (depth: number): FieldId => (range.shape === 'levels' ? fields[depth] : fields[0]) ?? '';
    return sources.taking(rangeId).values.map(({ value, path, rows }): PartItem => {
      const [first] = rows;
      const register = first && sources.register(first.register);
      if (!register) return { value, path, rows };
      const along = alongWith(entries.get(first.register)!.get(first.entry), register, { key: fieldAt(path.length), text: value }, label, companions, sources.locale);
      return { value, path, rows, ...along };
    });
  },

  companions: ({ rangeId, companions }, sources) => companionFields(sources.register(sources.range(rangeId)?.stretches[0]?.registerId ?? ''), companions),
  phrase: ({ rangeId }, names) => names.range(rangeId),
};
