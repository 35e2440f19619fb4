// The range doctor: what is wrong with a range, and the one step that mends it, with what that step would do.
import { grouped } from '../group.js';
import { clean } from '../text/index.js';
import { isOfKind, parse, type FieldKind } from '../values/index.js';
import type { RegisterState } from '../registers/index.js';
import { endingOf, type LeftOut, type RangeTaking, type RangeValue, type SourceRange, type SourceRow } from '../ranges/index.js';
import { namingCatalogs, rangesOf } from '../catalogs/index.js';
import { rangeOf } from '../catalogs/parts/index.js';
import {
  afterProposal,
  proposalOf,
  readSourceState,
  type Proposal,
  type SourceState,
  type Step,
  type SourceStateReader,
} from '../impact/index.js';
import { lookAlikes, wordUse } from './lookAlikes.js';
import { withoutApart, type TellsApart, type ValuePair } from './toldApart.js';

export const findingKinds = [
  'past the end',
  'after the gap',
  'repeat',
  'look-alike',
  'outer blanks',
  'mixed kinds',
  'wrong kind',
  'empty',
  'heading almost matches',
  'unused',
] as const;
export type FindingKind = (typeof findingKinds)[number];

export interface Cure {
  readonly words: string;
  readonly proposal: Proposal;
  /** What the cure does to the range: "“Cancelled” comes in." */
  readonly effect: string;
}
export interface RangeFinding {
  readonly kind: FindingKind;
  readonly rangeId: string;
  readonly words: string;
  /** Where to look. */
  readonly rows: readonly SourceRow[];
  readonly cure: Cure | null;
  /** The two values that look alike. */
  readonly alike?: ValuePair;
}

interface Patient {
  readonly range: SourceRange;
  readonly taking: RangeTaking;
  readonly sourceState: SourceState;
  readonly reader: SourceStateReader;
}
type RangeAilment = Omit<RangeFinding, 'rangeId' | 'cure'> & {
  readonly cure?: { readonly words: string; readonly steps: readonly Step[] };
};
type Symptom = (patient: Patient) => readonly RangeAilment[];

const count = (number: number, one: string, many: string) => `${number} ${number === 1 ? one : many}`;
const leftOutAs = ({ taking }: Patient, why: LeftOut['why']) => taking.leftOut.filter((left) => left.why === why);
const registerAt = ({ sourceState }: Patient, row: SourceRow): RegisterState => sourceState.registers.get(row.register)!;
/** A list has one field: its rows can go as a whole. Rows of a table hold more than the range sees. */
const isList = (register: RegisterState) => register.fields.length === 1;

const deleting = (row: SourceRow, ...more: readonly SourceRow[]): Step => ({
  what: 'act',
  registerId: row.register,
  act: { act: 'delete', entries: [row, ...more].map(({ entry }) => entry) },
});
const writing = (row: SourceRow, field: string, text: string): Step => ({
  what: 'act',
  registerId: row.register,
  act: { act: 'write', cells: [{ entry: row.entry, field, text }] },
});

/** One act a register, however many cells. */
function writingAll(cells: readonly { row: SourceRow; field: string; text: string }[]): Step[] {
  return [...grouped(cells, ({ row }) => row.register)].map(([registerId, own]): Step => ({
    what: 'act',
    registerId,
    act: { act: 'write', cells: own.map(({ row, field, text }) => ({ entry: row.entry, field, text })) },
  }));
}

/** The range with the stretch over this register ending at an entry. */
function endingAt(range: SourceRange, row: SourceRow): SourceRange {
  return {
    ...range,
    stretches: range.stretches.map((stretch) =>
      stretch.registerId === row.register ? { ...stretch, end: { ends: 'fixed', entry: row.entry } } : stretch,
    ),
  };
}

const pastTheEnd: Symptom = (patient) => {
  const past = leftOutAs(patient, 'past the end');
  if (past.length === 0) return [];
  const lasts = [...new Map(past.map((left) => [left.register, left])).values()];
  return [
    {
      kind: 'past the end',
      words: `${count(past.length, 'value stands', 'values stand')} past the end of ${patient.range.name} and ${past.length === 1 ? 'is' : 'are'} not offered.`,
      rows: past,
      cure: {
        words: past.length === 1 ? 'Take it in' : 'Take them in',
        steps: [{ what: 'range changed', range: lasts.reduce(endingAt, patient.range) }],
      },
    },
  ];
};

const afterTheGap: Symptom = (patient) => {
  const after = leftOutAs(patient, 'after the gap');
  if (after.length === 0) return [];
  const words = `${count(after.length, 'value stands', 'values stand')} after the gap in ${patient.range.name} and ${after.length === 1 ? 'is' : 'are'} not offered.`;
  const gaps = patient.taking.extents.flatMap(({ registerId, beyond }) => {
    const next = after.find((left) => left.register === registerId);
    const register = patient.sourceState.registers.get(registerId);
    if (!next || !register) return [];
    return register.entries
      .slice(beyond, next.ordinal)
      .map(({ id, cells }, at) => ({
        row: { register: registerId, entry: id, ordinal: beyond + at },
        blank: Object.keys(cells).length === 0,
      }));
  });
  if (gaps.length > 0 && gaps.every(({ blank }) => blank)) {
    const [first, ...more] = gaps.map(({ row }) => row);
    return [{ kind: 'after the gap', words, rows: after, cure: { words: 'Close the gap', steps: [deleting(first!, ...more)] } }];
  }
  const grown = { ...patient.range, stretches: patient.range.stretches.map((stretch) => ({ ...stretch, end: { ends: 'last' as const } })) };
  return [
    { kind: 'after the gap', words, rows: after, cure: { words: 'Grow over the gap', steps: [{ what: 'range changed', range: grown }] } },
  ];
};

const repeats: Symptom = (patient) =>
  patient.taking.values
    .filter(({ rows }) => rows.length > 1)
    .map(({ value, rows }): RangeAilment => {
      const [, second, ...more] = rows;
      const times = rows.length === 2 ? 'twice' : `${rows.length} times`;
      const cure = isList(registerAt(patient, second!))
        ? { words: rows.length === 2 ? 'Remove the second' : 'Remove the repeats', steps: [deleting(second!, ...more)] }
        : undefined;
      return { kind: 'repeat', words: `“${value}” stands ${times}; it is offered once.`, rows: rows.slice(1), ...(cure && { cure }) };
    });

function fieldOf({ range }: Patient, row: SourceRow, depth: number): string {
  const stretch = range.stretches.find(({ registerId }) => registerId === row.register)!;
  return range.shape === 'levels' ? stretch.fields[depth]! : stretch.fields[0]!;
}

/** The cells of a level that hold a value: its own, and where it is a parent those beside its children. */
function cellsHolding(patient: Patient, value: string, depth: number): { row: SourceRow; field: string }[] {
  const rows = patient.taking.values
    .filter((taken) => (taken.path.length === depth ? taken.value : taken.path[depth]) === value)
    .flatMap((taken) => taken.rows);
  return rows
    .map((row) => ({ row, field: fieldOf(patient, row, depth) }))
    .filter(({ row, field }) => clean(registerAt(patient, row).entries[row.ordinal]!.cells[field] ?? '') === value);
}

/** Look-alikes among the values under one parent, and among the parents themselves. */
const lookAlike = (patient: Patient, apart: TellsApart): readonly RangeAilment[] => {
  const siblings = grouped(patient.taking.values, ({ path }) => path.join('\u001F'));
  const use = wordUse(patient.taking.values.map(({ value }) => ({ value, entries: 0 })));
  return [...siblings.values()].flatMap((values) => {
    const depth = values[0]!.path.length;
    return withoutApart(
      lookAlikes(
        values.map(({ value, rows }) => ({ value, entries: rows.length })),
        use,
      ),
      apart,
    ).flatMap(([right, ...others]) =>
      others.map((other): RangeAilment => {
        const cells = cellsHolding(patient, other.value, depth);
        const words = `“${other.value}” looks like “${right!.value}”.`;
        const alike: ValuePair = [right!.value, other.value];
        if (cells.length === 0) return { kind: 'look-alike', words, alike, rows: [] };
        return {
          kind: 'look-alike',
          words,
          alike,
          rows: cells.map(({ row }) => row),
          cure: { words: `Write it “${right!.value}”`, steps: writingAll(cells.map((cell) => ({ ...cell, text: right!.value }))) },
        };
      }),
    );
  });
};

/** Nearly every cell is plain: one blank between words, none at the ends. Only the others are cleaned and compared. */
const plainCell = /^[!-~]+(?: [!-~]+)*$/u;

const outerBlanks: Symptom = ({ range, taking, sourceState }) => {
  const found: { row: SourceRow; field: string; text: string }[] = [];
  for (const { registerId, fields } of range.stretches) {
    const register = sourceState.registers.get(registerId);
    const extent = taking.extents.find((known) => known.registerId === registerId);
    if (!register || !extent) continue;
    for (let ordinal = extent.first; ordinal < extent.beyond; ordinal++) {
      const { id, cells } = register.entries[ordinal]!;
      for (const field of fields) {
        const typed = cells[field];
        if (typed === undefined || plainCell.test(typed)) continue;
        const text = clean(typed);
        if (text !== '' && text !== typed) found.push({ row: { register: registerId, entry: id, ordinal }, field, text });
      }
    }
  }
  if (found.length === 0) return [];
  const words = `${count(found.length, 'cell has', 'cells have')} blanks that nobody sees, at an end or doubled. They are read without them.`;
  return [
    { kind: 'outer blanks', words, rows: found.map(({ row }) => row), cure: { words: 'Take the blanks out', steps: writingAll(found) } },
  ];
};

const guessed: readonly FieldKind[] = ['number', 'date'];
/** From this share on the others are the odd ones. */
const mostly = 0.8;
/** So many values are looked at before all are, and so far a sample may be off. */
const sampled = 200;
const tolerance = 0.2;

const mixedKinds: Symptom = (patient) => {
  const leaves = patient.taking.values.filter(({ rows }) => rows.length > 0);
  if (leaves.length < 5) return [];
  for (const kind of guessed) {
    // Values of a list of texts are read as people write them. Where hardly any of a sample is of the kind, no others are looked at.
    const isOne = ({ value }: RangeValue) => isOfKind(kind, value) || parse(kind, value, patient.sourceState.locale).ok;
    const sample = leaves.filter((_, at) => at % Math.ceil(leaves.length / sampled) === 0);
    if (sample.filter(isOne).length < sample.length * (mostly - tolerance)) continue;
    const odd = leaves.filter((leaf) => !isOne(leaf));
    if (odd.length === 0 || odd.length > leaves.length * (1 - mostly)) continue;
    const rows = odd.flatMap((value) => value.rows);
    const [first, ...more] = rows;
    const cure = rows.every((row) => isList(registerAt(patient, row)) && row.register === first!.register)
      ? { words: odd.length === 1 ? 'Take it out' : 'Take them out', steps: [deleting(first!, ...more)] }
      : undefined;
    return [
      {
        kind: 'mixed kinds',
        words: `Nearly all values are ${kind === 'number' ? 'numbers' : 'dates'}; ${odd
          .slice(0, 3)
          .map(({ value }) => `“${value}”`)
          .join(', ')} ${odd.length === 1 ? 'is' : 'are'} not.`,
        rows,
        ...(cure && { cure }),
      },
    ];
  }
  return [];
};

const wrongKind: Symptom = (patient) =>
  leftOutAs(patient, 'wrong kind').map((left) => {
    const field = fieldOf(patient, left, 0);
    return {
      kind: 'wrong kind',
      words: `“${left.text}” does not fit the kind of its field and is not offered.`,
      rows: [left],
      cure: { words: 'Make the cell blank', steps: [writing(left, field, '')] },
    };
  });

const empty: Symptom = ({ range, taking }) => {
  if (taking.values.some(({ rows }) => rows.length > 0)) return [];
  if (endingOf(range) !== 'fixed') return [{ kind: 'empty', words: `${range.name} is empty. Type a value where it starts.`, rows: [] }];
  const grown = { ...range, stretches: range.stretches.map((stretch) => ({ ...stretch, end: { ends: 'last' as const } })) };
  return [
    {
      kind: 'empty',
      words: `${range.name} is empty: everything it took is gone.`,
      rows: [],
      cure: { words: 'Let it grow to the last filled cell', steps: [{ what: 'range changed', range: grown }] },
    },
  ];
};

/** Headings that should equal values kept elsewhere: of the range that holds most of them exactly. */
const headingsAlmost: Symptom = ({ range, sourceState, reader }) => {
  if (range.shape !== 'headings') return [];
  const headings = range.stretches.map(({ registerId }) => ({
    registerId,
    heading: clean(sourceState.registers.get(registerId)?.heading ?? ''),
  }));
  const others = sourceState.ranges
    .filter(({ id }) => id !== range.id)
    .map((other) => new Set(reader.taking(other.id).values.map(({ value }) => value)));
  const hits = (values: ReadonlySet<string>) => headings.filter(({ heading }) => values.has(heading)).length;
  const best = others.reduce<ReadonlySet<string> | undefined>(
    (found, values) => (hits(values) > (found ? hits(found) : 0) ? values : found),
    undefined,
  );
  if (!best || hits(best) * 2 < headings.length) return [];
  return headings
    .filter(({ heading }) => !best.has(heading))
    .flatMap(({ registerId, heading }): RangeAilment[] => {
      const [group] = lookAlikes([...[...best].map((value) => ({ value, entries: 1 })), { value: heading, entries: 0 }]).filter((alike) =>
        alike.some(({ value }) => value === heading),
      );
      const meantBy = group?.find(({ value }) => value !== heading)?.value;
      if (meantBy === undefined) return [];
      return [
        {
          kind: 'heading almost matches',
          words: `The heading “${heading}” almost matches “${meantBy}”.`,
          rows: [],
          cure: { words: `Write it “${meantBy}”`, steps: [{ what: 'heading changed', registerId, heading: meantBy }] },
        },
      ];
    });
};

/** Whether an item of some catalog names the range, as the parent of what the range takes. */
const isNamed = ({ range, sourceState, reader }: Patient): boolean =>
  namingCatalogs(sourceState.definitions.values()).some((id) => reader.items(id).some((item) => rangeOf(item, reader)?.id === range.id));

const unused: Symptom = (patient) => {
  const { range, sourceState } = patient;
  if ([...sourceState.definitions.values()].some((definition) => rangesOf(definition).includes(range.id)) || isNamed(patient)) return [];
  return [
    {
      kind: 'unused',
      words: `Nothing uses the name ${range.name}: it feeds no catalog.`,
      rows: [],
      cure: { words: 'Delete the range', steps: [{ what: 'range deleted', range }] },
    },
  ];
};

const symptoms: readonly Symptom[] = [pastTheEnd, afterTheGap, empty, wrongKind, repeats, outerBlanks, headingsAlmost, mixedKinds, unused];

const listed = (values: readonly string[]) =>
  values
    .slice(0, 3)
    .map((value) => `“${value}”`)
    .join(', ') + (values.length > 3 ? ` and ${values.length - 3} more` : '');

/** What a proposal does to what a range takes, in one sentence. */
export function effectOn(
  rangeId: string,
  sourceState: SourceState,
  proposal: Proposal,
  reader: SourceStateReader = readSourceState(sourceState),
): string {
  const after = readSourceState(afterProposal(sourceState, proposal));
  if (!after.range(rangeId)) return 'The name goes; its cells stay as they are.';
  const was = new Set(reader.taking(rangeId).values.map(({ value }) => value));
  const is = new Set(after.taking(rangeId).values.map(({ value }) => value));
  const come = [...is].filter((value) => !was.has(value));
  const go = [...was].filter((value) => !is.has(value));
  const parts = [
    come.length > 0 && `${listed(come)} ${come.length === 1 ? 'comes' : 'come'} in`,
    go.length > 0 && `${listed(go)} ${go.length === 1 ? 'goes' : 'go'} out`,
  ].filter(Boolean);
  return parts.length === 0 ? 'What is offered stays the same.' : `${parts.join('; ')}.`;
}

/**
 * Examines one range. Look-alikes cost more than the rest and are looked for when it is said which values are two things.
 * Whoever examines several ranges of one state gives the reader of that state, so that each is taken once.
 */
export function examine(
  rangeId: string,
  sourceState: SourceState,
  options: { readonly apart?: TellsApart; readonly effects?: boolean; readonly reader?: SourceStateReader } = {},
): RangeFinding[] {
  const reader = options.reader ?? readSourceState(sourceState);
  const range = reader.range(rangeId);
  if (!range) return [];
  const patient: Patient = { range, taking: reader.taking(rangeId), sourceState, reader };
  const alike = options.apart ? lookAlike(patient, options.apart) : [];
  const found = [...symptoms.flatMap((symptom) => symptom(patient)), ...alike];
  return found.map(({ cure, ...finding }) => {
    const proposal = cure && proposalOf(...cure.steps);
    return {
      ...finding,
      rangeId,
      cure: proposal
        ? { words: cure.words, proposal, effect: options.effects ? effectOn(rangeId, sourceState, proposal, reader) : '' }
        : null,
    };
  });
}
