// The names in a folder that fit a pattern, with or without their ending.
import { readdir } from 'node:fs/promises';
import { parse } from 'node:path';
import { fitsPattern } from './filePattern.js';
import { distinctRows, needed, SourceFault, type LinkedAdapter } from './adapter.js';

export const folder: LinkedAdapter<'folder'> = {
  kind: 'folder',
  async read({ path, pattern, endings = true }, { reachable }) {
    const wanted = needed(path, 'Choose the folder.');
    const { real, isFolder } = await reachable.under(wanted);
    if (!isFolder) throw new SourceFault(`“${wanted}” is a file. Choose a folder.`);
    const files = (await readdir(real, { withFileTypes: true })).filter(
      (entry) => entry.isFile() && !entry.name.startsWith('.') && (!pattern || fitsPattern(pattern, entry.name)),
    );
    const names = files.map(({ name }) => (endings ? name : parse(name).name));
    return { rows: distinctRows(names.sort((a, b) => a.localeCompare(b, 'en', { numeric: true })).map((value) => ({ value }))) };
  },
};
