// What a range takes from its registers, and what it leaves out and why.
import { clean } from '../text/index.js';
import { isOfKind } from '../values/index.js';
import type { FieldId, RegisterId, RegisterState } from '../registers/index.js';
import { endKind } from './ends.js';
import { extentOf } from './extent.js';
import {
  endingOf,
  stretchesOver,
  type Extent,
  type LeftOut,
  type LeftOutWhy,
  type RangeTaking,
  type RangeValue,
  type SourceRange,
  type SourceRow,
  type Stretch,
} from './models.js';

/** A value under way: its children are kept apart, so that every parent comes before them. */
interface Node {
  readonly value: string;
  readonly path: readonly string[];
  readonly rows: SourceRow[];
  /** Set once it has children: these, and the path that they share. */
  below: { readonly children: Map<string, Node>; readonly path: readonly string[] } | undefined;
}
const nodeOf = (value: string, path: readonly string[]): Node => ({ value, path, rows: [], below: undefined });

function flatten(nodes: Iterable<Node>, into: RangeValue[]): RangeValue[] {
  for (const { value, path, rows, below } of nodes) {
    into.push({ value, path, rows });
    if (below) flatten(below.children.values(), into);
  }
  return into;
}

/** The texts of a row by level; a blank one means the same as above as long as all further out is the same as above. */
function inherited(texts: readonly string[], above: readonly string[]): string[] {
  const last = texts.findLastIndex((text) => text !== '');
  const read = [...texts];
  for (let level = 0; level < last; level++) {
    if (texts[level] === '') read[level] = above[level] ?? '';
    else if (texts[level] !== above[level]) return read;
  }
  return read;
}

/** The node at a path, made where it is not there yet. Paths are shared by siblings. */
function nodeAt(roots: Map<string, Node>, basePath: readonly string[], texts: readonly string[], depth: number): Node {
  let level = roots;
  let path = basePath;
  for (let at = 0; ; at++) {
    const value = texts[at]!;
    let node = level.get(value);
    if (!node) {
      node = nodeOf(value, path);
      level.set(value, node);
    }
    if (at === depth - 1) return node;
    node.below ??= { children: new Map(), path: [...path, value] };
    level = node.below.children;
    path = node.below.path;
  }
}

type Leave = (ordinal: number, why: LeftOutWhy, text: string) => void;

/** One field: a row is its text, and nothing is inherited. Long lists are of this kind, and all they cost is taken here. */
function takeColumn(
  field: FieldId,
  register: RegisterState,
  { first, beyond }: Extent,
  level: Map<string, Node>,
  path: readonly string[],
  leave: Leave,
): void {
  const kind = register.fields.find(({ key }) => key === field)?.kind ?? 'text';
  for (let ordinal = first; ordinal < beyond; ordinal++) {
    const { id, cells } = register.entries[ordinal]!;
    const text = cells[field] === undefined ? '' : clean(cells[field]);
    if (text === '') leave(ordinal, 'blank', '');
    else if (kind !== 'text' && !isOfKind(kind, text)) leave(ordinal, 'wrong kind', text);
    else {
      let node = level.get(text);
      if (node) leave(ordinal, 'repeat', text);
      else level.set(text, (node = nodeOf(text, path)));
      node.rows.push({ register: register.id, entry: id, ordinal });
    }
  }
}

/** Every row costs the same few steps, whatever the size of the register: this is the hot path of compiling a catalog. */
function takeStretch(
  stretch: Stretch,
  register: RegisterState,
  extent: Extent,
  inherits: boolean,
  roots: Map<string, Node>,
  basePath: readonly string[],
  leave: Leave,
): void {
  const { fields } = stretch;
  if (fields.length === 1) return takeColumn(fields[0]!, register, extent, roots, basePath, leave);
  const kinds = fields.map((key) => register.fields.find((field) => field.key === key)?.kind ?? 'text');
  const textsOnly = kinds.every((kind) => kind === 'text');
  let above: readonly string[] = [];
  for (let ordinal = extent.first; ordinal < extent.beyond; ordinal++) {
    const { id, cells } = register.entries[ordinal]!;
    const typed = fields.map((field) => (cells[field] === undefined ? '' : clean(cells[field])));
    const texts = inherits ? inherited(typed, above) : typed;
    let depth = texts.length;
    while (depth > 0 && texts[depth - 1] === '') depth--;
    // A row without anything says nothing of the rows below it.
    if (depth > 0) above = texts;
    const gap = texts.indexOf('');
    if (depth === 0) leave(ordinal, 'blank', '');
    else if (gap >= 0 && gap < depth) leave(ordinal, 'blank', texts.slice(0, depth).join(' › '));
    else {
      const wrong = textsOnly ? -1 : texts.findIndex((text, level) => text !== '' && !isOfKind(kinds[level]!, text));
      if (wrong >= 0) leave(ordinal, 'wrong kind', texts[wrong]!);
      else {
        const node = nodeAt(roots, basePath, texts, depth);
        if (node.rows.length > 0) leave(ordinal, 'repeat', node.value);
        node.rows.push({ register: register.id, entry: id, ordinal });
      }
    }
  }
}

const nothing: RegisterState = { id: '', heading: '', fields: [], entries: [] };

/**
 * Reads a range. `registers` hold what its stretches lie over; `others` are all ranges that may lie over the same
 * registers (the range itself may be among them). Values are cleaned; blanks are skipped; a repeat belongs to the value's
 * first place; a parent stands once however often it occurs.
 */
export function takeRange(
  range: SourceRange,
  registers: ReadonlyMap<RegisterId, RegisterState>,
  others: readonly SourceRange[],
): RangeTaking {
  const ends = endingOf(range);
  const leftOut: LeftOut[] = [];
  const extents: Extent[] = [];
  const roots = new Map<string, Node>();
  for (const stretch of range.stretches) {
    const register = registers.get(stretch.registerId) ?? nothing;
    const extent = extentOf(stretch, register.entries, stretchesOver(others, stretch.registerId));
    const leave = (ordinal: number, why: LeftOutWhy, text: string) =>
      leftOut.push({ register: register.id, entry: register.entries[ordinal]!.id, ordinal, why, text });
    extents.push(extent);
    if (range.shape === 'headings') {
      const heading = clean(register.heading);
      const parent = roots.get(heading) ?? nodeOf(heading, []);
      roots.set(heading, parent);
      parent.below ??= { children: new Map(), path: [heading] };
      takeStretch(stretch, register, extent, false, parent.below.children, parent.below.path, leave);
    } else takeStretch(stretch, register, extent, range.inherits, roots, [], leave);
    for (let ordinal = extent.beyond; ordinal < extent.bound; ordinal++) {
      const text = stretch.fields
        .map((field) => clean(register.entries[ordinal]!.cells[field] ?? ''))
        .filter(Boolean)
        .join(' › ');
      if (text !== '') leave(ordinal, ends === 'gap' ? 'after the gap' : 'past the end', text);
    }
  }
  return { values: flatten(roots.values(), []), leftOut, extents, grows: endKind(ends).grows };
}
