// Yes or no, stored as `yes` or `no`.
import { matchKey } from '../text/index.js';
import { read, unread, type ValueKind } from './models.js';

const words = new Map([
  ['yes', 'yes'],
  ['y', 'yes'],
  ['true', 'yes'],
  ['1', 'yes'],
  ['no', 'no'],
  ['n', 'no'],
  ['false', 'no'],
  ['0', 'no'],
]);

export const yesNoKind: ValueKind = {
  kind: 'yes/no',
  label: 'yes or no',
  parse(text) {
    const value = words.get(matchKey(text));
    return value ? read(value) : unread(`“${text}” is neither yes nor no.`);
  },
  format: (value) => value,
};
