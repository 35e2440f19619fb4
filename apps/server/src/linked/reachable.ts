// What linked sources may reach: one root folder, some databases, some services. All of it is configured where the server
// is started; nobody can reach anything else through Dellum.
import { realpath, stat } from 'node:fs/promises';
import { resolve, sep } from 'node:path';
import { SourceFault } from './adapters/adapter.js';

export interface ReachableConfig {
  /** The root folder of files; undefined when none is configured. */
  readonly root: string | undefined;
  /** Connection strings by name. */
  readonly databases: ReadonlyMap<string, string>;
  /** Base addresses by name. */
  readonly services: ReadonlyMap<string, string>;
}

/** Reads `name=address` lines, as the start command writes them. */
function named(lines: string | undefined): ReadonlyMap<string, string> {
  const pairs = (lines ?? '').split('\n').filter((line) => line.includes('='));
  return new Map(pairs.map((line) => [line.slice(0, line.indexOf('=')).trim(), line.slice(line.indexOf('=') + 1).trim()]));
}

export const reachableFrom = (env: NodeJS.ProcessEnv): ReachableConfig => ({
  root: env['DELLUM_FILES'],
  databases: named(env['DELLUM_DATABASES']),
  services: named(env['DELLUM_SERVICES']),
});

/** Provided to whoever needs it; set once, where the server is put together. */
export class Reachable implements ReachableConfig {
  readonly root: string | undefined;
  readonly databases: ReadonlyMap<string, string>;
  readonly services: ReadonlyMap<string, string>;

  constructor(config: ReachableConfig) {
    this.root = config.root;
    this.databases = config.databases;
    this.services = config.services;
  }

  /** The real place of a path under the root. Throws where it is not there, or where a link leads out of the root. */
  async under(path: string): Promise<{ real: string; isFolder: boolean; size: number }> {
    if (this.root === undefined)
      throw new SourceFault('No folder for linked files is configured on the server. Ask whoever runs it to set DELLUM_FILES.');
    const root = await realpath(this.root).catch(() => {
      throw new SourceFault('The folder for linked files is not there. Ask whoever runs the server.');
    });
    const wanted = resolve(root, `.${sep}${path}`);
    const real = await realpath(wanted).catch(() => {
      throw new SourceFault(`“${path}” is not there. It may have been moved or renamed.`);
    });
    if (real !== root && !real.startsWith(root + sep))
      throw new SourceFault(`“${path}” leads out of the folder for linked files and is not read.`);
    const found = await stat(real);
    return { real, isFolder: found.isDirectory(), size: found.size };
  }
}
