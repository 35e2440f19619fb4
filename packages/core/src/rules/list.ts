// Judging against a list of items: found by value, label, other name or another way of writing one of them.
import { itemWithValue, lookUp, lookUpName, nearest, validityOn, type Catalog, type Item, type Lookup } from '../catalogs/index.js';
import { clean } from '../text/index.js';
import { format, joinedValues, parse, valuesIn, type FieldKind, type Locale } from '../values/index.js';
import { partsOf, wordsOf, type Given } from './given.js';
import { meansHeld } from './held.js';
import type { Judgment, JudgeContext, Picking } from './models.js';

/** How any list is picked from at first. */
export const plainPicking: Picking = { list: true, search: 'anywhere', lines: 8, most: null };

/** How many values of a list a field takes: "one value", "several values", "up to 3 values". */
export const howMany = (most: number | null, several: boolean | undefined): string =>
  !several ? 'one value' : most === null ? 'several values' : `up to ${most} ${most === 1 ? 'value' : 'values'}`;

const listed = (words: readonly string[], last: 'and' | 'or'): string =>
  words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} ${last} ${words.at(-1)!}`;
export const orList = (words: readonly string[]): string => listed(words, 'or');
export const andList = (words: readonly string[]): string => listed(words, 'and');

const taken = (item: Item, { typed }: Given, kind: FieldKind): Judgment =>
  typed === undefined || item.value === typed || kind !== 'text'
    ? { right: true, value: item.value }
    : { right: true, value: item.value, corrected: `“${typed}” was taken as ${item.label}.` };

function ambiguous(typed: string, { items }: Extract<Lookup, { found: 'ambiguous' }>): Judgment {
  const values = items.slice(0, 3).map(({ value }) => value);
  return { right: false, code: 'ambiguous', message: `“${typed}” can mean ${orList(values)}. Type one of them in full.` };
}

/** Why an item cannot be chosen on a day, or undefined. */
export function closedOn(
  item: Item,
  listTitle: string,
  day: string | undefined,
  context: JudgeContext,
): Extract<Judgment, { right: false }> | undefined {
  if (item.state === 'retired')
    return { right: false, code: 'retired', message: `${item.label} is retired in ${listTitle} and cannot be chosen for new entries.` };
  return outOfDay(item, day, context);
}

/** Why an item is not offered on a day, or undefined; retired ones are looked at by their days all the same. */
export function outOfDay(item: Item, day: string | undefined, context: JudgeContext): Extract<Judgment, { right: false }> | undefined {
  const validity = validityOn(item, day);
  if (validity === 'not yet valid')
    return {
      right: false,
      code: validity,
      message: `${item.label} is offered from ${format('date', item.validFrom!, context.locale)} on.`,
    };
  if (validity === 'no longer valid')
    return {
      right: false,
      code: validity,
      message: `${item.label} was offered until ${format('date', item.validUntil!, context.locale)}.`,
    };
  return undefined;
}

/** A value of a list, alone, in the way of the house. */
export const textOfItem = ({ value }: Pick<Item, 'value'>, kind: FieldKind, locale: Locale): string =>
  kind === 'several values' ? value : format(kind, value, locale);

/** The item whose value is what the text means by the kind of the field: 7,50 % is the 0.075 of the list. */
function byKind(list: Catalog, text: string, kind: FieldKind, context: Pick<JudgeContext, 'locale' | 'today'>): Lookup | undefined {
  const parsed = parse(kind, text, context.locale, context.today);
  const item = parsed.ok ? itemWithValue(list, parsed.value) : undefined;
  return item && { found: 'item', item, by: 'value' };
}

/**
 * The item that a typed text means in a field of this kind. It is read by the kind: 1 in a percentage is never the stored
 * 1, which is 100 %.
 */
export function meantIn(list: Catalog, text: string, kind: FieldKind, context: Pick<JudgeContext, 'locale' | 'today'>): Lookup {
  if (kind === 'text' || kind === 'several values') return lookUp(list, text);
  const byReading = byKind(list, text, kind, context);
  if (byReading) return byReading;
  const byName = lookUpName(list, text);
  return byName.found === 'nothing' ? asShown(list, text, kind, context.locale) : byName;
}

const shownIn = new WeakMap<Catalog, Map<string, ReadonlyMap<string, Item>>>();

/**
 * The item that is shown so, though nobody could type it as a value of the kind: a price of a list with more decimals than the currency has.
 * Whoever chooses it means it.
 */
function asShown(list: Catalog, text: string, kind: FieldKind, locale: Locale): Lookup {
  const way = `${kind} ${JSON.stringify(locale)}`;
  const ways = shownIn.get(list) ?? new Map<string, ReadonlyMap<string, Item>>();
  shownIn.set(list, ways);
  const shown = ways.get(way) ?? new Map(list.items.map((item) => [textOfItem(item, kind, locale), item]));
  ways.set(way, shown);
  const item = shown.get(clean(text));
  return item ? { found: 'item', item, by: 'value' } : { found: 'nothing' };
}

/**
 * The text that means a value when it is typed into a field of this kind, or picked: its label where that means the value alone, else the
 * value itself. Of several values: one of them.
 */
export function typedAs(list: Catalog, value: string, kind: FieldKind, context: Pick<JudgeContext, 'locale' | 'today' | 'held'>): string {
  const own = textOfItem({ value }, kind, context.locale);
  const label = itemWithValue(list, value)?.label ?? value;
  // What a label like “tomorrow” is read as is known only on a day.
  if (label === value || (kind === 'date' && context.today === undefined)) return own;
  // Typed over what reads the same it would be taken as that, whatever it was chosen for: a value outside is mended by one that is called so.
  const others = valuesIn(context.held ?? '').filter((held) => held !== value);
  if (others.some((held) => meansHeld({ kind }, { typed: label }, held, context))) return own;
  const meant = meantIn(list, label, kind, context);
  return meant.found === 'item' && meant.item.value === value ? label : own;
}

/** The item that was chosen from a list. */
function chosenIn(list: Catalog, value: string): Lookup {
  const item = itemWithValue(list, value);
  return item ? { found: 'item', item, by: 'value' } : { found: 'nothing' };
}

/** Finds the item that is meant in a field of this kind. `closed` says why an item that was found cannot be chosen. */
export function findIn(
  list: Catalog,
  given: Given,
  kind: FieldKind,
  context: JudgeContext,
  closed: (item: Item) => Extract<Judgment, { right: false }> | undefined,
): Judgment {
  const text = wordsOf(kind, given, context.locale);
  const found = given.typed === undefined ? chosenIn(list, given.chosen) : meantIn(list, given.typed, kind, context);
  if (found.found === 'ambiguous') return ambiguous(text, found);
  if (found.found === 'nothing')
    return {
      right: false,
      code: 'outside',
      message: `“${text}” is not in ${list.title}.`,
      suggestions: context.suggest ? nearest(list, text).map((value) => typedAs(list, value, kind, context)) : [],
    };
  return (valuesIn(context.held ?? '').includes(found.item.value) ? undefined : closed(found.item)) ?? taken(found.item, given, kind);
}

/** What is said of more values than a field takes; `most` is null for any number. */
export function tooMany(value: string, most: number | null): Extract<Judgment, { right: false }> | undefined {
  const count = valuesIn(value).length;
  return most !== null && count > most
    ? { right: false, code: 'too many', message: `${count} values are too many; choose ${most} at most.` }
    : undefined;
}

/**
 * Finds the items that several values mean; the first one that is not right is told. What the cell holds already stays as it stands, and is
 * marked as it was. `most`: so many at most, null for any number.
 */
export function findAllIn(
  list: Catalog,
  given: Given,
  most: number | null,
  context: JudgeContext,
  closed: (item: Item) => Extract<Judgment, { right: false }> | undefined,
): Judgment {
  const found: Extract<Judgment, { right: true }>[] = [];
  const held = new Set(valuesIn(context.held ?? ''));
  let marked: Extract<Judgment, { right: false }> | undefined;
  for (const part of partsOf(given, context.locale)) {
    const one = findIn(list, part, 'text', context, closed);
    const value = part.typed ?? part.chosen;
    if (!one.right && !held.has(value)) return one;
    if (!one.right) marked ??= one;
    found.push(one.right ? one : { right: true, value });
  }
  const value = joinedValues(found.map((one) => one.value));
  const many = tooMany(value, most);
  if (many) return many;
  const corrected = found.flatMap((one) => one.corrected ?? []).join(' ');
  return { right: true, value, ...(corrected !== '' && { corrected }), ...(marked && { marked }) };
}
