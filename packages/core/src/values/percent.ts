// Percent: typed and shown as 12.5 %, stored as the exact 0.125.
import { canonical, readDecimal, writeDecimal } from './number.js';
import { read, unread, type ValueKind } from './models.js';
import { Exact } from './exact.js';

export const percentKind: ValueKind = {
  kind: 'percent',
  label: 'a percentage',
  parse(text, locale) {
    const number = readDecimal(text.replace(/[%\uFF05\uFE6A]\s*$/u, ''), locale);
    if (!number) return unread(`“${text}” is not a percentage. Write it like ${writeDecimal('12.5', locale)} %.`);
    return read(canonical(new Exact(number).div(100)));
  },
  format(value, locale) {
    return `${writeDecimal(canonical(new Exact(value).times(100)), locale)} %`;
  },
};
