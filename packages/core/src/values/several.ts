// Several values: an ordered set. Stored with U+001F between them, which no text can hold; typed and shown as a list.
import { read, type Locale, type ValueKind } from './models.js';
import { readTypedList, writeTypedList } from './typedList.js';

/** What stands between them. */
export const joinedMark = '\u001F';

/** The values of a stored cell: several, or the one of a field of another kind; none for a blank one. */
export const valuesIn = (stored: string): string[] => (stored === '' ? [] : stored.split(joinedMark));
/** What is stored for some values; each once, in their order. */
export const joinedValues = (values: readonly string[]): string => [...new Set(values)].join(joinedMark);
/** Some values as one line that reads back as the same values. */
export const writeSeveral = (values: readonly string[]): string => writeTypedList(values, ', ');

/** Whether a text typed into a field of several values names none of them. */
export const namesNone = (text: string, locale: Locale): boolean => readTypedList(text, locale).values.length === 0;

export const severalKind: ValueKind = {
  kind: 'several values',
  label: 'several values',
  parse: (text, locale) => read(joinedValues(readTypedList(text, locale).values)),
  format: (value, locale) => writeTypedList(valuesIn(value), locale.decimalMark === ',' ? '; ' : ', '),
};
