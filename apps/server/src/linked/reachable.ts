// What a house may reach outside: for linked sources one root folder, some databases, some services, and for webhooks some addresses, each
// given to it by name where the server is started. Nobody can reach anything else through Dellum, and no house what was given to another
// one.
import { realpath, stat } from 'node:fs/promises';
import { resolve, sep } from 'node:path';
import { SourceFault } from './adapters/adapter.js';

/** What one house may reach. */
export interface Grant {
  /** The root folder of files; undefined when none is given. */
  readonly root: string | undefined;
  /** Connection strings by name. */
  readonly databases: ReadonlyMap<string, string>;
  /** Base addresses by name. */
  readonly services: ReadonlyMap<string, string>;
  /** The addresses that webhooks may tell, by name. */
  readonly receivers: ReadonlyMap<string, string>;
}

/** By the key of a house, what it may reach; undefined where nothing is given to it. */
export type ReachableConfig = (houseKey: string) => Grant | undefined;

const nothing: Grant = { root: undefined, databases: new Map(), services: new Map(), receivers: new Map() };

/** Reads lines `HOUSE: WHAT`. A line that names no house gives nothing to anybody, and is said by its number: it may hold a password. */
function givenIn(
  env: NodeJS.ProcessEnv,
  name: string,
  say: (words: string) => void,
): readonly { readonly house: string; readonly what: string }[] {
  return (env[name] ?? '')
    .split('\n')
    .map((line) => line.trim())
    .filter((line) => line !== '')
    .flatMap((line, at) => {
      const [, house, what] = /^([a-z0-9-]+):\s*(\S.*)$/u.exec(line) ?? [];
      if (house !== undefined && what !== undefined) return { house, what };
      say(`Line ${at + 1} of ${name} does not say to which house it is given, so nobody reaches it. Write it like “my-house: …”.`);
      return [];
    });
}

/** Of the lines of a house, those that read `NAME=ADDRESS`. */
const named = (lines: readonly { readonly house: string; readonly what: string }[], house: string): ReadonlyMap<string, string> =>
  new Map(
    lines
      .filter((line) => line.house === house && line.what.includes('='))
      .map(({ what }) => [what.slice(0, what.indexOf('=')).trim(), what.slice(what.indexOf('=') + 1).trim()]),
  );

/** `say` hears of lines that are of no use. */
export function reachableFrom(env: NodeJS.ProcessEnv, say: (words: string) => void = () => undefined): ReachableConfig {
  const [files, databases, services, receivers] = [
    givenIn(env, 'DELLUM_FILES', say),
    givenIn(env, 'DELLUM_DATABASES', say),
    givenIn(env, 'DELLUM_SERVICES', say),
    givenIn(env, 'DELLUM_WEBHOOKS', say),
  ] as const;
  return (house) => ({
    root: files.find((line) => line.house === house)?.what,
    databases: named(databases, house),
    services: named(services, house),
    receivers: named(receivers, house),
  });
}

/** What all houses may reach; set once, where the server is put together. */
export class Reachable {
  constructor(private readonly config: ReachableConfig) {}

  of(houseKey: string): Granted {
    return new Granted(this.config(houseKey) ?? nothing);
  }
}

/** What a house may reach, and the files of it. */
export class Granted implements Grant {
  readonly root: string | undefined;
  readonly databases: ReadonlyMap<string, string>;
  readonly services: ReadonlyMap<string, string>;
  readonly receivers: ReadonlyMap<string, string>;

  constructor(grant: Grant) {
    this.root = grant.root;
    this.databases = grant.databases;
    this.services = grant.services;
    this.receivers = grant.receivers;
  }

  /** The real place of a path under the root. Throws where it is not there, or where a link leads out of the root. */
  async under(path: string): Promise<{ real: string; isFolder: boolean; size: number }> {
    if (this.root === undefined)
      throw new SourceFault('No folder for linked files is given to this house. Ask whoever runs the server to set DELLUM_FILES.');
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
