// What changed in a house since a number, of what a program may know.
import type { ProgramChanges } from '@dellum/contract';
import type { ChangesStore, NumberedChange } from '../changes/changes.store.js';
import type { Reader } from '../database/database.js';
import type { HouseBuild } from '../structure/structure.store.js';
import type { Chosen } from './chosen.js';

const mostRead = 5000;

/** The changes of a house after a number. */
export interface Since {
  readonly since: number;
  readonly newest: number;
  /** In order; undefined where they are too many or too long ago to be told one by one. */
  readonly changes: readonly NumberedChange[] | undefined;
}

export async function changesSince(db: Reader, store: ChangesStore, houseId: string, since: number): Promise<Since> {
  const { newest, oldest } = await store.horizon(db, houseId);
  const all = await store.after(db, houseId, since, mostRead);
  const isGone = since > newest || since < oldest - 1 || all.length === mostRead;
  return { since, newest, changes: isGone ? undefined : all };
}

/** What of it concerns a program, from a number on that is no older than that of the changes. */
export function whatChanged({ newest, changes }: Since, since: number, build: HouseBuild, own: Chosen): ProgramChanges {
  if (!changes) return { now: newest, anew: true, catalogs: [], registers: [] };
  const later = changes.filter(({ seq }) => seq > since);
  const catalogs = new Set(later.flatMap(({ body }) => (body.kind === 'catalog' ? body.catalogId : [])));
  const registers = new Set(later.flatMap(({ body }) => ('registerId' in body && body.kind !== 'requests' ? body.registerId : [])));
  return {
    now: changes.at(-1)?.seq ?? newest,
    anew: false,
    catalogs: own.catalogs.flatMap((id) => {
      const catalog = catalogs.has(id) ? build.catalogs.get(id) : undefined;
      return catalog ? [{ key: catalog.key, version: catalog.version }] : [];
    }),
    registers: own.registers.filter((id) => registers.has(id)),
  };
}

export const isNews = ({ anew, catalogs, registers }: ProgramChanges): boolean => anew || catalogs.length + registers.length > 0;
