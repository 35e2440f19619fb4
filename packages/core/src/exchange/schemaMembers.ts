// What stands in a JSON Schema (draft 2020-12), keyword by keyword: where it points, and which values it names.
import { clean, longestValue, matchKey, storable } from '../text/index.js';

export type Members = Readonly<Record<string, unknown>>;
export const isObject = (held: unknown): held is Members => typeof held === 'object' && held !== null && !Array.isArray(held);
export const objectsIn = (held: unknown): readonly Members[] => (Array.isArray(held) ? held.filter(isObject) : []);
export const textIn = (held: unknown): string | undefined => (typeof held === 'string' && held.trim() !== '' ? held : undefined);

/** It points on so often at most. */
const mostSteps = 20;

/** Where a schema points outside of itself; undefined where it does not. */
export function elsewhereIn(held: unknown): string | undefined {
  const pointer = isObject(held) ? textIn(held['$ref']) : undefined;
  return pointer?.startsWith('#') === false ? pointer : undefined;
}

/** A schema with what it points at in the root, and what it is made of: members of its own go before. */
export function deref(held: Members, root: Members, steps = 0): Members {
  const { $ref: pointer, allOf, anyOf, ...own } = held;
  if (steps > mostSteps) return own;
  const target = typeof pointer === 'string' && pointer.startsWith('#') ? [targetOf(pointer, root, steps + 1)] : [];
  // What may be null, or else one thing, is that thing, and may be blank.
  const choices = objectsIn(anyOf);
  const one = choices.filter(({ type }) => type !== 'null');
  const isOneOrNull = one.length === 1 && choices.length === 2;
  const made = [...objectsIn(allOf), ...(isOneOrNull ? one : [])].map((part) => deref(part, root, steps + 1));
  const merged: Members = Object.assign({}, ...target, ...made, own) as Members;
  if (isOneOrNull) return { ...merged, type: [merged['type'], 'null'].flat() };
  return anyOf === undefined ? merged : { ...merged, anyOf };
}

const targets = new WeakMap<Members, Map<string, Members>>();

/** Looked up once, however often it is pointed at: what points twice at what points twice would never end. */
function targetOf(pointer: string, root: Members, steps: number): Members {
  const known = targets.get(root) ?? new Map<string, Members>();
  targets.set(root, known);
  const before = known.get(pointer);
  if (before) return before;
  // What points at itself says nothing more by that.
  known.set(pointer, {});
  const held = pointedAt(pointer, root);
  const found = held ? deref(held, root, steps) : {};
  known.set(pointer, found);
  return found;
}

/** By a JSON Pointer (RFC 6901) as the fragment of an address. */
function pointedAt(pointer: string, root: Members): Members | undefined {
  let held: unknown = root;
  for (const step of decoded(pointer.slice(1)).split('/').slice(1)) {
    const name = step.replaceAll('~1', '/').replaceAll('~0', '~');
    held = (isObject(held) || Array.isArray(held)) && Object.hasOwn(held, name) ? (held as Members)[name] : undefined;
  }
  return isObject(held) ? held : undefined;
}

function decoded(text: string): string {
  try {
    return decodeURIComponent(text);
  } catch {
    return text;
  }
}

/** Values that are named one by one. */
export interface Offered {
  readonly title: string | undefined;
  readonly values: readonly OfferedValue[];
  /** As they stand there. */
  readonly plain: readonly unknown[];
}
export interface OfferedValue {
  readonly value: string;
  /** What is shown for it, where that is said. */
  readonly label?: string;
}

/** Undefined where none are named. */
export function offeredIn(said: Members): Offered | undefined {
  const named = namedIn(said).filter(({ plain }) => ['string', 'number', 'boolean'].includes(typeof plain));
  if (named.length === 0) return undefined;
  const values = new Map<string, OfferedValue>();
  for (const { plain, label } of named) {
    const value = valueOf(plain);
    const shown = clean(storable(label ?? ''));
    if (value !== '' && !values.has(matchKey(value)))
      values.set(matchKey(value), { value, ...(shown !== '' && shown !== value && shown.length <= longestValue && { label: shown }) });
  }
  return { title: textIn(said['title']), values: [...values.values()], plain: named.map(({ plain }) => plain) };
}

/** What a value is called here; '' for one that can be none. */
function valueOf(plain: unknown): string {
  const text = typeof plain === 'string' || typeof plain === 'number' ? clean(storable(String(plain))) : '';
  return text.length <= longestValue ? text : '';
}

function namedIn(said: Members): { readonly plain: unknown; readonly label?: string | undefined }[] {
  if (Array.isArray(said['enum'])) return said['enum'].map((plain: unknown) => ({ plain }));
  if (said['const'] !== undefined) return [{ plain: said['const'], label: textIn(said['title']) }];
  const choices = objectsIn(said['oneOf'] ?? said['anyOf']);
  // Each choice a value with what it is called, which is how titles are given to values.
  if (choices.length === 0 || choices.some((choice) => choice['const'] === undefined && choice['type'] !== 'null')) return [];
  return choices.map((choice) => ({ plain: choice['const'], label: textIn(choice['title']) }));
}
