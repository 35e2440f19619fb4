// A text file: one value a line.
import { distinctRows, type LinkedAdapter } from './adapter.js';
import { readTextFile } from './readFile.js';

export const textFile: LinkedAdapter<'text file'> = {
  kind: 'text file',
  async read(settings, context) {
    const text = await readTextFile(settings, context);
    return { rows: distinctRows(text.split(/\r\n|\r|\n/u).map((line) => ({ value: line.trim() }))) };
  },
};
