// What a named range takes.
import type { FieldId, RegisterState } from '../../registers/index.js';
import { alongWith, companionFields } from './along.js';
import type { PartItem, PartKind, RangePart } from './models.js';

const kindOf = (register: RegisterState | undefined, key: FieldId) => register?.fields.find((field) => field.key === key)?.kind ?? 'text';

export const rangePart: PartKind<RangePart> = {
  kind: 'range',
  origin: ({ rangeId }) => rangeId,
  reads: ({ rangeId }) => ({ ranges: [rangeId] }),

  items({ rangeId, label, companions }, sources) {
    const range = sources.range(rangeId);
    if (!range) return [];
    const fields = range.stretches[0]?.fields ?? [];
    const fieldAt = (depth: number): FieldId => (range.shape === 'levels' ? fields[depth] : fields[0]) ?? '';
    const { values } = sources.taking(rangeId);
    const plain =
      label === null &&
      companions.length === 0 &&
      range.stretches.every((stretch) => stretch.fields.every((key) => kindOf(sources.register(stretch.registerId), key) === 'text'));
    if (plain) return values;
    return values.map((taken): PartItem => {
      const { value, path, rows } = taken;
      const [first] = rows;
      const register = first && sources.register(first.register);
      if (!register) return taken;
      const along = alongWith(
        register.entries[first.ordinal],
        register,
        { key: fieldAt(path.length), text: value },
        label,
        companions,
        sources.locale,
      );
      return { value, path, rows, ...along };
    });
  },

  companions: ({ rangeId, companions }, sources) =>
    companionFields(sources.register(sources.range(rangeId)?.stretches[0]?.registerId ?? ''), companions),
  phrase: ({ rangeId }, names) => names.range(rangeId),
};
