// Templates for houses that ship with the server: archives without entries, in a folder.
import { readdir, readFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { Template } from '@dellum/contract';
import { countsOf, openHouseArchive, wholeEntries } from './houseArchive.js';

export class Templates {
  private known: Promise<readonly Template[]> | undefined;

  /** Without a folder there are none. */
  constructor(private readonly folder: string | undefined) {}

  all(): Promise<readonly Template[]> {
    return (this.known ??= this.read());
  }

  /** The file of a template, or undefined when there is none of this key. */
  async bytes(key: string): Promise<Buffer | undefined> {
    const known = (await this.all()).some((template) => template.key === key);
    return known ? readFile(join(this.folder!, `${key}.zip`)) : undefined;
  }

  private async read(): Promise<readonly Template[]> {
    if (this.folder === undefined) return [];
    const names = (await readdir(this.folder)).filter((name) => /^[\w-]{1,60}\.zip$/u.test(name)).sort();
    return Promise.all(
      names.map(async (file) => {
        const archive = await openHouseArchive(await readFile(join(this.folder!, file)));
        return { key: file.slice(0, -'.zip'.length), name: archive.name, counts: countsOf(archive.parts, await wholeEntries(archive)) };
      }),
    );
  }
}
