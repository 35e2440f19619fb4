// Free text: kept as typed, leading zeros included.
import { read, type ValueKind } from './models.js';

export const textKind: ValueKind = { kind: 'text', label: 'text', parse: (text) => read(text), format: (value) => value };
